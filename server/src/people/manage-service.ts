import type { AddPerson, ChangePerson, Invitation, PeopleWithLink, Person, User } from '@sombra/contract';
import { ConflictError, InvalidInputError, NotFoundError } from '@sombra/core';
import type { Knex } from 'knex';
import { hashOf, newToken } from '../platform/secrets';
import { asActor, type Db } from '../platform/db';
import { findProgramme } from '../programme/repository';
import {
  allPeople,
  dropInvitation,
  endSessions,
  findUser,
  insertUser,
  invitedBy,
  keepInvitation,
  lockAdministrators,
  setPassword,
  updatePerson,
} from './repository';
import { hashPassword, requirePassword } from './service';

const linkDays = 7;

async function makeLink(trx: Db, by: User, userId: string): Promise<string> {
  const token = newToken();
  const expiresAt = new Date(Date.now() + linkDays * 86_400_000);
  await keepInvitation(trx, { userId, tokenHash: hashOf(token), madeBy: by.name, expiresAt });
  return `/welcome/${token}`;
}

/**
 * Adds a person, with a link by which they set their own password. Sent twice, they are added once; the second answer
 * carries a new link.
 * @throws ConflictError where the name to sign in by is taken
 */
export async function addPerson(db: Knex, user: User, person: AddPerson): Promise<PeopleWithLink> {
  return asActor(db, user.name, async (trx) => {
    const added = await insertUser(trx, { ...person, passwordHash: null, addedBy: user.name });
    const same = added || (await findUser(trx, person.id))?.signIn === person.signIn;
    if (!same) {
      throw new ConflictError(`the name ${person.signIn} is taken`, 'signIn', {
        title: `Somebody signs in as ${person.signIn} already; choose another name to sign in by`,
      });
    }
    const link = await makeLink(trx, user, person.id);
    return { people: await allPeople(trx), link };
  });
}

/** Makes a link by which a person sets a password, the first one or another; one made before opens nothing then. */
export async function inviteAgain(db: Knex, user: User, id: string): Promise<PeopleWithLink> {
  return asActor(db, user.name, async (trx) => {
    if (!(await findUser(trx, id))) throw new NotFoundError('no such person who may sign in', 'id');
    const link = await makeLink(trx, user, id);
    return { people: await allPeople(trx), link };
  });
}

/**
 * Gives a person another name or role, disables them or lets them in again. Disabling ends their sessions and any link.
 * @throws ConflictError where somebody changed them first, InvalidInputError where nobody would administer any more
 */
export async function changePerson(db: Knex, user: User, id: string, change: ChangePerson): Promise<Person[]> {
  return asActor(db, user.name, async (trx) => {
    const administrators = await lockAdministrators(trx);
    const before = (await allPeople(trx)).find((person) => person.id === id);
    if (!before) throw new NotFoundError('no such person', 'id');
    const stays = change.role === 'administrator' && !change.disabled;
    if (!stays && administrators.length === 1 && administrators[0] === id) {
      throw new InvalidInputError('role must leave one administrator who may sign in', 'role', {
        title: 'Nobody would administer the programme any more: make somebody else an administrator first',
      });
    }
    if (!(await updatePerson(trx, id, change))) {
      throw new ConflictError(`person is at version ${before.version}, got ${change.version}`, 'version', {
        title: `Somebody changed ${before.name} while you were at it. Nothing of yours was stored yet.`,
        current: before,
      });
    }
    if (change.disabled) {
      await endSessions(trx, id);
      await dropInvitation(trx, id);
    }
    return allPeople(trx);
  });
}

/** Ends the sessions of a person on every device, but for the one this is asked from. */
export async function signOutEverywhere(db: Knex, user: User, id: string, sid: string): Promise<Person[]> {
  return asActor(db, user.name, async (trx) => {
    await endSessions(trx, id, sid);
    return allPeople(trx);
  });
}

const noLink = () =>
  new NotFoundError('no such link', 'token', {
    title: 'This link was used, has run out or was replaced by a newer one. Ask for another.',
  });

/** Whose link it is. @throws NotFoundError for one that opens nothing any more */
export async function openInvitation(db: Db, token: string): Promise<Invitation> {
  const person = await invitedBy(db, hashOf(token));
  if (!person) throw noLink();
  const { signIn, name } = person;
  return { signIn, name, programme: (await findProgramme(db))?.name ?? '' };
}

/** Sets the password of whoever holds the link, which is then used up; whatever sessions they had are over. */
export async function acceptInvitation(db: Knex, token: string, password: string): Promise<void> {
  const person = await invitedBy(db, hashOf(token));
  if (!person) throw noLink();
  requirePassword(password, person);
  const passwordHash = await hashPassword(password);
  await asActor(db, person.name, async (trx) => {
    if (!(await dropInvitation(trx, person.id))) throw noLink();
    await setPassword(trx, person.id, passwordHash);
    await endSessions(trx, person.id);
  });
}
