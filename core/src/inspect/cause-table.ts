/** What may be behind a tree in trouble. `other` is all that the table does not know. */
export const causes = [
  'too_dry',
  'drowned',
  'planted_deep',
  'girdled',
  'establishing',
  'wounded',
  'pest',
  'compacted',
  'salt',
  'nutrient',
  'other',
] as const;
export type Cause = (typeof causes)[number];

/** What speaks for or against a cause: seen at the tree, or on record. */
export const evidences = [
  'wilting',
  'pale_leaves',
  'yellow_between_veins',
  'scorched_edges',
  'small_leaves',
  'thin_crown',
  'leafless',
  'shedding',
  'early_colour',
  'sprouts_at_base',
  'dieback',
  'short_shoots',
  'trunk_wound',
  'pests',
  'traffic',
  'probe_dry',
  'probe_moist',
  'probe_wet',
  'flare_visible',
  'flare_deep',
  'roots_clear',
  'roots_pressing',
  'stress_days',
  'waterlogged_days',
  'slow_soil',
  'pot_bound',
  'salt_found',
  'salt_low',
  'nutrient_short',
  'nutrient_enough',
  'first_year',
] as const;
export type Evidence = (typeof evidences)[number];

/** Something to look at, with what it may show and the minutes it takes. */
export interface Check {
  readonly minutes: number;
  /** Answers that shut each other out. */
  readonly answers: readonly Evidence[];
}
export const checks = {
  probe: { minutes: 1, answers: ['probe_dry', 'probe_moist', 'probe_wet'] },
  scrape_flare: { minutes: 4, answers: ['flare_visible', 'flare_deep'] },
  expose_roots: { minutes: 12, answers: ['roots_clear', 'roots_pressing'] },
  percolation: { minutes: 45, answers: ['slow_soil'] },
  soil_test: { minutes: 25, answers: ['nutrient_short', 'nutrient_enough'] },
  salt_test: { minutes: 20, answers: ['salt_found', 'salt_low'] },
} as const satisfies Record<string, Check>;
export type CheckCode = keyof typeof checks;

type Row = Partial<Readonly<Record<Cause, number>>>;

/** How often each is behind a young tree in trouble, before anything is known. Judgement; parts of all. */
const priors: Readonly<Record<Cause, number>> = {
  too_dry: 26,
  drowned: 16,
  planted_deep: 13,
  girdled: 8,
  establishing: 11,
  wounded: 5,
  pest: 6,
  compacted: 6,
  salt: 3,
  nutrient: 3,
  other: 9,
};

/**
 * How likely each piece of evidence is where a cause is at work: `usual` where a row does not name it. All of it is the
 * judgement of who made Sombra, in steps of twentieths, and none is 0 or 1: no single sign proves or rules out.
 */
