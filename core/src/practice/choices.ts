import { InvalidInputError } from '../errors';
import {
  aftercareTimes,
  bermPlaces,
  fertilisers,
  fillMaterials,
  guardRules,
  gypsumUses,
  herbicideUses,
  mulchMaterials,
  pitBases,
  pitSides,
  plantingPrunings,
  rootCorrections,
  routineRules,
  settlings,
  soakRules,
  stakeLayouts,
  stakeRules,
  stoneUses,
  structuralPrunings,
  wrapRemovals,
  type Option,
} from './options';
import type { Practice } from './practice';

interface ChoiceText {
  /** Where in the practice the choice stands. */
  readonly path: string;
  readonly name: string;
  readonly research: string;
}
export type Choice =
  | (ChoiceText & { readonly kind: 'option'; readonly options: Readonly<Record<string, Option>> })
  | (ChoiceText & {
      readonly kind: 'number';
      readonly min: number;
      readonly max: number;
      readonly unit: 'mm' | 'm' | '×' | 'share' | '%' | 'L' | 'times' | 'months' | 'a week';
    })
  | (ChoiceText & { readonly kind: 'yes_no' });

export interface ChoiceGroup {
  readonly name: string;
  readonly choices: readonly Choice[];
}

const option = (path: string, name: string, options: Readonly<Record<string, Option>>, research = ''): Choice => ({
  kind: 'option',
  path,
  name,
  options,
  research,
});
const number = (
  path: string,
  name: string,
  [min, max, unit]: readonly [number, number, Extract<Choice, { kind: 'number' }>['unit']],
  research = '',
): Choice => ({ kind: 'number', path, name, min, max, unit, research });
const yesNo = (path: string, name: string, research = ''): Choice => ({ kind: 'yes_no', path, name, research });

/** Everything practitioners disagree about, in the order of the work. */
export const choiceTable: readonly ChoiceGroup[] = [
  {
    name: 'Flare above grade',
    choices: [
      number(
        'flareAboveGrade.baseMm',
        'Flare above grade',
        [0, 150, 'mm'],
        'Too deep suffocates and rots, too high only dries.',
      ),
      number(
        'flareAboveGrade.ballShare',
        'and as a share of the ball’s height',
        [0, 0.3, 'share'],
        'Held where balls differ much in size.',
      ),
      number(
        'flareAboveGrade.heavySoilExtraMm',
        'more in clay',
        [0, 150, 'mm'],
        'Heavy soil holds water at the collar.',
      ),
      number('flareAboveGrade.stonyExtraMm', 'more in stony soil', [0, 150, 'mm']),
      number('flareAboveGrade.slowSoilExtraMm', 'more where water drains slowly', [0, 150, 'mm']),
      number(
        'flareAboveGrade.settlementFirmed',
        'firmed fill under the ball settles by',
        [0, 0.5, 'share'],
        'Trained by the drops crews measure.',
      ),
      number('flareAboveGrade.settlementLoose', 'loose fill under the ball settles by', [0, 0.6, 'share']),
    ],
  },
  {
    name: 'Pit',
    choices: [
      number(
        'pitWidth.ballFactor',
        'Width, times the ball',
        [1, 6, '×'],
        'Roots live in the top 300 mm and must get out; wide loose pits let a tree lean.',
      ),
      number(
        'pitWidth.ballFactorCompacted',
        'width in compacted ground',
        [1, 6, '×'],
        'Gains most where soil is compacted.',
      ),
      number('pitWidth.bareRootMarginMm', 'bare-root: wider than the spread by', [0, 1000, 'mm']),
      option('pitWidth.sides', 'Sides', pitSides, 'Glazed sides turn roots back: rough them up.'),
      option('pitWidth.base', 'Base', pitBases, 'Loose soil under a ball sinks it by a tenth to a quarter.'),
    ],
  },
  {
    name: 'Fill',
    choices: [
      option(
        'backfill.material',
        'Mixed into the fill',
        fillMaterials,
        'Most trials find no gain in ordinary soil, some in rubble or sterile fill.',
      ),
      number('backfill.share', 'share of the fill', [0, 0.6, 'share']),
      option('backfill.settling', 'Settled by', settlings, 'Air gaps dry roots, compaction shuts air out.'),
      option('backfill.stones', 'Stones', stoneUses),
      option(
        'backfill.fertiliser',
        'Fertiliser at planting',
        fertilisers,
        'Little evidence of gain; salts burn; label and licence.',
      ),
      option('backfill.gypsum', 'Gypsum', gypsumUses, 'Exchanges sodium, and only where the soil is sodic.'),
    ],
  },
  {
    name: 'Roots and wrap',
    choices: [
      option(
        'roots.correction',
        'Container roots',
        rootCorrections,
        'Circling roots keep circling; shaving gives most new radial roots.',
      ),
      number('roots.shaveOverPct', 'shave where circling covers more than', [0, 100, '%']),
      option(
        'roots.wrap',
        'Basket and burlap',
        wrapRemovals,
        'What stays may girdle or wick; whole removal may break the ball. Synthetic wrap and all strings always come off.',
      ),
    ],
  },
  {
    name: 'Staking and guard',
    choices: [
      option('staking.rule', 'Stake', stakeRules, 'Some movement builds taper; a rocking ball tears new roots.'),
      option('staking.layout', 'Layout', stakeLayouts),
      number('staking.unstakedUnderM', 'unstaked under, unless exposed', [0, 8, 'm']),
      number('staking.offAfterMonths', 'off after', [1, 36, 'months'], 'Forgotten ties strangle.'),
      option('guard', 'Trunk guard', guardRules),
    ],
  },
  {
    name: 'Berm and mulch',
    choices: [
      option('berm.where', 'Berm', bermPlaces, 'Holds the dose over the ball; in slow soil it drowns.'),
      number('berm.heightMm', 'berm height', [0, 300, 'mm']),
      yesNo('berm.notInSlowSoil', 'no berm where water drains slowly'),
      option('mulch.material', 'Mulch', mulchMaterials, 'Keeps moisture and mowers off; piled up it rots bark.'),
      number('mulch.thicknessMm', 'mulch thickness', [0, 150, 'mm']),
      number('mulch.gapMm', 'clear of the trunk by', [25, 300, 'mm']),
      number(
        'mulch.leastRingDiameterMm',
        'ring at least across',
        [600, 6000, 'mm'],
        'Grass competes as far as it grows.',
      ),
      option('herbicide', 'Herbicide under the mulch', herbicideUses),
    ],
  },
  {
    name: 'Water',
    choices: [
      option('firstSoak.rule', 'First soak', soakRules, 'Closes air gaps; dormant stock in wet soil needs none.'),
      number('firstSoak.doses', 'doses, or fillings', [0, 10, 'times']),
      number('firstSoak.fixedL', 'fixed volume', [0, 500, 'L']),
      number('firstSoak.lPer25Mm', 'for each 25 mm of caliper', [0, 200, 'L']),
      yesNo('firstSoak.skipBareRootInSlowSoil', 'none for bare-root stock in slow soil'),
      option(
        'routine.rule',
        'Afterwards',
        routineRules,
        'The rules differ by a factor of ten: each silently assumes a soil, a climate and a ball.',
      ),
      number('routine.lPer25Mm', 'a visit’s dose for each 25 mm of caliper', [0, 200, 'L']),
      number('routine.weeklyL', 'weekly volume', [0, 500, 'L']),
      number('routine.visitsPerWeek', 'visits', [0, 7, 'a week']),
      option(
        'routine.time',
        'For how long',
        aftercareTimes,
        'Roots regain their spread in about a year for each 25 mm of caliper.',
      ),
      number('routine.months', 'fixed time', [0, 120, 'months']),
    ],
  },
  {
    name: 'Pruning',
    choices: [
      option('pruning.atPlanting', 'At planting', plantingPrunings, 'Trials: leaves feed new roots.'),
      option('pruning.structural', 'While young', structuralPrunings),
    ],
  },
];

