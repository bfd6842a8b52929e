import type { PercolationClass } from '../ground';
import { fillPlaces, herbicideUses, pitSides, shoulders, soakTimes, wrapRemovals, type Practice } from '../practice';
import type { Stock } from '../stock';
import type { Amendment } from './amendments';
import type { CarryPlan } from './carry';
import type { Facing } from './facing';
import type { Amounts, Feeding } from './materials';
import { digDepthMm, type PitPlan } from './pit-plan';
import type { StakePlan } from './stake-plan';

export const stepCodes = [
  'mark_out',
  'lift_turf',
  'amend_area',
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
  'feed_base',
  'cone',
  'unwrap_before',
  'place',
  'plumb',
  'unwrap',
  'cave_sides',
  'amend',
  'gypsum',
  'fill',
  'feed_halfway',
  'soak_halfway',
  'feed_edge',
  'mound',
  'bank',
  'measure_flare',
  'stake_after',
  'make_berm',
  'final_soak',
  'amend_top',
  'feed_surface',
  'herbicide',
  'mulch',
  'feed_drench',
  'guard',
  'label',
] as const;
export type StepCode = (typeof stepCodes)[number];

/** What a drawing says better: which small picture stands beside a step. */
export type StepPicture =
  'flare' | 'roots' | 'depth' | 'cone' | 'unwrap' | 'stakes' | 'berm' | 'mulch' | 'mound' | 'face';

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
  readonly feeds: readonly Feeding[];
  readonly percolation: PercolationClass | undefined;
  readonly carry: CarryPlan;
  readonly facing: Facing;
}

type Steps = readonly (PlantingStep | null)[];

/** The steps in their order, which kind of stock and practice change. */
export function plantingSteps(input: StepsInput): PlantingStep[] {
  const steps: Steps = [
    ...groundWork(input),
    ...treeWork(input),
    ...hole(input),
    ...setting(input),
    ...filling(input),
    ...finishing(input),
  ];
  return steps.filter((one) => one !== null);
}

function groundWork({ pit, practice }: StepsInput): Steps {
  return [
    step('mark_out', { widthMm: pit.shape.widthMm, lengthMm: pit.shape.lengthMm, ringMm: pit.mulchRingMm }),
    step('lift_turf', { where: practice.berm.where, ring: practice.mulch.ring }),
    ...amended(pit, 'amend_area', ({ place }) => fillPlaces[place].into === 'ring_and_pit', practice),
  ];
}

/** What is done to the tree while it lies, before anybody digs for it. */
function treeWork({ pit, practice, stock }: StepsInput): Steps {
  const bare = stock.kind === 'bare_root';
  const { roots, pruning } = practice;
  const { cuts, cutDepthMm, correction, shaveOverPct } = roots;
  const adventitious = bare ? undefined : stock.adventitious;
  return [
    bare ? null : step('open_tree', { kind: stock.kind, ties: roots.ties }),
    step(
      'find_flare',
      {
        surplusMm: bare ? 0 : stock.topRootsDepthMm - pit.surplusLeftMm,
        leftMm: pit.surplusLeftMm,
        kind: stock.kind,
        from: practice.flareAboveGrade.measuredFrom,
      },
      'flare',
    ),
    bare || (stock.kind === 'balled' && !adventitious)
      ? null
      : step(
          'correct_roots',
          {
            kind: stock.kind,
            correction,
            shaveOverPct,
            cuts,
            cutDepthMm,
            adventitious: adventitious?.count ?? 0,
            adventitiousCutMm: roots.adventitiousCutMm,
            adventitiousKept: adventitious && adventitious.count >= roots.adventitiousMany ? 'kept' : '',
          },
          stock.kind === 'container' ? 'roots' : null,
        ),
    step('prune_broken', { pruning: pruning.atPlanting, stubs: pruning.stubs }),
  ];
}

function hole({ pit, practice, stakes, feeds }: StepsInput): Steps {
  const { sides } = practice.pitWidth;
  const { cavedIn } = pitSides[sides];
  return [
    step('dig', {
      depthMm: digDepthMm(pit),
      widthMm: cavedIn ? pit.shape.bottomWidthMm : pit.widthMm.value,
      finishedMm: pit.widthMm.value,
      litres: pit.soil.dugL,
    }),
    pit.drainHole ? step('drain', {}) : null,
    cavedIn ? null : step('rough_sides', { sides }),
    step(
      'check_depth',
      { depthMm: pit.depthMm.value, rootsMm: pit.rootsHeightMm, proudMm: pit.proudMm.value },
      'depth',
    ),
    pit.fillUnderBallMm > 0 ? step('firm_base', { fillMm: pit.fillUnderBallMm }) : null,
    stakes?.before ? stakeStep('stake_before', stakes, practice) : null,
    ...fed(feeds, 'base'),
  ];
}

function setting({ pit, practice, stock, carry, facing }: StepsInput): Steps {
  const bare = stock.kind === 'bare_root';
  const { wrap } = practice.roots;
  const before = wrapRemovals[wrap].beforePlacing;
  return [
    bare ? step('cone', {}, 'cone') : null,
    stock.kind === 'balled' && before ? step('unwrap_before', { wrap }, 'unwrap') : null,
    step(
      'place',
      {
        massKg: pit.massKg.value,
        kind: stock.kind,
        means: carry.means,
        people: carry.people,
        face: stock.face ?? '',
        bestFaceDeg: facing.bestFaceDeg ?? '',
        faceWhy: facing.because[0]?.code ?? '',
      },
      facing.bestFaceDeg === null ? null : 'face',
    ),
    step('plumb', {}),
    stock.kind === 'balled' && !before ? step('unwrap', { wrap }, 'unwrap') : null,
  ];
}

