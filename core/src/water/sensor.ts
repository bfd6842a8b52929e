import { daysBetween, type IsoDate } from '../calendar';

/** One value of a moisture sensor in a ball: of what the ball holds at field capacity, over 1 where it is wetter. */
export interface SensorValue {
  /** ISO 8601. */
  readonly at: string;
  readonly share: number;
}

export const sensorFlags = ['silent', 'stuck', 'jumps', 'out_of_range', 'drifts'] as const;
/** Why a day of a sensor is not believed. */
export type SensorFlag = (typeof sensorFlags)[number];

/** What a sensor says of a day, and whether that is believed. */
export interface SensorDay {
  readonly day: IsoDate;
  /** Middle of its values; `null` where it said nothing. */
  readonly share: number | null;
  readonly values: number;
  readonly flag: SensorFlag | null;
}

/** Fewer values than this are no day. */
const leastValues = 6;
/** Values that do not move by this over so many days are of a sensor that hangs: a ball always breathes. */
const [stuckWithin, stuckDays] = [0.002, 3] as const;
/** From one value to the next no ball changes by more, unless it is watered: then it rises. */
const mostFall = 0.4;
const [lowest, highest] = [-0.1, 2.5] as const;
/** Days over which a sensor is held against the balance, and how far it may run from it, in the shares of a ball. */
const [driftDays, driftShare] = [14, 0.35] as const;
/** Standard error of a day that is believed, of what the ball holds. An estimate: sensors sit in one place of it. */
export const sensorErrorShare = 0.18;

const middle = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const half = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? (sorted[half] ?? 0) : ((sorted[half - 1] ?? 0) + (sorted[half] ?? 0)) / 2;
};

/**
 * Judges one day of a sensor by its values, the days before, and what the balance expected: too few values, a value that
 * cannot be, a fall no ball makes, one value for days, or a slow run away from the balance.
 * @param before the sensor's days before this one, oldest first
 * @param expected of the ball by the balance on those days and this one; left out where it is not followed
 */
export function sensorDay(
  day: IsoDate,
  values: readonly SensorValue[],
  before: readonly SensorDay[] = [],
  expected: ReadonlyMap<IsoDate, number> = new Map(),
): SensorDay {
  const inOrder = [...values].sort((a, b) => a.at.localeCompare(b.at));
  const shares = inOrder.map(({ share }) => share);
  if (shares.length < leastValues)
    return { day, share: shares.length > 0 ? middle(shares) : null, values: shares.length, flag: 'silent' };
  const share = middle(shares);
  const found = { day, share, values: shares.length };
  if (shares.some((one) => !Number.isFinite(one) || one < lowest || one > highest))
    return { ...found, flag: 'out_of_range' };
  if (shares.some((one, i) => i > 0 && (shares[i - 1] ?? one) - one > mostFall)) return { ...found, flag: 'jumps' };
  const last = before.filter((one) => daysBetween(one.day, day) < stuckDays && one.share !== null);
  const spread = Math.max(...shares) - Math.min(...shares);
  const still = last.every((one) => Math.abs((one.share ?? 0) - share) <= stuckWithin);
  if (spread <= stuckWithin && last.length === stuckDays - 1 && still) return { ...found, flag: 'stuck' };
  return { ...found, flag: drifts(found, before, expected) ? 'drifts' : null };
}

/** A week and the week before it lie ever further from the balance, on one side: it runs away, not the tree. */
function drifts(
  now: { readonly day: IsoDate; readonly share: number },
  before: readonly SensorDay[],
  expected: ReadonlyMap<IsoDate, number>,
): boolean {
  const span = [...before, now].filter(({ day }) => daysBetween(day, now.day) < driftDays);
  const offs = span.flatMap(({ day, share }) => {
    const known = expected.get(day);
    return share === null || known === undefined ? [] : [share - known];
  });
  if (offs.length < driftDays) return false;
  const half = Math.floor(offs.length / 2);
  const mean = (some: readonly number[]): number => some.reduce((sum, one) => sum + one, 0) / some.length;
  const [early, late] = [mean(offs.slice(0, half)), mean(offs.slice(half))];
  return (
    Math.abs(late) > driftShare &&
    Math.abs(late) > Math.abs(early) * 1.2 &&
    Math.sign(late) === Math.sign(early || late)
  );
}
