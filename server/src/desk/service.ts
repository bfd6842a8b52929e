import type { Desk, DeskGroupQuery, DeskLine, DeskMember } from '@sombra/contract';
import { defaultUrgency, mostCostly, rankDecisions, type IsoDate, type Ranked } from '@sombra/core';
import type { Knex } from 'knex';
import { SharedAnswer } from '../platform/shared-answer';
import { groupedByPlace, KeptByPlace, type ByPlace, type Kept, type Sum } from '../platform/kept-by-place-service';
import { uncoveredDays } from '../tickets/service';
import { decisionGroups, decisionsOfSpots, groupMembers, type DecisionGroup, type DeskDay } from './repository';
import { programmeToday } from '../programme/today';

/** Lines a person can take in; the stages hold the rest. */
const mostLines = 200;
const mostMembers = 500;

async function dayOf(db: Knex, asked: IsoDate | undefined): Promise<DeskDay> {
  const today = await programmeToday(db);
  return { on: asked ?? today, today, rules: defaultUrgency };
}

type Group = Omit<DecisionGroup, 'placeId'>;
type RankedGroup = Ranked<Group & { because: readonly never[] }>;

function rankedByPlace(groups: readonly DecisionGroup[], on: IsoDate): Map<string, RankedGroup[]> {
  const unreasoned = groups.map((group) => ({ ...group, because: [] as readonly never[] }));
  return new Map([...groupedByPlace(unreasoned)].map(([id, there]) => [id, rankDecisions(there, on)]));
}

/** How much waits, and where in the work order. */
class Waiting implements Sum<RankedGroup[]> {
  readonly stages: Desk['waiting'] = {};
  groups = 0;
  total = 0;

  add(groups: readonly RankedGroup[], sign: 1 | -1): void {
    this.groups += sign * groups.length;
    for (const { decision } of groups) {
      this.total += sign * decision.count;
      const waits = (this.stages[decision.stage] ?? 0) + sign * decision.count;
      if (waits === 0) delete this.stages[decision.stage];
      else this.stages[decision.stage] = waits;
    }
  }
}

/** What waits today, place by place. */
const waitingToday = new KeptByPlace<RankedGroup[], Waiting>(
  async (db, places, today) =>
    rankedByPlace(await decisionGroups(db, { on: today, today, rules: defaultUrgency }, places), today),
  () => new Waiting(),
);

type Ranking = Pick<Desk, 'lines' | 'groups' | 'total' | 'waiting'>;
/** One answer for all who ask, until something changes. */
const rankings = new WeakMap<ByPlace<RankedGroup[]>, Promise<Ranking>>();

const deskToday = new SharedAnswer<Desk, Knex>(async (db) => {
  const day = await dayOf(db, undefined);
  const { today, on } = day;
  return { today, on, ...(await rankingToday(db, day)), uncovered: await uncoveredDays(db, day.today) };
});

/** What needs somebody on a day, the most costly to leave first, and how much waits in each stage. */
export async function desk(db: Knex, asked?: IsoDate): Promise<Desk> {
  if (asked === undefined) return deskToday.read(db);
  const day = await dayOf(db, asked);
  const { today, on } = day;
  if (on === today) return deskToday.read(db);
  return { today, on, ...(await rankingThen(db, day)), uncovered: await uncoveredDays(db, today) };
}

async function rankingThen(db: Knex, day: DeskDay): Promise<Ranking> {
  const byPlace = rankedByPlace(await decisionGroups(db, day), day.on);
  const sum = new Waiting();
  for (const groups of byPlace.values()) sum.add(groups, 1);
  return rankingOf(db, day, { byPlace, sum });
}

async function rankingToday(db: Knex, day: DeskDay): Promise<Ranking> {
  const kept = await waitingToday.read(db, day.today);
  const ranking = rankings.get(kept.byPlace) ?? rankingOf(db, day, kept);
  rankings.set(kept.byPlace, ranking);
  ranking.catch(() => rankings.delete(kept.byPlace));
  return ranking;
}

async function rankingOf(db: Knex, day: DeskDay, { byPlace, sum }: Kept<RankedGroup[], Waiting>): Promise<Ranking> {
  const { groups, total } = sum;
  const waiting = { ...sum.stages };
  const lines = await withReasons(db, day, mostCostly(byPlace.values(), mostLines, earlierFirst));
  return { lines, groups, total, waiting };
}

/** Those without a last day come last. */
const earlierFirst = (a: Group, b: Group): number =>
  (a.dueOn ?? '9').localeCompare(b.dueOn ?? '9') || a.place.localeCompare(b.place);

async function withReasons(db: Knex, day: DeskDay, ranked: readonly RankedGroup[]): Promise<DeskLine[]> {
  const firsts = await decisionsOfSpots(
    db,
    day,
    ranked.map(({ decision }) => decision.spotId),
  );
  return ranked.flatMap(({ decision, points, daysLate }) => {
    const { spotId, kind, level, remedy } = decision;
    const first = firsts.find(
      (one) => one.spotId === spotId && one.kind === kind && one.level === level && one.remedy === remedy,
    );
    return first ? [{ ...decision, ...first, points, daysLate }] : [];
  });
}

/** The trees one line of the desk stands for. */
export async function deskMembers(db: Knex, group: DeskGroupQuery): Promise<DeskMember[]> {
  return groupMembers(db, await dayOf(db, group.on), group, mostMembers);
}
