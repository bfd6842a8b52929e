import type { IsoDate } from '../calendar';
import { requireWithin } from '../errors';
import { limits } from '../limits';
import type { PitPlan } from '../pit';
import type { FindingOf, Practice, RemedyCode } from '../practice';
import { worstLevel, type Level } from '../reason';
import { because, type DayReason } from './reasons';

/** How a tree was really planted. */
export interface AsBuilt {
  readonly plantedOn: IsoDate;
  /** Flare above grade at one to four points around the trunk, after the soak; negative is below grade. */
  readonly flareAboveGradeMm: readonly number[];
  readonly holeWidthMm: number;
  readonly firstWaterL: number;
  /** Stakes that were set, to be taken off in time; left out where nobody said. */
  readonly stakes?: number | undefined;
  /** Soil put back and firmed under the ball where the hole came out too deep; left out where none was. */
  readonly putBackMm?: number | undefined;
  /** Where its best face looks, degrees from north; left out where nobody said. */
  readonly bestFaceDeg?: number | undefined;
}

export type PlantingFinding = FindingOf<'flare' | 'hole' | 'water', DayReason>;

export interface AsBuiltJudgement {
  readonly level: Level;
  readonly findings: readonly PlantingFinding[];
}

/**
 * Judges a planting against its plan: flare, hole width and first water, each within the practice's
 * tolerance. Without a plan only what is wrong by itself (a flare below grade, an uneven ball) is judged.
 * @throws InvalidInputError for a measure outside `limits` or no flare point at all.
 */
export function judgeAsBuilt(built: AsBuilt, plan: PitPlan | undefined, practice: Practice): AsBuiltJudgement {
  requireWithin('flareAboveGradeMm.length', built.flareAboveGradeMm.length, { min: 1, max: 4, unit: 'points' });
  built.flareAboveGradeMm.forEach((mm, i) => requireWithin(`flareAboveGradeMm[${i}]`, mm, limits.flareAboveGradeMm));
  requireWithin('holeWidthMm', built.holeWidthMm, limits.holeWidthMm);
  requireWithin('firstWaterL', built.firstWaterL, limits.firstWaterL);
  if (built.putBackMm !== undefined) requireWithin('putBackMm', built.putBackMm, limits.putBackMm);
  if (built.bestFaceDeg !== undefined) requireWithin('bestFaceDeg', built.bestFaceDeg, limits.bearingDeg);
  const findings = plan
    ? [...judgeFlare(built, plan, practice), judgeHole(built, plan, practice), judgeWater(built, plan, practice)]
    : [...judgeFlareAlone(built), finding('hole', 'watch', because('no_plan_to_compare', {}), 'none')];
  const spreadMm = Math.max(...built.flareAboveGradeMm) - Math.min(...built.flareAboveGradeMm);
  // On a slope the points differ by design: the ball is level, the ground is not.
  const slopedMm = plan ? plan.downhillProudMm.value - plan.proudMm.value : 0;
  if (spreadMm > practice.asBuilt.flareSpreadMm + slopedMm) {
    const limitMm = practice.asBuilt.flareSpreadMm + slopedMm;
    findings.push(finding('flare', 'watch', because('flare_uneven', { spreadMm, limitMm }), 'level_the_ball'));
  }
  return { level: worstLevel(findings.map((f) => f.level)), findings };
}

function finding(
  aspect: PlantingFinding['aspect'],
  level: Level,
  reason: DayReason,
  remedy: RemedyCode,
): PlantingFinding {
  return { aspect, level, because: reason, remedy };
}

/** The lowest point rules: that is where grade comes closest to the flare, at the uphill edge. */
const lowestFlare = (built: AsBuilt): number => Math.min(...built.flareAboveGradeMm);

function judgeFlareAlone(built: AsBuilt): PlantingFinding[] {
  const actualMm = lowestFlare(built);
  if (actualMm >= 0) return [];
  return [finding('flare', 'urgent', because('flare_below_grade', { actualMm, plannedMm: 0 }), 'replant_higher')];
}

function judgeFlare(built: AsBuilt, plan: PitPlan, practice: Practice): PlantingFinding[] {
  const actualMm = lowestFlare(built);
  const plannedMm = plan.proudMm.value;
  const toleranceMm = practice.asBuilt.flareToleranceMm;
  const facts = { actualMm, plannedMm, toleranceMm };
  if (actualMm < 0) {
    return [finding('flare', 'urgent', because('flare_below_grade', { actualMm, plannedMm }), 'replant_higher')];
  }
  if (actualMm < plannedMm - toleranceMm) {
    return [finding('flare', 'act', because('flare_lower_than_plan', facts), 'replant_higher')];
  }
  if (actualMm > plannedMm + toleranceMm) {
    return [finding('flare', 'watch', because('flare_higher_than_plan', facts), 'none')];
  }
  return [finding('flare', 'good', because('flare_as_planned', facts), 'none')];
}

function judgeHole(built: AsBuilt, plan: PitPlan, practice: Practice): PlantingFinding {
  const plannedMm = plan.widthMm.value;
  const actualMm = built.holeWidthMm;
  const leastMm = plannedMm * practice.asBuilt.leastWidthShare;
  if (actualMm < leastMm) {
    return finding('hole', 'act', because('hole_narrow', { actualMm, plannedMm, leastMm }), 'widen_hole');
  }
  return finding('hole', 'good', because('hole_as_planned', { actualMm, plannedMm }), 'none');
}

function judgeWater(built: AsBuilt, plan: PitPlan, practice: Practice): PlantingFinding {
  const plannedL = plan.firstWaterL.value;
  const actualL = built.firstWaterL;
  if (plannedL === 0 && actualL > 0) {
    return finding('water', 'watch', because('first_water_unasked', { actualL }), 'none');
  }
  if (actualL < plannedL * practice.asBuilt.leastWaterShare) {
    const facts = { actualL, plannedL, missingL: plannedL - actualL };
    return finding('water', 'act', because('first_water_short', facts), 'give_rest_of_soak');
  }
  return finding('water', 'good', because('first_water_given', { actualL, plannedL }), 'none');
}
