import type { AddHelper, ChangeHelper, PrivateFacts, User } from '@sombra/contract';
import { ConflictError, InvalidInputError, NotFoundError } from '@sombra/core';
import type { Knex } from 'knex';
import { asActor, type Db } from '../platform/db';
import { announce } from '../record/repository';
import { requireDay } from './detail-service';
import { findPerson, insertPerson, keepPrivate, peopleOf, updatePerson } from './people-repository';
import { leaveTeams, offerFree } from './places-service';
import { currentWaiver, lockDay } from './repository';
import { seasonOf } from './season-key';
import { emailHash, unsealed, type Doorway } from './told-service';

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
