export const fitParts = [
  'soil',
  'water',
  'chemistry',
  'light',
  'wind',
  'paving',
  'upkeep',
  'wishes',
  'shade',
  'nature',
] as const;
export type FitPart = (typeof fitParts)[number];

/** How a programme chooses species: data an administrator edits. */
export interface MatchRules {
  /** What each part weighs; 0 leaves it out. */
  readonly weights: Readonly<Record<FitPart, number>>;
  readonly climate: {
    /** Lowest temperature in twenty years. °C */
    readonly lowestC: number;
    readonly hotSummers: boolean;
    readonly drySummers: boolean;
  };
  /** Words that mark a species as native when its origin holds one of them. */
  readonly nativeWords: readonly string[];
  /** Greatest shares of the whole population after planting. % */
  readonly diversity: { readonly speciesPct: number; readonly genusPct: number; readonly familyPct: number };
  /** Below this share of the soil a mature crown asks for, a species is left out. */
  readonly leastSoilShare: number;
  /** A species that fits worse than this is not offered. 0–1 */
  readonly leastFit: number;
  /** Three letters after ISO 4217. */
  readonly currency: string;
}

/** Shipped defaults; shares after the rule of thumb of a tenth, a fifth and three tenths (Santamour 1990). */
export const defaultMatchRules: MatchRules = {
  weights: {
    soil: 3,
    water: 3,
    chemistry: 2,
    light: 2,
    wind: 1.5,
    paving: 1.5,
    upkeep: 1,
    wishes: 1,
    shade: 2,
    nature: 1,
  },
  climate: { lowestC: 1, hotSummers: false, drySummers: true },
  nativeWords: ['Macaronesia'],
  diversity: { speciesPct: 10, genusPct: 20, familyPct: 30 },
  leastSoilShare: 0.4,
  leastFit: 0.35,
  currency: 'EUR',
};
