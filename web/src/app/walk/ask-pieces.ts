import { limits, measuredFacts, type Drawing, type MeasuredName, type NumberRange } from '@sombra/core';
import type { Ask } from '../ask/ask';

/** A question for a measured number: its name, unit and limits are those of the table of measured facts. */
export function askNumber(
  key: MeasuredName,
  hint: string,
  likely: readonly number[],
  more: Partial<Extract<Ask, { kind: 'number' }>> = {},
): Ask {
  const { name, quantity, measure } = measuredFacts[key];
  const range = limits[measure] as NumberRange;
  return { kind: 'number', key, title: name, hint, quantity, range, likely, ...more };
}

/** A question whose answers are words, each with its picture where one says it better. */
export function askWords<V extends string>(
  key: string,
  title: string,
  names: Readonly<Record<V, string>>,
  { picture, hint = '' }: { readonly picture?: (value: V) => Drawing; readonly hint?: string } = {},
): Ask {
  return { kind: 'words', key, title, hint, options: optionsOf(names, picture) };
}

/** A question of which several may be so, or none. */
export const askMany = <V extends string>(
  key: string,
  title: string,
  names: Readonly<Record<V, string>>,
  { hint, none, picture }: { readonly hint: string; readonly none: string; readonly picture?: (value: V) => Drawing },
): Ask => ({
  kind: 'many',
  key,
  title,
  hint,
  none,
  options: optionsOf(names, picture),
});

/** Words to tap, each with its picture where one says it better. */
const optionsOf = <V extends string>(names: Readonly<Record<V, string>>, picture?: (value: V) => Drawing) =>
  (Object.keys(names) as V[]).map((value) => ({
    value,
    name: names[value],
    ...(picture ? { picture: picture(value) } : {}),
  }));

export const askPhoto = (key: string, title: string, hint: string): Ask => ({ kind: 'photo', key, title, hint });

export const numberOr = (value: unknown): number | null => (typeof value === 'number' ? value : null);
