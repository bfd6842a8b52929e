import type { CoverTicket, KeptClearance } from '@sombra/contract';
import { addDaysTo, type IsoDate } from '@sombra/core';
import type { Knex } from 'knex';
import { askTogether, type Db } from '../platform/db';
import { repliesByTicket, repliesOf, repliesTo, type ReplyRow } from './repository';

/** Tickets that ended longer ago than this say nothing of today's digging. */
const showDaysAfter = 60;

type Where = { readonly spotId: string } | { readonly position: readonly [number, number] };

const pointOf = (db: Db, where: Where): Knex.Raw =>
  'spotId' in where
    ? db.raw('(select position from spot where id = ?)', [where.spotId])
    : db.raw('st_setsrid(st_makepoint(?, ?), 4326)', [...where.position]);

const ticketsAt = (db: Db, point: Knex.Raw, today: IsoDate): Knex.QueryBuilder =>
  db('locate_ticket')
    .whereRaw('st_covers(area, ?)', [point])
    .where((either) => either.whereNull('valid_until').orWhere('valid_until', '>=', addDaysTo(today, -showDaysAfter)));

/** What asks, in one trip, for the tickets whose area holds a spot, or a position, and for the clearances of the spot. */
export function coverQuestions(db: Db, where: Where, today: IsoDate) {
  const point = pointOf(db, where);
  const tickets = ticketsAt(db, point, today);
  return {
    tickets: tickets
      .clone()
      .orderByRaw('valid_until nulls first')
      .select(
        'id',
        'number',
        'valid_from',
        'valid_until',
        'state',
        db.raw('st_distance(st_boundary(area)::geography, ?::geography) as room_m', [point]),
      ),
    replies: repliesTo(db, tickets.clone().select('id')),
    clearances: db('lawful_clearance')
      .where({ spot_id: 'spotId' in where ? where.spotId : null })
      .orderBy('valid_until', 'desc')
      .select(...clearanceColumns),
  };
}

export interface Cover {
  readonly tickets: CoverTicket[];
  readonly clearances: KeptClearance[];
}

export function coverOf(asked: Readonly<Record<keyof ReturnType<typeof coverQuestions>, readonly unknown[]>>): Cover {
  const tickets = asked.tickets as readonly TicketRow[];
  const replies = repliesByTicket(
    tickets.map(({ id }) => id),
    asked.replies as readonly ReplyRow[],
  );
  return {
    tickets: tickets.map((row) => ticketOf(row, replies)),
    clearances: [...(asked.clearances as readonly KeptClearance[])],
  };
}

/** Tickets whose area holds a spot, or a position, and the clearances of the spot. */
export async function coverAt(db: Db, where: Where, today: IsoDate): Promise<Cover> {
  return coverOf(await askTogether(db, coverQuestions(db, where, today)));
}

interface TicketRow {
  readonly id: string;
  readonly number: string | null;
  readonly valid_from: string | null;
  readonly valid_until: string | null;
  readonly state: string;
  readonly room_m: number;
}

const ticketOf = (row: TicketRow, replies: Awaited<ReturnType<typeof repliesOf>>): CoverTicket => ({
  id: row.id,
  number: row.number ?? '',
  validFrom: row.valid_from,
  validUntil: row.valid_until,
  withdrawn: row.state === 'withdrawn',
  roomM: Math.floor(row.room_m * 10) / 10,
  replies: replies.get(row.id) ?? [],
});

const clearanceColumns = [
  'id',
  'document',
  'cleared_by as clearedBy',
  'valid_from as validFrom',
  'valid_until as validUntil',
  'added_by as addedBy',
] as const;

/** Leave to dig at several spots at once, in three questions to the database however many there are. */
export async function coversOf(
  db: Db,
  spotIds: readonly string[],
  today: IsoDate,
): Promise<ReadonlyMap<string, Cover>> {
  const covers = new Map(
    spotIds.map((id) => [id, { tickets: [] as CoverTicket[], clearances: [] as KeptClearance[] }] as const),
  );
  const over = await db('locate_ticket')
    .joinRaw('join spot on spot.id = any(?::uuid[]) and st_covers(area, spot.position)', [[...spotIds]])
    .where((either) => either.whereNull('valid_until').orWhere('valid_until', '>=', addDaysTo(today, -showDaysAfter)))
    .orderByRaw('valid_until nulls first')
    .select<(TicketRow & { spot_id: string })[]>(
      'spot.id as spot_id',
      'locate_ticket.id',
      'number',
      'valid_from',
      'valid_until',
      'state',
      db.raw('st_distance(st_boundary(area)::geography, spot.position::geography) as room_m'),
    );
  const replies = await repliesOf(db, [...new Set(over.map(({ id }) => id))]);
  for (const row of over) covers.get(row.spot_id)?.tickets.push(ticketOf(row, replies));
  const cleared = await db('lawful_clearance')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .orderBy('valid_until', 'desc')
    .select<(KeptClearance & { spotId: string })[]>('spot_id as spotId', ...clearanceColumns);
  for (const { spotId, ...clearance } of cleared) covers.get(spotId)?.clearances.push(clearance);
  return covers;
}
