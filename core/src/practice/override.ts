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

/**
 * The practice as it applies at a spot: a later override of the same choice counts. They were checked when they were
 * recorded, and are read without the table of choices: every state of every tree asks for this.
 */
export const practiceAt = (practice: Practice, overrides: readonly Override[]): Practice =>
  overrides.reduce((changed, { path, value }) => replaced(changed, path, value), practice);
