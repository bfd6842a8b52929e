import type { IsoDate } from '../calendar';
import { InvalidInputError, requireWithin } from '../errors';
import { limits } from '../limits';
import type { PitPlan } from '../pit';
import { stakeRules, type FindingOf, type Practice, type RemedyCode } from '../practice';
import { worstLevel, type Level } from '../reason';
import { because, type DayReason } from './reasons';

/** What was done with circling and surplus roots at planting. */
export const rootWorks = ['none_needed', 'corrected', 'left'] as const;
export type RootWork = (typeof rootWorks)[number];

/** How the trunk stands, looked at from two sides. */
export const plumbStates = ['upright', 'leans'] as const;
export type PlumbState = (typeof plumbStates)[number];

/** What was cut off the tree at planting. */
export const cutAwayThings = ['wrap', 'basket', 'ties', 'labels', 'nursery_stake', 'broken_branches'] as const;
export type CutAway = (typeof cutAwayThings)[number];

/** A root of another tree that was met in the pit. */
export interface MetRoot {
  readonly thickestMm: number;
  /** Left out where nobody said so: never taken for kept. */
  readonly cut?: boolean | undefined;
}

/** What was said of a root that was met: `null` for nothing about its cut. */
export const metRootOf = (thickestMm: number, said: string | null): MetRoot =>
  said === null ? { thickestMm } : { thickestMm, cut: said === 'cut' };

/** A tree that others planted: since when it is in this programme's care, and from whom. */
export interface TakenOver {
  readonly on: IsoDate;
  readonly from: string;
}

/** How a tree was really planted. Every fact that may be left out is unknown where it is, never fine. */
export interface AsBuilt {
  readonly plantedOn: IsoDate;
  /** Left out where the programme planted it; else what nobody recorded of the planting stays unknown. */
  readonly takenOver?: TakenOver | undefined;
  /** Flare above grade at one to four points around the trunk, after the soak; negative is below. None where it was taken over. */
  readonly flareAboveGradeMm: readonly number[];
  /** The same before the soak, at one to four points: what it sank by trains the allowance for put-back soil. */
  readonly flareBeforeSoakMm?: readonly number[] | undefined;
  /** Fill beside the ball that sank in the soak and was topped up. */
  readonly toppedUpMm?: number | undefined;
  /** Of a tree that was taken over they may be left out. */
  readonly holeWidthMm?: number | undefined;
  readonly firstWaterL?: number | undefined;
  /** Stakes that were set, to be taken off in time; left out where nobody said. */
  readonly stakes?: number | undefined;
  /** Soil put back and firmed under the ball where the hole came out too deep; left out where none was. */
  readonly putBackMm?: number | undefined;
  /** Where its best face looks, degrees from north; left out where nobody said. */
  readonly bestFaceDeg?: number | undefined;
  readonly roots?: RootWork | undefined;
  readonly cutAway?: readonly CutAway[] | undefined;
  readonly metRoot?: MetRoot | undefined;
  readonly plumb?: PlumbState | undefined;
  readonly mulchDepthMm?: number | undefined;
  /** Why it was built otherwise than planned, in words. */
  readonly departure?: string | undefined;
}

export type PlantingFinding = FindingOf<'flare' | 'hole' | 'water' | 'roots' | 'trunk' | 'mulch' | 'stake', DayReason>;

export interface AsBuiltJudgement {
  readonly level: Level;
  readonly findings: readonly PlantingFinding[];
}

/**
 * Judges a planting against its plan: flare, hole width and first water, each within the practice's
 * tolerance; and what else was said of it. Without a plan only what is wrong by itself is judged: a flare below grade,
 * an uneven ball, a leaning trunk, a thick root of a neighbour that was cut.
 * Of one that others planted only what is known is judged: no plan was theirs.
 * @throws InvalidInputError for a measure outside `limits`, or, of one planted here, no flare point, hole or water
 */
export function judgeAsBuilt(built: AsBuilt, plan: PitPlan | undefined, practice: Practice): AsBuiltJudgement {
  requireBuilt(built);
  if (built.takenOver) return judgeTakenOver(built, built.takenOver, practice);
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
  findings.push(...saidBeside(built, practice));
  return { level: worstLevel(findings.map((f) => f.level)), findings };
}

/** What others left unsaid stays unknown, and is said to be: a look at the tree tells more than a guess. */
function judgeTakenOver(built: AsBuilt, { on, from }: TakenOver, practice: Practice): AsBuiltJudgement {
  const findings = [
    finding('hole', 'watch', because('history_unknown', { on, from }), 'none'),
    ...(built.flareAboveGradeMm.length > 0 ? judgeFlareAlone(built) : []),
    ...saidBeside(built, practice),
  ];
  return { level: worstLevel(findings.map((f) => f.level)), findings };
}

