import { may, type Assign, type Assignment, type FieldPeople, type HandOver, type User } from '@sombra/contract';
import { addDaysTo, ConflictError, ForbiddenError, InvalidInputError, NotFoundError } from '@sombra/core';
import type { Knex } from 'knex';
import { randomInt } from 'node:crypto';
import { asActor, type Db } from '../platform/db';
import { hashOf } from '../platform/secrets';
import { findUser } from '../people/repository';
import { programmeToday } from '../programme/today';
import {
  endAssignment,
  giveTo,
  insertAssignment,
  keepCode,
  lockAssignment,
  openAssignments,
  peopleWhoMaySignIn,
  spendCode,
} from './repository';

/** Nobody is sent out for longer. */
const longestDays = 120;
const codeMinutes = 30;

/** What is open: all of it for who sends people out, one's own for everybody else. */
export async function assignmentsFor(db: Knex, user: User): Promise<Assignment[]> {
  return openAssignments(db, await programmeToday(db), may(user.role, 'assign') ? null : user.id);
}

/** Who only looks is sent out to nothing. */
const goesOut = ({ role }: Pick<User, 'role'>): boolean => may(role, 'record');

/** Whoever may be sent out, by name. */
export const fieldPeople = async (db: Knex): Promise<FieldPeople> => (await peopleWhoMaySignIn(db)).filter(goesOut);

/** Sends somebody out, as part of an act. @throws InvalidInputError as `assign` does */
export async function giveOut(trx: Db, user: User, asked: Assign & Pick<Partial<Assignment>, 'water'>): Promise<void> {
  const today = await programmeToday(trx);
  const last = addDaysTo(today, longestDays);
  if (asked.until < today || asked.until > last) {
    throw new InvalidInputError(`until must be within ${today} to ${last}, got ${asked.until}`, 'until');
  }
  const person = await findUser(trx, asked.userId);
  if (!person || !goesOut(person)) {
    throw new InvalidInputError('userId must be somebody who may sign in and record', 'userId', {
      title: 'Only somebody who may sign in and record can be sent out',
    });
  }
  await insertAssignment(trx, asked, user.name);
}

/**
 * Sends somebody out. Sent twice, it is made once.
 * @throws InvalidInputError for a last day that has passed or is far off, or somebody who may not sign in
 */
export async function assign(db: Knex, user: User, asked: Assign): Promise<Assignment[]> {
  await asActor(db, user.name, (trx) => giveOut(trx, user, asked));
  return assignmentsFor(db, user);
}

const noSuch = () =>
  new NotFoundError('no such assignment', 'id', { title: 'This assignment is over, or was never given' });

/** @throws ConflictError where it was changed since it was read */
export async function finish(db: Knex, user: User, id: string, version: number): Promise<Assignment[]> {
  await asActor(db, user.name, async (trx) => {
    const kept = await lockAssignment(trx, id);
    if (!kept) throw noSuch();
    requireOwn(user, kept);
    if (kept.version !== version) {
      const title = `It was handed to ${kept.userName} meanwhile. Nothing was changed.`;
      throw new ConflictError(`assignment is at version ${kept.version}, got ${version}`, 'version', {
        title,
        current: kept,
      });
    }
    await endAssignment(trx, id, user.name);
  });
  return assignmentsFor(db, user);
}

function requireOwn(user: User, { userId }: Assignment): void {
  if (userId === user.id || may(user.role, 'assign')) return;
  throw new ForbiddenError('this assignment is somebody else’s', 'id', { title: 'This is assigned to somebody else' });
}

/** A code of six digits that gives the assignment to whoever types it within half an hour, once. */
export async function handOver(db: Knex, user: User, id: string): Promise<HandOver> {
  const code = String(randomInt(0, 1_000_000)).padStart(6, '0');
  const expiresAt = new Date(Date.now() + codeMinutes * 60_000);
  await asActor(db, user.name, async (trx) => {
    const kept = await lockAssignment(trx, id);
    if (!kept) throw noSuch();
    requireOwn(user, kept);
    await keepCode(trx, { assignmentId: id, codeHash: hashOf(code), expiresAt });
  });
  return { code: `${code.slice(0, 3)} ${code.slice(3)}`, until: expiresAt.toISOString() };
}

/** Takes over what a code gives. @throws InvalidInputError for one that gives nothing any more */
export async function takeOver(db: Knex, user: User, code: string): Promise<Assignment[]> {
  await asActor(db, user.name, async (trx) => {
    const id = await spendCode(trx, hashOf(code.replace(' ', '')));
    const kept = id === null ? undefined : await lockAssignment(trx, id);
    if (!kept) {
      throw new InvalidInputError('code gives nothing', 'code', {
        title: 'This code gives nothing: it was used, or is older than half an hour',
      });
    }
    await giveTo(trx, kept.id, user.id);
  });
  return assignmentsFor(db, user);
}
