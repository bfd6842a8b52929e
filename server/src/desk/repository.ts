import type { DeskLine } from '@sombra/contract';
import { addDaysTo, defaultUrgency, type IsoDate } from '@sombra/core';
import type { Db } from '../platform/db';

type OpenDecision = Omit<DeskLine, 'points' | 'daysLate'>;

/** Decisions that could be due at this date by the widest of the urgency rules. */
export async function openDecisions(db: Db, today: IsoDate): Promise<OpenDecision[]> {
  const ahead = Math.max(...Object.values(defaultUrgency.showDaysAhead));
  return db('decision')
    .join('spot', 'spot.id', 'decision.spot_id')
    .join('place', 'place.id', 'spot.place_id')
    .leftJoin('tree', 'tree.id', 'decision.tree_id')
    .where((or) => or.whereNull('decision.due_on').orWhere('decision.due_on', '<=', addDaysTo(today, ahead)))
    .orderBy([
      { column: 'decision.due_on', order: 'asc', nulls: 'last' },
      { column: 'spot.ref' },
      { column: 'decision.position' },
    ])
    .select<OpenDecision[]>(
      'decision.spot_id as spotId',
      'decision.tree_id as treeId',
      'spot.ref',
      'place.name as place',
      'tree.species',
      'decision.kind',
      'decision.stage',
      'decision.level',
      'decision.due_on as dueOn',
      'decision.remedy',
      'decision.because',
    );
}
