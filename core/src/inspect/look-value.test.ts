import fc from 'fast-check';
import { lastFoundKinds } from './look';
import { defaultLookRules, lookValue, type LookCandidate } from './look-value';

const on = '2026-06-15';
const calm: LookCandidate = {
  found: 'good',
  dueOn: null,
  balance: null,
  cohort: { trees: 0, troubled: 0 },
  storm: null,
};
const worth = (change: Partial<LookCandidate>) => lookValue({ ...calm, ...change }, on, defaultLookRules);

describe('what a look is worth', () => {
  it('is the loss it avoids: how likely, of that what a look saves, times what another tree costs', () => {
    // 2 % of trees found good are lost; half of them saved; 400 each.
    expect(worth({}).value).toBeCloseTo(0.02 * 0.5 * 400, 12);
    expect(worth({ found: 'urgent' }).value).toBeCloseTo(0.3 * 0.5 * 400, 12);
    expect(worth({ found: 'unseen' }).value).toBeCloseTo(0.08 * 0.5 * 400, 12);
  });
  it('doubles with a year past its time, and by each thing that speaks of trouble', () => {
    expect(worth({ dueOn: '2025-06-15' }).lossPct).toBeCloseTo(4, 12);
    expect(worth({ dueOn: '2026-07-15' }).lossPct).toBe(2);
    expect(worth({ balance: 'drowned' }).lossPct).toBe(4);
    expect(worth({ storm: { on: '2026-06-01', gustMs: 24 } }).lossPct).toBe(4);
    const iced = worth({ storm: { on: '2026-01-12', iceMm: 9 } });
    expect([iced.lossPct, iced.because[1]?.code]).toEqual([4, 'look_ice']);
    expect(worth({ balance: 'dry', storm: { on: '2026-06-01', gustMs: 24 } }).lossPct).toBe(8);
  });
  it.each([
    [7, 7, 2],
    [8, 2, 2],
    [10, 3, 3],
    [40, 12, 3],
    [40, 11, 2],
  ])('by a cohort of %d of which %d are in trouble: %d %%', (trees, troubled, pct) => {
    expect(worth({ cohort: { trees, troubled } }).lossPct).toBe(pct);
  });
  it('never counts a tree as more than lost', () => {
    expect(worth({ found: 'urgent', balance: 'dry', dueOn: '2010-01-01' }).lossPct).toBe(100);
  });
  it('says each factor, and the sum at the end', () => {
    const codes = worth({ balance: 'dry', dueOn: '2026-06-01' }).because.map(({ code }) => code);
    expect(codes).toEqual(['look_found', 'look_late', 'look_balance', 'look_worth']);
  });
  it('is never less for a tree found worse, later, or in more doubt', () => {
    const tree = fc.record({
      found: fc.constantFrom(...lastFoundKinds),
      dueOn: fc.constantFrom(null, '2026-06-15', '2026-01-01', '2024-01-01'),
      balance: fc.constantFrom(null, 'dry' as const),
      cohort: fc.constantFrom({ trees: 10, troubled: 0 }, { trees: 10, troubled: 9 }),
      storm: fc.constantFrom(null, { on: '2026-06-01', gustMs: 25 }),
    });
    fc.assert(
      fc.property(tree, (one) => {
        const { value } = lookValue(one, on, defaultLookRules);
        expect(lookValue({ ...one, found: 'urgent' }, on, defaultLookRules).value).toBeGreaterThanOrEqual(value);
        expect(lookValue({ ...one, dueOn: '2020-01-01' }, on, defaultLookRules).value).toBeGreaterThanOrEqual(value);
        expect(lookValue({ ...one, balance: 'drowned' }, on, defaultLookRules).value).toBeGreaterThanOrEqual(value);
      }),
    );
  });
  it('refuses rules that are none', () => {
    const wrong = { ...defaultLookRules, savedPct: 140 };
    expect(() => lookValue(calm, on, wrong)).toThrow('savedPct must be within 0–100 %');
  });
});
