import { inPlantingWindow, mildWinterWindows, proposedWindows, windowSpans } from './planting-windows';

describe('planting windows', () => {
  it('pass the new year', () => {
    expect(inPlantingWindow(mildWinterWindows, 'balled', '2026-12-31')).toBe(true);
    expect(inPlantingWindow(mildWinterWindows, 'balled', '2027-01-01')).toBe(true);
    expect(inPlantingWindow(mildWinterWindows, 'balled', '2026-10-31')).toBe(false);
    expect(inPlantingWindow(mildWinterWindows, 'balled', '2026-11-01')).toBe(true);
    expect(inPlantingWindow(mildWinterWindows, 'balled', '2027-03-16')).toBe(false);
  });

  it('are cut to the span that is looked at', () => {
    const spans = windowSpans(mildWinterWindows, { from: '2026-01-01', to: '2026-12-31' });
    expect(spans.filter(({ stock }) => stock === 'bare_root')).toMatchObject([
      { from: '2026-01-01', to: '2026-02-25' },
      { from: '2026-12-01', to: '2026-12-31' },
    ]);
  });

  it('allow one that stays within a year', () => {
    const spring = [{ stock: 'bare_root', from: '03-15', to: '04-30', because: 'before the leaves' }] as const;
    expect(inPlantingWindow(spring, 'bare_root', '2026-04-01')).toBe(true);
    expect(inPlantingWindow(spring, 'bare_root', '2026-12-01')).toBe(false);
  });
});

describe('windows to begin with', () => {
  it('are turned by half a year south of the equator', () => {
    const south = proposedWindows(-34.6);
    expect(south.map(({ stock, from, to }) => [stock, from, to])).toEqual([
      ['container', '04-15', '10-15'],
      ['balled', '05-01', '09-15'],
      ['bare_root', '06-01', '08-25'],
    ]);
    expect(inPlantingWindow(south, 'bare_root', '2026-07-10')).toBe(true);
    expect(inPlantingWindow(south, 'bare_root', '2026-01-10')).toBe(false);
  });

  it('are the year round for stock with its roots where nothing rests', () => {
    const near = proposedWindows(4);
    expect(near.map(({ stock }) => stock)).toEqual(['container']);
    expect(inPlantingWindow(near, 'container', '2026-08-01')).toBe(true);
    expect(proposedWindows(37)).toBe(mildWinterWindows);
  });
});
