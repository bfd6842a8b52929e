import { soakRules, type SoakRule } from '../practice';
import { pitPlan, type PitInput } from './pit-plan';

/** Litres of the first soak by each school's rule, for one tree and its pit; `null` where there can be no plan. */
export function soakLitres(input: PitInput): Readonly<Record<SoakRule, number>> | null {
  const found: Partial<Record<SoakRule, number>> = {};
  for (const rule of Object.keys(soakRules) as SoakRule[]) {
    const firstSoak = { ...input.practice.firstSoak, rule };
    const plan = pitPlan({ ...input, practice: { ...input.practice, firstSoak } });
    if (plan.kind !== 'plan') return null;
    found[rule] = plan.firstWaterL.value;
  }
  return found as Record<SoakRule, number>;
}
