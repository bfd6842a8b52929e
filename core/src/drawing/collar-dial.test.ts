import type { CirclingRoot } from '../inspect';
import { collarDial, DialFrame } from './collar-dial';
import type { Point, Role } from './shapes';

const root = (
  fromDeg: number,
  toDeg: number,
  diameterMm: number,
  touch: CirclingRoot['touch'] = 'pressing',
): CirclingRoot => ({
  arc: { fromDeg, toDeg },
  diameterMm,
  touch,
});
const side = 400;
const dial = (roots: readonly CirclingRoot[], more: Partial<Parameters<typeof collarDial>[0]> = {}) =>
  collarDial({ roots, anchors: [], units: 'metric', sidePx: side, ...more });
const points = (drawing: ReturnType<typeof collarDial>, role: Role): Point[] =>
  drawing.shapes.flatMap((shape) => (shape.kind !== 'text' && shape.role === role ? shape.points : []));
const texts = (drawing: ReturnType<typeof collarDial>): string[] =>
  drawing.shapes.flatMap((shape) => (shape.kind === 'text' ? [shape.text] : []));
const outOf = ([x, y]: Point): number => Math.hypot(x - side / 2, y - side / 2);

describe('the frame of the dial', () => {
  const frame = new DialFrame(side);
  it.each([0, 1, 45, 90, 179, 180, 271, 359])('finds the bearing %d° it was given', (bearingDeg) => {
    expect(frame.of(frame.at(bearingDeg, 100))).toEqual({ bearingDeg, out: expect.closeTo(0.5, 9) });
  });
  it('has north up and east to the right', () => {
    expect(frame.at(0, 100)).toEqual([200, 100]);
    const [x, y] = frame.at(90, 100);
    expect([x, y]).toEqual([expect.closeTo(300, 9), expect.closeTo(200, 9)]);
  });
});

describe('a dial that is turned', () => {
  const turned = new DialFrame(side, 120);
  it.each([0, 45, 119, 120, 240, 359])('finds the bearing %d° it was given', (bearingDeg) => {
    expect(turned.of(turned.at(bearingDeg, 100))).toEqual({ bearingDeg, out: expect.closeTo(0.5, 9) });
  });
  it('has what is up at the top, and keeps every bearing as it is', () => {
    expect(turned.at(120, 100)).toEqual([expect.closeTo(200, 9), expect.closeTo(100, 9)]);
    const roots = [root(350, 40, 18)];
    const [plain, up] = [dial(roots), dial(roots, { upDeg: 120 })];
    expect(up.description).toContain('from above, ESE up: 1 root circles');
    expect(plain.description).toContain('north up');
    const titles = (drawing: typeof up) =>
      drawing.shapes.flatMap((one) => (one.kind === 'polygon' ? (one.title ?? []) : []));
    expect(titles(up)).toEqual(titles(plain));
    // The same picture, turned: each point lies 120° further back.
    const [at] = points(plain, 'dial_pressing');
    const [to] = points(up, 'dial_pressing');
    const bearing = (frame: DialFrame, point: Point | undefined) => (point ? frame.of(point).bearingDeg : -1);
    expect(bearing(turned, to)).toBe(bearing(new DialFrame(side), at));
    expect(to).not.toEqual(at);
  });
  it('names the path where somebody said which way it runs', () => {
    expect(texts(dial([], { pathDeg: 90 }))).toContain('path');
    expect(texts(dial([], { pathDeg: null }))).not.toContain('path');
    const [x] = points(dial([], { pathDeg: 90 }), 'pavement')[0] ?? [0];
    expect(x).toBeGreaterThan(side * 0.8);
  });
});

describe('the dial', () => {
  it('says the share that presses: 350→40, 30→95 and 200→230 are 37.5 %', () => {
    const drawing = dial([root(350, 40, 18), root(30, 95, 26), root(200, 230, 12)]);
    expect(drawing.description).toContain('37.5 % of the trunk is pressed');
    expect(texts(drawing)).toEqual(expect.arrayContaining(['38 %', '1', '2', '3', 'N', 'E', 'S', 'W']));
  });
  it('marks the rim only where roots press or are grown in', () => {
    expect(points(dial([root(10, 60, 20, 'clear'), root(90, 120, 20, 'touching')]), 'dial_pressed')).toEqual([]);
    expect(points(dial([root(10, 60, 20, 'grown_in')]), 'dial_pressed').length).toBeGreaterThan(0);
  });
  it('draws a root the further out the less it presses, and the wider the thicker it is', () => {
    const nearest = (touch: CirclingRoot['touch'], role: Role) =>
      Math.min(...points(dial([root(90, 180, 20, touch)]), role).map(outOf));
    const order = [
      nearest('grown_in', 'dial_grown'),
      nearest('pressing', 'dial_pressing'),
      nearest('touching', 'dial_touching'),
      nearest('clear', 'dial_clear'),
    ];
    expect([...order].sort((a, b) => a - b)).toEqual(order);
    const frame = new DialFrame(side);
    expect(frame.widthPx(40)).toBeGreaterThan(frame.widthPx(10));
  });
  it('draws roots that lie over one another side by side', () => {
    const apart = dial([root(0, 90, 20), root(120, 200, 20)]);
    const over = dial([root(0, 90, 20), root(60, 200, 20)]);
    const most = (drawing: ReturnType<typeof collarDial>) => Math.max(...points(drawing, 'dial_pressing').map(outOf));
    expect(most(over)).toBeGreaterThan(most(apart));
  });
  it('stays within its square, whatever lies round the trunk', () => {
    const many = Array.from({ length: 12 }, (_, i) => root(i * 30, (i * 30 + 170) % 360, 60));
    for (const shape of dial(many.slice(0, 4)).shapes) {
      if (shape.kind !== 'text')
        for (const [x, y] of shape.points) expect(Math.min(x, y, side - x, side - y)).toBeGreaterThan(-1);
    }
  });
  it('shows the look before, both cut points and the season of each cut', () => {
    const roots = [root(350, 40, 18), root(200, 230, 12)];
    const season = (i: number) => ({
      cuts: [{ root: i, tool: 'hand_pruner' as const, atDeg: [0, 0] as const }],
      removedPct: 10,
      relievedDeg: 30,
    });
    const plan = { seasons: [season(0), season(1)], referred: [], later: [], pressedDeg: 80, exact: true };
    const drawing = dial(roots, { plan, before: [root(10, 30, 9)] });
    expect(drawing.shapes.filter(({ role }) => role === 'dial_cut')).toHaveLength(4);
    expect(texts(drawing)).toEqual(expect.arrayContaining(['S1', 'S2']));
    expect(points(drawing, 'dial_before').length).toBeGreaterThan(0);
    expect(drawing.description).toContain('cuts over 2 seasons');
  });
});
