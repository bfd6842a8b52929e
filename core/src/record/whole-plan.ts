import { plantingPlan, type NoPitPlan, type PlantingPlan, type WorkRules } from '../pit';
import type { SpotBasis } from './spot-basis';

/** The whole plan of a spot: pit, stakes, materials, hours, water and steps; `null` while no stock is measured. */
export function wholePlan(
  basis: SpotBasis,
  { work, route }: { work: WorkRules; route?: { readonly distanceM?: number; readonly slopePct?: number } },
): PlantingPlan | NoPitPlan | null {
  const { stock, plan, practice, ground, assessment, sunDeg, autumn } = basis;
  if (!stock || !plan) return null;
  return plantingPlan({ practice, stock, ground, assessment, work, route, sunDeg, autumn, pit: plan });
}
