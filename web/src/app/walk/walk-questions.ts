import {
  aliveNames,
  barkNames,
  flarePicture,
  flareShapes,
  guardNames,
  leftOnNames,
  lookSignNames,
  mulchContactNames,
  mulchPicture,
  probeNames,
  probePicture,
  rockingNames,
  sayFacts,
  stakeNames,
  signPicture,
  stakePicture,
  turfNames,
  twigHeightNames,
  twigHeights,
  type Inspection,
  type LeftOn,
  type LookSign,
  type TwigHeight,
  type UnitSystem,
} from '@sombra/core';
import type { Answer, Answers, Ask } from '../ask/ask';
import { noRoots, readRoots } from '../collar/collar-roots';
import { lookFacts } from '../inspect/look-facts';
import { askMany, askNumber, askPhoto, askWords, numberOr } from './ask-pieces';

const soundTree = 'Green, nothing wrong';
const rootsSeen = { none: 'none seen', some: 'some: draw them', unseen: 'collar not uncovered' } as const;
/** Guard and what hangs on a tree, in one question. */
const hangsOn = {
  guard_tight: `guard ${guardNames.tight}`,
  guard_damaged: `guard ${guardNames.damaged}`,
  ...leftOnNames,
};
/** Each height has its own answer; below green wood nobody has to feel further. */
const woodKeys = { top: 'aliveTop', middle: 'aliveMiddle', base: 'aliveBase' } as const;
const woodHints = {
  top: 'Bend a twig at the tip, scratch its bark.',
  middle: 'Half-way down: bend a twig, scratch the bark.',
  base: 'At the foot of the trunk: scratch the bark with a nail.',
} as const;
function feltHeights(answers: Answers): readonly TwigHeight[] {
  const isDead = (height: TwigHeight): boolean => {
    const felt = answers[woodKeys[height]];
    return felt === 'dry' || felt === 'brittle';
  };
  if (!isDead('top')) return ['top'];
  return isDead('middle') ? twigHeights : ['top', 'middle'];
}
/** Signs after which somebody has to know whether it lives. */
const asksAlive: readonly LookSign[] = ['leafless', 'shedding', 'thin_crown', 'wilting', 'sprouts_at_base'];

export interface LookAsked {
  readonly answers: Answers;
  /** The look before, for the eye to compare. */
  readonly last: Inspection | null;
  readonly units: UnitSystem;
  /** Which way the path runs past, from the tree; `null` where nobody said. */
  readonly pathDeg: number | null;
}

/**
 * A look at a tree in walking order, eight steps: one tap each where all is well; what is wrong asks on. Each may be
 * skipped, and what nobody looked at is said as such.
 */
