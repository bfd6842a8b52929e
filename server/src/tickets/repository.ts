import type { RaiseTicket, Ticket } from '@sombra/contract';
import type { IsoDate, UtilityReply } from '@sombra/core';
import type { Knex } from 'knex';
import type { CentreReply, CentreTicket } from '../adapters/locate-centre';
import type { Db } from '../platform/db';

export interface ReplyRow {
  ticket_id: string;
  utility: string;
  state: UtilityReply['state'];
  replied_on: string | null;
  tolerance_mm: number | null;
  note: string;
}

export const repliesTo = (db: Db, tickets: Knex.RawBinding): Knex.QueryBuilder =>
  db('ticket_reply')
    .whereRaw('ticket_id = any(?)', [tickets])
    .orderBy('utility')
    .select('ticket_id', 'utility', 'state', 'replied_on', 'tolerance_mm', 'note');

export function repliesByTicket(ids: readonly string[], rows: readonly ReplyRow[]): Map<string, UtilityReply[]> {
  const byTicket = new Map<string, UtilityReply[]>(ids.map((id) => [id, []]));
  for (const { ticket_id, utility, state, replied_on, tolerance_mm, note } of rows) {
    byTicket.get(ticket_id)?.push({ utility, state, repliedOn: replied_on, toleranceMm: tolerance_mm, note });
  }
  return byTicket;
}

export async function repliesOf(db: Db, ids: readonly string[]): Promise<Map<string, UtilityReply[]>> {
  const asked = db.raw('?::uuid[]', [[...ids]]);
  return repliesByTicket(ids, (await repliesTo(db, asked)) as ReplyRow[]);
}

interface TicketRow {
  id: string;
  number: string | null;
  purpose: string;
  state: Ticket['state'];
  raised_by: string;
  raised_at: Date;
  valid_from: string | null;
  valid_until: string | null;
  renews: string | null;
  tries: number;
  problem: string | null;
  area: string;
  area_m2: number;
  spots: number;
  booked: number;
  first_day: string | null;
}

const ringsOf = (area: string): [number, number][][] =>
  (JSON.parse(area) as { coordinates: [number, number][][][] }).coordinates.flatMap((polygon) => polygon.slice(0, 1));

/** Tickets that end on a day or later, or have not begun; soonest end first. One by its id where asked. */
export async function ticketsFrom(db: Db, from: IsoDate, today: IsoDate, id?: string): Promise<Ticket[]> {
  const query = db('locate_ticket as ticket')
    .joinRaw(
      `left join lateral (
         select count(*) as spots, count(member.spot_id) as booked, min(day.on_day) as first_day
         from spot
         join spot_period period on period.spot_id = spot.id and period.until_day is null and period.planted_on is null
         left join lateral (select m.spot_id, m.day_id from planting_day_spot m join planting_day d on d.id = m.day_id
           where m.spot_id = period.spot_id and d.on_day >= ? order by d.on_day limit 1) member on true
         left join planting_day day on day.id = member.day_id
         where st_covers(ticket.area, spot.position)
       ) held on true`,
      [today],
    )
    .where((either) => either.whereNull('valid_until').orWhere('valid_until', '>=', from))
    .orderByRaw('valid_until nulls first, raised_at')
    .select<TicketRow[]>(
      'ticket.*',
      db.raw('st_asgeojson(area) as area'),
      db.raw('st_area(area::geography) as area_m2'),
      'held.spots',
      'held.booked',
      'held.first_day',
    );
  const rows = await (id ? query.where('ticket.id', id) : query);
  const replies = await repliesOf(
    db,
    rows.map((row) => row.id),
  );
  return rows.map((row) => ({
    id: row.id,
    number: row.number,
    purpose: row.purpose,
    state: row.state,
    raisedBy: row.raised_by,
    raisedAt: row.raised_at.toISOString(),
    validFrom: row.valid_from,
    validUntil: row.valid_until,
    renews: row.renews,
    tries: row.tries,
    problem: row.problem,
    replies: replies.get(row.id) ?? [],
    area: ringsOf(row.area),
    areaM2: Math.round(row.area_m2),
    spots: Number(row.spots),
    booked: Number(row.booked),
    firstDay: row.first_day,
  }));
}

