import {
  compassPoint,
  cutAwayNames,
  cutAwayThings,
  digDepthMm,
  facingOf,
  formatQuantity,
  overDug,
  plumbNames,
  rootWorkNames,
  sayPutBack,
  sayStep,
  stepPicture,
  wholePlan,
  type CutAway,
  type PlantingFacts,
  type PlantingStep,
  type PlumbState,
  type RootWork,
  type SpotLife,
  type StepCode,
  type UnitSystem,
  type WorkRules,
  metRootOf,
} from '@sombra/core';
import type { Answers, Ask } from '../ask/ask';
import { askNumber, askPhoto, askWords, numberOr } from './ask-pieces';

/** How a lead goes through a tree: the four numbers it cannot do without, those and all else, or each step of the work. */
export const paces = { short: 'I know the work', more: 'All that may be said', led: 'Step by step' } as const;
export type Pace = keyof typeof paces;

export interface PlantingAsked {
  readonly life: SpotLife;
  readonly answers: Answers;
  readonly units: UnitSystem;
  readonly pace: Pace;
  readonly work: WorkRules;
  /** Where the top of this device points, degrees from north; `null` where it does not say. */
  readonly headingDeg: number | null;
}

/** Of the measured points the first is the uphill edge; then around the trunk. */
const flareKeys = ['flareAboveGradeMm', 'flare2Mm', 'flare3Mm', 'flare4Mm'] as const;
const beforeKeys = ['flareBeforeSoakMm', 'before2Mm', 'before3Mm', 'before4Mm'] as const;
const around = ['uphill', 'a quarter on', 'opposite', 'the last quarter'] as const;
const flareSigns = { signs: { plus: 'above grade', minus: 'below it' } };

/** Where a question stands among the steps: behind the first of these that this tree has. */
type Placed = readonly [Ask, ...StepCode[]];

/**
 * What is asked of a planting as built, each number beside what was planned. The depth is asked before the tree goes in:
 * a hole that came out too deep asks how much was put back. Step by step, each question stands behind its step.
 */
export function plantingQuestions(asked: PlantingAsked): readonly Ask[] {
  const placed = placedQuestions(asked);
  if (asked.pace === 'short') return placed.flatMap(([ask]) => (isNeeded(ask.key) ? [ask] : []));
  if (asked.pace === 'more') return placed.map(([ask]) => ask);
  const plan = wholePlan(asked.life, { work: asked.work });
  return plan?.kind === 'plan' ? amongSteps(plan.steps, placed, asked.units) : placed.map(([ask]) => ask);
}

const needed = ['flareAboveGradeMm', 'holeWidthMm', 'firstWaterL'] as const;
const isNeeded = (key: string): boolean =>
  key === 'dugDepthMm' || key === 'putBackMm' || needed.some((one) => one === key);

function amongSteps(steps: readonly PlantingStep[], placed: readonly Placed[], units: UnitSystem): readonly Ask[] {
  const codes = steps.map(({ code }) => code);
  const behind = ([, ...wanted]: Placed): number => {
    const found = wanted.map((code) => codes.lastIndexOf(code)).filter((i) => i >= 0);
    return found[0] ?? codes.length - 1;
  };
  const first = placed.filter(([, ...wanted]) => wanted.length === 0).map(([ask]) => ask);
  return [
    ...first,
    ...steps.flatMap((step, i) => [
      askStep(step, units),
      ...placed.filter((one) => one.length > 1 && behind(one) === i).map(([ask]) => ask),
    ]),
  ];
}

function askStep(step: PlantingStep, units: UnitSystem): Ask {
  const { title, act, check, avoid, caution } = sayStep(step, units);
  return {
    kind: 'step',
    key: `step.${step.code}`,
    title,
    hint: act,
    check,
    avoid,
    caution,
    picture: stepPicture(step, units),
  };
}

const near = (value: number | undefined, steps: readonly number[]): number[] =>
  value === undefined ? [] : steps.map((step) => Math.max(0, Math.round(value + step)));

