import { unknownGround } from '../ground';
import { pitPlan, type PitPlan } from '../pit';
import { fieldDefault } from '../practice';
import { judgeAsBuilt, type AsBuilt } from './as-built';

const planned = (slopePct = 0): PitPlan => {
  const result = pitPlan({
    ground: { ...unknownGround, soil: 'loam', slopePct },
    stock: {
      kind: 'container',
      caliperMm: 50,
      heightM: 3,
      ballDiameterMm: 450,
      ballHeightMm: 400,
      topRootsDepthMm: 60,
    },
    practice: fieldDefault,
  });
  if (result.kind !== 'plan') throw new Error('no plan');
  return result;
};
// The plan: flare 40 mm proud, hole 1,125 mm, two doses of ball volume 45.96 L × (0.70 − 0.15) = 50.6 L.
const good: AsBuilt = { plantedOn: '2026-11-20', flareAboveGradeMm: [40], holeWidthMm: 1125, firstWaterL: 51 };
const judge = (change: Partial<AsBuilt>, plan: PitPlan | undefined = planned()) =>
  judgeAsBuilt({ ...good, ...change }, plan, fieldDefault);

describe('a tree that others planted', () => {
  const over = { on: '2026-11-25', from: 'Dock Office' };
  const unsaid = { holeWidthMm: undefined, firstWaterL: undefined, flareAboveGradeMm: [] };
  it('is not held against a plan that nobody followed, and what is not known is said so', () => {
    const { level, findings } = judge({ ...unsaid, takenOver: over });
    expect(level).toBe('watch');
    expect(findings.map(({ because, remedy }) => [because, remedy])).toEqual([
      [{ code: 'history_unknown', facts: over }, 'none'],
    ]);
  });
  it('is judged by what is known of it', () => {
    const { level, findings } = judge({ ...unsaid, flareAboveGradeMm: [-30], takenOver: over });
    expect([level, findings.map(({ remedy }) => remedy)]).toEqual(['urgent', ['none', 'replant_higher']]);
    expect(judge({ ...unsaid, plumb: 'leans', takenOver: over }).findings.map(({ remedy }) => remedy)).toContain(
      'level_the_ball',
    );
  });
  it.each([
    [{ takenOver: { ...over, on: '2026-11-19' } }, 'takenOver.on must not be before the planting on 2026-11-20'],
    [{ flareAboveGradeMm: [] }, 'flareAboveGradeMm.length must be within 1–4'],
    [{ holeWidthMm: undefined }, 'holeWidthMm must be given for a tree that was planted here'],
    [{ firstWaterL: undefined }, 'firstWaterL must be given for a tree that was planted here'],
  ])('refuses %j', (change, message) => {
    expect(() => judge(change)).toThrow(message);
  });
});

