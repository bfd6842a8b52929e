import type { PercolationClass } from '../ground';
import { fertilisers, herbicideUses, type Practice } from '../practice';
import type { Stock } from '../stock';
import type { CarryPlan } from './carry';
import type { Amounts } from './materials';
import type { PitPlan } from './pit-plan';
import type { StakePlan } from './stake-plan';

export const stepCodes = [
  'mark_out',
  'lift_turf',
  'open_tree',
  'find_flare',
  'correct_roots',
  'prune_broken',
  'dig',
  'drain',
  'rough_sides',
  'check_depth',
  'firm_base',
  'stake_before',
  'cone',
  'place',
  'plumb',
  'unwrap',
  'amend',
  'feed',
  'gypsum',
  'fill',
  'soak_halfway',
  'measure_flare',
  'stake_after',
  'make_berm',
  'final_soak',
  'herbicide',
  'mulch',
  'guard',
  'label',
] as const;
export type StepCode = (typeof stepCodes)[number];

/** What a drawing says better: which small picture stands beside a step. */
export type StepPicture = 'flare' | 'roots' | 'depth' | 'cone' | 'unwrap' | 'stakes' | 'berm' | 'mulch';

/** One step of planting: the code says what to do, the facts hold the numbers to hit. Lengths mm, volumes L. */
export interface PlantingStep {
  readonly code: StepCode;
  readonly facts: Readonly<Record<string, number | string>>;
  readonly picture: StepPicture | null;
}

interface StepsInput {
  readonly pit: PitPlan;
  readonly practice: Practice;
  readonly stock: Stock;
  readonly stakes: StakePlan | null;
  readonly materials: Amounts;
  readonly percolation: PercolationClass | undefined;
  readonly carry: CarryPlan;
}

/** The steps in their order, which kind of stock and practice change. */
export function plantingSteps(input: StepsInput): PlantingStep[] {
  const { pit, practice, stock, stakes } = input;
  const bare = stock.kind === 'bare_root';
  const soakL = pit.firstWaterL.value;
  const steps: (PlantingStep | null)[] = [
    step('mark_out', { widthMm: pit.shape.widthMm, lengthMm: pit.shape.lengthMm, ringMm: pit.mulchRingMm }),
    step('lift_turf', { where: practice.berm.where, ring: practice.mulch.ring }),
    bare ? null : step('open_tree', { kind: stock.kind, ties: practice.roots.ties }),
    step(
      'find_flare',
      { surplusMm: bare ? 0 : stock.topRootsDepthMm - pit.surplusLeftMm, leftMm: pit.surplusLeftMm, kind: stock.kind },
      'flare',
    ),
    bare || stock.kind === 'balled'
      ? null
      : step(
          'correct_roots',
          { correction: practice.roots.correction, shaveOverPct: practice.roots.shaveOverPct },
          'roots',
        ),
    step('prune_broken', { pruning: practice.pruning.atPlanting }),
    step('dig', { depthMm: pit.depthMm.value + pit.fillUnderBallMm, widthMm: pit.widthMm.value, pitL: pit.pitL.value }),
    pit.drainHole ? step('drain', {}) : null,
    step('rough_sides', { sides: practice.pitWidth.sides }),
    step(
      'check_depth',
      { depthMm: pit.depthMm.value, rootsMm: pit.rootsHeightMm, proudMm: pit.proudMm.value },
      'depth',
    ),
    pit.fillUnderBallMm > 0 ? step('firm_base', { fillMm: pit.fillUnderBallMm }) : null,
    stakes?.before ? stakeStep('stake_before', stakes) : null,
    bare ? step('cone', {}, 'cone') : null,
    step('place', { massKg: pit.massKg.value, kind: stock.kind, means: input.carry.means, people: input.carry.people }),
    step('plumb', {}),
    stock.kind === 'balled' ? step('unwrap', { wrap: practice.roots.wrap }, 'unwrap') : null,
    ...soilSteps(input),
    step('fill', {
      litres: pit.backfillL.value,
      settling: practice.backfill.settling,
      stones: practice.backfill.stones,
    }),
    soakL > 0 ? step('soak_halfway', { litres: soakL / 2 }) : null,
    step('measure_flare', { proudMm: pit.proudMm.value, toleranceMm: practice.asBuilt.flareToleranceMm }),
    stakes && !stakes.before ? stakeStep('stake_after', stakes) : null,
    pit.berm ? step('make_berm', { heightMm: pit.berm.heightMm, where: practice.berm.where }, 'berm') : null,
    soakL > 0 ? step('final_soak', { litres: soakL / 2 }) : null,
    herbicideUses[practice.herbicide].applied ? step('herbicide', {}) : null,
    step(
      'mulch',
      {
        profile: practice.mulch.profile,
        overBallMm: practice.mulch.overBallMm,
        ring: practice.mulch.ring,
        ringMm: pit.mulchRingMm,
        lengthMm: pit.mulchLengthMm,
        thicknessMm: practice.mulch.thicknessMm,
        gapMm: practice.mulch.gapMm,
        litres: pit.mulchL.value,
        material: practice.mulch.material,
      },
      'mulch',
    ),
    (input.materials.guard ?? 0) > 0 ? step('guard', { guard: practice.guard }) : null,
    step('label', {}),
  ];
  return steps.filter((one) => one !== null);
}

/** What is put into the soil, if anything. */
function soilSteps({ pit, practice, materials }: StepsInput): (PlantingStep | null)[] {
  const { amendment } = pit;
  const { buys } = fertilisers[practice.backfill.fertiliser];
  const gypsumKg = materials.gypsum ?? 0;
  return [
    amendment.value > 0
      ? step('amend', { material: amendment.material, litres: amendment.value, place: practice.backfill.place })
      : null,
    buys === null ? null : step('feed', { fertiliser: practice.backfill.fertiliser, amount: buys.perTree }),
    gypsumKg > 0 ? step('gypsum', { kg: gypsumKg }) : null,
  ];
}

function step(code: StepCode, facts: PlantingStep['facts'], picture: StepPicture | null = null): PlantingStep {
  return { code, facts, picture };
}

const stakeStep = (code: 'stake_before' | 'stake_after', stakes: StakePlan): PlantingStep =>
  step(
    code,
    {
      stakes: stakes.stakes,
      heightMm: stakes.heightMm,
      fromTrunkMm: stakes.fromTrunkMm,
      months: stakes.offAfterMonths,
      bearings: stakes.bearingsDeg.join(' '),
      along: stakes.alongStrip ? 'strip' : '',
    },
    'stakes',
  );
