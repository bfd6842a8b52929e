import type { Drawing, NumberRange, Quantity } from '@sombra/core';

interface Asked {
  readonly key: string;
  readonly title: string;
  readonly hint: string;
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
      }
    | {
        /** Nothing is asked: what to do, what to check, what not to do. */
        readonly kind: 'step';
        readonly check: string;
        readonly avoid: string;
        readonly caution: string | null;
        readonly picture: Drawing | null;
      }
    | { readonly kind: 'photo' }
  );

export type Answer = number | string | null;
export type Answers = Readonly<Record<string, Answer>>;
