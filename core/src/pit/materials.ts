import {
  fertilisers,
  fillMaterials,
  guardRules,
  gypsumUses,
  type BoughtPerTree,
  type FillMaterial,
  type Fertiliser,
  type GuardRule,
  type Pack,
  type Practice,
} from '../practice';
import { requireWithin } from '../errors';
import { because, type PitReason } from './reasons';
import { stadiumArea } from './pit-geometry';
import type { PitPlan } from './pit-plan';
import type { StakePlan } from './stake-plan';

type Bagged = Exclude<FillMaterial, 'site_soil'>;
/** What may be mixed into the fill is bought as its option says: a new one is bought without a word here. */
const baggedCodes = (Object.keys(fillMaterials) as FillMaterial[]).filter((code) => code !== 'site_soil');

type Feed = NonNullable<(typeof fertilisers)[Fertiliser]['buys']>['code'];
const feeds: readonly (BoughtPerTree & { code: Feed })[] = Object.values(fertilisers).flatMap(({ buys }) =>
  buys === null ? [] : [buys],
);

const otherCodes = ['gypsum', 'mulch', 'stake', 'tie', 'guard', 'bucket', 'water'] as const;
export type MaterialCode = Bagged | Feed | (typeof otherCodes)[number];
export const materialCodes: readonly MaterialCode[] = [...baggedCodes, ...feeds.map(({ code }) => code), ...otherCodes];
export type MaterialUnit = 'L' | 'kg' | 'm' | 'piece';

export interface Material {
  readonly name: string;
  readonly unit: MaterialUnit;
  /** How it is sold: amounts are rounded up to whole packs over everything bought together. */
  readonly pack: Pack;
}

const bagged = (name: string, size: number): Material => ({
  name,
  unit: 'L',
  pack: { size, word: 'bag' },
});

export const materials: Readonly<Record<MaterialCode, Material>> = {
  ...(Object.fromEntries(
    baggedCodes.map((code) => [code, bagged(fillMaterials[code].name, fillMaterials[code].bagL)]),
  ) as Record<Bagged, Material>),
  ...(Object.fromEntries(feeds.map(({ code, name, unit, pack }) => [code, { name, unit, pack }])) as Record<
    Feed,
    Material
  >),
  gypsum: { name: 'gypsum', unit: 'kg', pack: { size: 25, word: 'sack' } },
  mulch: { name: 'mulch', unit: 'L', pack: { size: 1000, word: 'loose load' } },
  stake: { name: 'stake', unit: 'piece', pack: { size: 1, word: 'bundle' } },
  tie: { name: 'wide strap', unit: 'm', pack: { size: 25, word: 'roll' } },
  guard: { name: 'trunk guard', unit: 'piece', pack: { size: 1, word: 'bundle' } },
  bucket: { name: 'bucket of 15 L', unit: 'piece', pack: { size: 1, word: 'bundle' } },
  water: { name: 'first water', unit: 'L', pack: { size: 1, word: 'tank' } },
};

export type Amounts = Partial<Readonly<Record<MaterialCode, number>>>;

/** From where on a soil test asks for gypsum in clay. */
export interface SoilTestRules {
  /** Sodium adsorption ratio of the saturated extract. */
  readonly sodicFromSar: number;
  /** Salt of the saturated extract, where sodium was not tested. dS/m */
  readonly saltyFromDsM: number;
}

/** Saline from 4 dS/m, sodic from a ratio of 13: US Salinity Laboratory Staff 1954, Agriculture Handbook 60. */
export const defaultSoilTestRules: SoilTestRules = { sodicFromSar: 13, saltyFromDsM: 4 };

/** A strap around trunk and stake, in a figure of eight. */
const tieM = 1.2;
const bucketL = 15;

