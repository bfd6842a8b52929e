/**
 * Why a number or a verdict is what it is: which rule, with which inputs. Reasons are data; `wording` turns them into
 * a sentence in the reader's units. Each stage states its own facts by code; nothing here knows a stage.
 */
export type ReasonOf<Facts> = {
  [C in keyof Facts]: { readonly code: C; readonly facts: Readonly<Facts[C]> };
}[keyof Facts];

/** Builds a reason with its facts checked against its code. */
export type Because<Facts> = <C extends keyof Facts>(code: C, facts: Facts[C]) => ReasonOf<Pick<Facts, C>>;

/** The `because` of a stage whose facts these are. */
export function becauseOf<Facts>(): Because<Facts> {
  // The pair (code, facts) is checked by the signature; TypeScript cannot rebuild the union from it.
  return <C extends keyof Facts>(code: C, facts: Facts[C]) => ({ code, facts }) as unknown as ReasonOf<Pick<Facts, C>>;
}

/** A computed number and why. The unit is in the name of the property that holds it. */
export interface Reasoned<R> {
  readonly value: number;
  readonly because: readonly R[];
}
