import type { IsoDate } from '../calendar';
import type { RemedyCode } from '../practice';

/** What an arborist says of a tree that was referred. */
export const arboristAdvices = ['carried_out', 'for_crew', 'watch', 'take_out'] as const;
export type ArboristAdvice = (typeof arboristAdvices)[number];

export interface ArboristAnswerFacts {
  readonly answeredOn: IsoDate;
  /** Name, and licence or register where one is asked for. */
  readonly arborist: string;
  readonly advice: ArboristAdvice;
  readonly note: string;
}

/** A remedy that is not carried out, though it was advised. */
export interface DeclinedFacts {
  readonly decidedOn: IsoDate;
  readonly remedy: RemedyCode;
  readonly by: 'owner' | 'programme';
  readonly reason: string;
}

/** Another tree asked for within the warranty. */
export interface ClaimFacts {
  readonly claimedOn: IsoDate;
  readonly from: 'nursery' | 'contractor';
  readonly reason: string;
}

/** What somebody who lives there told of a tree by their place's link: it becomes a look, never a finding. */
export interface ResidentToldFacts {
  readonly toldOn: IsoDate;
  readonly words: string;
}

export interface PestToldFacts {
  readonly toldOn: IsoDate;
  readonly pest: string;
  /** Whoever has to be told of it. */
  readonly told: string;
}

export const removalWhys = ['dead', 'hazard', 'past_correction', 'storm', 'damaged', 'works', 'other'] as const;
export type RemovalWhy = (typeof removalWhys)[number];
export const stumpStates = ['out', 'ground_down', 'left'] as const;
export type StumpState = (typeof stumpStates)[number];

/** The tree is gone: its place waits for the next one. */
export interface RemovalFacts {
  readonly removedOn: IsoDate;
  readonly why: RemovalWhy;
  readonly stump: StumpState;
  /** Whether the pit may be planted again as it is. */
  readonly pitReusable: boolean;
  readonly note: string;
}
