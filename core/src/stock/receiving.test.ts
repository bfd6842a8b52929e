import fc from 'fast-check';
import { defaultReceivingRules, judgeReceived, samplingPlan, type ReceivedTree } from './receiving';
import { liftingPlan } from './lifting-plan';

const sound: ReceivedTree = {
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  rootSpreadMm: null,
  rootDepthMm: null,
  topRootsDepthMm: [10, 20, 15],
  circlingPct: 5,
  thickestCirclingMm: 4,
  kinked: false,
  ball: 'firm',
  wrap: 'none',
  graftHeightMm: null,
  leader: 'single',
  wounds: 'none',
  brokenBranches: false,
  firstBranchM: 1.8,
  bestFaceDeg: null,
};
const ordered = { kind: 'container' as const, caliperMm: 50 };

describe('a tree that arrives', () => {
  it.each([
    ['sound', {}, 'accept', 'stock_sound'],
    ['pot-bound over half', { circlingPct: 60 }, 'return', 'stock_pot_bound'],
    ['circling over a tenth', { circlingPct: 30 }, 'correct', 'stock_circling'],
    ['a thick circling root', { thickestCirclingMm: 25 }, 'return', 'stock_thick_circling'],
    ['a washed-out ball', { ball: 'washed_out' }, 'return', 'stock_ball_lost'],
    ['a soft ball', { ball: 'soft' }, 'hold', 'stock_ball_soft'],
    ['kinked roots', { kinked: true }, 'return', 'stock_kinked'],
    // A third of 400 mm is 133: at 150 mm over 35 % of the ball is surplus.
    ['roots 150 mm deep', { topRootsDepthMm: [90, 150] }, 'return', 'stock_too_deep'],
    ['roots 60 mm deep', { topRootsDepthMm: [60] }, 'correct', 'stock_deep'],
    ['a thin stem', { caliperMm: 44 }, 'return', 'stock_caliper_short'],
    ['a small ball', { ballDiameterMm: 390 }, 'hold', 'stock_ball_small'],
    ['a lost leader', { leader: 'lost' }, 'hold', 'stock_no_leader'],
    ['synthetic wrap', { wrap: 'synthetic' }, 'correct', 'stock_synthetic_wrap'],
  ] as const)('%s', (_name, change, verdict, reason) => {
    const judged = judgeReceived({ ...sound, ...change }, ordered);
    expect([judged.verdict, judged.because[0]?.code]).toEqual([verdict, reason]);
  });

  it('is judged by its worst finding and names them all', () => {
    const judged = judgeReceived({ ...sound, circlingPct: 30, ball: 'crumbling', brokenBranches: true }, ordered);
    expect(judged.verdict).toBe('return');
    expect(judged.because.map(({ code }) => code)).toEqual([
      'stock_circling',
      'stock_ball_lost',
      'stock_broken_branches',
    ]);
  });
});

describe('how many of a lot to open', () => {
  // Hypergeometric by hand: 24 trees of which 3 are bad; C(21,12)/C(24,12) = 0.1087, C(21,13)/C(24,13) = 0.0815.
  it('opens 13 of 24 to find a tenth of bad ones nine times in ten', () => {
    const plan = samplingPlan(24);
    expect(plan.open).toBe(13);
    expect(plan.surePct).toBeCloseTo(91.85, 1);
  });
  it('opens a single tree, and all of a few', () => {
    expect(samplingPlan(1).open).toBe(1);
    expect(samplingPlan(3).open).toBe(3);
  });
  it('never opens more than there are, nor fewer for more certainty', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 800 }), fc.integer({ min: 50, max: 99 }), (lot, sure) => {
        const open = samplingPlan(lot, { ...defaultReceivingRules, lotSurePct: sure }).open;
        expect(open).toBeLessThanOrEqual(lot);
        expect(samplingPlan(lot, { ...defaultReceivingRules, lotSurePct: 99.5 }).open).toBeGreaterThanOrEqual(open);
      }),
    );
  });
});

describe('from the kerb to the pit', () => {
  it.each([
    [20, 5, 0, 'people', 1],
    [16, 30, 0, 'people', 3],
    [48, 20, 0, 'trolley', 2],
    // 200 kg up 12 %: 200 × 9.81 × 0.20 = 392 N, two people of 200 N.
    [200, 20, 12, 'trolley', 2],
    [240, 20, 14, 'trolley', 3],
    [246, 20, 20, 'machine', 2],
    [600, 5, 0, 'machine', 2],
  ] as const)('%d kg over %d m at %d %%: %s, %d people', (massKg, distanceM, slopePct, means, people) => {
    expect(liftingPlan({ massKg, distanceM, slopePct })).toMatchObject({ means, people });
  });
});
