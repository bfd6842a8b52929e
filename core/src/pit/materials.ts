import type { Practice } from '../practice';
import type { Stock } from '../stock';
import type { PitPlan } from './pit-plan';
import type { StakePlan } from './stake-plan';

export const materialCodes = [
  'coarse_compost',
  'fine_compost',
  'bark_fines',
  'peat',
  'manure',
  'potting_mix',
  'topsoil',
  'gypsum',
  'pellets',
  'mulch',
  'stake',
  'tie',
  'guard',
  'bucket',
  'water',
] as const;
export type MaterialCode = (typeof materialCodes)[number];
export type MaterialUnit = 'L' | 'kg' | 'm' | 'piece';

export interface Material {
  readonly name: string;
  readonly unit: MaterialUnit;
  /** How it is sold: amounts are rounded up to whole packs over everything bought together. */
  readonly pack: { readonly size: number; readonly name: string };
}

const bagged = (name: string, size: number): Material => ({
  name,
  unit: 'L',
  pack: { size, name: `bag of ${size} L` },
});

export const materials: Readonly<Record<MaterialCode, Material>> = {
  coarse_compost: bagged('coarse compost', 40),
  fine_compost: bagged('fine compost', 40),
  bark_fines: bagged('bark fines', 60),
  peat: bagged('peat', 60),
  manure: bagged('rotted manure', 40),
  potting_mix: bagged('potting mix', 50),
  topsoil: bagged('bagged topsoil', 30),
  gypsum: { name: 'gypsum', unit: 'kg', pack: { size: 25, name: 'sack of 25 kg' } },
  pellets: { name: 'slow pellets', unit: 'kg', pack: { size: 5, name: 'bag of 5 kg' } },
  mulch: { name: 'mulch', unit: 'L', pack: { size: 1000, name: 'cubic metre' } },
  stake: { name: 'stake', unit: 'piece', pack: { size: 1, name: 'piece' } },
  tie: { name: 'wide strap', unit: 'm', pack: { size: 25, name: 'roll of 25 m' } },
  guard: { name: 'trunk guard', unit: 'piece', pack: { size: 1, name: 'piece' } },
  bucket: { name: 'bucket of 15 L', unit: 'piece', pack: { size: 1, name: 'piece' } },
  water: { name: 'first water', unit: 'L', pack: { size: 1, name: 'litre' } },
};

export type Amounts = Partial<Readonly<Record<MaterialCode, number>>>;

/** Gypsum worked into salty clay. kg for each m² of pit */
const gypsumKgPerM2 = 0.5;
/** Salt of the saturated extract from which clay counts as salty. dS/m */
const saltyDsM = 4;
const pelletsKg = 0.1;
/** A strap around trunk and stake, in a figure of eight. */
const tieM = 1.2;
const bucketL = 15;

/** What one tree takes, by its plan. */
export function materialsOf(input: {
  plan: PitPlan;
  practice: Practice;
  stakes: StakePlan | null;
  heavySoil: boolean;
  saltDsM: number | null;
  /** Deer or mowers are recorded at the place. */
  rubbed: boolean;
}): Amounts {
  const { plan, practice, stakes } = input;
  const { amendment, shape } = plan;
  const pitM2 = (Math.PI / 4) * (shape.widthMm / 1000) * (shape.lengthMm / 1000);
  const salty = input.heavySoil && input.saltDsM !== null && input.saltDsM >= saltyDsM;
  const guarded = guardNeeded(practice.guard, input.rubbed);
  const all: readonly (readonly [MaterialCode, number])[] = [
    ...(amendment.material === 'site_soil' ? [] : [[amendment.material, amendment.value] as const]),
    ['gypsum', practice.backfill.gypsum === 'by_test' && salty ? pitM2 * gypsumKgPerM2 : 0],
    ['pellets', practice.backfill.fertiliser === 'slow_pellets' ? pelletsKg : 0],
    ['mulch', plan.mulchL.value],
    ['stake', stakes?.stakes ?? 0],
    ['tie', (stakes?.stakes ?? 0) * tieM],
    ['guard', guarded ? 1 : 0],
    ['water', plan.firstWaterL.value],
    ['bucket', plan.firstWaterL.value > 0 ? Math.min(4, Math.ceil(plan.firstWaterL.value / bucketL)) : 0],
  ];
  return Object.fromEntries(all.filter(([, amount]) => amount > 0));
}

const guardNeeded = (rule: Practice['guard'], rubbed: boolean): boolean =>
  rule === 'always' || rule === 'deer_season' || (rule === 'where_recorded' && rubbed);

/** Sums over trees. Buckets are used again and again: the most any one needs, for each team. */
export function sumAmounts(each: readonly Amounts[], teams = 1): Amounts {
  const sums = new Map<MaterialCode, number>();
  for (const amounts of each) {
    for (const [code, amount] of Object.entries(amounts) as [MaterialCode, number][]) {
      const before = sums.get(code) ?? 0;
      sums.set(code, code === 'bucket' ? Math.max(before, amount * teams) : before + amount);
    }
  }
  return Object.fromEntries(sums);
}

