import { daysBetween, type IsoDate } from '../calendar';
import type { KeptWater } from './kept-water';

/**
 * How much it matters that a tree is reached on a round: a ball that is nearly dry before one that is half empty, one that
 * asks today before one that asks within the week. An estimate, for a search to weigh stops by.
 */
export function roundWeight({ supply, next }: Pick<KeptWater, 'supply' | 'next'>, onDay: IsoDate): number {
  if (next.kind !== 'water') return 1;
  if (supply < 0.25) return 4;
  const inDays = daysBetween(onDay, next.on);
  return inDays <= 0 ? 3 : inDays <= 3 ? 2 : 1;
}

/** A stop is dropped from a round that was planned where rain, or somebody else, made its next water later than this. Days */
export const needlessAfterDays = 7;

/** Whether a tree of a round asks for no water within a week of its day any more. */
export const isNeedless = (next: KeptWater['next'], onDay: IsoDate): boolean =>
  next.kind !== 'water' || daysBetween(onDay, next.on) > needlessAfterDays;