function requireBuilt(built: AsBuilt): void {
  const least = built.takenOver ? 0 : 1;
  requireWithin('flareAboveGradeMm.length', built.flareAboveGradeMm.length, { min: least, max: 4, unit: 'points' });
  if (built.takenOver && built.takenOver.on < built.plantedOn) {
    const message = `takenOver.on must not be before the planting on ${built.plantedOn}, got ${built.takenOver.on}`;
    throw new InvalidInputError(message, 'takenOver.on');
  }
  if (!built.takenOver && (built.holeWidthMm === undefined || built.firstWaterL === undefined)) {
    const field = built.holeWidthMm === undefined ? 'holeWidthMm' : 'firstWaterL';
    throw new InvalidInputError(`${field} must be given for a tree that was planted here`, field);
  }
  built.flareAboveGradeMm.forEach((mm, i) => requireWithin(`flareAboveGradeMm[${i}]`, mm, limits.flareAboveGradeMm));
  if (built.holeWidthMm !== undefined) requireWithin('holeWidthMm', built.holeWidthMm, limits.holeWidthMm);
  if (built.firstWaterL !== undefined) requireWithin('firstWaterL', built.firstWaterL, limits.firstWaterL);
  if (built.putBackMm !== undefined) requireWithin('putBackMm', built.putBackMm, limits.putBackMm);
  if (built.bestFaceDeg !== undefined) requireWithin('bestFaceDeg', built.bestFaceDeg, limits.bearingDeg);
  built.flareBeforeSoakMm?.forEach((mm, i) => requireWithin(`flareBeforeSoakMm[${i}]`, mm, limits.flareAboveGradeMm));
  if (built.toppedUpMm !== undefined) requireWithin('toppedUpMm', built.toppedUpMm, limits.putBackMm);
  if (built.mulchDepthMm !== undefined) requireWithin('mulchDepthMm', built.mulchDepthMm, limits.mulchDepthMm);
  if (built.metRoot) requireWithin('metRoot.thickestMm', built.metRoot.thickestMm, limits.rootDiameterMm);
}

/** What follows from the facts that may be left out: none says anything where nobody did. */
function saidBeside(built: AsBuilt, practice: Practice): PlantingFinding[] {
  return [
    ...judgeSoak(built),
    ...judgeRoots(built, practice),
    ...judgeMetRoot(built, practice),
    ...(built.plumb === 'leans' ? [finding('trunk', 'act', because('trunk_leans', {}), 'level_the_ball')] : []),
    ...judgeMulch(built, practice),
    ...judgeStakes(built, practice),
  ];
}

function judgeSoak(built: AsBuilt): PlantingFinding[] {
  const before = built.flareBeforeSoakMm ?? [];
  const [sankMm, toppedUpMm] = [
    before.length === 0 || built.flareAboveGradeMm.length === 0 ? 0 : Math.min(...before) - lowestFlare(built),
    built.toppedUpMm ?? 0,
  ];
  if (sankMm <= 0 && toppedUpMm === 0) return [];
  return [finding('flare', 'good', because('soak_sank', { sankMm: Math.max(0, sankMm), toppedUpMm }), 'none')];
}

function judgeRoots({ roots }: AsBuilt, practice: Practice): PlantingFinding[] {
  if (roots === undefined) return [];
  const byRule = practice.roots.correction === 'leave';
  if (roots === 'left' && !byRule) return [finding('roots', 'act', because('roots_left', {}), 'examine_roots')];
  return [finding('roots', 'good', because(roots === 'corrected' ? 'roots_corrected' : 'roots_need_none', {}), 'none')];
}

/** A thick root of a neighbour holds that tree and feeds it: whoever cut it asks somebody qualified to look. */
function judgeMetRoot({ metRoot }: AsBuilt, practice: Practice): PlantingFinding[] {
  if (!metRoot) return [];
  const facts = { thickestMm: metRoot.thickestMm, limitMm: practice.inspection.roots.referRootOverMm };
  if (metRoot.thickestMm <= facts.limitMm) return [finding('roots', 'good', because('met_root_thin', facts), 'none')];
  if (metRoot.cut) return [finding('roots', 'urgent', because('met_root_cut', facts), 'refer_arborist')];
  if (metRoot.cut === undefined) return [finding('roots', 'watch', because('met_root_unsaid', facts), 'none')];
  return [finding('roots', 'watch', because('met_root_kept', facts), 'none')];
}

function judgeMulch({ mulchDepthMm: depthMm }: AsBuilt, practice: Practice): PlantingFinding[] {
  if (depthMm === undefined) return [];
  const { min: leastMm, max: mostMm } = practice.mulch.acceptedDepthMm;
  const facts = { depthMm, leastMm, mostMm };
  if (depthMm > mostMm) return [finding('mulch', 'act', because('mulch_laid_deep', facts), 'thin_mulch')];
  if (depthMm < leastMm) return [finding('mulch', 'act', because('mulch_laid_thin', facts), 'top_up_mulch')];
  return [finding('mulch', 'good', because('mulch_laid', facts), 'none')];
}

/** Where the rule says always or never; what it leaves to the wind is the plan's to say. */
function judgeStakes({ stakes }: AsBuilt, practice: Practice): PlantingFinding[] {
  if (stakes === undefined) return [];
  const { when } = stakeRules[practice.staking.rule];
  if (when === 'always' && stakes === 0) {
    return [finding('stake', 'act', because('stakes_not_set', {}), 'mend_stake')];
  }
  if (when === 'never' && stakes > 0) {
    return [finding('stake', 'watch', because('stakes_unasked', { stakes }), 'remove_stake')];
  }
  return [];
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
  const actualMm = built.holeWidthMm ?? 0;
  const leastMm = plannedMm * practice.asBuilt.leastWidthShare;
  if (actualMm < leastMm) {
    return finding('hole', 'act', because('hole_narrow', { actualMm, plannedMm, leastMm }), 'widen_hole');
  }
  return finding('hole', 'good', because('hole_as_planned', { actualMm, plannedMm }), 'none');
}

function judgeWater(built: AsBuilt, plan: PitPlan, practice: Practice): PlantingFinding {
  const plannedL = plan.firstWaterL.value;
  const actualL = built.firstWaterL ?? 0;
  if (plannedL === 0 && actualL > 0) {
    return finding('water', 'watch', because('first_water_unasked', { actualL }), 'none');
  }
  if (actualL < plannedL * practice.asBuilt.leastWaterShare) {
    const facts = { actualL, plannedL, missingL: plannedL - actualL };
    return finding('water', 'act', because('first_water_short', facts), 'give_rest_of_soak');
  }
  return finding('water', 'good', because('first_water_given', { actualL, plannedL }), 'none');
}
