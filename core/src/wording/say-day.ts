import type { DayReasonFacts } from '../day';
import { type Sentences } from './sentence';

export const daySentences: Sentences<DayReasonFacts> = {
  flare_as_planned: (f, s) =>
    `Flare ${s.mm(f.actualMm)} above grade, planned ${s.mm(f.plannedMm)} ± ${s.mm(f.toleranceMm)}.`,
  flare_below_grade: (f, s) => `Flare ${s.mm(-f.actualMm)} below grade, planned ${s.mm(f.plannedMm)} above.`,
  flare_lower_than_plan: (f, s) =>
    `Flare ${s.mm(f.plannedMm - f.actualMm)} lower than planned (${s.mm(f.actualMm)} for ${s.mm(f.plannedMm)}); it will settle further.`,
  flare_higher_than_plan: (f, s) =>
    `Flare ${s.mm(f.actualMm - f.plannedMm)} higher than planned (${s.mm(f.actualMm)} for ${s.mm(f.plannedMm)}): it dries sooner.`,
  flare_uneven: (f, s) =>
    `Flare heights differ by ${s.mm(f.spreadMm)} around the trunk; up to ${s.mm(f.limitMm)} is expected.`,
  hole_as_planned: (f, s) => `Hole ${s.mm(f.actualMm)} wide, planned ${s.mm(f.plannedMm)}.`,
  hole_narrow: (f, s) => `Hole ${s.mm(f.actualMm)} wide, planned ${s.mm(f.plannedMm)}, at least ${s.mm(f.leastMm)}.`,
  first_water_given: (f, s) => `First water ${s.L(f.actualL)}, planned ${s.L(f.plannedL)}.`,
  first_water_short: (f, s) => `First water ${s.L(f.actualL)}, ${s.L(f.missingL)} short of ${s.L(f.plannedL)}.`,
  first_water_unasked: (f, s) => `First water ${s.L(f.actualL)} where the plan asks for none.`,
  no_plan_to_compare: () => 'No pit plan stands to compare the planting with.',
};
