import { fedWhere, feedPlaceCodes } from './pit-options';
import type { Practice } from './practice';

export type ChoiceValue = string | number | boolean;

/** One choice made otherwise for a single spot, with its reason. */
export interface Override {
  /** Where in the practice the choice stands, as in `choiceTable`. */
  readonly path: string;
  readonly value: ChoiceValue;
  readonly reason: string;
}

type Part = Record<string, unknown>;

/** Choices as they stand by now: one feed had one place, and watering a resting tree was yes or no. */
export function asItStandsNow<O extends Pick<Override, 'path' | 'value'>>(one: O): readonly O[] {
  const { path, value } = one;
  if (path === 'backfill.fertiliser' && typeof value === 'string') {
    const where = fedWhere(value);
    return feedPlaceCodes.map((place) => ({
      ...one,
      path: `backfill.feeds.${place}`,
      value: place === where ? value : 'none',
    }));
  }
  if (path === 'routine.dormant' && typeof value === 'boolean') {
    return [{ ...one, value: value ? 'until_freeze' : 'none' }];
  }
  return [one];
}

/** A copy of the practice with the value at a path replaced; the same practice where it has no such path. */
export function replaced(practice: Practice, path: string, value: ChoiceValue): Practice {
  const changed = structuredClone(practice) as unknown as Part;
  const keys = path.split('.');
  const last = keys.pop() ?? '';
  const parent = keys.reduce<Part | undefined>((part, key) => part?.[key] as Part | undefined, changed);
  if (typeof parent !== 'object' || !(last in parent)) return practice;
  parent[last] = value;
  return changed as unknown as Practice;
}

/** Choices of which the first may not exceed the second. */
export const rising: readonly (readonly [lower: string, upper: string])[] = [
  ['percolation.slowFromMmPerH', 'percolation.goodFromMmPerH'],
  ['percolation.goodFromMmPerH', 'percolation.fastOverMmPerH'],
  ['flareAboveGrade.settlementFirmed', 'flareAboveGrade.settlementLoose'],
  ['receiving.circlingCorrectPct', 'receiving.circlingReturnPct'],
  ['lifting.onePersonKg', 'lifting.twoPeopleKg'],
  ['lifting.twoPeopleKg', 'lifting.threePeopleKg'],
  ['mulch.acceptedDepthMm.min', 'mulch.acceptedDepthMm.max'],
  ['inspection.flare.clearFromMm', 'inspection.flare.examineFromMm'],
  ['inspection.flare.examineFromMm', 'inspection.flare.liftOverMm'],
  ['inspection.roots.stagedFromPct', 'inspection.roots.referOverPct'],
];

export const valueAt = (practice: Practice, path: string): unknown =>
  path.split('.').reduce<unknown>((part, key) => (part as Part | undefined)?.[key], practice);

/** Pairs of choices of which the first stands above the second. */
export const fallingPairs = (practice: Practice): (readonly [lower: string, upper: string])[] =>
  rising.filter(([lower, upper]) => Number(valueAt(practice, lower)) > Number(valueAt(practice, upper)));

/**
 * The practice as it applies at a spot. Each override was held against the practice of its day; one that contradicts
 * the practice of another day is set aside, and said. They are read without the table of choices: every state of every
 * tree asks for this.
 */
export function practiceAt<O extends Override>(
  practice: Practice,
  overrides: readonly O[],
): { readonly practice: Practice; readonly setAside: readonly O[] } {
  const made = (all: readonly O[]) => all.reduce((one, { path, value }) => replaced(one, path, value), practice);
  const changed = made(overrides);
  const falling = overrides.length > 0 ? fallingPairs(changed).flat() : [];
  const setAside = overrides.filter(({ path }) => falling.includes(path));
  if (setAside.length === 0) return { practice: changed, setAside };
  const left = overrides.filter((one) => !setAside.includes(one));
  return { practice: made(left), setAside };
}