export function lookQuestions({ answers, last, units, pathDeg }: LookAsked): readonly Ask[] {
  const said = new Map(last ? sayFacts<'inspection'>(last, units).map(({ key, value }) => [key, value]) : []);
  const beside = (ask: Ask, ...keys: readonly string[]): Ask => {
    const words = keys.flatMap((key) => said.get(key) ?? []).join(', ');
    return words ? { ...ask, last: words } : ask;
  };
  const signs = listOf(answers['signs']) ?? [];
  const deep = (numberOr(answers['flareDepthMm']) ?? 0) > 0;
  const questions: (Ask | false)[] = [
    beside(
      askMany('signs', '1 Whole tree', lookSignNames, {
        hint: 'Bend a twig, scratch the bark. Tap what you see.',
        none: soundTree,
        picture: signPicture,
      }),
      'signs',
    ),
    ...(signs.some((sign) => asksAlive.includes(sign as LookSign)) ? feltHeights(answers) : []).map((height) =>
      beside(
        askWords(woodKeys[height], `1 Twig and bark ${twigHeightNames[height]}`, aliveNames, {
          hint: woodHints[height],
        }),
        'alive',
        'aliveAt',
      ),
    ),
    beside(
      askWords('stake', '2 Stake and tie', stakeNames, { picture: stakePicture, hint: 'Push a finger under the tie.' }),
      'stake',
    ),
    beside(askWords('rocks', '2 Rock the trunk', rockingNames, { hint: 'By hand, at breast height.' }), 'rocks'),
    beside(
      askMany('hangsOn', '3 Guard, bag, tags', hangsOn, {
        hint: 'What is wrong, or should be off by now.',
        none: 'Nothing wrong',
      }),
      'guard',
      'leftOn',
    ),
    beside(
      askWords('mulchContact', '4 Mulch at the trunk', mulchContactNames, { picture: mulchPicture }),
      'mulchContact',
    ),
    beside(
      {
        ...askNumber('mulchDepthMm', 'Halfway between trunk and edge, to the soil.', [0, 30, 50, 80, 100, 150]),
        title: '4 Mulch depth',
      },
      'mulchDepthMm',
    ),
    beside(askWords('turf', '4 The ring', turfNames), 'turf'),
    beside(
      {
        ...askNumber(
          'flareDepthMm',
          'Scrape by hand to the first root, never into bark; where it lies unevenly the deepest counts.',
          [0, 20, 40, 60, 100, 150],
          {
            signs: { plus: 'below the soil', minus: 'above it' },
            pictures: flareShapes.map(flarePicture),
          },
        ),
        title: '5 Flare below the surface',
      },
      'flareDepthMm',
    ),
    deep &&
      beside(
        askWords('bark', '5 Bark below the old line', barkNames, { hint: 'Look and feel; never scrape into it.' }),
        'bark',
      ),
    beside(
      askWords('roots', '6 Circling roots', rootsSeen, { hint: 'At the collar, as far as it is uncovered.' }),
      'circlingRoots',
    ),
    answers['roots'] === 'some' && {
      kind: 'dial',
      key: 'collar',
      title: '6 Draw the roots',
      hint: 'Draw each along itself.',
      pathDeg,
      before: last?.circlingRoots ?? [],
    },
    beside(
      askWords('probe', '7 Probe at ball depth', probeNames, {
        picture: probePicture,
        hint: 'Into the ball, not beside it.',
      }),
      'probe',
    ),
    answers['signs'] !== '' && answers['signs'] !== undefined && askPhoto('photo', '8 Photo', 'Of what is wrong.'),
  ];
  return questions.filter((ask) => ask !== false);
}

/** Several answers in one; `null` where the question was not answered. */
const listOf = (answer: Answer | undefined): string[] | null =>
  typeof answer === 'string' ? answer.split(',').filter(Boolean) : null;

/** What was felt at each height that is still asked for. */
function woodAt(answers: Answers): Inspection['aliveAt'] | null {
  const felt = feltHeights(answers).flatMap((height) => {
    const one = answers[woodKeys[height]];
    return typeof one === 'string' ? [[height, one] as const] : [];
  });
  return felt.length > 0 ? Object.fromEntries(felt) : null;
}

/** The answers as a look; what was skipped is not looked at. */
export function lookOf(answers: Answers, inspectedOn: string): Inspection {
  const signs = listOf(answers['signs']);
  const hangs = listOf(answers['hangsOn']);
  const pick = <K extends keyof Inspection>(key: K & string) => (answers[key] ?? null) as Inspection[K] | null;
  const roots = answers['roots'];
  return lookFacts(
    {
      // Nothing wrong was said of a tree that is green: the button says so.
      alive: signs?.length === 0 ? 'green' : null,
      aliveAt: signs?.length === 0 ? null : woodAt(answers),
      signs: signs as LookSign[] | null,
      diebackPct: null,
      shootMm: null,
      shootBeforeMm: null,
      stake: pick('stake') ?? null,
      rocks: pick('rocks'),
      guard: hangs?.includes('guard_tight') ? 'tight' : hangs?.includes('guard_damaged') ? 'damaged' : null,
      leftOn: hangs ? hangs.filter((thing): thing is LeftOn => thing in leftOnNames) : null,
      mulchContact: pick('mulchContact') ?? null,
      mulchDepthMm: numberOr(answers['mulchDepthMm']),
      turf: pick('turf'),
      flareDepthMm: numberOr(answers['flareDepthMm']),
      flareBy: 'scraped',
      bark: pick('bark'),
      barkPct: null,
      collar: roots === 'none' ? noRoots : roots === 'some' ? readRoots(answers['collar']) : null,
      probe: pick('probe') ?? null,
      finger: null,
    },
    inspectedOn,
  );
}
