import { pitSides, rootCorrections, settlings, type Practice } from '../practice';
import type { SoilClass } from '../ground';
import { because, type PitReason } from './reasons';
import type { PitPlan } from './pit-plan';
import type { StakePlan } from './stake-plan';

export const labourTasks = ['dig', 'roots', 'place', 'fill', 'stake', 'berm', 'mulch', 'water', 'guard'] as const;
export type LabourTask = (typeof labourTasks)[number];

/** Rates a programme's own logged hours correct. */
export interface LabourRates {
  /** Litres one person digs in an hour, by soil. */
  readonly digLPerH: Readonly<Record<SoilClass, number>>;
  readonly stonyShare: number;
  readonly compactedShare: number;
  readonly fillLPerH: number;
  readonly mulchLPerH: number;
  readonly waterLPerH: number;
  /** Place and plumb, and more for each kg lifted. */
  readonly placeMin: number;
  readonly placeMinPer10Kg: number;
  readonly stakeMin: number;
  readonly bermMin: number;
  readonly guardMin: number;
  /** A hole bored through the base. */
  readonly drainMin: number;
}

export const defaultLabourRates: LabourRates = {
  digLPerH: { sand: 420, sandy_loam: 360, loam: 300, clay_loam: 230, clay: 170 },
  stonyShare: 0.6,
  compactedShare: 0.65,
  fillLPerH: 700,
  mulchLPerH: 600,
  waterLPerH: 900,
  placeMin: 8,
  placeMinPer10Kg: 0.5,
  stakeMin: 6,
  bermMin: 8,
  guardMin: 3,
  drainMin: 20,
};

export interface Labour {
  readonly tasks: readonly { readonly task: LabourTask; readonly minutes: number }[];
  /** Person-hours. */
  readonly hours: number;
  readonly because: readonly PitReason[];
}

/** Person-hours for one tree: from pit volume, soil, stock and practice. */
export function labourOf(
  input: {
    plan: PitPlan;
    practice: Practice;
    stakes: StakePlan | null;
    soil: SoilClass;
    stony: boolean;
    compacted: boolean;
    guarded: boolean;
  },
  rates: LabourRates,
): Labour {
  const { plan, practice, stakes } = input;
  const { backfill, pitWidth } = practice;
  const digLPerH =
    rates.digLPerH[input.soil] * (input.stony ? rates.stonyShare : 1) * (input.compacted ? rates.compactedShare : 1);
  const dug = plan.pitL.value * pitSides[pitWidth.sides].digShare;
  const deeperL = (plan.pitL.value / Math.max(1, plan.meanDepthMm)) * plan.fillUnderBallMm;
  const spreadL = plan.amendment.value - plan.amendment.inFillL;
  const hand: Readonly<Record<LabourTask, number>> = {
    dig: ((dug + deeperL) / digLPerH) * 60 + (plan.drainHole ? rates.drainMin : 0),
    roots: rootCorrections[practice.roots.correction].minutes,
    place: rates.placeMin + (plan.massKg.value / 10) * rates.placeMinPer10Kg,
    fill: ((plan.backfillL.value + deeperL + spreadL) / rates.fillLPerH) * 60 * settlings[backfill.settling].timeShare,
    stake: (stakes?.stakes ?? 0) * rates.stakeMin,
    berm: plan.berm ? rates.bermMin : 0,
    mulch: (plan.mulchL.value / rates.mulchLPerH) * 60,
    water: (plan.firstWaterL.value / rates.waterLPerH) * 60,
    guard: input.guarded ? rates.guardMin : 0,
  };
  const tasks = labourTasks.map((task) => ({ task, minutes: hand[task] })).filter(({ minutes }) => minutes > 0);
  const { soil, stony, compacted } = input;
  return {
    tasks,
    hours: tasks.reduce((sum, { minutes }) => sum + minutes, 0) / 60,
    because: [because('dig_rate', { soil, stony, compacted, litresPerH: digLPerH })],
  };
}