export interface MaterialLine {
  readonly code: MaterialCode;
  readonly needed: number;
  readonly inStore: number;
  /** Whole packs to buy, and how much they hold. */
  readonly packs: number;
  readonly bought: number;
}

/** What to buy: the sum less what lies in store, rounded up to what is sold. */
export function shoppingList(needed: Amounts, store: Amounts): MaterialLine[] {
  return materialCodes
    .filter((code) => (needed[code] ?? 0) > 0)
    .map((code) => {
      const [need, inStore] = [needed[code] ?? 0, store[code] ?? 0];
      const { size } = materials[code].pack;
      // Water comes from the truck; a hair of slack keeps sums of fractions from buying one pack too many.
      const packs = code === 'water' ? 0 : Math.max(0, Math.ceil((need - inStore) / size - 1e-9));
      return { code, needed: need, inStore, packs, bought: packs * size };
    });
}

export const labourTasks = ['dig', 'roots', 'place', 'fill', 'stake', 'berm', 'mulch', 'water', 'guard'] as const;
export type LabourTask = (typeof labourTasks)[number];

/** Rates a programme's own logged hours correct. */
export interface LabourRates {
  /** Litres one person digs in an hour, by soil. */
  readonly digLPerH: Readonly<Record<'sand' | 'sandy_loam' | 'loam' | 'clay_loam' | 'clay', number>>;
  readonly stonyShare: number;
  readonly compactedShare: number;
  readonly fillLPerH: number;
  readonly mulchLPerH: number;
  readonly waterLPerH: number;
  readonly rootsMin: number;
  /** Place and plumb, and more for each kg lifted. */
  readonly placeMin: number;
  readonly placeMinPer10Kg: number;
  readonly stakeMin: number;
  readonly bermMin: number;
  readonly guardMin: number;
  /** Share of the digging saved where sides are broken down rather than dug. */
  readonly brokenDownShare: number;
}

export const defaultLabourRates: LabourRates = {
  digLPerH: { sand: 420, sandy_loam: 360, loam: 300, clay_loam: 230, clay: 170 },
  stonyShare: 0.6,
  compactedShare: 0.65,
  fillLPerH: 700,
  mulchLPerH: 600,
  waterLPerH: 900,
  rootsMin: 8,
  placeMin: 8,
  placeMinPer10Kg: 0.5,
  stakeMin: 6,
  bermMin: 8,
  guardMin: 3,
  brokenDownShare: 0.75,
};

export interface Labour {
  readonly tasks: readonly { readonly task: LabourTask; readonly minutes: number }[];
  /** Person-hours. */
  readonly hours: number;
}

/** Person-hours for one tree: from pit volume, soil, stock and practice. */
export function labourOf(
  input: {
    plan: PitPlan;
    practice: Practice;
    stock: Stock;
    stakes: StakePlan | null;
    soil: keyof LabourRates['digLPerH'];
    stony: boolean;
    compacted: boolean;
    guarded: boolean;
  },
  rates: LabourRates = defaultLabourRates,
): Labour {
  const { plan, practice, stakes } = input;
  const digLPerH =
    rates.digLPerH[input.soil] * (input.stony ? rates.stonyShare : 1) * (input.compacted ? rates.compactedShare : 1);
  const dug = plan.pitL.value * (practice.pitWidth.sides === 'broken_down' ? rates.brokenDownShare : 1);
  const deeperL = (plan.pitL.value / Math.max(1, plan.meanDepthMm)) * plan.fillUnderBallMm;
  const fillFactor = practice.backfill.settling === 'water' ? 0.8 : practice.backfill.settling === 'heel' ? 1.2 : 1;
  const hand: Readonly<Record<LabourTask, number>> = {
    dig: ((dug + deeperL) / digLPerH) * 60,
    roots:
      practice.roots.correction === 'leave'
        ? 3
        : practice.roots.correction === 'wash'
          ? 3 * rates.rootsMin
          : rates.rootsMin,
    place: rates.placeMin + (plan.massKg.value / 10) * rates.placeMinPer10Kg,
    fill: ((plan.backfillL.value + deeperL) / rates.fillLPerH) * 60 * fillFactor,
    stake: (stakes?.stakes ?? 0) * rates.stakeMin,
    berm: plan.berm ? rates.bermMin : 0,
    mulch: (plan.mulchL.value / rates.mulchLPerH) * 60,
    water: (plan.firstWaterL.value / rates.waterLPerH) * 60,
    guard: input.guarded ? rates.guardMin : 0,
  };
  const tasks = labourTasks.map((task) => ({ task, minutes: hand[task] })).filter(({ minutes }) => minutes > 0);
  return { tasks, hours: tasks.reduce((sum, { minutes }) => sum + minutes, 0) / 60 };
}
