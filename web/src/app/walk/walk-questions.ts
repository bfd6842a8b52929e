import {
  formatQuantity,
  limits,
  measuredFacts,
  mulchContactNames,
  mulchPicture,
  overDug,
  probeNames,
  probePicture,
  stakeNames,
  stakePicture,
  type Drawing,
  type Inspection,
  type MeasuredName,
  type NumberRange,
  type PlantingFacts,
  type SpotLife,
  type UnitSystem,
} from '@sombra/core';
import type { Answers, Ask } from '../ask/ask';

function number(key: MeasuredName, hint: string, likely: readonly number[], more: Partial<Ask> = {}): Ask {
  const { name, quantity, measure } = measuredFacts[key];
  const range = limits[measure] as NumberRange;
  return { kind: 'number', key, title: name, hint, quantity, range, likely, ...more } as Ask;
}

function words<V extends string>(
  key: string,
  title: string,
  names: Readonly<Record<V, string>>,
  picture: (value: V) => Drawing,
  hint = '',
): Ask {
  const options = (Object.keys(names) as V[]).map((value) => ({ value, name: names[value], picture: picture(value) }));
  return { kind: 'words', key, title, hint, options };
}

const photo: Ask = { kind: 'photo', key: 'photo', title: 'Photo', hint: 'Of what speaks for or against the tree.' };

/** A look at a tree in walking order; each may be skipped, and nothing looked at is said as such. */
export const lookQuestions: readonly Ask[] = [
  words('stake', 'Stake and tie', stakeNames, stakePicture, 'Push a finger under the tie.'),
  words('mulchContact', 'Mulch at the trunk', mulchContactNames, mulchPicture),
  number('mulchDepthMm', 'Halfway between trunk and edge, to the soil.', [0, 30, 50, 80, 100, 150]),
  number('flareDepthMm', 'Scrape by hand to the first root; never into bark.', [0, 20, 40, 60, 100, 150], {
    signs: { plus: 'below the soil', minus: 'above it' },
  }),
  words('probe', 'Probe at ball depth', probeNames, probePicture, 'Into the ball, not beside it.'),
  photo,
];

const numberOr = (value: unknown): number | null => (typeof value === 'number' ? value : null);

/** The answers as a look; what was skipped is not looked at. */
export function lookOf(answers: Answers, inspectedOn: string): Inspection {
  return {
    inspectedOn,
    stake: (answers['stake'] ?? null) as Inspection['stake'],
    mulchContact: (answers['mulchContact'] ?? null) as Inspection['mulchContact'],
    mulchDepthMm: numberOr(answers['mulchDepthMm']),
    flareDepthMm: numberOr(answers['flareDepthMm']),
    probe: (answers['probe'] ?? null) as Inspection['probe'],
    circlingRoots: null,
  };
}

/** How deep the hole is dug, with what is put back by plan; `null` without a plan. mm */
const depthOf = ({ plan }: Pick<SpotLife, 'plan'>): number | null =>
  plan?.kind === 'plan' ? plan.depthMm.value + plan.fillUnderBallMm : null;

/** What a hole dug too deep asks for, before the tree goes in; none where it is not. */
function putBack(life: Pick<SpotLife, 'plan' | 'practice'>, answers: Answers, units: UnitSystem): readonly Ask[] {
  const [dugDepthMm, plannedDepthMm] = [numberOr(answers['dugDepthMm']), depthOf(life)];
  if (dugDepthMm === null || plannedDepthMm === null) return [];
  const { putBackMm, settlementMm } = overDug({ dugDepthMm, plannedDepthMm, practice: life.practice });
  if (putBackMm <= 0) return [];
  const say = (mm: number) => formatQuantity(mm, 'lengthMm', units);
  const hint = `Dug ${say(putBackMm)} too deep: put it back and firm it in layers. It still settles about ${say(settlementMm)}: stand the flare that much higher.`;
  return [number('putBackMm', hint, [Math.round(putBackMm)])];
}

/**
 * A planting as built, each number beside what was planned. The depth is asked before the tree goes in: a hole that came
 * out too deep asks how much was put back.
 */
export function plantingQuestions(life: SpotLife, answers: Answers, units: UnitSystem): readonly Ask[] {
  const { plan } = life;
  const planned = plan?.kind === 'plan' ? plan : null;
  const depth = depthOf(life);
  const said = depth === null ? '' : ` Planned ${formatQuantity(depth, 'lengthMm', units)}.`;
  const near = (value: number | undefined, steps: readonly number[]) =>
    value === undefined ? [] : steps.map((step) => Math.max(0, Math.round(value + step)));
  const flare = planned?.proudMm.value;
  return [
    number(
      'dugDepthMm',
      `At the uphill edge, before the tree goes in.${said}`,
      near(depth ?? undefined, [-20, 0, 20, 40]),
    ),
    ...putBack(life, answers, units),
    number(
      'flareAboveGradeMm',
      'After the soak, at the highest point of the grade.',
      near(flare, [-20, -10, 0, 10, 20]),
      {
        signs: { plus: 'above grade', minus: 'below it' },
      },
    ),
    number('holeWidthMm', 'At the top.', near(planned?.widthMm.value, [-200, -100, 0, 100, 200])),
    number('firstWaterL', 'All that was given.', near(planned?.firstWaterL.value, [-10, 0, 10])),
    {
      kind: 'words',
      key: 'stakes',
      title: 'Stakes set',
      hint: '',
      options: ['0', '1', '2', '3'].map((value) => ({ value, name: value === '0' ? 'none' : value })),
    },
    photo,
  ];
}

/** The answers as a planting; `null`, with the question that lacks its answer, where one is missing. */
export function plantingOf(
  answers: Answers,
  { practice }: Pick<SpotLife, 'practice'>,
  plantedOn: string,
): { readonly facts: PlantingFacts } | { readonly missing: string } {
  const needed = ['flareAboveGradeMm', 'holeWidthMm', 'firstWaterL'] as const;
  const missing = needed.find((key) => numberOr(answers[key]) === null);
  if (missing) return { missing };
  const stakes = answers['stakes'];
  return {
    facts: {
      plantedOn,
      flareAboveGradeMm: [Number(answers['flareAboveGradeMm'])],
      holeWidthMm: Number(answers['holeWidthMm']),
      firstWaterL: Number(answers['firstWaterL']),
      ...(typeof stakes === 'string' ? { stakes: Number(stakes) } : {}),
      ...(numberOr(answers['putBackMm']) ? { putBackMm: Number(answers['putBackMm']) } : {}),
      practiceId: practice.id,
      practiceVersion: practice.version,
    },
  };
}
