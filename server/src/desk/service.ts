import type { Desk } from '@sombra/contract';
import { rankDecisions, type Stage } from '@sombra/core';
import type { Knex } from 'knex';
import { programmeToday } from '../people/service';
import { openDecisions } from './repository';

/** Lines a person can take in; the stages hold the rest. */
const mostLines = 200;

/** What needs somebody today, the most costly to leave first, and how much waits in each stage. */
export async function desk(db: Knex): Promise<Desk> {
  const today = await programmeToday(db);
  const ranked = rankDecisions(await openDecisions(db, today), today);
  const waiting: Partial<Record<Stage, number>> = {};
  for (const { decision } of ranked) waiting[decision.stage] = (waiting[decision.stage] ?? 0) + 1;
  const lines = ranked.slice(0, mostLines).map(({ decision, points, daysLate }) => ({ ...decision, points, daysLate }));
  return { today, lines, total: ranked.length, waiting };
}
