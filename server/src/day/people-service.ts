import {
  privateSchema,
  type AddHelper,
  type ChangeHelper,
  type DayPerson,
  type OpenDay,
  type OpenRegistration,
  type PrivateFacts,
  type Register,
  type User,
} from '@sombra/contract';
import { ConflictError, InvalidInputError, NotFoundError } from '@sombra/core';
import type { Knex } from 'knex';
import { createHmac, randomBytes } from 'node:crypto';
import { v5 as uuidv5 } from 'uuid';
import { queueMail, type NewMail } from '../mail/repository';
import { asActor, type Db } from '../platform/db';
import { hashOf } from '../platform/secrets';
import { Turns } from '../platform/turns';
import { readStored } from '../platform/stored';
import { findProgramme } from '../programme/repository';
import { programmeToday } from '../programme/today';
import { announce } from '../record/repository';
import { calendarOf, letters, type LetterDay } from './letters';
import {
  dropRunOut,
  findByToken,
  findPerson,
  findRegistered,
  firstWaiting,
  insertPerson,
  keepPrivate,
  peopleOf,
  placesTaken,
  privateOf,
  setPersonState,
  setTokenHash,
  updatePerson,
  type NewPerson,
} from './people-repository';
import { currentWaiver, findDayByLink, keepTeams, lockDay, type KeptDayRow } from './repository';
import { requireDay } from './detail-service';
import { seasonOf, type SeasonKeys } from './season-key';

/** A place is kept so long until the letter is answered; one that became free, for half a day. */
const heldMinutes = 30;
const offeredMinutes = 12 * 60;
const byLink = 'registration, by link';
const mailNamespace = '5b0f2c52-1c34-52c5-8a0f-0f2b7e1c6a90';

/** What registering needs beside the database. */
export interface Doorway {
  readonly keys: SeasonKeys;
  readonly secret: string;
  /** Where people reach the programme: links in letters begin with it. */
  readonly publicUrl: string;
}

/** A whole school may press the button at once. */
const registrations = new Turns();

/** The same address is the same hash; without the server's secret nobody can try addresses against it. */
const emailHash = ({ secret }: Doorway, email: string): string =>
  createHmac('sha256', secret).update(`day-person/${email.trim().toLowerCase()}`).digest('hex');

const newToken = () => randomBytes(24).toString('base64url');

async function letterDay(db: Db, day: KeptDayRow): Promise<LetterDay> {
  const programme = await findProgramme(db);
  return { ...day, programme: programme?.name ?? 'Sombra', timeZone: programme?.timeZone ?? 'UTC' };
}

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

const mailOf = (
  dayId: string,
  personId: string,
  to: string,
  letter: { subject: string; body: string },
  unique: string,
  calendar: string | null = null,
): NewMail => ({ id: uuidv5(unique, mailNamespace), about: 'registration', dayId, personId, to, ...letter, calendar });

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

/** Places that became free are offered to those who wait, first come first, as far as they reach. */
async function offerFree(trx: Db, doorway: Doorway, day: KeptDayRow): Promise<void> {
  await dropRunOut(trx, day.id);
  for (;;) {
    const next = await firstWaiting(trx, day.id);
    if (!next) return;
    const ids = [next.person, ...next.with].map(({ id }) => id);
    if (day.capacity - (await placesTaken(trx, day.id)) < ids.length) return;
    const fresh = newToken();
    await setPersonState(trx, ids, 'held', offeredMinutes);
    await setTokenHash(trx, next.person.id, hashOf(fresh));
    const to = await addressOf(trx, doorway, day.id, next.person.id);
    const about = await letterDay(trx, day);
    const link = `${doorway.publicUrl}/place/${fresh}`;
    if (to !== '') {
      const letter = letters.held(about, { name: next.person.name, link, minutes: offeredMinutes });
      await queueMail(trx, [mailOf(day.id, next.person.id, to, letter, fresh)]);
    }
  }
}

