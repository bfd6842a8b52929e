import { defaultReceivingRules as rules, judgeReceived } from './receiving';
import { structuralDepthMm, unseenTree, type ReceivedTree, type RootProbe } from './received-tree';

const probe = (depthMm: number, nature: RootProbe['nature'] = 'structural'): RootProbe => ({ depthMm, nature });
const sound: ReceivedTree = {
  ...unseenTree,
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  probes: [probe(10), probe(20), probe(15)],
  circlingPct: 5,
  thickestCirclingMm: 4,
  soilShows: true,
  kinked: false,
  ball: 'firm',
  wrap: 'none',
  ties: 'none',
  leader: 'single',
  wounds: 'none',
  brokenBranches: false,
  firstBranchM: 1.8,
  face: 'even',
};
const ordered = { kind: 'container' as const, caliperMm: 50 };

describe('a tree that arrives', () => {
  it.each([
    ['sound', {}, 'accept', 'stock_sound'],
    ['another kind than ordered', { kind: 'balled' }, 'hold', 'stock_wrong_kind'],
    ['the kind that was ordered', { kind: 'container' }, 'accept', 'stock_sound'],
    ['pot-bound over half', { circlingPct: 60 }, 'return', 'stock_pot_bound'],
    ['circling over a tenth', { circlingPct: 30 }, 'correct', 'stock_circling'],
    ['a thick circling root', { thickestCirclingMm: 25 }, 'return', 'stock_thick_circling'],
    ['no soil between the roots', { soilShows: false }, 'hold', 'stock_no_soil_shows'],
    ['a washed-out ball', { ball: 'washed_out' }, 'return', 'stock_ball_lost'],
    ['a soft ball', { ball: 'soft' }, 'hold', 'stock_ball_soft'],
    ['kinked roots', { kinked: true }, 'return', 'stock_kinked'],
    // A third of 400 mm is 133: at 150 mm over 35 % of the ball is surplus.
    ['roots 150 mm deep', { probes: [probe(90), probe(150)] }, 'return', 'stock_too_deep'],
    ['roots 60 mm deep', { probes: [probe(60)] }, 'correct', 'stock_deep'],
    ['only adventitious roots', { probes: [probe(20, 'adventitious')] }, 'hold', 'stock_no_structural'],
    ['a thin stem', { caliperMm: 44 }, 'return', 'stock_caliper_short'],
    ['a small ball', { ballDiameterMm: 390 }, 'hold', 'stock_ball_small'],
    ['a flat ball', { ballHeightMm: 200 }, 'hold', 'stock_ball_flat'],
    ['a lost leader', { leader: 'lost' }, 'hold', 'stock_no_leader'],
    ['synthetic wrap', { wrap: 'synthetic' }, 'correct', 'stock_synthetic_wrap'],
    ['treated wrap', { wrap: 'treated' }, 'correct', 'stock_treated_wrap'],
    ['synthetic ties', { ties: 'synthetic' }, 'correct', 'stock_ties'],
    ['natural ties', { ties: 'natural' }, 'accept', 'stock_ties'],
    ['a crown bare on one side', { face: 'one_sided' }, 'correct', 'stock_one_sided'],
  ] as const)('%s', (_name, change, verdict, reason) => {
    const judged = judgeReceived({ ...sound, ...change }, ordered, rules);
    expect([judged.verdict, judged.because[0]?.code]).toEqual([verdict, reason]);
  });

  it('is judged by its worst finding and names them all', () => {
    const judged = judgeReceived(
      { ...sound, circlingPct: 30, ball: 'crumbling', brokenBranches: true },
      ordered,
      rules,
    );
    expect(judged.verdict).toBe('return');
    expect(judged.because.map(({ code }) => code)).toEqual([
      'stock_circling',
      'stock_ball_lost',
      'stock_broken_branches',
    ]);
  });

  it('is judged by what was seen alone: nothing seen, nothing found', () => {
    expect(judgeReceived(unseenTree, ordered, rules).verdict).toBe('accept');
  });

  it('follows the thresholds of the practice', () => {
    const strict = { ...rules, circlingReturnPct: 20, deepRootsMm: 5 };
    expect(judgeReceived({ ...sound, circlingPct: 30 }, ordered, strict).verdict).toBe('return');
    expect(judgeReceived(sound, ordered, strict).because[0]?.code).toBe('stock_deep');
  });

  it('has surplus that cannot come off named beside the depth', () => {
    const judged = judgeReceived({ ...sound, probes: [probe(90)], surplusLeftMm: 40 }, ordered, rules);
    expect(judged.because.map(({ code }) => code)).toEqual(['stock_deep', 'stock_surplus_stays']);
  });
});

describe('the depth of the topmost roots', () => {
  it('is that of the deepest structural one: adventitious and fine roots set none', () => {
    expect(structuralDepthMm({ probes: [probe(20, 'adventitious'), probe(70), probe(90, 'fine'), probe(55)] })).toBe(
      70,
    );
    expect(structuralDepthMm({ probes: [probe(20, 'fine')] })).toBeNull();
  });
});
