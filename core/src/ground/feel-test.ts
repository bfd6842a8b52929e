import { NotFoundError } from '../errors';
import type { SoilClass } from './soil';

/** One question of the guided feel test; each answer leads to another question or to a class. */
export interface FeelQuestion {
  readonly id: string;
  readonly ask: string;
  readonly how: string;
  readonly answers: readonly { readonly say: string; readonly leadsTo: FeelStep }[];
}

export type FeelStep =
  { readonly kind: 'ask'; readonly id: string } | { readonly kind: 'soil'; readonly soil: SoilClass };

const ask = (id: string): FeelStep => ({ kind: 'ask', id });
const soil = (name: SoilClass): FeelStep => ({ kind: 'soil', soil: name });

/**
 * A decision tree from a moist handful of soil to its texture class. What the hand tells apart is the usual
 * basis of field texturing (ball, ribbon length, grit): a ribbon under 25 mm is loam, 25–50 mm clay loam, over
 * 50 mm clay, after Thien 1979, A flow diagram for teaching texture-by-feel analysis. Good to a class either way.
 */
export const feelTest: readonly FeelQuestion[] = [
  {
    id: 'ball',
    ask: 'Does it hold together as a ball?',
    how: 'Take a handful from spade depth, pick out stones and roots, wet it until it is like putty, squeeze and open the hand.',
    answers: [
      { say: 'No, it falls apart', leadsTo: soil('sand') },
      { say: 'Yes, it holds', leadsTo: ask('ribbon') },
    ],
  },
  {
    id: 'ribbon',
    ask: 'How long a ribbon can you press out before it breaks?',
    how: 'Push the ball up between thumb and finger into a strip as thick as a coin and let it hang.',
    answers: [
      { say: 'None, or under a thumbnail', leadsTo: soil('sandy_loam') },
      { say: 'Up to 25 mm', leadsTo: ask('grit') },
      { say: '25 to 50 mm', leadsTo: ask('shine') },
      { say: 'Over 50 mm', leadsTo: soil('clay') },
    ],
  },
  {
    id: 'grit',
    ask: 'Does it feel gritty?',
    how: 'Rub a pinch with plenty of water in the palm.',
    answers: [
      { say: 'Gritty all through', leadsTo: soil('sandy_loam') },
      { say: 'Smooth, or a little of both', leadsTo: soil('loam') },
    ],
  },
  {
    id: 'shine',
    ask: 'Rubbed with a fingernail, does it shine?',
    how: 'Smooth the moist ball once with the nail and look at the streak.',
    answers: [
      { say: 'Dull', leadsTo: soil('clay_loam') },
      { say: 'Shiny, and it sticks to the fingers', leadsTo: soil('clay') },
    ],
  },
];

export const firstFeelQuestion: FeelStep = ask('ball');

/** @throws NotFoundError for an id no question has */
export function feelQuestion(id: string): FeelQuestion {
  const found = feelTest.find((question) => question.id === id);
  if (!found) throw new NotFoundError('no such question', 'id');
  return found;
}
