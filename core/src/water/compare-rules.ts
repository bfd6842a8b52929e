import { daysBetween, type IsoDate } from '../calendar';
import { routineRules, type DormantWatering, type Practice, type RoutineRule } from '../practice';
import type { Stock } from '../stock';
import { holdsOf, type BalancedDay } from './balance';
import {
  doseL,
  followWater,
  reachesOf,
  waterAt,
  waterStart,
  type ClimateDay,
  type WaterCheckpoint,
  type WaterSubject,
} from './follow';
import { meanVisits, routineWater } from './routine-water';
import { ballStore } from './tree-stores';

/** A rule as it is tried: one of the schools', or nobody coming at all. */
export type TriedRule = RoutineRule | 'none';
export const triedRules = ['none', ...(Object.keys(routineRules) as RoutineRule[])] as const;

export interface RuleTrial {
  readonly rule: TriedRule;
  /** Poured, first soak left out. L */
  readonly litres: number;
  /** Days on which somebody came, to water or to probe. */
  readonly visits: number;
  readonly stressDays: number;
  readonly waterloggedDays: number;
  readonly days: readonly BalancedDay[];
}

export interface RuleTrialInput {
  readonly subject: WaterSubject;
  readonly stock: Stock;
  /** Of the ring kept free of grass. m² */
  readonly ringM2: number;
  readonly practice: Practice;
  /** Of the station: which months are summer. */
  readonly latDeg: number;
  /** From planting on. */
  readonly climate: readonly ClimateDay[];
}

/** A probe finds a ball dry, and it is filled. Of what it holds */
const probedDryShare = 0.5;
const summers = { north: ['06', '07', '08'], south: ['12', '01', '02'] } as const;

/**
 * What a tree would have gone through under each rule, in the same weather, from its planting with a full ball on: the
 * litres and visits it would have cost, and the days of stress and of drowning. The balance itself is one of the rules.
 */
export function compareRules(input: RuleTrialInput): RuleTrial[] {
  return triedRules.map((rule) => tryRule(rule, input));
}

export function tryRule(rule: TriedRule, input: RuleTrialInput): RuleTrial {
  const { subject, climate } = input;
  const holdsL = holdsOf(ballStore(subject));
  const gives = rule === 'none' ? () => null : giver(rule, input, holdsL);
  const first = climate[0];
  let at: WaterCheckpoint | null = first ? waterStart(subject, first.day) : null;
  let [litres, visits] = [0, 0];
  const days: BalancedDay[] = [];
  climate.forEach((day, i) => {
    if (!at) return;
    // The first soak fills the ball, whoever comes later.
    const soakL = i === 0 ? holdsL : 0;
    const visit = i === 0 ? null : gives({ i, day, at, before: days.at(-1) ?? null });
    if (visit) {
      visits += 1;
      litres += visit.litres;
    }
    const poured = soakL + (visit?.litres ?? 0) * reachesOf(subject);
    const followed = followWater(subject, at, [day], { doses: [[day.day, poured]], readings: [] });
    days.push(...followed.days);
    at = followed.to;
  });
  return { rule, litres, visits, days, stressDays: at?.stressDays ?? 0, waterloggedDays: at?.waterloggedDays ?? 0 };
}

interface Asked {
  readonly i: number;
  readonly day: ClimateDay;
  readonly at: WaterCheckpoint;
  readonly before: BalancedDay | null;
}
/** Somebody comes and pours so much, which may be nothing; `null` where nobody comes. */
type Giver = (asked: Asked) => { readonly litres: number } | null;

function giver(rule: RoutineRule, input: RuleTrialInput, holdsL: number): Giver {
  const missing = ({ at }: Asked) => ({ litres: doseL(input.subject, waterAt(input.subject, at)) });
  if (rule === 'balance') {
    return (asked) => (asked.before?.asks ? missing(asked) : null);
  }
  const practice: Practice = { ...input.practice, routine: { ...input.practice.routine, rule } };
  const { routine } = practice;
  if (routineRules[rule].probeDecides) {
    const every = Math.max(1, Math.round(routine.probeEveryDays));
    return (asked) => {
      if (asked.i % every !== 0) return null;
      return asked.at.ballL < probedDryShare * holdsL ? missing(asked) : { litres: 0 };
    };
  }
  const water = routineWater({
    stock: input.stock,
    percolation: input.subject.percolation ?? undefined,
    ringM2: input.ringM2,
    practice,
  });
  return scheduled(rule, { practice, perVisitL: water.perVisitL ?? 0, perWeek: water.visitsPerWeek ?? 1, input });
}

function scheduled(
  rule: RoutineRule,
  of: {
    readonly practice: Practice;
    readonly perVisitL: number;
    readonly perWeek: number;
    readonly input: RuleTrialInput;
  },
): Giver {
  const { by, phases, fromGrowth } = routineRules[rule];
  const { routine } = of.practice;
  const mean = phases && meanVisits(phases);
  const months: readonly string[] = of.input.latDeg >= 0 ? summers.north : summers.south;
  let due = 0;
  return ({ i, day }) => {
    if (day.resting && (fromGrowth || !comesInRest(routine.dormant, of.input.climate, i))) return null;
    // Visits of the week it is in; slow or fast soil has its share of them as in the mean.
    const week = i / 7;
    const thisWeek = phases && mean ? (visitsIn(phases, week) * of.perWeek) / mean : of.perWeek;
    due += thisWeek / 7;
    if (due < 1) return null;
    due -= 1;
    if (by === 'rain_on_ring' || by === 'rain_on_ball') {
      const fell = rainOfWeek(of.input.climate, i);
      const share = Math.max(0, 1 - fell / routine.rainMm);
      return share > 0 ? { litres: of.perVisitL * share } : null;
    }
    const summer = by === 'week' && months.includes(day.day.slice(5, 7)) ? routine.summerFactor : 1;
    return { litres: of.perVisitL * summer };
  };
}

function visitsIn(phases: readonly { weeks: number; visitsPerWeek: number }[], week: number): number {
  let until = 0;
  for (const { weeks, visitsPerWeek } of phases) {
    until += weeks;
    if (week < until) return visitsPerWeek;
  }
  return phases.at(-1)?.visitsPerWeek ?? 0;
}

/** A dry spell while trees rest: so little rain in so many days. */
const drySpell = { mm: 5, days: 21 } as const;

function comesInRest(dormant: DormantWatering, climate: readonly ClimateDay[], i: number): boolean {
  switch (dormant) {
    case 'none':
    case 'growing_months':
      return false;
    case 'until_freeze':
      return true;
    case 'dry_spells':
      return rainOf(climate, i, drySpell.days) < drySpell.mm;
  }
}

const rainOfWeek = (climate: readonly ClimateDay[], i: number): number => rainOf(climate, i, 7);

const rainOf = (climate: readonly ClimateDay[], i: number, days: number): number =>
  climate.slice(Math.max(0, i + 1 - days), i + 1).reduce((sum, { rainMm }) => sum + rainMm, 0);

/** The days of a climate from a planting on, as many as are known within a time. */
export const daysFrom = (climate: readonly ClimateDay[], plantedOn: IsoDate, most: number): readonly ClimateDay[] =>
  climate.filter(({ day }) => day >= plantedOn && daysBetween(plantedOn, day) < most);
