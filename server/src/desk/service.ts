import type { Desk, DeskGroupQuery, DeskLine, DeskMember } from '@sombra/contract';
import { defaultUrgency, mostCostly, rankDecisions, type IsoDate, type Ranked } from '@sombra/core';
import type { Knex } from 'knex';
import { KeptByPlace, type ByPlace } from '../record/kept-by-place-service';
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

type RankedGroup = Ranked<DecisionGroup & { because: readonly never[] }>;

function rankedByPlace(groups: readonly DecisionGroup[], on: IsoDate): Map<string, RankedGroup[]> {
  const byPlace = new Map<string, (DecisionGroup & { because: readonly never[] })[]>();
  for (const group of groups) {
    const there = byPlace.get(group.placeId) ?? [];
    there.push({ ...group, because: [] });
    byPlace.set(group.placeId, there);
  }
  return new Map([...byPlace].map(([id, there]) => [id, rankDecisions(there, on)]));
}

/** What waits today, place by place. */
const waitingToday = new KeptByPlace<RankedGroup[]>(async (db, places, today) =>
  rankedByPlace(await decisionGroups(db, { on: today, today, rules: defaultUrgency }, places), today),
);

type Ranking = Pick<Desk, 'lines' | 'groups' | 'total' | 'waiting'>;
/** One answer for all who ask, until something changes. */
const rankings = new WeakMap<ByPlace<RankedGroup[]>, Promise<Ranking>>();

/** What needs somebody on a day, the most costly to leave first, and how much waits in each stage. */
export async function desk(db: Knex, asked?: IsoDate): Promise<Desk> {
  const day = await dayOf(db, asked);
  const { today, on } = day;
  const ranking = on === today ? await rankingToday(db, day) : await rankingOf(db, day, await groupsOn(db, day));
  return { today, on, ...ranking, uncovered: await uncoveredDays(db, today) };
}

const groupsOn = async (db: Knex, day: DeskDay) => rankedByPlace(await decisionGroups(db, day), day.on);

async function rankingToday(db: Knex, day: DeskDay): Promise<Ranking> {
  const byPlace = await waitingToday.read(db, day.today);
  const ranking = rankings.get(byPlace) ?? rankingOf(db, day, byPlace);
  rankings.set(byPlace, ranking);
  ranking.catch(() => rankings.delete(byPlace));
  return ranking;
}

async function rankingOf(db: Knex, day: DeskDay, byPlace: ByPlace<RankedGroup[]>): Promise<Ranking> {
  const waiting: Ranking['waiting'] = {};
  let [groups, total] = [0, 0];
  for (const there of byPlace.values()) {
    for (const { decision } of there) {
      waiting[decision.stage] = (waiting[decision.stage] ?? 0) + decision.count;
      groups += 1;
      total += decision.count;
    }
  }
  const lines = await withReasons(db, day, mostCostly(byPlace.values(), mostLines, earlierFirst));
  return { lines, groups, total, waiting };
}

/** Those without a last day come last. */
const earlierFirst = (a: DecisionGroup, b: DecisionGroup): number =>
  (a.dueOn ?? '9').localeCompare(b.dueOn ?? '9') || a.place.localeCompare(b.place);

async function withReasons(db: Knex, day: DeskDay, ranked: readonly RankedGroup[]): Promise<DeskLine[]> {
  const firsts = await decisionsOfSpots(
    db,
    day,
    ranked.map(({ decision }) => decision.spotId),
  );
  return ranked.flatMap(({ decision: { placeId: _, ...decision }, points, daysLate }) => {
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
