import { InvalidInputError } from '../errors';

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

/** How likely a piece of evidence is where a cause is at work, 0–1. */
export const likelihood = (evidence: Evidence, cause: Cause): number => table[evidence][cause] ?? table[evidence].usual;

export interface RankedCause {
  readonly cause: Cause;
  /** Of all that is known, 0–1; they sum to 1. */
  readonly share: number;
  /** What spoke most for it, and against it, strongest first. */
  readonly speaksFor: readonly Evidence[];
  readonly speaksAgainst: readonly Evidence[];
}
export interface NextCheck {
  readonly check: CheckCode;
  readonly minutes: number;
  /** How much surer it is expected to make. Bits */
  readonly bits: number;
}
export interface Diagnosis {
  /** The likeliest first. */
  readonly causes: readonly RankedCause[];
  /** What is not known yet, by what it tells a minute. */
  readonly checks: readonly NextCheck[];
}

export interface DiagnosisInput {
  readonly seen: readonly Evidence[];
  /** Looked for, and not found. */
  readonly absent?: readonly Evidence[];
}

/**
 * Ranks what may be behind a tree in trouble by Bayes' rule over the table, each piece of evidence taken by itself, and
 * names what to look at next: the expected gain of information (Shannon) of each open check by its minutes.
 * @throws InvalidInputError where something is said to be seen and absent
 */
export function diagnose({ seen, absent = [] }: DiagnosisInput): Diagnosis {
  const both = seen.find((one) => absent.includes(one));
  if (both) throw new InvalidInputError(`absent must not hold what is seen, got ${both}`, 'absent');
  const known = [...new Set(seen)];
  const missing = [...new Set(absent)];
  const shares = posterior(known, missing);
  const bits = entropy(shares);
  const open = (Object.keys(checks) as CheckCode[]).filter((code) => !isAnswered(code, known, missing));
  return {
    causes: causes
      .map((cause, i) => ({ cause, share: shares[i] ?? 0, ...speaking(cause, known, missing) }))
      .sort((a, b) => b.share - a.share || causes.indexOf(a.cause) - causes.indexOf(b.cause)),
    checks: open
      .map((check) => ({ check, minutes: checks[check].minutes, bits: Math.max(0, bits - expected(check, shares)) }))
      .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes),
  };
}

const isAnswered = (code: CheckCode, seen: readonly Evidence[], absent: readonly Evidence[]): boolean =>
  checks[code].answers.some((answer) => seen.includes(answer) || absent.includes(answer));

function posterior(seen: readonly Evidence[], absent: readonly Evidence[]): number[] {
  const weights = causes.map((cause) => {
    const for_ = seen.reduce((product, one) => product * likelihood(one, cause), priors[cause]);
    return absent.reduce((product, one) => product * (1 - likelihood(one, cause)), for_);
  });
  return normalised(weights);
}

const normalised = (weights: readonly number[]): number[] => {
  const total = weights.reduce((sum, one) => sum + one, 0);
  return weights.map((one) => one / total);
};

const entropy = (shares: readonly number[]): number =>
  shares.reduce((sum, share) => (share > 0 ? sum - share * Math.log2(share) : sum), 0);

/** How unsure one is after a check, over all it may show. */
function expected(check: CheckCode, shares: readonly number[]): number {
  const answers: readonly Evidence[] = checks[check].answers;
  const ways = causes.map((cause) => {
    const told = answers.map((answer) => likelihood(answer, cause));
    // What is left of one is that none of the answers shows.
    return [...told, Math.max(0, 1 - told.reduce((sum, one) => sum + one, 0))];
  });
  let unsure = 0;
  for (let a = 0; a <= answers.length; a++) {
    const weights = shares.map((share, i) => share * (ways[i]?.[a] ?? 0));
    const total = weights.reduce((sum, one) => sum + one, 0);
    if (total > 0) unsure += total * entropy(normalised(weights));
  }
  return unsure;
}

/** Evidence that is likelier, or less likely, under a cause than it is on the whole; by a quarter at least. */
function speaking(
  cause: Cause,
  seen: readonly Evidence[],
  absent: readonly Evidence[],
): Pick<RankedCause, 'speaksFor' | 'speaksAgainst'> {
  const whole = (one: Evidence): number =>
    causes.reduce((sum, other) => sum + likelihood(one, other) * priors[other], 0) /
    causes.reduce((sum, other) => sum + priors[other], 0);
  const pull = [
    ...seen.map((one) => ({ one, ratio: likelihood(one, cause) / whole(one) })),
    ...absent.map((one) => ({ one, ratio: (1 - likelihood(one, cause)) / (1 - whole(one)) })),
  ];
  return {
    speaksFor: pull
      .filter(({ ratio }) => ratio >= 1.25)
      .sort((a, b) => b.ratio - a.ratio)
      .map(({ one }) => one),
    speaksAgainst: pull
      .filter(({ ratio }) => ratio <= 0.8)
      .sort((a, b) => a.ratio - b.ratio)
      .map(({ one }) => one),
  };
}
