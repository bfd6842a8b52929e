import { addDaysTo } from '../calendar';
import { mildWinterWindows, seasonWeeks, windowSpans } from '../season';
import { bandScale, dayAt, dayX, seasonBand } from './season-band';
import { textWidthPx } from './shapes';

const today = '2026-11-23';
const station = { latDeg: 36.9, elevationM: 40 };
const recorded = Array.from({ length: 600 }, (_, i) => ({
  day: addDaysTo(today, i - 600),
  rainMm: i % 9,
  tMinC: 12,
  tMaxC: 20,
  humidityMinPct: null,
  humidityMaxPct: null,
  windMs: null,
  radiationMj: null,
}));
const weeks = seasonWeeks({ recorded, forecast: [], station }, { from: addDaysTo(today, -364), weeks: 78 });
const from = weeks[0]?.monday ?? '';
const band = (widthPx: number, marks = [] as Parameters<typeof seasonBand>[0]['marks'], heightPx = 84) =>
  seasonBand({
    weeks,
    windows: windowSpans(mildWinterWindows, { from, to: addDaysTo(from, 78 * 7) }),
    marks,
    today,
    units: 'metric',
    widthPx,
    heightPx,
  });

describe('season band', () => {
  it('finds each day again under its own pixel', () => {
    const scale = bandScale(from, 78, 1150);
    for (let i = 0; i < 78 * 7; i += 13) {
      const day = addDaysTo(from, i);
      expect(dayAt(scale, dayX(scale, day) + 0.5)).toBe(day);
    }
    expect(dayAt(scale, -50)).toBe(from);
    expect(dayAt(scale, 99999)).toBe(addDaysTo(from, 78 * 7 - 1));
  });

  it('draws a bar for each week, those not on record as ahead, with their range', () => {
    const { shapes } = band(1150);
    const of = (role: string) => shapes.filter((shape) => shape.role === role);
    const ahead = weeks.filter(({ source }) => source !== 'recorded').length;
    // One more bar of rain is the key.
    expect(of('rain')).toHaveLength(78 - ahead + 1);
    expect(of('rain_ahead')).toHaveLength(ahead);
    expect(of('range')).toHaveLength(ahead);
  });

  it.each([
    [390, 58],
    [390, 84],
    [700, 84],
    [1150, 84],
    [1800, 84],
  ])('keeps its labels apart at %d × %d px', (widthPx, heightPx) => {
    const texts = band(widthPx, [], heightPx).shapes.filter((shape) => shape.kind === 'text');
    const boxes = texts.map(({ at: [x, y], text, sizePx, align }) => {
      const width = textWidthPx(text, sizePx);
      const left = align === 'end' ? x - width : x;
      return { left, right: left + width, top: y - sizePx * 0.8, bottom: y + 2 };
    });
    boxes.forEach((a, i) =>
      boxes.slice(i + 1).forEach((b) => {
        const apart = a.right <= b.left || b.right <= a.left || a.bottom <= b.top || b.bottom <= a.top;
        expect(apart).toBe(true);
      }),
    );
  });

  it.each([360, 700, 1150])('runs no mark of a month through the name of another, %d px wide', (widthPx) => {
    const { shapes } = band(widthPx);
    const names = shapes.filter((shape) => shape.kind === 'text' && /^[A-Z][a-z]{2}( \d{4})?$/.test(shape.text));
    const ticks = shapes.flatMap((shape) =>
      shape.kind === 'line' && shape.role === 'dimension' && shape.points[0]?.[0] === shape.points[1]?.[0]
        ? [shape.points[0]?.[0] ?? 0]
        : [],
    );
    expect(names.length).toBeGreaterThan(3);
    for (const name of names) {
      if (name.kind !== 'text') continue;
      const [left, right] = [name.at[0], name.at[0] + textWidthPx(name.text, name.sizePx)];
      expect(ticks.filter((x) => x > left && x < right)).toEqual([]);
    }
  });

  it('marks what is booked where it falls, and leaves out what lies elsewhere', () => {
    const marks = [
      { kind: 'planting_day', from: '2026-11-28', to: '2026-11-28', title: 'next' },
      { kind: 'planting_day', from: '2026-11-14', to: '2026-11-14', title: 'past' },
      { kind: 'round', from: '2026-11-16', to: '2026-11-27', title: 'round' },
      { kind: 'ticket', from: '2020-01-01', to: '2020-01-20', title: 'old' },
    ] as const;
    const titles = band(1150, marks).shapes.flatMap((shape) => (shape.kind === 'polygon' ? [shape.title] : []));
    expect(titles).toEqual(expect.arrayContaining(['next', 'past', 'round']));
    expect(titles).not.toContain('old');
    expect(band(1150, marks).shapes.filter(({ role }) => role === 'planting_day_ahead')).toHaveLength(1);
  });
});
