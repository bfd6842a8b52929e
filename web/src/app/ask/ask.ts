import type { CirclingRoot, Drawing, NumberRange, Quantity } from '@sombra/core';

interface Asked {
  readonly key: string;
  readonly title: string;
  readonly hint: string;
  /** What was found there the time before. */
  readonly last?: string | undefined;
}

export interface AskOption {
  readonly value: string;
  readonly name: string;
  readonly picture?: Drawing;
}

/** One question for a wet glove. Numbers are metric; a missing answer is `null`. */
export type Ask = Asked &
  (
    | {
        readonly kind: 'number';
        readonly quantity: Quantity;
        readonly range: NumberRange;
        /** Usual values, one tap each, metric. */
        readonly likely: readonly number[];
        /** For the eye to compare: what is meant, drawn. */
        readonly pictures?: readonly Drawing[];
        /** What a value of either sign is called, where both are usual; the first is what is typed plainly. */
        readonly signs?: { readonly plus: string; readonly minus: string };
      }
    | {
        readonly kind: 'words';
        readonly options: readonly AskOption[];
      }
    | {
        /** Several of them, or none; the answer is their values with commas between. */
        readonly kind: 'many';
        readonly options: readonly AskOption[];
        /** What none of them is called. */
        readonly none?: string;
      }
    | {
        /** Nothing is asked: what to do, what to check, what not to do. */
        readonly kind: 'step';
        readonly check: string;
        readonly avoid: string;
        readonly caution: string | null;
        readonly picture: Drawing | null;
      }
    | {
        /** Roots round the collar; the answer is theirs as JSON. */
        readonly kind: 'dial';
        readonly before: readonly CirclingRoot[];
        /** Which way the path runs past, from the tree; `null` where nobody said. */
        readonly pathDeg: number | null;
      }
    | { readonly kind: 'photo' }
  );

export type Answer = number | string | null;
export type Answers = Readonly<Record<string, Answer>>;
