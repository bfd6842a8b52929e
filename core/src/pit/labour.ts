import { pitSides, rootCorrections, settlings, wrapRemovals, type Practice } from '../practice';
import type { SoilClass } from '../ground';
import type { StockKind } from '../stock';
import type { CarryPlan } from './carry';
import { because, type Hands, type PitReason } from './reasons';
import type { PitPlan } from './pit-plan';
import type { StakePlan } from './stake-plan';

export const labourTasks = [
  'mark',
  'turf',
  'carry',
  'unwrap',
  'roots',
  'prune',
  'dig',
  'place',
  'fill',
  'feed',
  'stake',
  'berm',
  'mulch',
  'water',
  'guard',
  'label',
  'look_on',
] as const;
export type LabourTask = (typeof labourTasks)[number];

/** Rates a programme's own logged hours correct. */
export interface LabourRates {
  /** Litres one person digs in an hour, by soil. */
  readonly digLPerH: Readonly<Record<SoilClass, number>>;
  readonly stonyShare: number;
  readonly compactedShare: number;
  /** Of the time to dig it, what soil takes that is broken in from the side. */
  readonly caveShare: number;
  /** The same of ground that is dug over where it lies. */
  readonly turnShare: number;
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
  /** Pit and ring marked out, ticket read. */
  readonly markMin: number;
  /** Turf and old mulch off the ring, each m². */
  readonly turfMinPerM2: number;
  /** Each feed, or gypsum, measured out and worked in. */
  readonly feedMin: number;
  /** Container off, or bare roots out of their wrap, with ties and tags; wrap of balls is the practice's. */
  readonly openMin: number;
  readonly pruneMin: number;
  /** For each who carries: there and back over ten metres, and more for a trolley or a machine to be got ready. */
  readonly carryMinPer10M: number;
  readonly carryGearMin: number;
  /** Label, photographs, record. */
  readonly labelMin: number;
  /** Of all the time, what is shown, watched and waited for: hands that hold no tool. */
  readonly lookOnShare: number;
}

/** Whose pace goes, and the pace of each. */
export interface LabourRules {
  readonly hands: Hands;
  readonly volunteers: LabourRates;
  readonly crews: LabourRates;
}

const volunteers: LabourRates = {
  digLPerH: { sand: 420, sandy_loam: 360, loam: 300, clay_loam: 230, clay: 170 },
  stonyShare: 0.6,
  compactedShare: 0.65,
  caveShare: 0.3,
  turnShare: 0.5,
  fillLPerH: 700,
  mulchLPerH: 600,
  waterLPerH: 900,
  placeMin: 8,
  placeMinPer10Kg: 0.5,
  stakeMin: 6,
  bermMin: 8,
  guardMin: 3,
  drainMin: 20,
  markMin: 5,
  turfMinPerM2: 10,
  feedMin: 2,
  openMin: 4,
  pruneMin: 8,
  carryMinPer10M: 1,
  carryGearMin: 5,
  labelMin: 8,
  lookOnShare: 0.25,
};

/**
 * Estimates, with one pace known: three volunteers plant three container trees in about three hours. Crews dig a
 * quarter faster, know each hold, and wait for each other less.
 */
export const defaultLabourRules: LabourRules = {
  hands: 'volunteers',
  volunteers,
  crews: {
    ...volunteers,
    digLPerH: { sand: 525, sandy_loam: 450, loam: 375, clay_loam: 290, clay: 210 },
    fillLPerH: 875,
    mulchLPerH: 750,
    markMin: 3,
    turfMinPerM2: 7,
    pruneMin: 5,
    labelMin: 5,
    lookOnShare: 0.1,
  },
};

export interface Labour {
  readonly tasks: readonly { readonly task: LabourTask; readonly minutes: number }[];
  /** Person-hours. */
  readonly hours: number;
  readonly because: readonly PitReason[];
}

interface LabourInput {
  readonly plan: PitPlan;
  readonly practice: Practice;
  readonly kind: StockKind;
  readonly stakes: StakePlan | null;
  readonly soil: SoilClass;
  readonly stony: boolean;
  readonly compacted: boolean;
  readonly guarded: boolean;
  /** How many feeds there are, gypsum counted with them. */
  readonly feeds: number;
  readonly carry: Pick<CarryPlan, 'means' | 'people' | 'distanceM'>;
}

/** Person-hours for one tree: from pit volume, soil, stock, practice and the way from the kerb, at the pace of its hands. */
export function labourOf(input: LabourInput, rules: LabourRules): Labour {
  const { hands } = rules;
  const rates = rules[hands];
  const { soil, stony, compacted } = input;
  const digLPerH = rates.digLPerH[soil] * (stony ? rates.stonyShare : 1) * (compacted ? rates.compactedShare : 1);
  const work = minutesOf(input, rates, digLPerH);
  const busy = Object.values(work).reduce((sum, minutes) => sum + minutes, 0);
  const minutes = { ...work, look_on: (busy * rates.lookOnShare) / (1 - rates.lookOnShare) };
  const tasks = labourTasks.map((task) => ({ task, minutes: minutes[task] })).filter((one) => one.minutes > 0);
  return {
    tasks,
    hours: tasks.reduce((sum, one) => sum + one.minutes, 0) / 60,
    because: [
      because('dig_rate', { soil, stony, compacted, litresPerH: digLPerH }),
      because('labour_looking_on', { hands, sharePct: rates.lookOnShare * 100 }),
    ],
  };
}

function minutesOf(
  { plan, practice, kind, stakes, guarded, carry, feeds }: LabourInput,
  rates: LabourRates,
  digLPerH: number,
): Readonly<Record<Exclude<LabourTask, 'look_on'>, number>> {
  const { soil, amendments } = plan;
  const caved = pitSides[practice.pitWidth.sides].cavedIn ? soil.cavedL * rates.caveShare : 0;
  // An area that several things go into is dug over once.
  const turnedL = Math.max(0, ...amendments.each.map((one) => one.turnedL)) * rates.turnShare;
  const mixedL = amendments.each.reduce((sum, one) => sum + one.litres, 0);
  // What caves in lies where it belongs; all else is moved by hand: back, up to the ball, into the ring.
  const movedL = soil.backL + soil.moundL + soil.bankL + mixedL - soil.cavedL;
  const ways = rates.carryMinPer10M * (carry.distanceM / 10) * carry.people;
  return {
    mark: rates.markMin,
    turf: plan.ringM2 * rates.turfMinPerM2,
    carry: ways + (carry.means === 'people' ? 0 : rates.carryGearMin),
    unwrap: kind === 'balled' ? wrapRemovals[practice.roots.wrap].minutes : rates.openMin,
    roots: rootCorrections[practice.roots.correction].minutes,
    prune: rates.pruneMin,
    dig: ((soil.dugL + caved + turnedL) / digLPerH) * 60 + (plan.drainHole ? rates.drainMin : 0),
    place: rates.placeMin + (plan.massKg.value / 10) * rates.placeMinPer10Kg,
    fill: (Math.max(0, movedL) / rates.fillLPerH) * 60 * settlings[practice.backfill.settling].timeShare,
    feed: feeds * rates.feedMin,
    stake: (stakes?.stakes ?? 0) * rates.stakeMin,
    berm: plan.berm ? rates.bermMin : 0,
    mulch: (plan.mulchL.value / rates.mulchLPerH) * 60,
    water: (plan.firstWaterL.value / rates.waterLPerH) * 60,
    guard: guarded ? rates.guardMin : 0,
    label: rates.labelMin,
  };
}
