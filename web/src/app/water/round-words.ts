import type { RoundHead, StopState, KeptRoundPlan } from '@sombra/contract';

export const roundStateNames: Readonly<Record<RoundHead['state'], string>> = {
  draft: 'planned',
  given: 'given out',
};
export const stopStateNames: Readonly<Record<StopState, string>> = {
  open: 'to do',
  watered: 'watered',
  could_not: 'could not',
  not_needed: 'not needed any more',
};
export const leftWhyNames: Readonly<Record<KeptRoundPlan['left'][number]['why'], string>> = {
  no_time: 'no time in any shift',
  tank_too_small: 'its dose is more than any tank holds',
  no_way: 'no way leads there',
};
