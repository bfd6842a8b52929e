import {
  fertilisers,
  fillMaterials,
  guardRules,
  gypsumUses,
  type BoughtPerTree,
  type FillMaterial,
  type Fertiliser,
  type GuardRule,
  type Practice,
} from '../practice';
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
  readonly pack: { readonly size: number; readonly name: string };
}

const bagged = (name: string, size: number): Material => ({
  name,
  unit: 'L',
  pack: { size, name: `bag of ${size} L` },
});

export const materials: Readonly<Record<MaterialCode, Material>> = {
  ...(Object.fromEntries(
    baggedCodes.map((code) => [code, bagged(fillMaterials[code].name, fillMaterials[code].bagL)]),
  ) as Record<Bagged, Material>),
  ...(Object.fromEntries(feeds.map(({ code, name, unit, pack }) => [code, { name, unit, pack }])) as Record<
    Feed,
    Material
  >),
  gypsum: { name: 'gypsum', unit: 'kg', pack: { size: 25, name: 'sack of 25 kg' } },
  mulch: { name: 'mulch', unit: 'L', pack: { size: 1000, name: 'cubic metre' } },
  stake: { name: 'stake', unit: 'piece', pack: { size: 1, name: 'piece' } },
  tie: { name: 'wide strap', unit: 'm', pack: { size: 25, name: 'roll of 25 m' } },
  guard: { name: 'trunk guard', unit: 'piece', pack: { size: 1, name: 'piece' } },
  bucket: { name: 'bucket of 15 L', unit: 'piece', pack: { size: 1, name: 'piece' } },
  water: { name: 'first water', unit: 'L', pack: { size: 1, name: 'litre' } },
};

export type Amounts = Partial<Readonly<Record<MaterialCode, number>>>;

/** Salt of the saturated extract from which clay counts as salty. dS/m */
const saltyDsM = 4;
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
  const pitM2 = stadiumArea(shape.widthMm, shape.lengthMm) / 1e6;
  const feed = fertilisers[practice.backfill.fertiliser].buys;
  const salty = input.heavySoil && input.saltDsM !== null && input.saltDsM >= saltyDsM;
  const guarded = guardNeeded(practice.guard, input.rubbed);
  const all: readonly (readonly [MaterialCode, number])[] = [
    ...(amendment.material === 'site_soil' ? [] : [[amendment.material, amendment.value] as const]),
    ['gypsum', salty ? pitM2 * gypsumUses[practice.backfill.gypsum].kgPerM2 : 0],
    ...(feed === null ? [] : [[feed.code, feed.perTree] as const]),
    ['mulch', plan.mulchL.value],
    ['stake', stakes?.stakes ?? 0],
    ['tie', (stakes?.stakes ?? 0) * tieM],
    ['guard', guarded ? 1 : 0],
    ['water', plan.firstWaterL.value],
    ['bucket', plan.firstWaterL.value > 0 ? Math.min(4, Math.ceil(plan.firstWaterL.value / bucketL)) : 0],
  ];
  return Object.fromEntries(all.filter(([, amount]) => amount > 0));
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