export const choices: readonly Choice[] = choiceTable.flatMap(({ choices: some }) => some);

export type ChoiceValue = string | number | boolean;

/** The value of a choice in a practice. @throws InvalidInputError for a path that is no choice */
export function choiceValue(practice: Practice, path: string): ChoiceValue {
  requireChoice(path);
  const value = path
    .split('.')
    .reduce<unknown>((part, key) => (part as Record<string, unknown> | undefined)?.[key], practice);
  return value as ChoiceValue;
}

/**
 * The practice with one choice made otherwise.
 * @throws InvalidInputError for a path that is no choice, or a value it cannot have
 */
export function withChoice(practice: Practice, path: string, value: ChoiceValue): Practice {
  const choice = requireChoice(path);
  requireChoiceValue(choice, value);
  const changed = structuredClone(practice) as unknown as Record<string, unknown>;
  const keys = path.split('.');
  const last = keys.pop() ?? '';
  const parent = keys.reduce<Record<string, unknown>>((part, key) => part[key] as Record<string, unknown>, changed);
  parent[last] = value;
  return changed as unknown as Practice;
}

function requireChoice(path: string): Choice {
  const choice = choices.find((one) => one.path === path);
  if (!choice) throw new InvalidInputError(`${path} is no choice of a practice`, 'path');
  return choice;
}

/** @throws InvalidInputError */
export function requireChoiceValue(choice: Choice, value: ChoiceValue): void {
  const fault = (limit: string) =>
    new InvalidInputError(`${choice.name} must be ${limit}, got ${String(value)}`, choice.path);
  if (choice.kind === 'yes_no' && typeof value !== 'boolean') throw fault('yes or no');
  if (choice.kind === 'option' && (typeof value !== 'string' || !(value in choice.options)))
    throw fault(Object.keys(choice.options).join(', '));
  if (choice.kind === 'number') {
    const inside = typeof value === 'number' && value >= choice.min && value <= choice.max;
    if (!inside) throw fault(`within ${choice.min}–${choice.max} ${choice.unit}`);
  }
}

export interface Difference {
  readonly choice: Choice;
  readonly a: ChoiceValue;
  readonly b: ChoiceValue;
}

/** Where two practices choose otherwise. */
export function practiceDifferences(a: Practice, b: Practice): Difference[] {
  return choices
    .map((choice) => ({ choice, a: choiceValue(a, choice.path), b: choiceValue(b, choice.path) }))
    .filter((one) => one.a !== one.b);
}

/** One choice made otherwise for a single spot, with its reason. */
export interface Override {
  readonly path: string;
  readonly value: ChoiceValue;
  readonly reason: string;
}

/** The practice as it applies at a spot: a later override of the same choice counts. */
export const practiceAt = (practice: Practice, overrides: readonly Override[]): Practice =>
  overrides.reduce((changed, { path, value }) => withChoice(changed, path, value), practice);