/** Draws the dig area of a request: the ring as drawn, or a circle around every spot. GeoJSON MultiPolygon. */
export async function drawArea(
  db: Db,
  raise: Pick<RaiseTicket, 'ring' | 'spotIds'>,
  radiusM: number,
): Promise<{ area: string; valid: boolean; areaM2: number } | null> {
  const ring = raise.ring ?? [];
  const drawn = raise.ring
    ? db.raw('st_setsrid(st_geomfromgeojson(?), 4326)', [
        JSON.stringify({ type: 'Polygon', coordinates: [[...ring, ...ring.slice(0, 1)]] }),
      ])
    : db.raw('(select st_union(st_buffer(position::geography, ?)::geometry) from spot where id = any(?::uuid[]))', [
        radiusM,
        [...(raise.spotIds ?? [])],
      ]);
  const { rows } = await db.raw<{ rows: { area: string | null; valid: boolean; area_m2: number }[] }>(
    `with drawn as (select ? as geom)
     select st_asgeojson(st_multi(geom), 8) as area, st_isvalid(geom) as valid, st_area(geom::geography) as area_m2 from drawn`,
    [drawn],
  );
  const row = rows[0];
  return row?.area ? { area: row.area, valid: row.valid, areaM2: row.area_m2 } : null;
}

/** A ticket that still holds part of an area, other than the one that is renewed. */
export async function overlapping(
  db: Db,
  area: string,
  except: string | null,
  today: IsoDate,
): Promise<{ number: string | null; areaM2: number } | undefined> {
  const { rows } = await db.raw<{ rows: { number: string | null; area_m2: number }[] }>(
    `with drawn as (select st_setsrid(st_geomfromgeojson(?), 4326) as geom)
     select number, st_area(st_intersection(area, geom)::geography) as area_m2
     from locate_ticket, drawn
     where state <> 'withdrawn' and (valid_until is null or valid_until >= ?) and id is distinct from ?
       and st_intersects(area, geom)
     order by 2 desc limit 1`,
    [area, today, except],
  );
  const row = rows[0];
  return row && row.area_m2 > 1 ? { number: row.number, areaM2: row.area_m2 } : undefined;
}

export async function insertTicket(
  db: Db,
  ticket: { id: string; purpose: string; area: string; renews: string | null; by: string },
): Promise<boolean> {
  const row = {
    id: ticket.id,
    purpose: ticket.purpose,
    area: db.raw('st_setsrid(st_geomfromgeojson(?), 4326)', [ticket.area]),
    state: 'unsent',
    raised_by: ticket.by,
    renews: ticket.renews,
    next_try_at: db.fn.now(),
  };
  return (await db('locate_ticket').insert(row).onConflict('id').ignore().returning('id')).length > 0;
}

export interface DueTicket {
  readonly id: string;
  readonly number: string | null;
  readonly purpose: string;
  readonly state: Ticket['state'];
  readonly tries: number;
  readonly area: string;
  readonly raised_at: Date;
  readonly renews_number: string | null;
}

/** Takes the ticket whose turn it is, for so long; another server that looks at the same time takes the next. */
export async function takeDue(trx: Db, leaseS: number): Promise<DueTicket | undefined> {
  const { rows } = await trx.raw<{ rows: DueTicket[] }>(
    `update locate_ticket taken set next_try_at = now() + make_interval(secs => ?)
     from (select ticket.id, ticket.number, ticket.purpose, ticket.state, ticket.tries, ticket.raised_at,
         st_asgeojson(ticket.area, 8) as area, old.number as renews_number
       from locate_ticket ticket left join locate_ticket old on old.id = ticket.renews
       where ticket.next_try_at <= now() and ticket.state <> 'withdrawn'
       order by ticket.next_try_at limit 1 for update of ticket skip locked) as due
     where taken.id = due.id returning due.*`,
    [leaseS],
  );
  return rows[0];
}

/** Writes down what the centre answered, unless the ticket was taken back while it was asked. */
export async function keepAnswer(
  trx: Db,
  id: string,
  answer: CentreTicket,
  nextTryS: number | null,
): Promise<'new' | 'known' | 'withdrawn'> {
  const was = await trx('locate_ticket').where({ id }).forUpdate().first<{ state: string }>('state');
  if (was?.state === 'withdrawn') return 'withdrawn';
  const before = JSON.stringify((await repliesOf(trx, [id])).get(id));
  await trx('locate_ticket')
    .where({ id })
    .update({
      number: answer.number,
      valid_from: answer.validFrom,
      valid_until: answer.validUntil,
      state: 'open',
      tries: 0,
      problem: null,
      next_try_at: nextTryS === null ? null : trx.raw(`now() + make_interval(secs => ?)`, [nextTryS]),
    });
  for (const reply of answer.replies) await keepReply(trx, id, reply);
  const isNew = was?.state === 'unsent' || before !== JSON.stringify((await repliesOf(trx, [id])).get(id));
  return isNew ? 'new' : 'known';
}

