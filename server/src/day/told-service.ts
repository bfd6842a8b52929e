import { privateSchema, type PrivateFacts } from '@sombra/contract';
import { createHmac } from 'node:crypto';
import { v5 as uuidv5 } from 'uuid';
import { queueMail, type NewMail } from '../mail/repository';
import type { Db } from '../platform/db';
import { readStored } from '../platform/stored';
import { findProgramme } from '../programme/repository';
import { letters, type LetterDay } from './letters';
import { peopleOf, privateOf } from './people-repository';
import type { KeptDayRow } from './repository';
import type { SeasonKeys } from './season-key';

const mailNamespace = '5b0f2c52-1c34-52c5-8a0f-0f2b7e1c6a90';

/** What registering needs beside the database. */
export interface Doorway {
  readonly keys: SeasonKeys;
  readonly secret: string;
  /** Where people reach the programme: links in letters begin with it. */
  readonly publicUrl: string;
}

/** The same address is the same hash; without the server's secret nobody can try addresses against it. */
export const emailHash = ({ secret }: Doorway, email: string): string =>
  createHmac('sha256', secret).update(`day-person/${email.trim().toLowerCase()}`).digest('hex');

export async function letterDay(db: Db, day: KeptDayRow): Promise<LetterDay> {
  const programme = await findProgramme(db);
  return { ...day, programme: programme?.name ?? 'Sombra', timeZone: programme?.timeZone ?? 'UTC' };
}

export const mailOf = (
  dayId: string,
  personId: string,
  to: string,
  letter: { subject: string; body: string },
  unique: string,
  calendar: string | null = null,
): NewMail => ({ id: uuidv5(unique, mailNamespace), about: 'registration', dayId, personId, to, ...letter, calendar });

/** What people of a day told in confidence, by their id; nothing once the season's key is gone. */
export async function unsealed(db: Db, { keys }: Doorway, dayId: string): Promise<Map<string, PrivateFacts>> {
  const rows = await privateOf(db, dayId);
  const facts = new Map<string, PrivateFacts>();
  for (const { id, season, sealed } of rows) {
    const opened = await keys.unseal(season, id, sealed);
    if (opened !== null) facts.set(id, readStored(privateSchema, opened, `what person ${id} told in confidence`));
  }
  return facts;
}

export const addressOf = async (db: Db, doorway: Doorway, dayId: string, personId: string): Promise<string> =>
  (await unsealed(db, doorway, dayId)).get(personId)?.email ?? '';

/** Tells everybody who is to come, once for each decision. */
export async function tellAll(
  trx: Db,
  doorway: Doorway,
  day: KeptDayRow,
  decision: { id: string; words: string },
): Promise<number> {
  const facts = await unsealed(trx, doorway, day.id);
  const about = await letterDay(trx, day);
  const people = (await peopleOf(trx, day.id)).filter(({ state }) => state === 'confirmed' || state === 'held');
  const mails = people.flatMap((person) => {
    const to = facts.get(person.id)?.email ?? '';
    const letter = letters.weather(about, { name: person.name, words: decision.words });
    return to === ''
      ? []
      : [{ ...mailOf(day.id, person.id, to, letter, `${decision.id}/${person.id}`), about: 'weather' as const }];
  });
  await queueMail(trx, mails);
  return mails.length;
}
