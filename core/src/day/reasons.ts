import { becauseOf, type ReasonOf } from '../reason';

/** What the planting as built gives as why. Lengths are millimetres unless the name says otherwise. */
export interface DayReasonFacts {
  flare_as_planned: { actualMm: number; plannedMm: number; toleranceMm: number };
  flare_below_grade: { actualMm: number; plannedMm: number };
  flare_lower_than_plan: { actualMm: number; plannedMm: number; toleranceMm: number };
  flare_higher_than_plan: { actualMm: number; plannedMm: number; toleranceMm: number };
  flare_uneven: { spreadMm: number; limitMm: number };
  hole_as_planned: { actualMm: number; plannedMm: number };
  hole_narrow: { actualMm: number; plannedMm: number; leastMm: number };
  first_water_given: { actualL: number; plannedL: number };
  first_water_short: { actualL: number; plannedL: number; missingL: number };
  first_water_unasked: { actualL: number };
  no_plan_to_compare: Record<string, never>;
}

export type DayReason = ReasonOf<DayReasonFacts>;

export const because = becauseOf<DayReasonFacts>();