async function keepReply(trx: Db, ticketId: string, reply: CentreReply): Promise<void> {
  const row = {
    ticket_id: ticketId,
    utility: reply.utility,
    state: reply.state,
    replied_on: reply.state === 'waiting' ? null : reply.repliedOn,
    tolerance_mm: reply.toleranceMm,
    note: reply.note,
    marks: reply.marks ? trx.raw('st_setsrid(st_geomfromgeojson(?), 4326)', [JSON.stringify(reply.marks)]) : null,
  };
  await trx('ticket_reply').insert(row).onConflict(['ticket_id', 'utility']).merge();
}

export async function keepFault(
  trx: Db,
  id: string,
  fault: { problem: string; nextTryS: number | null },
): Promise<void> {
  await trx('locate_ticket')
    .where({ id })
    .whereNot({ state: 'withdrawn' })
    .update({
      tries: trx.raw('tries + 1'),
      problem: fault.problem,
      next_try_at: fault.nextTryS === null ? null : trx.raw(`now() + make_interval(secs => ?)`, [fault.nextTryS]),
    });
}

/** Has a ticket looked after at once. */
export async function tryNow(db: Db, id: string): Promise<void> {
  await db('locate_ticket').where({ id }).update({ next_try_at: db.fn.now() });
}

export async function setWithdrawn(db: Db, id: string): Promise<void> {
  await db('locate_ticket').where({ id }).update({ state: 'withdrawn', next_try_at: null });
}

/** Spots in the area of a ticket that are not planted yet: they have to be read again by whoever shows them. */
export async function spotsIn(db: Db, id: string): Promise<string[]> {
  return db('spot')
    .joinRaw('join locate_ticket ticket on st_covers(ticket.area, spot.position)')
    .where('ticket.id', id)
    .pluck('spot.id');
}

/** Hand-dig zones around what is marked, on a day: GeoJSON polygons. */
export async function handDigZones(
  db: Db,
  on: IsoDate,
): Promise<{ utility: string; toleranceMm: number; rings: [number, number][][] }[]> {
  const rows = await db('ticket_reply as reply')
    .join('locate_ticket as ticket', 'ticket.id', 'reply.ticket_id')
    .whereNotNull('reply.marks')
    .where('ticket.state', 'open')
    .where('ticket.valid_until', '>=', on)
    .select<{ utility: string; tolerance_mm: number | null; area: string }[]>(
      'reply.utility',
      'reply.tolerance_mm',
      db.raw(
        `st_asgeojson(st_multi(st_buffer(reply.marks::geography, coalesce(reply.tolerance_mm, 600) / 1000)::geometry), 7) as area`,
      ),
    );
  return rows.map(({ utility, tolerance_mm, area }) => ({
    utility,
    toleranceMm: tolerance_mm ?? 600,
    rings: ringsOf(area),
  }));
}

export interface BookedSpot {
  dayId: string;
  title: string;
  onDay: string;
  spotId: string;
  ref: string;
  place: string;
}

/** Spots on planting days from today on that are not planted yet. */
export async function bookedSpots(db: Db, today: IsoDate, until: IsoDate): Promise<BookedSpot[]> {
  return db('planting_day as day')
    .join('planting_day_spot as member', 'member.day_id', 'day.id')
    .join('spot', 'spot.id', 'member.spot_id')
    .join('place', 'place.id', 'spot.place_id')
    .join('spot_period as period', (on) => on.on('period.spot_id', 'spot.id').andOnNull('period.until_day'))
    .whereBetween('day.on_day', [today, until])
    .whereNull('period.planted_on')
    .orderBy(['day.on_day', 'spot.ref'])
    .select<BookedSpot[]>(
      'day.id as dayId',
      'day.title',
      'day.on_day as onDay',
      'spot.id as spotId',
      'spot.ref',
      'place.name as place',
    );
}
