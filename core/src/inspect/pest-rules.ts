/** Pests and diseases that have to be told of by law or order, as the programme lists them. */
export interface PestRules {
  /** A line each: the pest, a colon, and whom to tell. */
  readonly list: readonly string[];
}
export const defaultPestRules: PestRules = { list: [] };

export interface NotifiablePest {
  readonly pest: string;
  readonly tell: string;
}

/** Shortest and longest name of a pest, or of who is told. */
export const pestNameLength = { least: 3, most: 120 } as const;

/** A line of the list; `null` for one that names no pest, or nobody to tell. */
export function readPest(line: string): NotifiablePest | null {
  const [pest = '', ...rest] = line.split(':').map((part) => part.trim());
  const tell = rest.join(': ');
  const fits = ({ length }: string) => length >= pestNameLength.least && length <= pestNameLength.most;
  return fits(pest) && fits(tell) ? { pest, tell } : null;
}
