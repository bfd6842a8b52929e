import { requireWithin } from '../errors';
import { limits } from '../limits';

export type PercolationQuestion =
  'too_few_readings' | 'clock_backwards' | 'level_rises' | 'refilled' | 'hole_empty_too_soon';

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
      /** What the rate lies between with about 95 % certainty, the rate the falls seem to end with included. */
      readonly lowMmPerH: number;
      readonly highMmPerH: number;
      readonly class: PercolationClass;
      /** Every class between the lowest and the highest rate. */
      readonly couldBe: readonly PercolationClass[];
      readonly readingsUsed: number;
      /** False while the falls still change by more than a fifth over the readings used: keep reading. */
      readonly steady: boolean;
    }
  | { readonly kind: 'questioned'; readonly question: PercolationQuestion; readonly atReading: number };

/** A test that has not settled on one class: its falls still change, and what it comes to may be another class. */
export const isUnsettled = ({ steady, couldBe }: Extract<PercolationResult, { kind: 'rate' }>): boolean =>
  !steady && couldBe.length > 1;

/** A tape read at the water's edge in a hole is good to about this. Standard error, mm. */
const readingErrorMm = 1;
/** Falls count as steady while their trend changes them by no more than this share. */
const steadyShare = 0.2;
/** A rise of more than this between readings is a refill, less is a misread tape. mm */
const refillMm = 40;

/**
 * Infiltration rate of a test hole from water levels against the clock: the least-squares slope through the longest
 * run of last readings that shows no trend, neither beyond chance (a bent line fits no better by two standard errors)
 * nor beyond a fifth of its own rate. Where even the last readings change more, they are used and not called steady.
 * Fewer than three readings, a clock that runs backwards or a rising level are questioned, not computed.
 *
 * Interval: the slope by Student's t, no narrower than a tape good to 1 mm allows; where the line seems to bend, it
 * reaches to the rate at the last reading, since a hole that is stopping has not shown its rate yet.
 *
 * Method: falling-level test of a pre-soaked hole, rate at steady state; trend by the quadratic term of an orthogonal
 * polynomial fit (Snedecor and Cochran, Statistical Methods, ch. 19).
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
  const { used, fit, steady } = usedTail(wet);
  const [low, high] = rateInterval(fit);
  const rateMmPerH = Math.max(0, fit.fall * 60);
  const [lowMmPerH, highMmPerH] = [Math.max(0, low * 60), Math.max(0, high * 60)];
  const indexOf = (rate: number) => percolationClasses.indexOf(percolationClass(rate, classLimits));
  return {
    kind: 'rate',
    rateMmPerH,
    errorMmPerH: fit.fallError * 60,
    lowMmPerH,
    highMmPerH,
    class: percolationClass(rateMmPerH, classLimits),
    couldBe: percolationClasses.slice(indexOf(lowMmPerH), indexOf(highMmPerH) + 1),
    readingsUsed: used,
    steady,
  };
}

/** Class of a rate in mm/h: a rate equal to a limit belongs to the faster class, except `fast`, which is over its limit. @throws InvalidInputError for a rate below 0 or no number */
export function percolationClass(rateMmPerH: number, classLimits: PercolationLimits): PercolationClass {
  requireWithin('rateMmPerH', rateMmPerH, { min: 0, max: Number.MAX_VALUE, unit: 'mm/h' });
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

/** A straight line through levels against time, and how far the levels bend from it. Falls in mm/min. */
interface FallFit {
  readonly fall: number;
  readonly fallError: number;
  /** Readings less the two the line takes. */
  readonly freedom: number;
  /** The fit's own error, where it is larger than the tape's. */
  readonly scattered: boolean;
  /** Fall at the last reading by the bent line. */
  readonly endFall: number;
  /** How much the fall changes from the middle of the first interval to that of the last. */
  readonly change: number;
  /** The bend over its standard error. */
  readonly bend: number;
}

/** The longest run of last readings without a trend; the last three where none is without. */
function usedTail(readings: readonly PercolationReading[]): { used: number; fit: FallFit; steady: boolean } {
  const tails = readings.slice(2).map((_, start) => {
    const fit = fitFall(readings.slice(start));
    const straight = Math.abs(fit.bend) <= 2;
    const steady = straight && Math.abs(fit.change) <= steadyShare * Math.abs(fit.fall) + 1e-9;
    return { used: readings.length - start, fit, straight, steady };
  });
  const last = { used: 3, fit: fitFall(readings.slice(-3)), steady: false };
  return tails.find(({ steady }) => steady) ?? tails.find(({ straight }) => straight) ?? last;
}

/** What the fall lies between, mm/min. */
function rateInterval({ fall, fallError, freedom, scattered, endFall, bend, change }: FallFit): [number, number] {
  const half = (scattered ? studentT95(freedom) : 2) * fallError;
  const ends = Math.abs(bend) > 1 || Math.abs(change) > steadyShare * Math.abs(fall) ? [endFall] : [];
  return [Math.min(fall - half, ...ends), Math.max(fall + half, ...ends)];
}

/** Two-sided 95 % points of Student's t. */
const studentPoints = [12.71, 4.3, 3.18, 2.78, 2.57, 2.45, 2.36, 2.31, 2.26, 2.23] as const;
const studentT95 = (freedom: number): number => studentPoints[freedom - 1] ?? 2.2;

/** Least squares of level against time: the line, then what a parabola adds to it. */
function fitFall(readings: readonly PercolationReading[]): FallFit {
  const n = readings.length;
  const mean = (of: (r: PercolationReading) => number) => readings.reduce((sum, r) => sum + of(r), 0) / n;
  const [meanT, meanL] = [mean((r) => r.minute), mean((r) => r.levelMm)];
  const points = readings.map((r) => ({ t: r.minute - meanT, level: r.levelMm - meanL }));
  const sum = (of: (p: { t: number; level: number }) => number) => points.reduce((total, p) => total + of(p), 0);
  const tt = sum(({ t }) => t ** 2);
  const skew = sum(({ t }) => t ** 3) / tt;
  const slope = sum(({ t, level }) => t * level) / tt;
  const square = (t: number) => t ** 2 - skew * t - tt / n;
  const qq = sum(({ t }) => square(t) ** 2);
  const curve = sum(({ t, level }) => square(t) * level) / qq;
  const variance = (rss: number, freedom: number) => (freedom > 0 ? rss / freedom : 0);
  const lineVariance = variance(
    sum(({ t, level }) => (level - slope * t) ** 2),
    n - 2,
  );
  const curveVariance = variance(
    sum(({ t, level }) => (level - slope * t - curve * square(t)) ** 2),
    // Two to spare at least: fewer say little of the scatter.
    n > 4 ? n - 3 : 0,
  );
  const tape = readingErrorMm ** 2;
  const times = points.map(({ t }) => t);
  const [first = 0, second = 0, last = 0, beforeLast = 0] = [times[0], times[1], times.at(-1), times.at(-2)];
  return {
    fall: -slope,
    fallError: Math.sqrt(Math.max(tape, lineVariance) / tt),
    freedom: n - 2,
    scattered: lineVariance > tape,
    endFall: -(slope + curve * (2 * last - skew)),
    change: -2 * curve * ((last + beforeLast) / 2 - (first + second) / 2),
    bend: curve / Math.sqrt(Math.max(tape, curveVariance) / qq),
  };
}
