import fc from 'fast-check';
import { judgeLot, rootsSeen, samplingPlan } from './lot';
import { unseenTree, type ReceivedTree } from './received-tree';
import { defaultReceivingRules as rules } from './receiving';

const ordered = { kind: 'container' as const, caliperMm: 50 };
const good: ReceivedTree = {
  ...unseenTree,
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  probes: [{ depthMm: 20, nature: 'structural' }],
  circlingPct: 5,
};
const potBound: ReceivedTree = { ...good, circlingPct: 75 };
const times = (count: number, tree: ReceivedTree): ReceivedTree[] => Array.from({ length: count }, () => tree);

describe('how many of a lot to open', () => {
  // Hypergeometric by hand: 24 trees of which 3 are bad; C(21,12)/C(24,12) = 0.1087, C(21,13)/C(24,13) = 0.0815.
  it('opens 13 of 24 to find a tenth of bad ones nine times in ten', () => {
    const plan = samplingPlan(24, rules);
    expect(plan.open).toBe(13);
    expect(plan.surePct).toBeCloseTo(91.85, 1);
  });
  it('opens a single tree, and all of a few', () => {
    expect(samplingPlan(1, rules).open).toBe(1);
    expect(samplingPlan(3, rules).open).toBe(3);
  });
  it('never opens more than there are, nor fewer for more certainty', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 800 }), fc.integer({ min: 50, max: 99 }), (lot, sure) => {
        const open = samplingPlan(lot, { ...rules, lotSurePct: sure }).open;
        expect(open).toBeLessThanOrEqual(lot);
        expect(samplingPlan(lot, { ...rules, lotSurePct: 99.5 }).open).toBeGreaterThanOrEqual(open);
      }),
    );
  });
  it.each([
    [0, 'lot must be within'],
    [100_001, 'lot must be within'],
    [1.5, 'lot must be a whole number, got 1.5'],
    [NaN, 'lot must be a whole number, got NaN'],
  ])('refuses a lot of %d', (lot, message) => {
    expect(() => samplingPlan(lot, rules)).toThrow(message);
  });
});

describe('a lot', () => {
  const judge = (opened: readonly ReceivedTree[], arrived = 24) => judgeLot({ arrived, opened, ordered }, rules);

  it('waits until its sample is opened', () => {
    expect(judge([])).toMatchObject({ verdict: 'hold', openMore: 13, bad: 0 });
    expect(judge(times(12, good))).toMatchObject({ verdict: 'hold', openMore: 1 });
    expect(judge(times(13, good))).toMatchObject({ verdict: 'accept', openMore: 0 });
  });

  it('with one bad tree in its sample has all of them opened', () => {
    const judged = judge([...times(12, good), potBound]);
    expect(judged).toMatchObject({ verdict: 'hold', openMore: 11, bad: 1 });
    expect(judged.because[0]?.code).toBe('lot_open_all');
  });

  it('of which nothing arrived is held, not accepted', () => {
    expect(judge([], 0)).toMatchObject({ verdict: 'hold', because: [{ code: 'lot_none_arrived' }] });
    expect(() => judge([good], 0)).toThrow('opened must be within 0–0 trees, got 1');
  });

  it('bears just the share it says: 29 of 100 at 29 %', () => {
    const bearing = { ...rules, lotBadPct: 29 };
    const lot = (bad: number) => [...times(bad, potBound), ...times(100 - bad, good)];
    expect(judgeLot({ arrived: 100, opened: lot(29), ordered }, bearing).verdict).toBe('accept');
    expect(judgeLot({ arrived: 100, opened: lot(30), ordered }, bearing).verdict).toBe('return');
  });

  it('counts no tree whose roots nobody saw towards the whole sample', () => {
    const unseenRoots: ReceivedTree = { ...good, circlingPct: null };
    // Two of thirteen are bad, more than a tenth, but the roots of the other eleven were not looked at.
    const blind = judge([...times(2, potBound), ...times(11, unseenRoots)]);
    expect(blind).toMatchObject({ verdict: 'hold', openMore: 22 });
    expect(blind.because.map(({ code }) => code)).toContain('lot_roots_unseen');
    expect(judge([...times(2, potBound), ...times(11, good)])).toMatchObject({ verdict: 'return' });
  });

  it('is not given up for the first tree that is bad', () => {
    expect(judge([potBound])).toMatchObject({ verdict: 'hold', openMore: 23, bad: 1 });
  });

  it('goes back where more are bad than the practice bears', () => {
    const judged = judge([...times(8, good), ...times(5, potBound)]);
    expect([judged.verdict, judged.because.map(({ code }) => code)]).toEqual([
      'return',
      ['lot_bad', 'stock_pot_bound'],
    ]);
  });

  it('is taken but for single bad ones once all are opened', () => {
    const judged = judge([...times(22, good), ...times(2, potBound)]);
    expect([judged.verdict, judged.because.map(({ code }) => code)]).toEqual([
      'accept',
      ['lot_sampled', 'lot_single_bad'],
    ]);
  });

  it('is corrected where its good trees ask for it', () => {
    expect(judge(times(13, { ...good, circlingPct: 20 })).verdict).toBe('correct');
  });

  it('is not vouched for by trees whose roots nobody looked at', () => {
    const trunkOnly = { ...unseenTree, caliperMm: 50, heightM: 3 };
    const judged = judge([...times(12, good), trunkOnly]);
    expect(judged).toMatchObject({ verdict: 'hold', openMore: 1 });
    expect(judged.because.map(({ code }) => code)).toContain('lot_roots_unseen');
    expect(judge([...times(13, good), trunkOnly])).toMatchObject({ verdict: 'accept', openMore: 0 });
  });

  it.each([
    ['container', { circlingPct: 0 }, true],
    ['container', { probes: [{ depthMm: 20, nature: 'structural' as const }] }, false],
    ['balled', { ball: 'firm' as const }, true],
    ['balled', { circlingPct: 0 }, false],
    ['bare_root', { kinked: false }, true],
    // What came decides what there is to look at.
    ['container', { kind: 'bare_root' as const, kinked: false }, true],
  ] as const)('of %s stock, looked at for %j: roots seen %p', (kind, change, yes) => {
    expect(rootsSeen({ ...unseenTree, ...change }, kind)).toBe(yes);
  });

  it('cannot have more opened than arrived', () => {
    expect(() => judge(times(3, good), 2)).toThrow('opened must be within');
  });
});