const table: Readonly<Record<Evidence, { readonly usual: number } & Row>> = {
  wilting: {
    usual: 0.1,
    too_dry: 0.65,
    drowned: 0.55,
    girdled: 0.25,
    pest: 0.3,
    compacted: 0.2,
    salt: 0.2,
    other: 0.2,
    wounded: 0.15,
  },
  pale_leaves: {
    usual: 0.1,
    drowned: 0.5,
    planted_deep: 0.45,
    girdled: 0.35,
    nutrient: 0.8,
    compacted: 0.35,
    too_dry: 0.2,
    establishing: 0.2,
    other: 0.2,
  },
  yellow_between_veins: {
    usual: 0.05,
    nutrient: 0.75,
    drowned: 0.3,
    compacted: 0.25,
    planted_deep: 0.2,
    girdled: 0.15,
    other: 0.15,
  },
  scorched_edges: { usual: 0.1, too_dry: 0.55, salt: 0.75, drowned: 0.2, compacted: 0.25, girdled: 0.2, other: 0.2 },
  small_leaves: {
    usual: 0.15,
    establishing: 0.55,
    planted_deep: 0.4,
    drowned: 0.4,
    girdled: 0.4,
    compacted: 0.4,
    too_dry: 0.35,
    nutrient: 0.35,
  },
  thin_crown: {
    usual: 0.15,
    girdled: 0.6,
    planted_deep: 0.5,
    compacted: 0.5,
    drowned: 0.35,
    establishing: 0.3,
    too_dry: 0.3,
    other: 0.25,
  },
  leafless: { usual: 0.05, too_dry: 0.2, drowned: 0.15, establishing: 0.15, wounded: 0.1, other: 0.15 },
  shedding: { usual: 0.1, too_dry: 0.5, drowned: 0.3, establishing: 0.25, pest: 0.25, salt: 0.2, other: 0.2 },
  early_colour: {
    usual: 0.1,
    girdled: 0.5,
    planted_deep: 0.4,
    too_dry: 0.4,
    drowned: 0.35,
    compacted: 0.35,
    salt: 0.25,
    establishing: 0.2,
    wounded: 0.25,
    other: 0.2,
  },
  sprouts_at_base: {
    usual: 0.1,
    planted_deep: 0.35,
    wounded: 0.3,
    establishing: 0.2,
    girdled: 0.25,
    drowned: 0.15,
    other: 0.15,
  },
  dieback: {
    usual: 0.15,
    too_dry: 0.35,
    drowned: 0.35,
    planted_deep: 0.35,
    girdled: 0.4,
    wounded: 0.45,
    pest: 0.35,
    compacted: 0.3,
    salt: 0.3,
    establishing: 0.15,
    other: 0.3,
  },
  short_shoots: {
    usual: 0.25,
    establishing: 0.75,
    girdled: 0.55,
    planted_deep: 0.5,
    compacted: 0.5,
    nutrient: 0.5,
    drowned: 0.45,
    too_dry: 0.45,
    other: 0.35,
  },
  trunk_wound: { usual: 0.1, wounded: 0.95, pest: 0.15, other: 0.15 },
  pests: { usual: 0.1, pest: 0.9, too_dry: 0.15, other: 0.15, wounded: 0.15 },
  traffic: { usual: 0.1, compacted: 0.8, wounded: 0.25, other: 0.15 },
  probe_dry: { usual: 0.1, too_dry: 0.75, drowned: 0.05, salt: 0.15, compacted: 0.2, girdled: 0.15, other: 0.2 },
  probe_moist: {
    usual: 0.75,
    too_dry: 0.2,
    drowned: 0.15,
    planted_deep: 0.6,
    compacted: 0.5,
    salt: 0.7,
    girdled: 0.7,
    other: 0.6,
  },
  probe_wet: { usual: 0.15, too_dry: 0.05, drowned: 0.8, planted_deep: 0.25, compacted: 0.3, other: 0.2 },
  flare_visible: { usual: 0.65, planted_deep: 0.05 },
  flare_deep: { usual: 0.15, planted_deep: 0.9, girdled: 0.3, drowned: 0.2 },
  roots_clear: { usual: 0.8, girdled: 0.05, planted_deep: 0.6 },
  roots_pressing: { usual: 0.1, girdled: 0.9, planted_deep: 0.3 },
  stress_days: { usual: 0.2, too_dry: 0.85, drowned: 0.05, salt: 0.25, establishing: 0.25, other: 0.3 },
  waterlogged_days: { usual: 0.1, drowned: 0.8, too_dry: 0.05, planted_deep: 0.2, compacted: 0.2, other: 0.15 },
  slow_soil: { usual: 0.2, drowned: 0.7, compacted: 0.5, too_dry: 0.1 },
  pot_bound: { usual: 0.15, girdled: 0.65, too_dry: 0.25, establishing: 0.25 },
  salt_found: { usual: 0.1, salt: 0.9, other: 0.15 },
  salt_low: { usual: 0.85, salt: 0.05 },
  nutrient_short: { usual: 0.15, nutrient: 0.9, compacted: 0.2, other: 0.2 },
  nutrient_enough: { usual: 0.8, nutrient: 0.05 },
  first_year: {
    usual: 0.35,
    establishing: 0.9,
    too_dry: 0.5,
    drowned: 0.45,
    planted_deep: 0.3,
    girdled: 0.15,
    compacted: 0.25,
  },
};

/** What a programme holds otherwise than the table that ships: only that is named. */
export interface CauseRules {
  /** How often a cause is behind a young tree in trouble; parts of all. */
  readonly parts: Partial<Readonly<Record<Cause, number>>>;
  /** How likely a piece of evidence is where a cause is at work. % */
  readonly likelyPct: Partial<Readonly<Record<Evidence, Partial<Readonly<Record<Cause, number>>>>>>;
}
export const defaultCauseRules: CauseRules = { parts: {}, likelyPct: {} };

/** No single sign proves or rules out. % */
export const likelyPctRange = { min: 5, max: 95, unit: '%' } as const;
export const partsRange = { min: 1, max: 100 } as const;

export interface CauseTable {
  /** How likely a piece of evidence is where a cause is at work, 0–1. */
  readonly likelihood: (evidence: Evidence, cause: Cause) => number;
  /** How often each cause is at work before anything is known; parts of all. */
  readonly prior: (cause: Cause) => number;
}

/** The table that ships, with what a programme holds otherwise. */
export const causeTable = ({ parts, likelyPct }: CauseRules = defaultCauseRules): CauseTable => ({
  likelihood: (evidence, cause) => {
    const own = likelyPct[evidence]?.[cause];
    return own === undefined ? (table[evidence][cause] ?? table[evidence].usual) : own / 100;
  },
  prior: (cause) => parts[cause] ?? priors[cause],
});

/** Answers of one check shut each other out: where together they are likelier than certain. `null` where all is sound. */
export function overfullCheck(
  rules: CauseRules,
): { readonly check: CheckCode; readonly cause: Cause; readonly pct: number } | null {
  const { likelihood } = causeTable(rules);
  for (const check of Object.keys(checks) as CheckCode[]) {
    for (const cause of causes) {
      const answers: readonly Evidence[] = checks[check].answers;
      const pct = Math.round(answers.reduce((sum, answer) => sum + likelihood(answer, cause), 0) * 100);
      if (pct > 100) return { check, cause, pct };
    }
  }
  return null;
}
