import type { AddSpot, Near, SpotCsvQuery, User, Withdraw } from '@sombra/contract';
import { ConflictError, InvalidInputError, NotFoundError } from '@sombra/core';
import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import { bumpSpots, insertNewSpot, lockSpots, placeIds, spotsByRef, takenIds } from '../spots/repository';
import { csvRow } from '../platform/csv';
import { asActor, oneAtATime, type Db } from '../platform/db';
import { deriveAndKeep } from '../record/derive';
import { everyLine, lastRefLike, nearestPlace, plantedAmong, refsOfPlace, setWithdrawn } from './repository';
import { programmeToday } from '../programme/today';

/**
 * Adds a spot at a position. The same act sent twice adds it once.
 * @throws ConflictError when the number or the ids are taken by another spot
 */
export async function addSpot(db: Knex, user: User, spot: AddSpot): Promise<{ id: string; stored: boolean }> {
  const addedOn = await programmeToday(db);
  return asActor(db, user.name, async (trx) => {
    // Two people adding the same number at once must see each other.
    await oneAtATime(trx, 'add-spot');
    const [same] = await spotsByRef(trx, [spot.ref]);
    if (same?.id === spot.id) return { id: spot.id, stored: false };
    if (same || (await takenIds(trx, [spot.id, spot.treeId])).size > 0) throw taken(spot.ref);
    const [lng, lat] = spot.position;
    const placeId = (await placeIds(trx, [spot.place], uuidv7)).get(spot.place) ?? '';
    // A file that names the same number may be at it just now: it is waited for, and then theirs.
    if (!(await insertNewSpot(trx, { ...spot, addedOn, placeId, lng, lat }, user.name))) throw taken(spot.ref);
    await deriveAndKeep(trx, [spot.id]);
    return { id: spot.id, stored: true };
  });
}

const taken = (ref: string) =>
  new ConflictError(`the number ${ref} is taken`, 'ref', {
    title: `Number ${ref} is taken by another spot; choose the next free one`,
  });

/** What a new spot here would be called: the nearest named place and its next number. */
export async function near(db: Db, position: readonly [number, number]): Promise<Near> {
  const found = await nearestPlace(db, position);
  const prefix = prefixOf(found ? await refsOfPlace(db, found.place) : [], found?.place ?? 'New');
  const last = Number((await lastRefLike(db, prefix))?.split('-')[1] ?? 100);
  const ref = `${prefix}-${String(last + 1).padStart(4, '0')}`;
  return { place: found?.place ?? null, distanceM: found?.distanceM ?? null, ref };
}

/** The letters most numbers of a place begin with; else the initials of its name. */
function prefixOf(refs: readonly string[], place: string): string {
  const letters = refs.map((ref) => /^([A-Z]{1,4})-\d+$/.exec(ref)?.[1]).filter((prefix) => prefix !== undefined);
  const initials = place
    .replace(/[^A-Za-z ]/g, '')
    .split(' ')
    .map((word) => word.charAt(0).toUpperCase());
  return letters[0] ?? (initials.join('') || 'N');
}

/**
 * Takes spots out of the programme, or brings them back. Their records stay.
 * @throws InvalidInputError where a tree is planted: a planted tree is removed by recording what became of it
 */
export async function withdraw(db: Knex, user: User, act: Withdraw): Promise<{ spots: number }> {
  const today = await programmeToday(db);
  return asActor(db, user.name, async (trx) => {
    await lockSpots(trx, act.spotIds);
    const planted = act.withdrawn ? await plantedAmong(trx, act.spotIds) : [];
    if (planted.length > 0) {
      const names = planted.slice(0, 5).join(', ');
      throw new InvalidInputError(`spotIds must not hold planted trees, got ${planted.length}`, 'spotIds', {
        title: `${planted.length} of them are planted and cannot be withdrawn: ${names}${planted.length > 5 ? '…' : ''}`,
      });
    }
    const ids = await setWithdrawn(trx, act.spotIds, act.withdrawn ? today : null);
    if (ids.length !== new Set(act.spotIds).size) throw new NotFoundError('no such spot', 'spotIds');
    await bumpSpots(trx, ids, user.name);
    await deriveAndKeep(trx, ids);
    return { spots: ids.length };
  });
}

/** The list as a person sees it, with the columns they chose. Dates ISO, UTF-8, RFC 4180. */
export async function* listCsv(db: Knex, query: SpotCsvQuery): AsyncGenerator<string> {
  const today = await programmeToday(db);
  yield csvRow([...query.columns, 'lng', 'lat']);
  for await (const line of everyLine(db, query, today)) {
    yield csvRow([...query.columns.map((column) => line[column] ?? ''), ...line.position]);
  }
}
