import { defaultReceivingRules as rules, judgeReceived } from './receiving';
import { stockOfTree } from './received-stock';
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

  it.each([
    ['circling over the half', { circlingPct: 51 }, { circlingPct: 51, mostPct: 50 }],
    ['circling over a tenth', { circlingPct: 11 }, { circlingPct: 11, fromPct: 10 }],
    ['a thick root', { thickestCirclingMm: 21 }, { rootMm: 21, mostMm: 20 }],
    ['a small ball', { ballDiameterMm: 399 }, { ballMm: 399, leastMm: 400 }],
    ['a flat ball', { ballHeightMm: 224 }, { ballHeightMm: 224, leastMm: 225 }],
    ['surplus of over 35 %', { probes: [probe(141)] }, { deepMm: 141, ballHeightMm: 400 }],
    ['roots deeper than an inch', { probes: [probe(26)] }, { deepMm: 26 }],
    ['a thin stem', { caliperMm: 44.9 }, { caliperMm: 44.9, orderedMm: 50 }],
    ['another kind', { kind: 'balled' }, { came: 'balled', ordered: 'container' }],
    ['ties', { ties: 'synthetic' }, { ties: 'synthetic' }],
    ['a large wound', { wounds: 'large' }, {}],
    ['a split leader', { leader: 'split' }, {}],
  ] as const)('says the numbers of %s', (_name, change, facts) => {
    const { because } = judgeReceived({ ...sound, ...change }, ordered, rules);
    expect(because.map((reason) => reason.facts)).toEqual([facts]);
    expect(because[0]?.code).not.toBe('stock_sound');
  });

  it.each([
    ['half circling', { circlingPct: 50 }, 'stock_circling'],
    ['a tenth circling', { circlingPct: 10 }, 'stock_sound'],
    ['a root of 20 mm', { thickestCirclingMm: 20 }, 'stock_sound'],
    ['eight times its stem', { ballDiameterMm: 400, ballHeightMm: 400 }, 'stock_sound'],
    ['half as high as wide', { ballHeightMm: 225 }, 'stock_sound'],
    ['35 % of surplus', { probes: [probe(140)] }, 'stock_deep'],
    ['roots at an inch', { probes: [probe(25)], surplusLeftMm: 10 }, 'stock_sound'],
    ['nine tenths of its caliper', { caliperMm: 45 }, 'stock_sound'],
    ['a small wound', { wounds: 'small' }, 'stock_sound'],
    ['no surplus left', { probes: [probe(60)], surplusLeftMm: 0 }, 'stock_deep'],
    ['surplus nobody tried', { probes: [probe(60)], surplusLeftMm: null }, 'stock_deep'],
    ['no caliper', { caliperMm: null }, 'stock_sound'],
    ['no ball measured', { ballDiameterMm: null, ballHeightMm: null }, 'stock_sound'],
    ['only its diameter', { ballHeightMm: null }, 'stock_sound'],
    ['only its height', { ballDiameterMm: null }, 'stock_sound'],
    ['no roots laid bare', { probes: [] }, 'stock_sound'],
  ] as const)('draws its lines exactly: %s', (_name, change, code) => {
    const judged = judgeReceived({ ...sound, ...change }, ordered, rules);
    expect(judged.because.map((reason) => reason.code)).toEqual([code]);
  });

  it('holds the spread of bare roots against the stem, and asks no ball of them', () => {
    const bare = { ...sound, ballDiameterMm: 450, ballHeightMm: 100, rootSpreadMm: 399 };
    const asOrdered = judgeReceived(bare, { kind: 'bare_root', caliperMm: 50 }, rules).because;
    expect(asOrdered).toEqual([{ code: 'stock_ball_small', facts: { ballMm: 399, leastMm: 400 } }]);
    // It came with bare roots although a ball was ordered.
    const came = judgeReceived({ ...bare, kind: 'bare_root' }, ordered, rules).because;
    expect(came.map(({ code }) => code)).toEqual(['stock_wrong_kind', 'stock_ball_small']);
  });

  it('says how much surplus stays', () => {
    const judged = judgeReceived({ ...sound, probes: [probe(60)], surplusLeftMm: 1 }, ordered, rules);
    expect(judged.because.map(({ facts }) => facts)).toEqual([{ deepMm: 60 }, { leftMm: 1 }]);
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

  it('holds what may be another species, and takes what the sign settles', () => {
    const named = (change: Partial<ReceivedTree>) => {
      const { verdict, because } = judgeReceived({ ...sound, ...change }, ordered, rules);
      return [verdict, because[0]?.code];
    };
    expect(named({ label: 'as_ordered' })).toEqual(['accept', 'stock_sound']);
    expect(named({ label: 'as_ordered', sign: 'agrees' })).toEqual(['accept', 'stock_sound']);
    expect(named({ label: 'other', sign: 'agrees' })).toEqual(['hold', 'stock_other_name']);
    expect(named({ label: 'as_ordered', sign: 'differs' })).toEqual(['hold', 'stock_sign_differs']);
    for (const label of ['trade', 'none'] as const) {
      expect(named({ label })).toEqual(['hold', 'stock_name_doubt']);
      expect(named({ label, sign: 'unsure' })).toEqual(['hold', 'stock_name_doubt']);
      expect(named({ label, sign: 'agrees' })).toEqual(['accept', 'stock_name_by_sign']);
    }
  });

  it('loosens and plants a washed-out container where the practice does, and no balled tree', () => {
    const loosen = { ...rules, washedOut: 'loosen' as const };
    const washed = (kind: 'container' | 'balled', by: typeof rules) =>
      judgeReceived({ ...sound, kind, ball: 'washed_out' }, { ...ordered, kind }, by).verdict;
    expect([washed('container', rules), washed('container', loosen), washed('balled', loosen)]).toEqual([
      'return',
      'correct',
      'return',
    ]);
    expect(judgeReceived({ ...sound, ball: 'crumbling' }, ordered, loosen).verdict).toBe('return');
  });

  it('names roots of the buried stem, and passes them on with the stock', () => {
    const tree = { ...sound, stemRoots: 3, stemRootMm: 12 };
    expect(judgeReceived(tree, ordered, rules)).toMatchObject({
      verdict: 'correct',
      because: [{ code: 'stock_stem_roots', facts: { count: 3, thickestMm: 12 } }],
    });
    expect(stockOfTree(tree, 'container')).toMatchObject({ adventitious: { count: 3, thickestMm: 12 }, face: 'even' });
    expect(stockOfTree({ ...sound, stemRoots: 0 }, 'container')).not.toHaveProperty('adventitious');
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
