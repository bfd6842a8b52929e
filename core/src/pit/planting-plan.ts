import { groundPercolationClass, saltFacedDsM, sodiumFacedSar, type Assessment, type GroundFacts } from '../ground';
import type { Practice } from '../practice';
import type { Stock, StockOffer } from '../stock';
import { routineWater, type RoutineWater } from '../water';
import { carryOf, type CarryPlan } from './carry';
import { facingOf, type Facing } from './facing';
import { labourOf, type Labour } from './labour';
import { feedsOf, materialsOf, type Amounts, type MaterialCode } from './materials';
import { digDepthMm, pitPlan, type NoPitPlan, type PitPlan, type PitResult } from './pit-plan';
import { because, type PitReason } from './reasons';
import { stakePlan, type StakePlan } from './stake-plan';
import { plantingSteps, type PlantingStep } from './steps';
import type { WorkRules } from './work-rules';

/** Everything one tree asks for at one spot by one practice. */
export interface PlantingPlan {
  readonly kind: 'plan';
  readonly pit: PitPlan;
  readonly stakes: StakePlan | null;
  readonly stakeBecause: readonly PitReason[];
  readonly materials: Amounts;
  /** Why, where the pit plan does not say it already; of what might have been needed too. */
  readonly materialsBecause: Partial<Readonly<Record<MaterialCode, readonly PitReason[]>>>;
  readonly labour: Labour;
  /** How the tree comes from the kerb to its pit. */
  readonly carry: CarryPlan;
  /** What the ground holds against the pit. */
  readonly obstacles: readonly PitReason[];
  readonly facing: Facing;
  readonly routine: RoutineWater;
  readonly steps: readonly PlantingStep[];
}

export interface PlantingInput {
  readonly practice: Practice;
  readonly stock: Stock;
  readonly ground: GroundFacts;
  readonly assessment: Assessment | null;
  /** The way from the kerb where it is known otherwise than from the assessment. */
  readonly route?: { readonly distanceM?: number | undefined; readonly slopePct?: number | undefined } | undefined;
  readonly work: WorkRules;
  /** The side the sun stands on at noon, as `facingOf` takes it. */
  readonly sunDeg?: number | null | undefined;
  readonly autumn?: boolean | undefined;
  /** Whether the tree rests on its planting day, and what nurseries have of its species, as `pitPlan` takes them. */
  readonly dormant?: boolean;
  readonly offers?: readonly StockOffer[] | undefined;
  /** The pit where it is planned already. */
  readonly pit?: PitResult;
}

/**
 * One engine for every school: practice, stock and spot give the pit, the stakes, the materials, the hours, the
 * water of the first season and the steps, or the reasons why there is no plan.
 * @throws InvalidInputError for a measure outside `limits`
 */
export function plantingPlan(input: PlantingInput): PlantingPlan | NoPitPlan {
  const { practice, stock, ground, assessment, work } = input;
  const soilPh = assessment?.soilPh ?? null;
  const pit = input.pit ?? pitPlan({ ...input, soilPh, irrigation: assessment?.irrigation });
  if (pit.kind === 'no_plan') return pit;
  if (ground.soil === null) return { kind: 'no_plan', because: [because('soil_missing', {})] };
  const { plan: stakes, because: stakeBecause } = stakePlan({
    practice,
    stock,
    exposure: assessment?.wind ?? null,
    winterWindDeg: assessment?.winterWindDeg ?? null,
    summerWindDeg: assessment?.summerWindDeg ?? null,
    firstBranchM: stock.firstBranchM ?? null,
    stripWidthMm: ground.stripWidthMm,
    pavementDeg: assessment?.pavementDeg ?? null,
    wind: work.wind,
  });
  const { amounts: materials, because: materialsBecause } = materialsOf({
    plan: pit,
    practice,
    stakes,
    clay: ground.soil === 'clay' || ground.soil === 'clay_loam',
    saltDsM: saltFacedDsM(assessment),
    sodiumSar: sodiumFacedSar(assessment),
    soilPh,
    caliperMm: stock.caliperMm,
    soilTest: work.soilTest,
    rubbed: (assessment?.rubbedBy ?? []).length > 0,
  });
  const carry = carryOf(input, pit.massKg.value);
  const { feeds } = feedsOf(practice, { soilPh, soilTest: work.soilTest });
  const labour = labourOf(
    {
      plan: pit,
      practice,
      kind: stock.kind,
      stakes,
      carry,
      soil: ground.soil,
      stony: ground.stony ?? false,
      compacted: ground.compacted ?? false,
      guarded: (materials.guard ?? 0) > 0,
      feeds: feeds.length + ((materials.gypsum ?? 0) > 0 ? 1 : 0),
    },
    work.labour,
  );
  const percolation = groundPercolationClass(ground, practice.percolation);
  const facing = facingOf({ assessment, face: stock.face, sunDeg: input.sunDeg });
  return {
    kind: 'plan',
    pit,
    stakes,
    stakeBecause,
    materials,
    materialsBecause,
    labour,
    carry,
    obstacles: rockIn(pit, assessment),
    routine: routineWater({
      stock,
      percolation,
      ringM2: pit.ringM2,
      practice,
      neighbourRoots: assessment?.neighbourRoots,
    }),
    facing,
    steps: plantingSteps({ pit, practice, stock, stakes, materials, feeds, percolation, carry, facing }),
  };
}

/** Rock that somebody found above the base of the pit, soil dug out below the ball included. */
function rockIn(pit: PitPlan, assessment: Assessment | null): PitReason[] {
  const rockAtMm = assessment?.rockAtMm ?? null;
  const depthMm = digDepthMm(pit);
  return rockAtMm !== null && rockAtMm < depthMm ? [because('rock_in_pit', { rockAtMm, depthMm })] : [];
}
