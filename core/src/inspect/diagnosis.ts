import { InvalidInputError } from '../errors';
import {
  causes,
  causeTable,
  checks,
  defaultCauseRules,
  type Cause,
  type CauseRules,
  type CauseTable,
  type CheckCode,
  type Evidence,
} from './cause-table';

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
 * Ranks what may be behind a tree in trouble by Bayes' rule over the table, as the programme holds it, each piece of evidence taken by itself, and
 * names what to look at next: the expected gain of information (Shannon) of each open check by its minutes.
 * @throws InvalidInputError where something is said to be seen and absent
 */
export function diagnose({ seen, absent = [] }: DiagnosisInput, rules: CauseRules = defaultCauseRules): Diagnosis {
  const both = seen.find((one) => absent.includes(one));
  if (both) throw new InvalidInputError(`absent must not hold what is seen, got ${both}`, 'absent');
  const by = causeTable(rules);
  const known = [...new Set(seen)];
  const missing = [...new Set(absent)];
  const shares = posterior(by, known, missing);
  const bits = entropy(shares);
  const open = (Object.keys(checks) as CheckCode[]).filter((code) => !isAnswered(code, known, missing));
  return {
    causes: causes
      .map((cause, i) => ({ cause, share: shares[i] ?? 0, ...speaking(by, cause, { seen: known, absent: missing }) }))
      .sort((a, b) => b.share - a.share || causes.indexOf(a.cause) - causes.indexOf(b.cause)),
    checks: open
      .map((check) => ({
        check,
        minutes: checks[check].minutes,
        bits: Math.max(0, bits - expected(by, check, shares)),
      }))
      .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes),
  };
}

const isAnswered = (code: CheckCode, seen: readonly Evidence[], absent: readonly Evidence[]): boolean =>
  checks[code].answers.some((answer) => seen.includes(answer) || absent.includes(answer));

function posterior(by: CauseTable, seen: readonly Evidence[], absent: readonly Evidence[]): number[] {
  const weights = causes.map((cause) => {
    const for_ = seen.reduce((product, one) => product * by.likelihood(one, cause), by.prior(cause));
    return absent.reduce((product, one) => product * (1 - by.likelihood(one, cause)), for_);
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
function expected(by: CauseTable, check: CheckCode, shares: readonly number[]): number {
  const answers: readonly Evidence[] = checks[check].answers;
  const ways = causes.map((cause) => {
    const told = answers.map((answer) => by.likelihood(answer, cause));
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
  { likelihood, prior }: CauseTable,
  cause: Cause,
  { seen, absent }: Required<DiagnosisInput>,
): Pick<RankedCause, 'speaksFor' | 'speaksAgainst'> {
  const whole = (one: Evidence): number =>
    causes.reduce((sum, other) => sum + likelihood(one, other) * prior(other), 0) /
    causes.reduce((sum, other) => sum + prior(other), 0);
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
