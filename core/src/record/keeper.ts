import { addDaysTo, daysBetween, type IsoDate } from '../calendar';
import { requireWithin } from '../errors';
import type { NextWater } from './tree-water';

/** Half a bucket is as fine as a bucket is carried. */
const bucketStep = 0.5;

/**
 * A dose in a keeper's own buckets, up to the next half.
 * @param litres L
 * @param bucketL what one bucket holds, L
 * @throws InvalidInputError for a bucket that holds nothing
 */
export function bucketsOf(litres: number, bucketL: number): number {
  requireWithin('bucketL', bucketL, { min: 0.5, max: 100, unit: 'L' });
  return Math.max(bucketStep, Math.ceil(litres / bucketL / bucketStep - 1e-9) * bucketStep);
}

/** Told by a link nothing is believed beyond what a keeper can carry, or beyond so many fills of the ball. */
const [leastCapL, mostCapL, capFills] = [40, 200, 5] as const;

/** The most a keeper may tell of by a link, for one watering. L, in whole fives */
export const mostByLinkL = (holdsL: number): number =>
  Math.min(mostCapL, Math.max(leastCapL, Math.ceil((capFills * holdsL) / 5) * 5));

/** Days a keeper has, from when the tree asks for water, before somebody should ask after them. */
const graceDays = 2;
/** Whoever said something lately is not silent, though the tree still asks: they know of it. */
const heardDays = 5;
/** A reminder leaves the day before the tree asks, and again after so many days. */
const remindAhead = 1;
const remindAgainDays = 3;

export type KeeperState = 'silent' | 'due' | 'fine';

interface Kept {
  readonly next: NextWater | null;
  /** Since when they keep the tree. */
  readonly since: IsoDate;
  /** When they last told anything; `null` before they did. */
  readonly heardOn: IsoDate | null;
  readonly today: IsoDate;
}

/**
 * How a keeper stands to what the tree asks for: *due* once it asks, *silent* once it has asked for some days and nothing
 * was heard. It asks at half of what it can drink, well before a leaf shows anything.
 */
export function keeperState({ next, since, heardOn, today }: Kept): KeeperState {
  if (next?.kind !== 'water' || next.on > today) return 'fine';
  const heard = heardOn ?? since;
  const quiet = daysBetween(heard, today) >= heardDays && daysBetween(since, today) >= graceDays;
  return quiet && addDaysTo(next.on, graceDays) <= today ? 'silent' : 'due';
}

/** Whether a reminder is to leave today. */
export const remindsToday = ({
  next,
  remindedOn,
  today,
}: Pick<Kept, 'next' | 'today'> & { readonly remindedOn: IsoDate | null }): boolean =>
  next?.kind === 'water' &&
  next.on <= addDaysTo(today, remindAhead) &&
  (remindedOn === null || daysBetween(remindedOn, today) >= remindAgainDays);