function filling({ pit, practice, materials, feeds }: StepsInput): Steps {
  const { backfill, pitWidth, flareAboveGrade, firstSoak } = practice;
  const { mounds, runPerHeight } = shoulders[flareAboveGrade.shoulder];
  const { soil } = pit;
  const shoulderL = soil.moundL + soil.bankL;
  const banked = !mounds && soil.bankL > leastBankL;
  const halfwayL = pit.firstWaterL.value * soakTimes[firstSoak.when].halfway;
  const gypsumKg = materials.gypsum ?? 0;
  return [
    soil.cavedL > 0
      ? step('cave_sides', { sides: pitWidth.sides, litres: soil.cavedL, widthMm: pit.widthMm.value })
      : null,
    ...amended(
      pit,
      'amend',
      ({ place }) => {
        const { into, fromShare } = fillPlaces[place];
        return into === 'ring' || (into === 'fill' && fromShare !== null);
      },
      practice,
    ),
    gypsumKg > 0 ? step('gypsum', { kg: gypsumKg }) : null,
    step('fill', {
      litres: pit.backfillL.value - soil.cavedL,
      settling: backfill.settling,
      stones: backfill.stones,
      shoulderL: mounds ? 0 : banked ? soil.moundL : shoulderL,
      boughtL: soil.boughtL,
    }),
    ...fed(feeds, 'halfway'),
    halfwayL > 0 ? step('soak_halfway', { litres: halfwayL }) : null,
    ...fed(feeds, 'edge'),
    mounds && soil.moundL > 0
      ? step(
          'mound',
          {
            litres: shoulderL,
            heightMm: pit.proudMm.value + pit.surplusLeftMm,
            perHeight: runPerHeight,
            boughtL: soil.boughtL,
          },
          'mound',
        )
      : null,
    banked ? step('bank', { litres: soil.bankL, proudMm: pit.downhillProudMm.value }) : null,
    step('measure_flare', { proudMm: pit.proudMm.value, toleranceMm: practice.asBuilt.flareToleranceMm }),
  ];
}

/** Less than this is part of the filling, not a bank. L */
const leastBankL = 3;

function finishing({ pit, practice, stakes, materials, feeds }: StepsInput): Steps {
  const { mulch, firstSoak } = practice;
  const lastL = pit.firstWaterL.value * (1 - soakTimes[firstSoak.when].halfway);
  return [
    stakes && !stakes.before ? stakeStep('stake_after', stakes, practice) : null,
    pit.berm
      ? step('make_berm', { heightMm: pit.berm.heightMm, where: practice.berm.where, litres: pit.soil.bermL }, 'berm')
      : null,
    lastL > 0 ? step('final_soak', { litres: lastL }) : null,
    ...amended(
      pit,
      'amend_top',
      ({ place }) => {
        const { into, fromShare } = fillPlaces[place];
        return into === 'fill' && fromShare === null;
      },
      practice,
    ),
    ...fed(feeds, 'surface'),
    herbicideUses[practice.herbicide].applied ? step('herbicide', {}) : null,
    step(
      'mulch',
      {
        profile: mulch.profile,
        overBallMm: mulch.overBallMm,
        ring: mulch.ring,
        ringMm: pit.mulchRingMm,
        lengthMm: pit.mulchLengthMm,
        thicknessMm: mulch.thicknessMm,
        gapMm: mulch.gapMm,
        litres: pit.mulchL.value,
        material: mulch.material,
      },
      'mulch',
    ),
    ...fed(feeds, 'drench'),
    (materials.guard ?? 0) > 0 ? step('guard', { guard: practice.guard, untilMm: practice.guardUntilMm }) : null,
    step('label', {}),
  ];
}

/** Everything mixed in at one point of the work is one step each: the same thing at two places is two steps. */
function amended(
  { amendments }: PitPlan,
  code: 'amend_area' | 'amend' | 'amend_top',
  here: (one: Amendment) => boolean,
  { backfill: { areaDepthMm } }: Practice,
): Steps {
  return amendments.each
    .filter(here)
    .map(({ material, place, litres }) => step(code, { material, place, litres, areaDepthMm }));
}

const fed = (feeds: readonly Feeding[], at: Feeding['place']): Steps =>
  feeds
    .filter(({ place }) => place === at)
    .map(({ place, fertiliser, amount }) => step(`feed_${place}`, { place, fertiliser, amount }));

function step(code: StepCode, facts: PlantingStep['facts'], picture: StepPicture | null = null): PlantingStep {
  return { code, facts, picture };
}

const stakeStep = (code: 'stake_before' | 'stake_after', stakes: StakePlan, { staking }: Practice): PlantingStep =>
  step(
    code,
    {
      stakes: stakes.stakes,
      heightMm: stakes.heightMm,
      fromTrunkMm: stakes.fromTrunkMm,
      months: stakes.offAfterMonths,
      bearings: stakes.bearingsDeg.join(' '),
      along: stakes.alongStrip ? 'strip' : '',
      tie: staking.tie,
    },
    'stakes',
  );
