/**
 * One way to decide a choice, with who holds it and why. What it does to the arithmetic stands in further fields of
 * its own, so that adding an option is a change in the one record that lists it.
 */
export interface Option {
  readonly name: string;
  /** Who holds it, and their reason. */
  readonly held: string;
}

/** How something is sold: in a bag, a roll, a sack of so much. The size is what is usual; a programme says its own. */
export interface Pack {
  readonly size: number;
  readonly word: string;
}

/** The option of a record that a word names. @throws TypeError for a word that is none of them: words come from a practice */
export function optionOf<T extends Readonly<Record<string, object>>>(options: T, key: string): T[keyof T] {
  if (!(key in options)) throw new TypeError(`no option ${key}`);
  return options[key as keyof T];
}
