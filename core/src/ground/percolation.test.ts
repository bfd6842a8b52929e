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
