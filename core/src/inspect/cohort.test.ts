import fc from 'fast-check';
import { fewestInstrumentOthers, standInCohort } from './cohort';

const ten = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

describe('where a tree stands in its cohort', () => {
  it.each([
    [0, 0, 'low'],
    [1, 5, 'low'],
    [2, 15, 'usual'],
    [3, 25, 'usual'],
    [5.5, 50, 'usual'],
    [10, 95, 'high'],
    [11, 100, 'high'],
  ])('%d has %d %% below it: %s', (own, belowPct, standing) => {
    expect(standInCohort(own, ten)).toMatchObject({ belowPct, standing, others: 10, medianOfOthers: 5.5 });
  });
  it('is not said of fewer than eight others, and of none there is nothing', () => {
    expect(standInCohort(0, ten.slice(0, 7))?.standing).toBe('too_few');
    expect(standInCohort(0, ten.slice(0, 8))?.standing).toBe('low');
    expect(standInCohort(0, [])).toBeNull();
  });
  it('needs twenty others where an instrument gave the values', () => {
    const others = Array.from({ length: 20 }, (_, i) => i);
    expect(standInCohort(-1, others.slice(0, 19), fewestInstrumentOthers)?.standing).toBe('too_few');
    expect(standInCohort(-1, others, fewestInstrumentOthers)?.standing).toBe('low');
  });
  it('is the same whatever order the others come in, and turned round with all signs', () => {
    const values = fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 1, maxLength: 40 });
    fc.assert(
      fc.property(fc.integer({ min: -50, max: 50 }), values, (own, others) => {
        const found = standInCohort(own, others);
        expect(standInCohort(own, [...others].reverse())).toEqual(found);
        const turned = standInCohort(
          -own,
          others.map((value) => -value),
        );
        expect(turned?.belowPct).toBeCloseTo(100 - (found?.belowPct ?? 0), 9);
      }),
    );
  });
  it('refuses what is no number', () => {
    expect(() => standInCohort(1, [Number.NaN])).toThrow('value must be a number');
  });
});
