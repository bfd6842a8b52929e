import type { Option } from './option';

interface ChoiceText {
  /** Where in the practice the choice stands. */
  readonly path: string;
  readonly name: string;
  /** What published research tends to say. */
  readonly research: string;
  /** Says nothing while another choice has this value. */
  readonly idleWhile?: { readonly path: string; readonly value: string };
}
interface HeldText extends ChoiceText {
  /** Who holds which value, and why; an option says it for itself. */
  readonly held: string;
}
export type ChoiceUnit =
  | 'mm'
  | 'm'
  | '×'
  | 'share'
  | '%'
  | 'L'
  | 'kg'
  | 'times'
  | 'months'
  | 'a week'
  | 'mm/h'
  | 'days'
  | 'weeks'
  | 'years'
  | 'bags'
  | 'roots';
export type Choice =
  | (ChoiceText & { readonly kind: 'option'; readonly options: Readonly<Record<string, Option>> })
  | (HeldText & { readonly kind: 'number'; readonly min: number; readonly max: number; readonly unit: ChoiceUnit })
  | (HeldText & { readonly kind: 'yes_no' });

export interface ChoiceGroup {
  readonly name: string;
  readonly choices: readonly Choice[];
}

export const option = (
  path: string,
  name: string,
  options: Readonly<Record<string, Option>>,
  research: string,
): Choice => ({
  kind: 'option',
  path,
  name,
  options,
  research,
});
type Range = readonly [min: number, max: number, unit: ChoiceUnit];
export const number = (
  path: string,
  name: string,
  [min, max, unit]: Range,
  held: string,
  research: string,
): Choice => ({
  kind: 'number',
  path,
  name,
  min,
  max,
  unit,
  held,
  research,
});
export const yesNo = (path: string, name: string, held: string, research: string): Choice => ({
  kind: 'yes_no',
  path,
  name,
  held,
  research,
});
