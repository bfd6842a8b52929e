import type { IsoDate } from '../calendar';

export const hazardKinds = [
  'branch_hanging',
  'tree_leaning',
  'roots_lifting',
  'stake_fallen',
  'wire_touched',
  'other',
] as const;
export type HazardKind = (typeof hazardKinds)[number];

/** Something at a tree that may hurt somebody now. */
export interface HazardFacts {
  readonly seenOn: IsoDate;
  readonly hazard: HazardKind;
  /** Who was called; empty where nobody was yet. */
  readonly called: string;
  readonly cordoned: boolean;
  readonly note: string;
}

/** It is no hazard any more, and why. */
export interface HazardClosedFacts {
  readonly closedOn: IsoDate;
  /** The record that told of it. */
  readonly hazardId: string;
  readonly reason: string;
}
