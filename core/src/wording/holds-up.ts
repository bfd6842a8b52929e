import type { Reason } from '../record';

/** What cannot be gone on with while something is missing before planting; goes on after *holds up*. */
export const holdsUp: Partial<Readonly<Record<Reason['code'], string>>> = {
  soil_missing: 'the pit, the first soak and the species',
  percolation_missing: 'the depth of the pit, the berm and the watering',
  percolation_questioned: 'the depth of the pit, the berm and the watering',
  percolation_unsettled: 'the depth of the pit, the berm and the watering',
  slope_missing: 'the depth of the pit and the berm',
  assessment_missing: 'the verdict on the place',
  verdict_missing: 'the species',
  verdict_move: 'everything here, until the spot is moved',
  verdict_plant_if: 'everything here, until it is done',
  species_missing: 'the order',
  stock_missing: 'the pit plan, its card and its materials',
};