describe('as built against the plan', () => {
  it('finds a planting to the numbers good', () => {
    expect(judge({}).level).toBe('good');
  });

  it.each([
    [{ flareAboveGradeMm: [25] }, 'good', 'none'],
    [{ flareAboveGradeMm: [24] }, 'act', 'replant_higher'],
    [{ flareAboveGradeMm: [55] }, 'good', 'none'],
    [{ flareAboveGradeMm: [56] }, 'watch', 'none'],
    [{ flareAboveGradeMm: [-1] }, 'urgent', 'replant_higher'],
    [{ flareAboveGradeMm: [40, 10] }, 'act', 'replant_higher'],
    [{ holeWidthMm: 1000 }, 'act', 'widen_hole'],
    [{ holeWidthMm: 1020 }, 'good', 'none'],
    [{ firstWaterL: 20 }, 'act', 'give_rest_of_soak'],
  ])('%j: %s, %s', (change, level, remedy) => {
    const judgement = judge(change);
    expect(judgement.level).toBe(level);
    expect(judgement.findings.some((f) => f.level === level && f.remedy === remedy)).toBe(true);
  });

  it('expects heights to differ by what the slope explains', () => {
    expect(judge({ flareAboveGradeMm: [40, 80] }).findings.map((f) => f.because.code)).toContain('flare_uneven');
    expect(judge({ flareAboveGradeMm: [40, 94] }, planned(12)).findings.map((f) => f.because.code)).not.toContain(
      'flare_uneven',
    );
  });

  it('still catches a buried flare where no plan stands', () => {
    expect(judgeAsBuilt({ ...good, flareAboveGradeMm: [-20] }, undefined, fieldDefault).level).toBe('urgent');
    expect(judgeAsBuilt(good, undefined, fieldDefault).level).toBe('watch');
  });

  it.each([
    [{ plumb: 'leans' }, 'act', 'level_the_ball'],
    [{ plumb: 'upright' }, 'good', 'none'],
    [{ roots: 'left' }, 'act', 'examine_roots'],
    [{ roots: 'corrected' }, 'good', 'none'],
    // The practice accepts 25 to 100 mm of mulch and refers roots over 50 mm.
    [{ mulchDepthMm: 101 }, 'act', 'thin_mulch'],
    [{ mulchDepthMm: 100 }, 'good', 'none'],
    [{ mulchDepthMm: 25 }, 'good', 'none'],
    [{ mulchDepthMm: 24 }, 'act', 'top_up_mulch'],
    [{ metRoot: { thickestMm: 51, cut: true } }, 'urgent', 'refer_arborist'],
    [{ metRoot: { thickestMm: 50, cut: true } }, 'good', 'none'],
    [{ metRoot: { thickestMm: 51, cut: false } }, 'watch', 'none'],
    [{ metRoot: { thickestMm: 51 } }, 'watch', 'none'],
  ] satisfies [Partial<AsBuilt>, string, string][])('what is said beside it, %j: %s, %s', (change, level, remedy) => {
    const judgement = judge(change);
    expect(judgement.level).toBe(level);
    expect(judgement.findings.some((f) => f.level === level && f.remedy === remedy)).toBe(true);
  });

  it('says nothing of what nobody said', () => {
    expect(judge({}).findings.map(({ aspect }) => aspect)).toEqual(['flare', 'hole', 'water']);
  });

  it.each([
    ['always', 0, 'act', 'mend_stake'],
    ['always', 2, 'good', 'none'],
    ['never', 1, 'watch', 'remove_stake'],
    ['where_needed', 0, 'good', 'none'],
  ] as const)('by a practice that stakes %s, %i stakes: %s', (rule, stakes, level, remedy) => {
    const practice = { ...fieldDefault, staking: { ...fieldDefault.staking, rule } };
    const judgement = judgeAsBuilt({ ...good, stakes }, planned(), practice);
    expect(judgement.level).toBe(level);
    expect(judgement.findings.some((f) => f.level === level && f.remedy === remedy)).toBe(true);
  });

  it('says how far the ball sank in the soak, by the lowest point', () => {
    const { findings } = judge({ flareAboveGradeMm: [48, 40], flareBeforeSoakMm: [60, 52], toppedUpMm: 15 });
    expect(findings.find(({ because }) => because.code === 'soak_sank')?.because.facts).toEqual({
      sankMm: 12,
      toppedUpMm: 15,
    });
  });

  it('leaves roots be where the practice does', () => {
    const practice = { ...fieldDefault, roots: { ...fieldDefault.roots, correction: 'leave' as const } };
    expect(judgeAsBuilt({ ...good, roots: 'left' }, planned(), practice).level).toBe('good');
  });

  it('refuses more than four points and water no truck brings', () => {
    expect(() => judge({ flareAboveGradeMm: [1, 2, 3, 4, 5] })).toThrow(
      'flareAboveGradeMm.length must be within 1–4 points, got 5',
    );
    expect(() => judge({ firstWaterL: 2001 })).toThrow('firstWaterL must be within 0–2000 L, got 2001');
  });
});
