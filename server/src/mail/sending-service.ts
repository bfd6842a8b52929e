import type { Knex } from 'knex';
import { MailFault, type MailService } from '../adapters/mail';
import { asActor } from '../platform/db';
import { keepDoing } from '../platform/keep-doing';
import { putOff, settleMail, takeDue } from './repository';

/** How long one server has a letter to itself; one that dies meanwhile gives it back by this. */
const leaseS = 120;
const [firstWaitS, longestWaitS] = [5, 1800];
/** About two days of tries. */
const mostTries = 100;
const mostAtOnce = 50;
const actor = 'mail queue';

/** Sends the letters whose turn it is, one after the other; nothing is held in the database while one leaves. */
export async function sendMail(db: Knex, service: MailService): Promise<number> {
  for (let sent = 0; sent < mostAtOnce; sent++) {
    const due = await asActor(db, actor, (trx) => takeDue(trx, leaseS));
    if (!due) return sent;
    const { id, to_address: to, subject, body, calendar, tries } = due;
    try {
      await service.send({ id, to, subject, body, calendar });
      await asActor(db, actor, (trx) => settleMail(trx, id, { state: 'sent' }));
    } catch (error) {
      if (!(error instanceof MailFault)) throw error;
      const { message: problem } = error;
      const again = error.passes && tries + 1 < mostTries;
      await asActor(db, actor, (trx) =>
        again
          ? putOff(trx, id, problem, Math.min(longestWaitS, firstWaitS * 2 ** Math.min(tries, 9)))
          : settleMail(trx, id, { state: 'refused', problem }),
      );
    }
  }
  return mostAtOnce;
}

/** Sends in the background until stopped. */
export function keepSending(
  db: Knex,
  service: MailService,
  onError: (error: unknown) => void,
  everyMs = 1000,
): () => Promise<void> {
  const stop = keepDoing(() => sendMail(db, service), { everyMs, onError });
  return async () => {
    await stop();
    service.close();
  };
}