/** What one tree takes, by its plan, and why where the plan does not say it already. */
export function materialsOf(input: {
  plan: PitPlan;
  practice: Practice;
  stakes: StakePlan | null;
  clay: boolean;
  /** As far as the soil was tested. */
  saltDsM: number | null;
  sodiumSar: number | null;
  /** Deer or mowers are recorded at the place. */
  rubbed: boolean;
  soilTest: SoilTestRules;
}): { amounts: Amounts; because: Partial<Readonly<Record<MaterialCode, readonly PitReason[]>>> } {
  const { plan, practice, stakes } = input;
  const { amendment, shape } = plan;
  const pitM2 = stadiumArea(shape.widthMm, shape.lengthMm) / 1e6;
  const feed = fertilisers[practice.backfill.fertiliser].buys;
  const gypsum = gypsumOf(input);
  const guarded = guardNeeded(practice.guard, input.rubbed);
  const all: readonly (readonly [MaterialCode, number])[] = [
    ...(amendment.material === 'site_soil' ? [] : [[amendment.material, amendment.value] as const]),
    ['gypsum', pitM2 * gypsum.kgPerM2],
    ...(feed === null ? [] : [[feed.code, feed.perTree] as const]),
    ['mulch', plan.mulchL.value],
    ['stake', stakes?.stakes ?? 0],
    ['tie', (stakes?.stakes ?? 0) * tieM],
    ['guard', guarded ? 1 : 0],
    ['water', plan.firstWaterL.value],
    ['bucket', plan.firstWaterL.value > 0 ? Math.min(4, Math.ceil(plan.firstWaterL.value / bucketL)) : 0],
  ];
  const amounts: Amounts = Object.fromEntries(all.filter(([, amount]) => amount > 0));
  return {
    amounts,
    because: {
      gypsum: gypsum.because,
      ...(guarded ? { guard: [because('need_guard', { rule: practice.guard })] } : {}),
      ...(amounts.tie ? { tie: [because('need_tie', { eachM: tieM })] } : {}),
      ...(amounts.bucket
        ? { bucket: [because('need_buckets', { eachL: bucketL, litres: plan.firstWaterL.value })] }
        : {}),
    },
  };
}

/**
 * Gypsum exchanges sodium: where the ratio was tested it decides, else the salt of the extract stands in for it. In
 * other soil than clay, or by a practice that uses none, there is nothing to say.
 */
function gypsumOf({
  practice,
  clay,
  saltDsM,
  sodiumSar,
  soilTest: { sodicFromSar, saltyFromDsM },
}: Parameters<typeof materialsOf>[0]): { kgPerM2: number; because: readonly PitReason[] } {
  const { kgPerM2 } = gypsumUses[practice.backfill.gypsum];
  if (!clay || kgPerM2 === 0) return { kgPerM2: 0, because: [] };
  if (sodiumSar !== null) {
    const sodic = sodiumSar >= sodicFromSar;
    return {
      kgPerM2: sodic ? kgPerM2 : 0,
      because: [because('need_gypsum_sodium', { sodiumSar, sodicFromSar, kgPerM2 })],
    };
  }
  if (saltDsM === null) return { kgPerM2: 0, because: [because('need_gypsum_untested', {})] };
  const salty = saltDsM >= saltyFromDsM;
  return { kgPerM2: salty ? kgPerM2 : 0, because: [because('need_gypsum_salt', { saltDsM, saltyFromDsM, kgPerM2 })] };
}

function guardNeeded(rule: GuardRule, rubbed: boolean): boolean {
  const { when } = guardRules[rule];
  return when === 'always' || (when === 'recorded' && rubbed);
}

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
  readonly packSize: number;
  readonly bought: number;
}

/**
 * What to buy: the sum less what lies in store, rounded up to what is sold.
 * @throws InvalidInputError for a pack that holds nothing
 */
export function shoppingList(
  needed: Amounts,
  store: Amounts,
  packSizes: Readonly<Record<MaterialCode, number>>,
): MaterialLine[] {
  return materialCodes
    .filter((code) => (needed[code] ?? 0) > 0)
    .map((code) => {
      const [need, inStore] = [needed[code] ?? 0, store[code] ?? 0];
      const size = requireWithin(`packs.${code}`, packSizes[code], { min: 1e-3, max: 1e6, unit: materials[code].unit });
      // Water comes from the truck; a hair of slack keeps sums of fractions from buying one pack too many.
      const packs = code === 'water' ? 0 : Math.max(0, Math.ceil((need - inStore) / size - 1e-9));
      return { code, needed: need, inStore, packs, packSize: size, bought: packs * size };
    });
}
