import type { RaiseTicket, Ticket, TicketList, Uncovered, User } from '@sombra/contract';
import {
  addDaysTo,
  ConflictError,
  digCover,
  InvalidInputError,
  NotFoundError,
  sayReason,
  type IsoDate,
} from '@sombra/core';
import type { Knex } from 'knex';
import type { LocateCentre } from '../adapters/locate-centre';
import { asActor, oneAtATime, type Db } from '../platform/db';
import { announce } from '../record/repository';
import { currentRules } from '../rules/repository';
import {
  bookedSpots,
  drawArea,
  insertTicket,
  overlapping,
  setWithdrawn,
  spotsIn,
  ticketsFrom,
  tryNow,
} from './repository';
import { programmeToday } from '../programme/today';
import { coversOf } from './cover-repository';

/** Tickets are shown this long after they ended. */
const showDaysAfter = 30;
/** Planting days looked at for cover. */
const daysAhead = 42;
/** Larger than any street: a slip of the hand. m² */
const mostAreaM2 = 200_000;

export async function ticketList(db: Knex): Promise<TicketList> {
  const today = await programmeToday(db);
  const [tickets, uncovered] = await Promise.all([
    ticketsFrom(db, addDaysTo(today, -showDaysAfter), today),
    uncoveredDays(db, today),
  ]);
  return { tickets, uncovered };
}

export async function oneTicket(db: Db, id: string): Promise<Ticket> {
  const [ticket] = await ticketsFrom(db, '1900-01-01', await programmeToday(db), id);
  if (!ticket) throw new NotFoundError('no such ticket', 'id');
  return ticket;
}

/**
 * Raises a ticket: it is kept first and goes to the locate centre from there, so that nothing is lost when the
 * centre is away.
 * @throws InvalidInputError for an area that crosses itself or is too large, ConflictError where another ticket
 *   holds part of it
 */
export async function raiseTicket(db: Knex, user: User, raise: RaiseTicket): Promise<Ticket> {
  const today = await programmeToday(db);
  const { ground } = await currentRules(db);
  return asActor(db, user.name, async (trx) => {
    // One ticket at a time: two people drawing over the same ground must see each other.
    await oneAtATime(trx, 'tickets');
    const drawn = await drawArea(trx, raise, ground.ticket.digRadiusM);
    if (!drawn) throw new NotFoundError('no such spots', 'spotIds');
    requireSound(drawn);
    const [kept] = await ticketsFrom(trx, '1900-01-01', today, raise.id);
    if (kept) return kept;
    const other = await overlapping(trx, drawn.area, raise.renews, today);
    if (other) {
      const name = other.number ?? 'a ticket that is not taken yet';
      throw new ConflictError(`area overlaps ${name} by ${Math.round(other.areaM2)} m²`, 'ring', {
        title: `${name} holds ${Math.round(other.areaM2)} m² of this area already. Renew that ticket, or draw around it.`,
      });
    }
    await insertTicket(trx, { ...raise, area: drawn.area, by: user.name });
    return oneTicket(trx, raise.id);
  });
}

function requireSound({ valid, areaM2 }: { valid: boolean; areaM2: number }): void {
  if (!valid) {
    throw new InvalidInputError('ring must not cross itself', 'ring', {
      title: 'The area crosses itself; draw it again',
    });
  }
  if (areaM2 > mostAreaM2 || areaM2 < 1) {
    throw new InvalidInputError(`ring must hold 1–${mostAreaM2} m², got ${Math.round(areaM2)}`, 'ring', {
      title: `The area must hold 1 to ${mostAreaM2} m², it holds ${Math.round(areaM2)}`,
    });
  }
}

/** Asks a utility once more for its reply. @throws CentreFault when the centre is away */
export async function remind(
  db: Knex,
  user: User,
  ask: { id: string; utility: string; centre: LocateCentre | null },
): Promise<Ticket> {
  const ticket = await oneTicket(db, ask.id);
  if (ticket.number && ask.centre) await ask.centre.remind(ticket.number, ask.utility);
  await tryNow(db, ask.id);
  return oneTicket(db, ask.id);
}

export async function retryNow(db: Knex, user: User, id: string): Promise<Ticket> {
  await tryNow(db, id);
  return oneTicket(db, id);
}

/** Takes a ticket back: it covers nothing from then on. */
export async function withdrawTicket(
  db: Knex,
  user: User,
  ask: { id: string; centre: LocateCentre | null },
): Promise<Ticket> {
  const ticket = await oneTicket(db, ask.id);
  if (ticket.number && ticket.state === 'open' && ask.centre) {
    // A centre that has forgotten the ticket holds nothing against us either.
    await ask.centre.withdraw(ticket.number).catch((error: unknown) => {
      if (error instanceof Error && 'passes' in error && error.passes === true) throw error;
    });
  }
  return asActor(db, user.name, async (trx) => {
    await setWithdrawn(trx, ask.id);
    await announce(trx, await spotsIn(trx, ask.id));
    return oneTicket(trx, ask.id);
  });
}

/** Planting days ahead with spots nobody may dig at that day, and why. */
export async function uncoveredDays(db: Db, today: IsoDate): Promise<Uncovered[]> {
  const { ground } = await currentRules(db);
  const booked = await bookedSpots(db, today, addDaysTo(today, daysAhead));
  const covers = await coversOf(db, [...new Set(booked.map(({ spotId }) => spotId))], today);
  const days = new Map<string, Uncovered>();
  for (const { dayId, title, onDay, spotId, ref, place } of booked) {
    const cover = digCover(covers.get(spotId) ?? { tickets: [], clearances: [] }, onDay, ground);
    if (cover.kind !== 'none') continue;
    const day = days.get(dayId) ?? { dayId, title, onDay, spots: [] };
    day.spots.push({ spotId, ref, place, why: cover.because.map((reason) => sayReason(reason, 'metric')).join(' ') });
    days.set(dayId, day);
  }
  return [...days.values()];
}
