import { InvalidInputError } from '../errors';

/** What a tree and its cohort are compared in. */
export const cohortMeasures = ['shootMm', 'diebackPct', 'flareDepthMm', 'mulchDepthMm', 'waterShare'] as const;
export type CohortMeasure = (typeof cohortMeasures)[number];

/** Of fewer others nothing is said. An estimate; instrument values ask for more */
export const fewestOthers = 8;
/** Of fewer values of the same instrument nothing is said. */
export const fewestInstrumentOthers = 20;
/** A tree counts as unusual in the lowest or highest tenth of its cohort. % */
const unusualPct = 10;

export interface CohortStanding {
  readonly others: number;
  readonly own: number;
  readonly medianOfOthers: number;
  readonly least: number;
  readonly most: number;
  /** Of the others, how many have less; ties count half. % */
  readonly belowPct: number;
  readonly standing: 'too_few' | 'low' | 'usual' | 'high';
}

/**
 * Where a tree stands among the others of its cohort in one measure, by rank: no shape of the values is assumed.
 * Example: 3 among 1, 2, 3, 4, …, 10 has 25 % below it.
 * @param fewest of fewer others nothing is said
 * @param others of the same species, season of planting and stock, without the tree itself
 * @returns `null` where there is nobody to compare with
 * @throws InvalidInputError for a value that is no number
 */
export function standInCohort(
  own: number,
  others: readonly number[],
  fewest: number = fewestOthers,
): CohortStanding | null {
  const wrong = [own, ...others].find((value) => !Number.isFinite(value));
  if (wrong !== undefined) throw new InvalidInputError(`value must be a number, got ${wrong}`, 'value');
  if (others.length === 0) return null;
  const sorted = [...others].sort((a, b) => a - b);
  const at = (i: number): number => sorted[i] ?? own;
  const middle = (sorted.length - 1) / 2;
  const below = sorted.filter((value) => value < own).length + sorted.filter((value) => value === own).length / 2;
  const belowPct = (below / sorted.length) * 100;
  const few = sorted.length < fewest;
  return {
    others: sorted.length,
    own,
    medianOfOthers: (at(Math.floor(middle)) + at(Math.ceil(middle))) / 2,
    least: at(0),
    most: at(sorted.length - 1),
    belowPct,
    standing: few ? 'too_few' : belowPct < unusualPct ? 'low' : belowPct > 100 - unusualPct ? 'high' : 'usual',
  };
}
