import { ticketDates } from '@sombra/core';
import type { Knex } from 'knex';
import { CentreFault, type CentreTicket, type LocateCentre } from '../adapters/locate-centre';
import { asActor } from '../platform/db';
import { announce } from '../record/repository';
import { currentRules } from '../rules/repository';
import { keepAnswer, keepFault, spotsIn, takeDue, type DueTicket } from './repository';
import { programmeToday } from '../programme/today';

/** While replies are open the centre is asked this often. s */
const askEveryS = { open: 4, settled: 6 * 3600 } as const;
const longestWaitS = 600;

/**
 * Looks after the tickets whose turn it is: sends what is not sent, asks for replies. What fails is tried again,
 * less and less often, and says so on the ticket. Several servers may do this at once.
 */
export async function tendTickets(db: Knex, centre: LocateCentre): Promise<number> {
  let tended = 0;
  while (tended < 20 && (await tendOne(db, centre))) tended += 1;
  return tended;
}

async function tendOne(db: Knex, centre: LocateCentre): Promise<boolean> {
  return asActor(db, 'locate centre', async (trx) => {
    const due = await takeDue(trx);
    if (!due) return false;
    try {
      const answer = await ask(trx, due, centre);
      const open = answer.replies.some(({ state }) => state === 'waiting' || state === 'conflict');
      const changed = await keepAnswer(trx, due.id, answer, open ? askEveryS.open : askEveryS.settled);
      if (changed) await announce(trx, await spotsIn(trx, due.id));
    } catch (error) {
      if (!(error instanceof CentreFault)) throw error;
      // A refusal stays as it is until somebody looks at it; an absence is waited out.
      const nextTryS = error.passes ? Math.min(longestWaitS, 2 * 2 ** Math.min(due.tries, 10)) : null;
      await keepFault(trx, due.id, { problem: error.message, nextTryS });
      if (due.tries === 0) await announce(trx, await spotsIn(trx, due.id));
    }
    return true;
  });
}

async function ask(trx: Knex.Transaction, due: DueTicket, centre: LocateCentre): Promise<CentreTicket> {
  if (due.state === 'open' && due.number) return centre.status(due.number);
  const { ground } = await currentRules(trx);
  const { validFrom, validUntil } = ticketDates(await programmeToday(trx), ground);
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
export function keepTending(
  db: Knex,
  centre: LocateCentre,
  onError: (error: unknown) => void,
  everyMs = 1000,
): () => Promise<void> {
  let running = Promise.resolve();
  let busy = false;
  const look = () => {
    if (busy) return;
    busy = true;
    running = tendTickets(db, centre)
      .catch(onError)
      .then(() => {
        busy = false;
      });
  };
  const timer = setInterval(look, everyMs);
  timer.unref();
  return async () => {
    clearInterval(timer);
    await running;
  };
}
