import { requireWithin } from '../errors';
import { crownSpreadM, type CrownGrowth } from './crown';
import { matureHeightM, matureSpreadM, type GrowthClass, type Species } from './species';

/**
 * Share of the missing size gained each year once settled, by growth class: slow trees reach half of it in
 * twenty years, fast ones in seven. Monomolecular growth, an estimate good to perhaps a third.
 */
export const growthRatePerYear: Readonly<Record<GrowthClass, number>> = { slow: 0.035, medium: 0.06, fast: 0.1 };

/** Years in which a transplanted tree hardly grows. */
const settlingYears = 1;

export interface TreeSize {
  readonly heightM: number;
  readonly crownM: number;
  /** Underside of the crown once it has been raised over path and road. m */
  readonly clearM: number;
}

/** Height to which a street tree's crown is raised while young. m */
const raisedToM = 2.5;

/** How a crown of this species fills out. */
export const crownGrowthOf = (species: Species): CrownGrowth => ({
  spreadShareAtPlanting: 0.35,
  matureSpreadM: matureSpreadM(species),
  ratePerYear: growthRatePerYear[species.growth],
  settlingYears,
});

/**
 * Size of a tree so many years after planting, by the species' typical mature size.
 * @throws InvalidInputError for years outside 0–300 or a planting height outside 0.2–25 m
 */
export function treeSizeAt(species: Species, tree: { heightAtPlantingM: number; years: number }): TreeSize {
  requireWithin('years', tree.years, { min: 0, max: 300, unit: 'years' });
  const ratePerYear = growthRatePerYear[species.growth];
  const matureM = matureHeightM(species);
  const startM = Math.min(tree.heightAtPlantingM, matureM);
  const growing = Math.max(0, tree.years - settlingYears);
  const heightM = matureM - (matureM - startM) * Math.exp(-ratePerYear * growing);
  return { heightM, crownM: crownSpreadM(tree, crownGrowthOf(species)), clearM: Math.min(raisedToM, heightM * 0.4) };
}

/** What a growing tree can run into at a spot; `null` for what is not there. m */
export interface SpotRoom {
  /** Greatest height under the wire, headroom taken off. */
  readonly tallestM: number | null;
  /** Level distance to the wire; a crown that does not reach it passes beside. */
  readonly wireM: number | null;
  readonly wallM: number | null;
  readonly nextTreeM: number | null;
}

export type ConflictWith = 'wire' | 'wall' | 'tree';

export interface Conflict {
  readonly with: ConflictWith;
  readonly year: number;
}

const longestYears = 60;

/** First year in which the tree meets each thing, within sixty years; the earliest first. */
export function firstConflicts(species: Species, room: SpotRoom, heightAtPlantingM: number): Conflict[] {
  const met: Conflict[] = [];
  for (let year = 0; year <= longestYears; year++) {
    const { heightM, crownM } = treeSizeAt(species, { heightAtPlantingM, years: year });
    const radiusM = crownM / 2;
    const note = (thing: ConflictWith, meets: boolean) => {
      if (meets && !met.some((one) => one.with === thing)) met.push({ with: thing, year });
    };
    const underWire = room.tallestM !== null && heightM > room.tallestM;
    note('wire', underWire && (room.wireM === null || radiusM > room.wireM));
    note('wall', room.wallM !== null && radiusM > room.wallM);
    // The neighbour is thought to grow alike: both crowns meet half way, each with its radius.
    note('tree', room.nextTreeM !== null && crownM > room.nextTreeM);
  }
  return met;
}
