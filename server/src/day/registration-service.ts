import type { DayPerson, OpenDay, OpenRegistration, PrivateFacts, Register } from '@sombra/contract';
import { ConflictError, InvalidInputError, NotFoundError } from '@sombra/core';
import type { Knex } from 'knex';
import { queueMail } from '../mail/repository';
import { asActor, type Db } from '../platform/db';
import { hashOf, newToken } from '../platform/secrets';
import { Turns } from '../platform/turns';
import { findProgramme } from '../programme/repository';
import { programmeToday } from '../programme/today';
import { announce } from '../record/repository';
import { requireDay } from './detail-service';
import { calendarOf, letters, type LetterDay } from './letters';
import {
  dropRunOut,
  findByToken,
  findRegistered,
  insertPerson,
  keepPrivate,
  placesTaken,
  setPersonState,
  setTokenHash,
  type NewPerson,
} from './people-repository';
import { leaveTeams, offerFree } from './places-service';
import { currentWaiver, findDayByLink, lockDay, type KeptDayRow } from './repository';
import { seasonOf } from './season-key';
import { addressOf, emailHash, letterDay, mailOf, type Doorway } from './told-service';

/** A place is kept so long until the letter is answered. */
const heldMinutes = 30;
const byLink = 'registration, by link';

/** A whole school may press the button at once. */
const registrations = new Turns();

const noLink = () => new NotFoundError('no such link', 'token', { title: 'This link is not valid' });

async function byLinkToken(db: Db, token: string): Promise<KeptDayRow> {
  const day = await findDayByLink(db, hashOf(token));
  if (!day) throw noLink();
  return day;
}

/** What the open page shows. @throws NotFoundError for a link that opens nothing */
export async function openDay(db: Knex, token: string): Promise<OpenDay> {
  const day = await byLinkToken(db, token);
  const programme = await findProgramme(db);
  const waiver = await currentWaiver(db);
  const over = day.onDay < (await programmeToday(db));
  return {
    programme: programme?.name ?? '',
    title: day.title,
    onDay: day.onDay,
    hours: day.hours,
    arrangements: day.arrangements,
    placesLeft: Math.max(0, day.capacity - (await placesTaken(db, day.id))),
    state: over ? 'closed' : day.state,
    waiver: waiver ?? { version: 0, text: '' },
  };
}

/**
 * Takes a registration. Whoever asks gets the same answer, whether there was a place, a waiting list, or the person was
 * registered already: only the letter tells, and it goes to the address alone. Never overbooked: places are counted
 * under the lock of the day.
 * @throws InvalidInputError for a day that takes nobody any more, or a waiver that was changed meanwhile
 */
export async function register(db: Knex, doorway: Doorway, token: string, asked: Register): Promise<void> {
  // A field no person sees: what fills it is told what everybody is told.
  if (asked.website !== '') return;
  await registrations.take(token, () =>
    asActor(db, byLink, async (trx) => {
      const found = await byLinkToken(trx, token);
      const day = (await lockDay(trx, found.id)) ?? found;
      await requireOpen(trx, day, asked.waiverVersion);
      await dropRunOut(trx, day.id);
      const places = day.capacity - (await placesTaken(trx, day.id));
      const state = places >= 1 + asked.minors.length ? ('held' as const) : ('waiting' as const);
      const fresh = newToken();
      const shared = {
        dayId: day.id,
        state,
        heldMinutes: state === 'held' ? heldMinutes : null,
        together: asked.together,
        photos: asked.photos,
        waiver: { version: asked.waiverVersion, signedBy: asked.signedBy },
        userId: null,
        source: 'link' as const,
      };
      const hash = emailHash(doorway, asked.private.email);
      const { id, name, skill, noLifting } = asked;
      const head: NewPerson = {
        ...shared,
        id,
        name,
        skill,
        noLifting,
        minor: false,
        guardianId: null,
        emailHash: hash,
        tokenHash: hashOf(fresh),
      };
      const about = await letterDay(trx, day);
      if (!(await insertPerson(trx, head))) {
        await tellAgain(trx, doorway, { about, hash, asked });
        return;
      }
      await keepPrivate(trx, id, seasonOf(day.onDay), await doorway.keys.seal(seasonOf(day.onDay), id, asked.private));
      for (const minor of asked.minors) {
        const added = await insertPerson(trx, {
          ...shared,
          id: minor.id,
          name: minor.name,
          skill: 'first_time',
          noLifting: true,
          minor: true,
          guardianId: id,
          emailHash: hash,
          tokenHash: null,
        });
        // An id that is taken is somebody else's: nothing of this registration is kept.
        if (!added)
          throw new ConflictError('this id is taken', 'minors', {
            title: 'Somebody of this name is registered already',
          });
        const facts: PrivateFacts = {
          email: '',
          phone: asked.private.phone,
          emergencyContact: asked.private.emergencyContact,
          allergies: minor.allergies,
        };
        await keepPrivate(
          trx,
          minor.id,
          seasonOf(day.onDay),
          await doorway.keys.seal(seasonOf(day.onDay), minor.id, facts),
        );
      }
      const link = `${doorway.publicUrl}/place/${fresh}`;
      const letter =
        state === 'held'
          ? letters.held(about, { name, link, minutes: heldMinutes })
          : letters.waiting(about, { name, link });
      await queueMail(trx, [mailOf(day.id, id, asked.private.email, letter, fresh)]);
      await announce(trx, []);
    }),
  );
}

