import type { Desk, DeskGroupQuery, DeskLine, DeskMember } from '@sombra/contract';
import { defaultUrgency, rankDecisions, type IsoDate, type Ranked } from '@sombra/core';
import type { Knex } from 'knex';
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

/** What needs somebody on a day, the most costly to leave first, and how much waits in each stage. */
export async function desk(db: Knex, asked?: IsoDate): Promise<Desk> {
  const day = await dayOf(db, asked);
  const groups = await decisionGroups(db, day);
  const unreasoned = groups.map((group) => ({ ...group, because: [] }));
  const ranked = rankDecisions(unreasoned, day.on);
  const lines = await withReasons(db, day, ranked.slice(0, mostLines));
  const waiting: Desk['waiting'] = {};
  for (const { stage, count } of groups) waiting[stage] = (waiting[stage] ?? 0) + count;
  const total = groups.reduce((sum, { count }) => sum + count, 0);
  const uncovered = await uncoveredDays(db, day.today);
  return { today: day.today, on: day.on, lines, groups: ranked.length, total, waiting, uncovered };
}

type RankedGroup = Ranked<DecisionGroup & { because: readonly [] | never[] }>;

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
