import { requireWithin } from '../errors';

/** How a crown fills out: data of a species class, until a species says better. */
export interface CrownGrowth {
  /** Spread at planting as a share of the tree's height. */
  readonly spreadShareAtPlanting: number;
  readonly matureSpreadM: number;
  /** Share of the missing spread gained each year. */
  readonly ratePerYear: number;
  /** Years after planting in which the crown hardly grows. */
  readonly settlingYears: number;
}

/** A middling street tree: about half of its spread after eleven years. */
export const middlingCrown: CrownGrowth = {
  spreadShareAtPlanting: 0.35,
  matureSpreadM: 8,
  ratePerYear: 0.07,
  settlingYears: 1,
};

/**
 * Crown spread by a bounded curve (monomolecular growth: the yearly gain is a fixed share of what is still
 * missing), metres. An estimate for drawing to scale, good to perhaps a third; a measured crown is better.
 * @throws InvalidInputError for a height outside 0.2–25 m or years outside 0–300
 */
export function crownSpreadM(
  tree: { heightAtPlantingM: number; years: number },
  growth: CrownGrowth = middlingCrown,
): number {
  requireWithin('heightAtPlantingM', tree.heightAtPlantingM, { min: 0.2, max: 25, unit: 'm' });
  requireWithin('years', tree.years, { min: 0, max: 300, unit: 'years' });
  const atPlanting = Math.min(tree.heightAtPlantingM * growth.spreadShareAtPlanting, growth.matureSpreadM);
  const growing = Math.max(0, tree.years - growth.settlingYears);
  return growth.matureSpreadM - (growth.matureSpreadM - atPlanting) * Math.exp(-growth.ratePerYear * growing);
}
