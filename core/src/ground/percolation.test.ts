import fc from 'fast-check';
import {
  defaultPercolationLimits,
  percolationClass,
  percolationRate as rateOf,
  type PercolationReading,
} from './percolation';

const percolationRate = (readings: readonly PercolationReading[]) => rateOf(readings, defaultPercolationLimits);

const at = (...pairs: [minute: number, levelMm: number][]) => pairs.map(([minute, levelMm]) => ({ minute, levelMm }));

describe('percolation', () => {
  it('reads a steady fall of 20 mm in half an hour as 40 mm/h', () => {
    const result = percolationRate(at([0, 300], [30, 280], [60, 260], [90, 240]));
    expect(result).toMatchObject({ kind: 'rate', class: 'good', steady: true, readingsUsed: 4 });
    if (result.kind === 'rate') expect(result.rateMmPerH).toBeCloseTo(40, 9);
  });

  it('leaves the first quick fall out of the rate', () => {
    const result = percolationRate(at([0, 300], [30, 240], [60, 230], [90, 220], [120, 210]));
    expect(result).toMatchObject({ kind: 'rate', class: 'slow', readingsUsed: 4, steady: true });
    if (result.kind === 'rate') expect(result.rateMmPerH).toBeCloseTo(20, 9);
  });

  it('says when the falls still differ', () => {
    expect(percolationRate(at([0, 300], [30, 220], [60, 180], [90, 160]))).toMatchObject({
      kind: 'rate',
      steady: false,
    });
  });

  it('names every class a doubtful rate may belong to', () => {
    const result = percolationRate(at([0, 300], [10, 296], [20, 292]));
    expect(result).toMatchObject({ kind: 'rate', couldBe: ['slow', 'good'] });
  });

  it('calls no hole steady that is stopping', () => {
    // Falls of 4, 3, 2, 2, 1 and 0 mm in ten minutes: what it comes to is not seen yet.
    const stopping = at([0, 300], [10, 296], [20, 293], [30, 291], [40, 289], [50, 288], [60, 288]);
    const result = percolationRate(stopping);
    expect(result).toMatchObject({ kind: 'rate', steady: false });
    if (result.kind === 'rate') expect(result.couldBe).toContain('stands');
  });

  it('calls the same hole standing once it has stopped', () => {
    const levels = [300, 296, 293, 291, 289, 288, 288, 288, 288, 288];
    const stopped = levels.map((levelMm, i) => ({ minute: 10 * i, levelMm }));
    expect(percolationRate(stopped)).toMatchObject({ class: 'stands', steady: true, rateMmPerH: 0 });
  });

  it('takes falls as steady within a fifth, whatever the tape might hide', () => {
    // 5 and 3 mm in ten minutes are within twice the tape's error of each other, and two fifths apart.
    expect(percolationRate(at([0, 300], [10, 295], [20, 292]))).toMatchObject({ steady: false });
    expect(percolationRate(at([0, 300], [10, 295], [20, 290]))).toMatchObject({ steady: true });
    expect(percolationRate(at([0, 300], [30, 250], [60, 200.5], [90, 155]))).toMatchObject({ steady: true });
    expect(percolationRate(at([0, 300], [30, 250], [60, 210], [90, 175]))).toMatchObject({ steady: false });
  });

  it('holds its interval: a true rate with a tape good to 1 mm lies within in nineteen of twenty tests', () => {
    // A seeded generator of normal errors (Box and Muller 1958 on a Lehmer sequence).
    let seed = 20_261_127;
    const uniform = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
    const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
    const rates = [3, 8, 20, 40, 80];
    let held = 0;
    let named = 0;
    const runs = 2000;
    for (let run = 0; run < runs; run++) {
      const rate = rates[run % rates.length] ?? 0;
      const readings = Array.from({ length: 6 }, (_, i) => ({
        minute: 20 * i,
        levelMm: 600 - (rate / 3) * i + normal(),
      }));
      // Errors that make the water rise are questioned, as they should be.
      const result = percolationRate(readings);
      const right = result.kind === 'questioned' || (result.lowMmPerH <= rate && rate <= result.highMmPerH);
      const of = percolationClass(rate, defaultPercolationLimits);
      held += Number(right);
      named += Number(result.kind === 'questioned' || result.couldBe.includes(of));
    }
    expect(held / runs).toBeGreaterThan(0.93);
    expect(named / runs).toBeGreaterThan(0.95);
  });

  it.each([NaN, Infinity, -1])('refuses %d mm/h', (rate) => {
    expect(() => percolationClass(rate, defaultPercolationLimits)).toThrow('rateMmPerH must be within');
  });

  it.each([
    ['too few readings', at([0, 300], [30, 280]), 'too_few_readings', 1],
    ['a clock that runs backwards', at([0, 300], [30, 280], [20, 270]), 'clock_backwards', 2],
    ['a rising level', at([0, 300], [30, 280], [60, 285]), 'level_rises', 2],
    ['a refill', at([0, 300], [30, 200], [60, 290]), 'refilled', 2],
    ['a hole that emptied at once', at([0, 300], [30, 0], [60, 0]), 'hole_empty_too_soon', 2],
  ])('questions %s', (_name, readings, question, atReading) => {
    expect(percolationRate(readings)).toEqual({ kind: 'questioned', question, atReading });
  });

  it.each([
    [4.99, 'stands'],
    [5, 'slow'],
    [24.9, 'slow'],
    [25, 'good'],
    [100, 'good'],
    [100.1, 'fast'],
  ] as const)('%d mm/h is %s', (rate, name) => {
    expect(percolationClass(rate, defaultPercolationLimits)).toBe(name);
  });

  it('finds the rate of any steady fall within its stated error', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 90, noNaN: true }), fc.integer({ min: 4, max: 8 }), (rate, count) => {
        const readings = Array.from({ length: count }, (_, i) => ({
          minute: i * 30,
          levelMm: Math.round(900 - (rate / 2) * i),
        }));
        const result = percolationRate(readings);
        if (result.kind !== 'rate') throw new Error(result.question);
        // Levels are rounded to 1 mm: within three standard errors of a tape that good.
        expect(Math.abs(result.rateMmPerH - rate)).toBeLessThan(3 * result.errorMmPerH);
      }),
    );
  });

  it('refuses a level outside its limits', () => {
    expect(() => percolationRate(at([0, 3000]))).toThrow('percolation[0].levelMm must be within 0–2000 mm, got 3000');
  });
});
