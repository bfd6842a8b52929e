import { daysBetween, type IsoDate } from '../calendar';
import { hasLapsed, type Decision, type DecisionKind } from '../record';
import type { Level } from '../reason';

/** How decisions are ranked: data a programme may change. Points run from 0 to 100. */
export interface UrgencyRules {
  readonly basePoints: Readonly<Record<Level, number>>;
  /** Points for each day past the last day, and the most they may add. */
  readonly perDayLate: Readonly<Record<Level, number>>;
  readonly mostForLateness: number;
  /** Points for every doubling of the number of trees one decision settles, and the most they may add. */
  readonly perDoubling: number;
  readonly mostForNumber: number;
  /** A decision shows on the desk this many days before its last day. */
  readonly showDaysAhead: Readonly<Record<DecisionKind, number>>;
}

export const defaultUrgency: UrgencyRules = {
  basePoints: { urgent: 70, act: 45, watch: 20, good: 5 },
  perDayLate: { urgent: 5, act: 1, watch: 0.5, good: 0 },
  mostForLateness: 30,
  perDoubling: 2,
  mostForNumber: 12,
  showDaysAhead: {
    measure_ground: 0,
    settle_ground: 0,
    change_ground: 0,
    move_spot: 0,
    choose_species: 0,
    measure_stock: 0,
    resolve_pit: 0,
    record_planting: 0,
    settle_contradiction: 14,
    hazard: 3,
    do_remedy: 14,
    look: 0,
    sign_off: 0,
    claim: 60,
  },
};

export interface Ranked<D extends Decision> {
  readonly decision: D;
  /** 0–100: what it costs to leave it. */
  readonly points: number;
  /** Days past the last day; negative while there is time, `null` without a last day. */
  readonly daysLate: number | null;
}

/** Whether a decision belongs on the desk at a date. */
export function isDue(decision: Decision, today: IsoDate, rules: UrgencyRules = defaultUrgency): boolean {
  if (decision.dueOn === null) return true;
  if (hasLapsed(decision, today)) return false;
  return daysBetween(today, decision.dueOn) <= rules.showDaysAhead[decision.kind];
}

/** Several alike decisions at one place, settled by one walk: `count` trees. */
export interface Grouped {
  readonly count?: number;
}

/** Decisions that are due at a date, the most costly to leave first; equal ones keep their order. */
export function rankDecisions<D extends Decision & Grouped>(
  decisions: readonly D[],
  today: IsoDate,
  rules: UrgencyRules = defaultUrgency,
): Ranked<D>[] {
  return decisions
    .flatMap((decision) => (isDue(decision, today, rules) ? [weighed(decision, today, rules)] : []))
    .sort((a, b) => weightOf(b) - weightOf(a));
}

function weighed<D extends Decision & Grouped>(decision: D, today: IsoDate, rules: UrgencyRules): Ranked<D> {
  const daysLate = decision.dueOn === null ? null : daysBetween(decision.dueOn, today);
  const late = Math.max(0, daysLate ?? 0) * rules.perDayLate[decision.level];
  const many = Math.min(rules.mostForNumber, rules.perDoubling * Math.log2(Math.max(1, decision.count ?? 1)));
  const points = rules.basePoints[decision.level] + Math.min(rules.mostForLateness, late) + many;
  return { decision, points: Math.min(100, points), daysLate };
}

/** Somebody may be hurt: before all else, whatever the points say. */
const weightOf = <D extends Decision>({ decision, points }: Ranked<D>): number =>
  decision.kind === 'hazard' ? 1000 + points : points;

/**
 * The most costly of what is ranked already, in parts; those beyond the last that is shown are not put in order.
 * @param among orders those that cost the same
 */
export function mostCostly<D extends Decision>(
  parts: Iterable<readonly Ranked<D>[]>,
  count: number,
  among: (a: D, b: D) => number,
): Ranked<D>[] {
  const all = [...parts].flat();
  const least = Float64Array.from(all, weightOf).sort().at(-count) ?? -Infinity;
  return all
    .filter((one) => weightOf(one) >= least)
    .sort((a, b) => weightOf(b) - weightOf(a) || among(a.decision, b.decision))
    .slice(0, count);
}
