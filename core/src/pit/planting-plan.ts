import type { Assessment, GroundFacts } from '../ground';
import type { Practice } from '../practice';
import { because, type Reason } from '../reason';
import type { Stock } from '../stock';
import { routineWater, type RoutineWater } from '../water';
import { groundPercolationClass } from '../ground';
import { labourOf, materialsOf, type Amounts, type Labour, type LabourRates } from './materials';
import { pitPlan, type NoPitPlan, type PitPlan } from './pit-plan';
import { stakePlan, type StakePlan } from './stake-plan';
import { plantingSteps, type PlantingStep } from './steps';

/** Everything one tree asks for at one spot by one practice. */
export interface PlantingPlan {
  readonly kind: 'plan';
  readonly pit: PitPlan;
  readonly stakes: StakePlan | null;
  readonly stakeBecause: readonly Reason[];
  readonly materials: Amounts;
  readonly labour: Labour;
  readonly routine: RoutineWater;
  readonly steps: readonly PlantingStep[];
}

export interface PlantingInput {
  readonly practice: Practice;
  readonly stock: Stock;
  readonly ground: GroundFacts;
  readonly assessment: Assessment | null;
  readonly firstBranchM?: number | null;
  /** Deer or mowers are recorded at the place. */
  readonly rubbed?: boolean;
  readonly rates?: LabourRates;
}

/**
 * One engine for every school: practice, stock and spot give the pit, the stakes, the materials, the hours, the
 * water of the first season and the steps, or the reasons why there is no plan.
 * @throws InvalidInputError for a measure outside `limits`
 */
export function plantingPlan(input: PlantingInput): PlantingPlan | NoPitPlan {
  const { practice, stock, ground, assessment } = input;
  const pit = pitPlan({ ground, stock, practice });
  if (pit.kind === 'no_plan') return pit;
  if (ground.soil === null) return { kind: 'no_plan', because: [because('soil_missing', {})] };
  const { plan: stakes, because: stakeBecause } = stakePlan({
    practice,
    stock,
    exposure: assessment?.wind ?? null,
    winterWindDeg: assessment?.winterWindDeg ?? null,
    summerWindDeg: assessment?.summerWindDeg ?? null,
    firstBranchM: input.firstBranchM ?? null,
  });
  const heavySoil = ground.soil === 'clay' || ground.soil === 'clay_loam';
  const materials = materialsOf({
    plan: pit,
    practice,
    stakes,
    heavySoil,
    saltDsM: assessment?.saltDsM ?? null,
    rubbed: input.rubbed ?? false,
  });
  const labour = labourOf(
    {
      plan: pit,
      practice,
      stock,
      stakes,
      soil: ground.soil,
      stony: ground.stony,
      compacted: ground.compacted,
      guarded: (materials.guard ?? 0) > 0,
    },
    input.rates,
  );
  const percolation = groundPercolationClass(ground);
  return {
    kind: 'plan',
    pit,
    stakes,
    stakeBecause,
    materials,
    labour,
    routine: routineWater({ stock, percolation, mulchRingMm: pit.mulchRingMm, practice }),
    steps: plantingSteps({ pit, practice, stock, stakes, materials, percolation }),
  };
}
