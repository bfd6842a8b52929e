import {
  limits,
  measuredFacts,
  mulchContactNames,
  mulchPicture,
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

/** A planting as built, each number beside what was planned. */
export function plantingQuestions({ plan }: SpotLife): readonly Ask[] {
  const planned = plan?.kind === 'plan' ? plan : null;
  const near = (value: number | undefined, steps: readonly number[]) =>
    value === undefined ? [] : steps.map((step) => Math.max(0, Math.round(value + step)));
  const flare = planned?.proudMm.value;
  return [
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
      practiceId: practice.id,
      practiceVersion: practice.version,
    },
  };
}
