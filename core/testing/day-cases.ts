import type { Helper, ReadySpot } from '../src/day';

/** A spot nothing is missing of. */
export const readySpot = (ref: string, change: Partial<ReadySpot> = {}): ReadySpot => ({
  ref,
  cover: 'ticket',
  leaveMissing: false,
  stock: 'accepted',
  heldDryDays: null,
  wateredEveryDays: null,
  planned: true,
  planted: false,
  cardChanged: false,
  carded: true,
  ...change,
});

/** A grown-up who has planted, may lift and has signed. */
export const aHelper = (id: string, change: Partial<Helper> = {}): Helper => ({
  id,
  skill: 'has_planted',
  minor: false,
  guardianId: null,
  together: null,
  noLifting: false,
  waiver: true,
  ...change,
});
