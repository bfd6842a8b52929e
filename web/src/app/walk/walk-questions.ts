import {
  mulchContactNames,
  mulchPicture,
  probeNames,
  probePicture,
  stakeNames,
  stakePicture,
  type Inspection,
} from '@sombra/core';
import type { Answers, Ask } from '../ask/ask';
import { askNumber, askPhoto, askWords, numberOr } from './ask-pieces';

/** A look at a tree in walking order; each may be skipped, and nothing looked at is said as such. */
export const lookQuestions: readonly Ask[] = [
  askWords('stake', 'Stake and tie', stakeNames, { picture: stakePicture, hint: 'Push a finger under the tie.' }),
  askWords('mulchContact', 'Mulch at the trunk', mulchContactNames, { picture: mulchPicture }),
  askNumber('mulchDepthMm', 'Halfway between trunk and edge, to the soil.', [0, 30, 50, 80, 100, 150]),
  askNumber('flareDepthMm', 'Scrape by hand to the first root; never into bark.', [0, 20, 40, 60, 100, 150], {
    signs: { plus: 'below the soil', minus: 'above it' },
  }),
  askWords('probe', 'Probe at ball depth', probeNames, {
    picture: probePicture,
    hint: 'Into the ball, not beside it.',
  }),
  askPhoto('photo', 'Photo', 'Of what speaks for or against the tree.'),
];

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
