import type { WorkBatch } from '@sombra/contract';
import type { Decision, IsoDate, RemedyCode } from '@sombra/core';
import type { Knex } from 'knex';
import type { Db } from '../platform/db';
import { withStandingTree } from '../spots/repository';

const open = (db: Db, dueBy: IsoDate): Knex.QueryBuilder =>
  db('decision')
    .join('place', 'place.id', 'decision.place_id')
    // Nothing is open where a spot was withdrawn.
    .whereNull('decision.until_day')
    .where('decision.kind', 'do_remedy')
    .whereNotNull('decision.remedy')
    .where((due) => due.whereNull('decision.due_on').orWhere('decision.due_on', '<=', dueBy));

/** Remedies that are open and due by a day, one batch for each at each place; the most urgent and the earliest first. */
export async function workBatches(db: Db, asked: { place: string | undefined; dueBy: IsoDate }): Promise<WorkBatch[]> {
  const query = open(db, asked.dueBy)
    .groupBy('place.name', 'decision.remedy')
    .orderByRaw(`count(*) filter (where decision.level = 'urgent') desc, min(decision.due_on) nulls last, place.name`)
    .select<WorkBatch[]>(
      'place.name as place',
      'decision.remedy',
      db.raw('count(distinct decision.spot_id)::int as count'),
      db.raw(`count(distinct decision.spot_id) filter (where decision.level = 'urgent')::int as urgent`),
      db.raw('min(decision.due_on) as "dueOn"'),
      db.raw(`(case when decision.remedy = 'top_up_mulch'
        then sum((decision.because->0->'facts'->>'addL')::float8) end)::float8 as "mulchL"`),
    );
  if (asked.place !== undefined) void query.where('place.name', asked.place);
  return query;
}

export interface WorkTree {
  readonly spotId: string;
  readonly ref: string;
  readonly place: string;
  readonly species: string | null;
  readonly position: readonly [number, number];
  readonly remedy: RemedyCode;
  readonly dueOn: IsoDate | null;
  readonly because: Decision['because'];
}

/** The trees of some batches, each with what is to be done there; by number. */
export async function treesOfBatches(
  db: Db,
  asked: {
    readonly batches: readonly { readonly place: string; readonly remedy: RemedyCode }[];
    readonly dueBy: IsoDate;
    readonly most: number;
  },
): Promise<WorkTree[]> {
  return withStandingTree(db, open(db, asked.dueBy).join('spot', 'spot.id', 'decision.spot_id'))
    .whereRaw('(place.name, decision.remedy) in (select * from unnest(?::text[], ?::text[]))', [
      asked.batches.map(({ place }) => place),
      asked.batches.map(({ remedy }) => remedy),
    ])
    .orderByRaw('spot.ref, decision.position')
    .limit(asked.most)
    .select<WorkTree[]>(
      'decision.spot_id as spotId',
      'spot.ref',
      'place.name as place',
      'tree.species',
      db.raw('array[st_x(spot.position), st_y(spot.position)] as position'),
      'decision.remedy',
      'decision.due_on as dueOn',
      'decision.because',
    );
}
