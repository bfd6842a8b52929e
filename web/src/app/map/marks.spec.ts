import { allMarks, drawMark, markName, type Mark } from './marks';
import type { Palette } from './palette';

const colours = new Proxy({} as Palette, { get: (_target, name) => String(name) });

/** Writes down what is drawn, without colours: what a grey print can tell apart. */
function drawn(mark: Mark): string {
  const calls: string[] = [];
  const context = new Proxy({} as CanvasRenderingContext2D, {
    get:
      (_target, name) =>
      (...values: unknown[]) =>
        calls.push(`${String(name)} ${values.map((value) => Number(value).toFixed(2)).join(' ')}`),
    set: () => true,
  });
  drawMark(context, mark, colours);
  return calls.join('\n');
}

describe('marks of the map', () => {
  it('differ by shape, not by colour alone', () => {
    const shapes = allMarks().map(drawn);
    expect(new Set(shapes).size).toBe(shapes.length);
  });

  it('have names of their own, which the tiles spell', () => {
    const names = allMarks().map(markName);
    expect(new Set(names).size).toBe(names.length);
    expect(markName({ planted: true, level: 'act', probe: 'moist' })).toBe('tree-act-moist');
    expect(markName({ planted: false, stage: 'day' })).toBe('spot-day');
  });
});
