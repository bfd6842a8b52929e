import { inPlantingWindow, mildWinterWindows, windowSpans } from './planting-windows';

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
