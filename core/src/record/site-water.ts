import {
  ballStore,
  followWater,
  holdsOf,
  type ClimateDay,
  type WaterCheckpoint,
  type WaterGiven,
  type WaterReading,
  type WaterSubject,
} from '../water';

/** So many readings in a row, all of one side, ask whether the tree drinks as it is thought to. */
const leastSurprises = 3;
const [leastTimes, mostTimes, step] = [0.4, 2.5, 0.1] as const;

/** What a tree's own readings say it drinks, of what was expected. */
export interface UseFound {
  readonly useTimes: number;
  /** How far the readings lie from the balance, in standard errors, as it is and as it would be. */
  readonly offBefore: number;
  readonly offAfter: number;
  readonly readings: number;
}

/** A reading that lies further from the balance than both are unsure of. */
export interface Surprise {
  readonly reading: WaterReading;
  readonly expected: number;
}

/** The last readings that lay off, all of them on one side; none where they do not agree. */
export function agreeingSurprises(surprises: readonly Surprise[]): readonly Surprise[] {
  const last = surprises.slice(-leastSurprises);
  const drier = last.filter(({ reading, expected }) => reading.share < expected).length;
  return last.length === leastSurprises && (drier === 0 || drier === last.length) ? last : [];
}

/** Root mean square of how far readings lie from what the balance says without them, in standard errors of both. */
function offOf(
  subject: WaterSubject,
  from: WaterCheckpoint,
  { climate, given }: { readonly climate: readonly ClimateDay[]; readonly given: WaterGiven },
): number {
  const { days } = followWater(subject, from, climate, { ...given, readings: [] });
  const byDay = new Map(days.map((day) => [day.day, day]));
  const squares = given.readings.flatMap(({ day, share, errorShare }) => {
    const found = byDay.get(day);
    return found ? [((share - found.share) / Math.hypot(errorShare, found.errorShare)) ** 2] : [];
  });
  return squares.length === 0 ? 0 : Math.sqrt(squares.reduce((sum, one) => sum + one, 0) / squares.length);
}

/**
 * How many times as much as expected a tree drinks, by all that was felt in its ball: the factor under which the balance,
 * followed without its readings, comes nearest to them. `null` where too few readings lie off, or no factor is a third
 * nearer than none: then it is something else, a leak, or water that misses the ball.
 * @param times the factor that is applied already
 */
export function foundUse(
  { subject, from, times }: { readonly subject: WaterSubject; readonly from: WaterCheckpoint; readonly times: number },
  of: { readonly climate: readonly ClimateDay[]; readonly given: WaterGiven },
): UseFound | null {
  const read = of.given.readings.length;
  if (read < leastSurprises || holdsOf(ballStore(subject)) <= 0) return null;
  const usual = subject.use / times;
  const offAt = (useTimes: number): number => offOf({ ...subject, use: usual * useTimes }, from, of);
  const offBefore = offAt(times);
  let best = { useTimes: times, off: offBefore };
  for (let i = 0; leastTimes + i * step <= mostTimes + 1e-9; i++) {
    const useTimes = Math.round((leastTimes + i * step) * 10) / 10;
    const off = offAt(useTimes);
    if (off < best.off) best = { useTimes, off };
  }
  const worth = best.off <= offBefore * (2 / 3) && Math.abs(best.useTimes - times) >= 2 * step - 1e-9;
  return worth ? { useTimes: best.useTimes, offBefore, offAfter: best.off, readings: read } : null;
}
