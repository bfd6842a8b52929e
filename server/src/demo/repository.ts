import type { DemoDay, DemoRound, DemoTicket } from '@sombra/demo';
import { addDaysTo } from '@sombra/core';
import type { Db } from '../platform/db';

export async function insertDay(db: Db, day: DemoDay): Promise<void> {
  await db('planting_day').insert({ id: day.id, on_day: day.onDay, title: day.title });
  const rows = day.spotIds.map((spotId) => ({ day_id: day.id, spot_id: spotId }));
  if (rows.length > 0) await db.batchInsert('planting_day_spot', rows, 1000);
}

export async function insertTicket(db: Db, ticket: DemoTicket): Promise<void> {
  const area = JSON.stringify({ type: 'MultiPolygon', coordinates: [[ticket.ring]] });
  await db('locate_ticket').insert({
    id: ticket.id,
    number: ticket.number,
    area: db.raw('st_setsrid(st_geomfromgeojson(?), 4326)', [area]),
    purpose: ticket.purpose,
    raised_by: 'Inês Tavoro',
    raised_at: `${addDaysTo(ticket.validFrom, -5)}T09:00:00Z`,
    valid_from: ticket.validFrom,
    valid_until: ticket.validUntil,
  });
  await db('ticket_reply').insert(
    ticket.replies.map((reply) => ({
      ticket_id: ticket.id,
      utility: reply.utility,
      state: reply.state,
      replied_on: reply.repliedOn,
      tolerance_mm: reply.toleranceMm,
      note: reply.note,
    })),
  );
}

export async function insertRound(db: Db, round: DemoRound): Promise<void> {
  await db('field_round').insert({
    id: round.id,
    title: round.title,
    from_day: round.fromDay,
    until_day: round.untilDay,
  });
}