function placedQuestions({ life, answers, units, headingDeg }: PlantingAsked): Placed[] {
  const plan = life.plan?.kind === 'plan' ? life.plan : null;
  const depth = plan && digDepthMm(plan);
  const flare = near(plan?.proudMm.value, [-20, -10, 0, 10, 20]);
  const downhill = near(plan?.downhillProudMm.value, [-20, -10, 0, 10, 20]);
  const say = (mm: number) => formatQuantity(mm, 'lengthMm', units);
  const planned = depth === null ? '' : ` Planned ${say(depth)}.`;
  return [
    [askPhoto('photoBefore', 'Photo before', 'The place as it is, before anybody digs.')],
    [askWords('roots', 'Roots of the ball', rootWorkNames), 'correct_roots', 'find_flare'],
    [askPhoto('photoRoots', 'Photo of the roots', 'The flare, and what was cut.'), 'correct_roots', 'find_flare'],
    [
      askNumber(
        'dugDepthMm',
        `At the uphill edge, before the tree goes in.${planned}`,
        near(depth ?? undefined, [-20, 0, 20, 40]),
      ),
      'check_depth',
      'dig',
    ],
    ...putBack(life, answers, units).map((ask): Placed => [ask, 'check_depth', 'dig']),
    ...metRoot(answers),
    [askMany(), 'unwrap', 'unwrap_before', 'prune_broken'],
    [askFace(life, headingDeg), 'place', 'plumb'],
    [askWords('plumb', 'Trunk, looked at from two sides', plumbNames), 'plumb', 'place'],
    ...flareQuestions(beforeKeys, 'flareBeforeSoakMm', { flare, downhill }).map((ask): Placed => [
      ask,
      'measure_flare',
      'bank',
      'mound',
    ]),
    [askWords('stakes', 'Stakes set', { 0: 'none', 1: '1', 2: '2', 3: '3' }), 'stake_after', 'stake_before'],
    ...flareQuestions(flareKeys, 'flareAboveGradeMm', { flare, downhill }).map((ask): Placed => [
      ask,
      'final_soak',
      'make_berm',
    ]),
    [
      askNumber('toppedUpMm', 'Soil added where fill beside the ball sank in the soak.', [0, 10, 20, 30, 50]),
      'final_soak',
      'make_berm',
    ],
    [askNumber('holeWidthMm', 'At the top.', near(plan?.widthMm.value, [-200, -100, 0, 100, 200])), 'dig'],
    [askNumber('firstWaterL', 'All that was given.', near(plan?.firstWaterL.value, [-10, 0, 10])), 'final_soak'],
    [
      askNumber('mulchDepthMm', 'As it lies, halfway out.', near(life.practice.mulch.thicknessMm, [-25, 0, 25])),
      'mulch',
    ],
    [askPhoto('photo', 'Photo', 'The tree as it stands now.'), 'label', 'guard', 'mulch'],
  ];
}

/** Four points around the trunk, before the soak or after it; on a slope the one opposite stands higher by plan. */
function flareQuestions(
  keys: readonly string[],
  fact: 'flareBeforeSoakMm' | 'flareAboveGradeMm',
  { flare, downhill }: { readonly flare: readonly number[]; readonly downhill: readonly number[] },
): Ask[] {
  const when = fact === 'flareAboveGradeMm' ? 'After' : 'Before';
  return keys.map((key, i) =>
    askNumber(
      fact,
      i === 0 ? `${when} the soak, at the highest point of the grade.` : `${when} the soak, a quarter further around.`,
      i === 2 ? downhill : flare,
      { ...flareSigns, key, title: `Flare above grade, ${around[i]}` },
    ),
  );
}

/** What a hole dug too deep asks for, before the tree goes in; none where it is not. */
function putBack(life: SpotLife, answers: Answers, units: UnitSystem): readonly Ask[] {
  const dugDepthMm = numberOr(answers['dugDepthMm']);
  if (dugDepthMm === null || life.plan?.kind !== 'plan') return [];
  const back = overDug({ dugDepthMm, plannedDepthMm: digDepthMm(life.plan), practice: life.practice });
  if (back.putBackMm <= 0) return [];
  return [askNumber('putBackMm', sayPutBack(back, units), [Math.round(back.putBackMm)])];
}