async function leaveTeams(trx: Db, day: KeptDayRow, ids: readonly string[]): Promise<void> {
  if (!day.teams.some(({ helperIds }) => helperIds.some((id) => ids.includes(id)))) return;
  const teams = day.teams.map((team) => {
    const helperIds = team.helperIds.filter((id) => !ids.includes(id));
    return {
      ...team,
      helperIds,
      leadId: helperIds.includes(team.leadId) ? team.leadId : (helperIds[0] ?? team.leadId),
    };
  });
  await keepTeams(trx, day.id, { ...day, teams: teams.filter(({ helperIds }) => helperIds.length > 0) });
}

async function unsealed(db: Db, { keys }: Doorway, dayId: string): Promise<Map<string, PrivateFacts>> {
  const rows = await privateOf(db, dayId);
  const facts = new Map<string, PrivateFacts>();
  for (const { id, season, sealed } of rows) {
    const opened = await keys.unseal(season, id, sealed);
    if (opened !== null) facts.set(id, readStored(privateSchema, opened, `what person ${id} told in confidence`));
  }
  return facts;
}

const addressOf = async (db: Db, doorway: Doorway, dayId: string, personId: string): Promise<string> =>
  (await unsealed(db, doorway, dayId)).get(personId)?.email ?? '';

/** What people told for leads alone, by their id; gone once the season's key is. */
export async function privateFacts(db: Knex, doorway: Doorway, dayId: string): Promise<Record<string, PrivateFacts>> {
  await requireDay(db, dayId);
  return Object.fromEntries(await unsealed(db, doorway, dayId));
}

async function requireGuardian(
  trx: Db,
  dayId: string,
  { minor, guardianId }: { minor: boolean; guardianId: string | null },
): Promise<void> {
  if (!minor && guardianId === null) return;
  const guardian = guardianId === null ? undefined : (await peopleOf(trx, dayId)).find(({ id }) => id === guardianId);
  if (!minor || !guardian || guardian.minor) {
    throw new InvalidInputError('guardianId must be a grown-up of the same day', 'guardianId', {
      title: minor ? 'A minor needs a grown-up of the same day who stays with them' : 'Only a minor has a guardian',
    });
  }
}

/** Adds somebody at the desk, or who walks in; kept once. */
export async function addHelper(
  db: Knex,
  doorway: Doorway,
  user: User,
  dayId: string,
  asked: AddHelper,
): Promise<void> {
  await asActor(db, user.name, async (trx) => {
    const day = await lockDay(trx, dayId);
    if (!day) throw new NotFoundError('no such planting day', 'id');
    await requireGuardian(trx, dayId, asked);
    const waiver = await currentWaiver(trx);
    const hash = asked.private.email === '' ? null : emailHash(doorway, asked.private.email);
    await insertPerson(trx, {
      ...asked,
      dayId,
      state: 'confirmed',
      heldMinutes: null,
      waiver: asked.signedBy && waiver ? { version: waiver.version, signedBy: asked.signedBy } : null,
      source: asked.walkIn ? 'walk_in' : 'desk',
      emailHash: hash,
      tokenHash: null,
    });
    const kept = await findPerson(trx, asked.id);
    if (kept?.dayId !== dayId) {
      throw new ConflictError('this person comes already', 'name', {
        title: 'Somebody of this name and address is of this day already',
      });
    }
    const season = seasonOf(day.onDay);
    await keepPrivate(trx, asked.id, season, await doorway.keys.seal(season, asked.id, asked.private));
    await announce(trx, []);
  });
}

/** Changes what is known of somebody; whoever is cancelled leaves their team, and who waits is asked. */
export async function changeHelper(
  db: Knex,
  doorway: Doorway,
  user: User,
  personId: string,
  change: ChangeHelper,
): Promise<string> {
  return asActor(db, user.name, async (trx) => {
    const found = await findPerson(trx, personId);
    const day = found && (await lockDay(trx, found.dayId));
    if (!found || !day) throw new NotFoundError('nobody has this id', 'id');
    await requireGuardian(trx, day.id, change);
    const waiver = await currentWaiver(trx);
    const signed = change.signedBy && waiver ? { version: waiver.version, signedBy: change.signedBy } : null;
    await updatePerson(trx, personId, { ...change, waiver: signed });
    if (change.state !== 'confirmed') await leaveTeams(trx, day, [personId]);
    if (change.state === 'cancelled') await offerFree(trx, doorway, day);
    await announce(trx, []);
    return day.id;
  });
}

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