async function requireOpen(trx: Db, day: KeptDayRow, waiverVersion: number): Promise<void> {
  const today = await programmeToday(trx);
  if (day.state !== 'planned' || day.onDay < today) {
    throw new InvalidInputError('the day takes nobody any more', 'token', {
      title: 'This day takes no registrations any more',
    });
  }
  const waiver = await currentWaiver(trx);
  if (waiver?.version !== waiverVersion) {
    throw new ConflictError('the waiver was changed', 'waiverVersion', {
      title: 'The waiver was changed while you read it. Load the page again and read it anew.',
    });
  }
}

/** The same person of the same address: the letter says where they stand, and gives a link that works. */
async function tellAgain(
  trx: Db,
  doorway: Doorway,
  { about, hash, asked }: { about: LetterDay; hash: string; asked: Register },
): Promise<void> {
  const known = await findRegistered(trx, about.id, { emailHash: hash, name: asked.name });
  if (!known) return;
  const fresh = newToken();
  await setTokenHash(trx, known, hashOf(fresh));
  const link = `${doorway.publicUrl}/place/${fresh}`;
  await queueMail(trx, [
    mailOf(about.id, known, asked.private.email, letters.again(about, { name: asked.name, link }), fresh),
  ]);
}

async function requireByToken(db: Db, token: string) {
  const found = await findByToken(db, hashOf(token));
  if (!found) throw noLink();
  return found;
}

/** A place as its own link shows it. */
export async function openRegistration(db: Knex, token: string): Promise<OpenRegistration> {
  const { person, dayId, with: minors } = await requireByToken(db, token);
  const day = await requireDay(db, dayId);
  const programme = await findProgramme(db);
  const over = day.onDay < (await programmeToday(db)) || day.state !== 'planned';
  return {
    programme: programme?.name ?? '',
    title: day.title,
    onDay: day.onDay,
    name: person.name,
    with: minors.filter(({ state }) => state !== 'cancelled').map(({ name }) => name),
    state: over ? 'over' : person.state,
    gathering: day.arrangements.gathering,
    hours: day.hours,
  };
}

/** Confirms or cancels by the letter's link; what is free then goes to who waits first. Done twice it is done once. */
export async function answerRegistration(
  db: Knex,
  doorway: Doorway,
  token: string,
  answer: 'confirm' | 'cancel',
): Promise<OpenRegistration> {
  await asActor(db, byLink, async (trx) => {
    const { dayId } = await requireByToken(trx, token);
    const day = await lockDay(trx, dayId);
    if (!day) throw noLink();
    // Read anew: another answer may have come first.
    const { person, with: minors } = await requireByToken(trx, token);
    const ids = [person, ...minors.filter(({ state }) => state !== 'cancelled')].map(({ id }) => id);
    if (answer === 'cancel') {
      await setPersonState(trx, ids, 'cancelled');
      await leaveTeams(trx, day, ids);
      await offerFree(trx, doorway, day);
    } else if (person.state !== 'confirmed') await confirm(trx, doorway, { day, person, ids, token });
    await announce(trx, []);
  });
  return openRegistration(db, token);
}

async function confirm(
  trx: Db,
  doorway: Doorway,
  { day, person, ids, token }: { day: KeptDayRow; person: DayPerson; ids: readonly string[]; token: string },
): Promise<void> {
  if (day.state !== 'planned') return;
  const runOut = person.state !== 'held' || Date.parse(person.heldUntil ?? '') <= Date.now();
  if (runOut) {
    await dropRunOut(trx, day.id);
    const places = day.capacity - (await placesTaken(trx, day.id));
    if (places < ids.length) {
      await setPersonState(trx, ids, 'waiting');
      return;
    }
  }
  await setPersonState(trx, ids, 'confirmed');
  const to = await addressOf(trx, doorway, day.id, person.id);
  if (to === '') return;
  const about = await letterDay(trx, day);
  const link = `${doorway.publicUrl}/place/${token}`;
  const letter = letters.confirmed(about, { name: person.name, link });
  await queueMail(trx, [
    mailOf(day.id, person.id, to, letter, `${token}/confirmed`, calendarOf(about, { uid: person.id })),
  ]);
}