function metRoot(answers: Answers): Placed[] {
  const met = numberOr(answers['metRootMm']) ?? 0;
  return [
    [
      askNumber('metRootMm', 'Of another tree, in this pit; none is 0.', [0, 10, 20, 30, 50, 80], {
        range: { min: 0, max: 400, unit: 'mm' },
      }),
      'dig',
    ],
    ...(met > 0
      ? [[askWords('metRootCut', 'Was that root cut?', { kept: 'kept', cut: 'cut' }), 'dig'] satisfies Placed]
      : []),
  ];
}

const askMany = (): Ask => ({
  kind: 'many',
  key: 'cutAway',
  title: 'Cut away',
  hint: 'Everything that was taken off this tree.',
  options: cutAwayThings.map((value) => ({ value, name: cutAwayNames[value] })),
});

function askFace({ assessment, stock, sunDeg }: SpotLife, headingDeg: number | null): Ask {
  const { bestFaceDeg } = facingOf({ assessment, face: stock?.face, sunDeg });
  const hint = bestFaceDeg === null ? '' : `Planned ${compassPoint(bestFaceDeg)}, ${Math.round(bestFaceDeg)}°.`;
  const points = Array.from({ length: 8 }, (_, i) => ({ value: String(i * 45), name: compassPoint(i * 45) }));
  const pointed = headingDeg === null ? null : Math.round(headingDeg);
  const byCompass = pointed === null ? [] : [{ value: String(pointed), name: `As this phone points: ${pointed}°` }];
  return {
    kind: 'words',
    key: 'bestFaceDeg',
    title: 'Best face looks towards',
    hint,
    options: [...byCompass, ...points],
  };
}

/** The answers as a planting; with the question that lacks its answer, where one is missing. */
export function plantingOf(
  answers: Answers,
  { practice }: Pick<SpotLife, 'practice'>,
  plantedOn: string,
): { readonly facts: PlantingFacts } | { readonly missing: string } {
  const missing = needed.find((key) => numberOr(answers[key]) === null);
  if (missing) return { missing };
  const said = <K extends keyof PlantingFacts>(key: K, value: PlantingFacts[K] | null) =>
    value === null || value === undefined ? {} : { [key]: value };
  const number = (key: string) => numberOr(answers[key]);
  const word = (key: string): string | null => {
    const value = answers[key];
    return typeof value === 'string' && value !== '' ? value : null;
  };
  const before = beforeKeys.flatMap((key) => number(key) ?? []);
  const [stakes, face, thickestMm, cut] = [
    word('stakes'),
    word('bestFaceDeg'),
    number('metRootMm'),
    word('metRootCut'),
  ];
  return {
    facts: {
      plantedOn,
      flareAboveGradeMm: flareKeys.flatMap((key) => number(key) ?? []),
      holeWidthMm: Number(answers['holeWidthMm']),
      firstWaterL: Number(answers['firstWaterL']),
      ...said('stakes', stakes === null ? null : Number(stakes)),
      ...said('putBackMm', number('putBackMm') || null),
      ...said('bestFaceDeg', face === null ? null : Number(face)),
      ...said('flareBeforeSoakMm', before.length > 0 ? before : null),
      ...said('toppedUpMm', number('toppedUpMm')),
      ...said('roots', word('roots') as RootWork | null),
      ...said('cutAway', (word('cutAway')?.split(',') as CutAway[] | undefined) ?? null),
      ...said('metRoot', thickestMm ? metRootOf(thickestMm, cut) : null),
      ...said('plumb', word('plumb') as PlumbState | null),
      ...said('mulchDepthMm', number('mulchDepthMm')),
      ...said('departure', word('departure')?.trim().slice(0, 300) || null),
      practiceId: practice.id,
      practiceVersion: practice.version,
    },
  };
}
