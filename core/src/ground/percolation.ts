import { requireWithin } from '../errors';
import { limits } from '../limits';
import type { PercolationQuestion } from '../reason';

export interface PercolationReading {
  /** Minutes since the filled, pre-soaked hole was first read. */
  readonly minute: number;
  /** Height of the water above the bottom of the hole. */
  readonly levelMm: number;
}

export const percolationClasses = ['stands', 'slow', 'good', 'fast'] as const;
export type PercolationClass = (typeof percolationClasses)[number];

/** Water that drains slowly, or not at all: what an untested hole does is not known, and counts as neither. */
export const drainsSlowly = (of: PercolationClass | undefined): of is 'stands' | 'slow' =>
  of === 'slow' || of === 'stands';

/** Where a practice draws the lines between drainage classes. */
export interface PercolationLimits {
  /** Below this the water stands. mm/h */
  readonly slowFromMmPerH: number;
  readonly goodFromMmPerH: number;
  /** Above this it drains too fast to hold a dose. mm/h */
  readonly fastOverMmPerH: number;
}

export const defaultPercolationLimits: PercolationLimits = {
  slowFromMmPerH: 5,
  goodFromMmPerH: 25,
  fastOverMmPerH: 100,
};

export type PercolationResult =
  | {
      readonly kind: 'rate';
      readonly rateMmPerH: number;
      /** One standard error of the rate. */
      readonly errorMmPerH: number;
      readonly class: PercolationClass;
      /** Classes the rate could belong to within two standard errors. */
      readonly couldBe: readonly PercolationClass[];
      readonly readingsUsed: number;
      /** False while the last falls still differ by more than a fifth: keep reading. */
      readonly steady: boolean;
    }
  | { readonly kind: 'questioned'; readonly question: PercolationQuestion; readonly atReading: number };

/** A tape read at the water's edge in a hole is good to about this. Standard error, mm. */
const readingErrorMm = 1;
/** Falls count as steady while they agree within this share. */
const steadyShare = 0.2;
/** A rise of more than this between readings is a refill, less is a misread tape. mm */
const refillMm = 40;

/**
 * Infiltration rate of a test hole from water levels against the clock: the least-squares slope through
 * the last readings whose falls are steady. Fewer than three readings, a clock that runs backwards or a
 * rising level are questioned, not computed. The standard error is the larger of the fit's own and that
 * of a tape good to 1 mm.
 *
 * Method: falling-level test of a pre-soaked hole, rate at steady state.
 * @throws InvalidInputError for a minute or level outside `limits`.
 */
export function percolationRate(
  readings: readonly PercolationReading[],
  classLimits: PercolationLimits,
): PercolationResult {
  readings.forEach((reading, i) => {
    requireWithin(`percolation[${i}].minute`, reading.minute, limits.percolationMinute);
    requireWithin(`percolation[${i}].levelMm`, reading.levelMm, limits.waterLevelMm);
  });
  const question = questionOf(readings);
  if (question) return question;

  const wet = readings.slice(0, lastWetIndex(readings) + 1);
  if (wet.length < 3) {
    const kind = readings.length < 3 ? 'too_few_readings' : 'hole_empty_too_soon';
    return { kind: 'questioned', question: kind, atReading: readings.length - 1 };
  }
  const { start, steady } = steadyTail(wet);
  const { slope, error } = fitFall(wet.slice(start));
  const rateMmPerH = Math.max(0, slope * 60);
  const errorMmPerH = error * 60;
  const classOf = (rate: number) => percolationClass(Math.max(0, rate), classLimits);
  const low = percolationClasses.indexOf(classOf(rateMmPerH - 2 * errorMmPerH));
  const high = percolationClasses.indexOf(classOf(rateMmPerH + 2 * errorMmPerH));
  return {
    kind: 'rate',
    rateMmPerH,
    errorMmPerH,
    class: classOf(rateMmPerH),
    couldBe: percolationClasses.slice(low, high + 1),
    readingsUsed: wet.length - start,
    steady,
  };
}

/** Class of a rate in mm/h: a rate equal to a limit belongs to the faster class, except `fast`, which is over its limit. */
export function percolationClass(rateMmPerH: number, classLimits: PercolationLimits): PercolationClass {
  if (rateMmPerH < classLimits.slowFromMmPerH) return 'stands';
  if (rateMmPerH < classLimits.goodFromMmPerH) return 'slow';
  return rateMmPerH > classLimits.fastOverMmPerH ? 'fast' : 'good';
}

function questionOf(readings: readonly PercolationReading[]): PercolationResult | undefined {
  for (let i = 1; i < readings.length; i++) {
    const before = readings[i - 1] as PercolationReading;
    const now = readings[i] as PercolationReading;
    if (now.minute <= before.minute) return { kind: 'questioned', question: 'clock_backwards', atReading: i };
    if (now.levelMm > before.levelMm) {
      const question = now.levelMm - before.levelMm > refillMm ? 'refilled' : 'level_rises';
      return { kind: 'questioned', question, atReading: i };
    }
  }
  return undefined;
}

/** The first reading of an empty hole says only that it emptied some time before: it carries no rate. */
function lastWetIndex(readings: readonly PercolationReading[]): number {
  const empty = readings.findIndex((reading) => reading.levelMm === 0);
  return empty === -1 ? readings.length - 1 : empty - 1;
}

function steadyTail(readings: readonly PercolationReading[]): { start: number; steady: boolean } {
  const falls = readings.slice(1).map((now, i) => {
    const before = readings[i] as PercolationReading;
    const minutes = now.minute - before.minute;
    return { rate: (before.levelMm - now.levelMm) / minutes, error: (readingErrorMm * Math.SQRT2) / minutes };
  });
  let start = falls.length - 1;
  let mean = falls[start]?.rate ?? 0;
  while (start > 0) {
    const earlier = falls[start - 1];
    if (!earlier || Math.abs(earlier.rate - mean) > Math.max(steadyShare * mean, 2 * earlier.error)) break;
    start -= 1;
    const tail = falls.slice(start);
    mean = tail.reduce((sum, fall) => sum + fall.rate, 0) / tail.length;
  }
  const steady = start < falls.length - 1;
  return { start: steady ? start : Math.max(0, falls.length - 2), steady };
}

/** Least squares of level against time. Returns the fall in mm/min and its standard error. */
function fitFall(readings: readonly PercolationReading[]): { slope: number; error: number } {
  const n = readings.length;
  const meanT = readings.reduce((sum, r) => sum + r.minute, 0) / n;
  const meanL = readings.reduce((sum, r) => sum + r.levelMm, 0) / n;
  let tt = 0;
  let tl = 0;
  for (const r of readings) {
    tt += (r.minute - meanT) ** 2;
    tl += (r.minute - meanT) * (r.levelMm - meanL);
  }
  const slope = tl / tt;
  const residual = readings.reduce((sum, r) => sum + (r.levelMm - meanL - slope * (r.minute - meanT)) ** 2, 0);
  const fitError = n > 2 ? Math.sqrt(residual / (n - 2) / tt) : 0;
  return { slope: -slope, error: Math.max(fitError, readingErrorMm / Math.sqrt(tt)) };
}
