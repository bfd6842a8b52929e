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

  it('refuses more than four points and water no truck brings', () => {
    expect(() => judge({ flareAboveGradeMm: [1, 2, 3, 4, 5] })).toThrow(
      'flareAboveGradeMm.length must be within 1–4 points, got 5',
    );
    expect(() => judge({ firstWaterL: 2001 })).toThrow('firstWaterL must be within 0–2000 L, got 2001');
  });
});
