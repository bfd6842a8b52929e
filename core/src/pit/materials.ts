import {
  feedPlaceCodes,
  fertilisers,
  fillMaterials,
  gypsumUses,
  tieMaterials,
  type BoughtPerTree,
  type FeedPlace,
  type FillMaterial,
  type Fertiliser,
  type Pack,
  type Practice,
  type TieMaterial,
} from '../practice';
import { requireWithin } from '../errors';
import { guardOf } from './guard';
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

type Tie = (typeof tieMaterials)[TieMaterial]['code'];
const ties = Object.values(tieMaterials);

const otherCodes = ['gypsum', 'mulch', 'stake', ...ties.map(({ code }) => code), 'guard', 'bucket', 'water'] as const;
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
  ...(Object.fromEntries(
    ties.map(({ code, name }) => [code, { name, unit: 'm', pack: { size: 25, word: 'roll' } }]),
  ) as Record<Tie, Material>),
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
  /** Lime is fed to soil more acid than this. */
  readonly limeUnderPh: number;
}

/** Saline from 4 dS/m, sodic from a ratio of 13: US Salinity Laboratory Staff 1954, Agriculture Handbook 60. */
export const defaultSoilTestRules: SoilTestRules = { sodicFromSar: 13, saltyFromDsM: 4, limeUnderPh: 5.5 };

const bucketL = 15;

/** What one tree takes, by its plan, and why where the plan does not say it already. */
export function materialsOf(input: {
  plan: PitPlan;
  practice: Practice;
  stakes: StakePlan | null;
  clay: boolean;
  /** What the tree will stand in, by tests of the soil and of its water. */
  saltDsM: number | null;
  sodiumSar: number | null;
  soilPh: number | null;
  /** Deer or mowers are recorded at the place. */
  rubbed: boolean;
  caliperMm: number;
  soilTest: SoilTestRules;
}): { amounts: Amounts; because: Partial<Readonly<Record<MaterialCode, readonly PitReason[]>>> } {
  const { plan, practice, stakes } = input;
  const { amendments, shape, soil } = plan;
  const pitM2 = stadiumArea(shape.widthMm, shape.lengthMm) / 1e6;
  const feeding = feedsOf(practice, input);
  const tie = tieMaterials[practice.staking.tie];
  const gypsum = gypsumOf(input);
  const guard = guardOf(practice, input);
  const all: readonly (readonly [MaterialCode, number])[] = [
    ...amendments.each.flatMap(({ material, litres }) =>
      material === 'site_soil' ? [] : [[material, litres] as const],
    ),
    ['topsoil', soil.boughtL],
    ['gypsum', pitM2 * gypsum.kgPerM2],
    ...feeding.feeds.map(({ code, amount }) => [code, amount] as const),
    ['mulch', plan.mulchL.value],
    ['stake', stakes?.stakes ?? 0],
    [tie.code, (stakes?.stakes ?? 0) * tie.perStakeM],
    ['guard', guard.needed ? 1 : 0],
    ['water', plan.firstWaterL.value],
    ['bucket', plan.firstWaterL.value > 0 ? Math.min(4, Math.ceil(plan.firstWaterL.value / bucketL)) : 0],
  ];
  const amounts = sumAmounts(all.filter(([, amount]) => amount > 0).map(([code, amount]) => ({ [code]: amount })));
  return {
    amounts,
    because: {
      gypsum: gypsum.because,
      ...(soil.boughtL > 0 ? { topsoil: [because('soil_bought', { boughtL: soil.boughtL })] } : {}),
      ...(feeding.because.length > 0 ? { rock_lime: feeding.because } : {}),
      ...(guard.because.length > 0 ? { guard: guard.because } : {}),
      ...(amounts[tie.code]
        ? { [tie.code]: [because('need_tie', { tie: practice.staking.tie, eachM: tie.perStakeM })] }
        : {}),
      ...(amounts.bucket
        ? { bucket: [because('need_buckets', { eachL: bucketL, litres: plan.firstWaterL.value })] }
        : {}),
    },
  };
}

/** One feed at one place, in its own unit. */
export interface Feeding {
  readonly place: FeedPlace;
  readonly fertiliser: Fertiliser;
  readonly code: Feed;
  readonly amount: number;
}

/** What the practice feeds, and where; lime only where the soil was tested and is acid. */
export function feedsOf(
  { backfill: { feeds: fed } }: Practice,
  { soilPh, soilTest }: { readonly soilPh: number | null; readonly soilTest: SoilTestRules },
): { readonly feeds: readonly Feeding[]; readonly because: readonly PitReason[] } {
  const underPh = soilTest.limeUnderPh;
  const acid = soilPh !== null && soilPh < underPh;
  const asked = feedPlaceCodes.flatMap((place) => {
    const { buys } = fertilisers[fed[place]];
    return buys === null ? [] : [{ place, fertiliser: fed[place], code: buys.code, amount: buys.perTree }];
  });
  const refused = asked.some(({ code }) => code === 'rock_lime') && !acid;
  return {
    feeds: asked.filter(({ code }) => code !== 'rock_lime' || acid),
    because: refused ? [because('feed_lime_refused', { soilPh, underPh })] : [],
  };
}

/**
 * Gypsum exchanges sodium: where the ratio was tested it decides, else the salt stands in for it. In other soil than clay, or by a practice that uses none, there is nothing to say.
 */
function gypsumOf({
  practice,
  clay,
  saltDsM,
  sodiumSar,
  soilTest: { sodicFromSar, saltyFromDsM },
}: Parameters<typeof materialsOf>[0]): { kgPerM2: number; because: readonly PitReason[] } {
  const { kgPerM2, byTest } = gypsumUses[practice.backfill.gypsum];
  if (!clay || kgPerM2 === 0) return { kgPerM2: 0, because: [] };
  if (!byTest) return { kgPerM2, because: [because('need_gypsum_always', { kgPerM2 })] };
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
