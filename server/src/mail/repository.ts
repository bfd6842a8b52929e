import type { Db } from '../platform/db';

export interface NewMail {
  readonly id: string;
  readonly about: 'registration' | 'place' | 'weather' | 'day' | 'care';
  readonly dayId: string | null;
  readonly personId: string | null;
  readonly to: string;
  readonly subject: string;
  readonly body: string;
  readonly calendar: string | null;
}

/** `m…@green.example`: enough to know it again. */
export const shownAddress = (address: string): string => {
  const [box = '', host = ''] = address.split('@');
  return `${box.slice(0, 1)}…@${host}`;
};

/** Puts letters in the queue, in the act they are about: none leaves for an act that was not stored. */
export async function queueMail(trx: Db, letters: readonly NewMail[]): Promise<void> {
  if (letters.length === 0) return;
  const rows = letters.map(({ dayId, personId, to, ...letter }) => ({
    ...letter,
    day_id: dayId,
    person_id: personId,
    to_address: to,
    to_shown: shownAddress(to),
  }));
  await trx('mail').insert(rows).onConflict('id').ignore();
}

export interface DueMail {
  readonly id: string;
  readonly to_address: string;
  readonly subject: string;
  readonly body: string;
  readonly calendar: string | null;
  readonly tries: number;
}

/** The letter whose turn it is, kept from other servers for as long as a lease lasts. */
export async function takeDue(trx: Db, leaseS: number): Promise<DueMail | undefined> {
  const row = await trx('mail')
    .where({ state: 'waiting' })
    .where('next_try_at', '<=', trx.fn.now())
    .orderBy('next_try_at')
    .forUpdate()
    .skipLocked()
    .first<DueMail | undefined>('id', 'to_address', 'subject', 'body', 'calendar', 'tries');
  if (!row) return undefined;
  const until = trx.raw(`now() + make_interval(secs => ?)`, [leaseS]);
  await trx('mail')
    .where({ id: row.id })
    .update({ next_try_at: until, tries: row.tries + 1 });
  return row;
}

/** What was sent, or refused for good, keeps neither its address nor its words. */
export async function settleMail(
  db: Db,
  id: string,
  as: { state: 'sent' } | { state: 'refused'; problem: string },
): Promise<void> {
  const problem = as.state === 'refused' ? as.problem : null;
  await db('mail')
    .where({ id, state: 'waiting' })
    .update({
      state: as.state,
      problem,
      sent_at: as.state === 'sent' ? db.fn.now() : null,
      to_address: null,
      body: null,
      calendar: null,
    });
}

export async function putOff(db: Db, id: string, problem: string, seconds: number): Promise<void> {
  await db('mail')
    .where({ id, state: 'waiting' })
    .update({ problem, next_try_at: db.raw(`now() + make_interval(secs => ?)`, [seconds]) });
}

export interface MailCounts {
  waiting: number;
  sent: number;
  refused: number;
}
export async function mailCounts(db: Db, dayId: string): Promise<MailCounts> {
  return db('mail')
    .where({ day_id: dayId })
    .first<MailCounts>(
      db.raw(`count(*) filter (where state = 'waiting')::int as waiting, count(*) filter (where state = 'sent')::int as sent,
        count(*) filter (where state = 'refused')::int as refused`),
    );
}
