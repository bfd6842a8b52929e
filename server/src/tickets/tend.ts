import { ticketDates } from '@sombra/core';
import type { Knex } from 'knex';
import { CentreFault, type CentreTicket, type LocateCentre } from '../adapters/locate-centre';
import { asActor } from '../platform/db';
import { keepDoing } from '../platform/keep-doing';
import { announce } from '../record/repository';
import { currentRules } from '../rules/repository';
import { keepAnswer, keepFault, spotsIn, takeDue, type DueTicket } from './repository';
import { programmeToday } from '../programme/today';

/** While replies are open the centre is asked this often. s */
const askEveryS = { open: 4, settled: 6 * 3600 } as const;
const longestWaitS = 600;
/** How long one server has a ticket to itself; a server that dies meanwhile gives it back by this. */
const leaseS = 60;
const actor = 'locate centre';

/**
 * Looks after the tickets whose turn it is: sends what is not sent, asks for replies. What fails is tried again,
 * less and less often, and says so on the ticket. Several servers may do this at once.
 */
export async function tendTickets(db: Knex, centre: LocateCentre): Promise<number> {
  let tended = 0;
  while (tended < 20 && (await tendOne(db, centre))) tended += 1;
  return tended;
}

/** Nothing is held in the database while the centre is asked: it may take its time, or never answer. */
async function tendOne(db: Knex, centre: LocateCentre): Promise<boolean> {
  const due = await asActor(db, actor, (trx) => takeDue(trx, leaseS));
  if (!due) return false;
  try {
    const answer = await ask(db, due, centre);
    const kept = await asActor(db, actor, (trx) => keep(trx, due, answer));
    if (kept === 'withdrawn') await centre.withdraw(answer.number);
  } catch (error) {
    if (!(error instanceof CentreFault)) throw error;
    await asActor(db, actor, (trx) => keepProblem(trx, due, error));
  }
  return true;
}

async function keep(trx: Knex.Transaction, due: DueTicket, answer: CentreTicket): Promise<'kept' | 'withdrawn'> {
  const open = answer.replies.some(({ state }) => state === 'waiting' || state === 'conflict');
  const kept = await keepAnswer(trx, due.id, answer, open ? askEveryS.open : askEveryS.settled);
  if (kept === 'new') await announce(trx, await spotsIn(trx, due.id));
  return kept === 'withdrawn' ? 'withdrawn' : 'kept';
}

/** A refusal stays as it is until somebody looks at it; an absence is waited out. */
async function keepProblem(trx: Knex.Transaction, due: DueTicket, fault: CentreFault): Promise<void> {
  const nextTryS = fault.passes ? Math.min(longestWaitS, 2 * 2 ** Math.min(due.tries, 10)) : null;
  await keepFault(trx, due.id, { problem: fault.message, nextTryS });
  if (due.tries === 0) await announce(trx, await spotsIn(trx, due.id));
}

async function ask(db: Knex, due: DueTicket, centre: LocateCentre): Promise<CentreTicket> {
  if (due.state === 'open' && due.number) return centre.status(due.number);
  const { ground } = await currentRules(db);
  const { validFrom, validUntil } = ticketDates(await programmeToday(db), ground);
  return centre.raise({
    requestId: due.id,
    purpose: due.purpose,
    area: JSON.parse(due.area) as unknown,
    workFrom: validFrom,
    workUntil: validUntil,
    renews: due.renews_number,
  });
}

/** Tends in the background, one look at a time, until stopped. */
export const keepTending = (
  db: Knex,
  centre: LocateCentre,
  onError: (error: unknown) => void,
  everyMs = 1000,
): (() => Promise<void>) => keepDoing(() => tendTickets(db, centre), { everyMs, onError });
