import type { Knex } from 'knex';
import type { Db } from '../platform/db';

export interface SpotRow {
  readonly id: string;
  readonly ref: string;
  readonly place: string;
  readonly lng: number;
  readonly lat: number;
  readonly version: number;
  readonly treeId: string | null;
  readonly species: string | null;
  readonly addedOn: string;
  readonly withdrawnOn: string | null;
}

/** Joins to each spot of a query the tree that stands on it, if one does. */
export const withStandingTree = (db: Db, query: Knex.QueryBuilder): Knex.QueryBuilder =>
  query.leftJoin('tree', (on) => on.on('tree.spot_id', 'spot.id').andOn('tree.standing', db.raw('true')));

function spotQuery(db: Db) {
  return withStandingTree(db, db('spot').join('place', 'place.id', 'spot.place_id')).select<SpotRow[]>(
    'spot.id',
    'spot.ref',
    'place.name as place',
    db.raw('st_x(spot.position) as lng'),
    db.raw('st_y(spot.position) as lat'),
    'spot.version',
    'tree.id as treeId',
    'tree.species',
    'spot.added_on as addedOn',
    'spot.withdrawn_on as withdrawnOn',
  );
}

export async function findSpot(db: Db, id: string): Promise<SpotRow | undefined> {
  return (await spotQuestion(db, id))[0];
}

export const spotQuestion = (db: Db, id: string) => spotQuery(db).where('spot.id', id);

/** Where a tree stands, or stood. */
export async function placeOfTree(db: Db, treeId: string): Promise<{ spotId: string; standing: boolean } | undefined> {
  return db('tree')
    .where({ id: treeId })
    .first<{ spotId: string; standing: boolean } | undefined>('spot_id as spotId', 'standing');
}

export async function spotsByRef(db: Db, refs: readonly string[]): Promise<SpotRow[]> {
  // Joined, not compared with a list: PostgreSQL walks a list of thousands anew for each spot.
  return spotQuery(db).joinRaw('join unnest(?::text[]) as asked (ref) on asked.ref = spot.ref', [[...new Set(refs)]]);
}

/** Every spot, in the order acts lock spots in. */
export async function allSpotIds(db: Db): Promise<string[]> {
  return db('spot').orderBy('id').pluck('id');
}

/** The numbers of spots; those that are not there are left out. */
export async function refsOf(db: Db, ids: readonly string[]): Promise<{ id: string; ref: string }[]> {
  return db('spot')
    .whereRaw('id = any(?::uuid[])', [[...ids]])
    .select<{ id: string; ref: string }[]>('id', 'ref');
}

/** Ids of spots after one, in the order acts lock spots in. */
export async function spotsAfterId(db: Db, after: string | null, limit: number): Promise<string[]> {
  const rows = db('spot').orderBy('id').limit(limit);
  return (after === null ? rows : rows.where('id', '>', after)).pluck('id');
}

/** How many spots there are, and how many of them up to one in the order acts lock spots in; none where it is `null`. */
export async function countUpTo(db: Db, upTo: string | null): Promise<{ done: number; of: number }> {
  const { rows } = await db.raw<{ rows: { done: number; of: number }[] }>(
    'select count(*) filter (where id <= ?::uuid)::int as done, count(*)::int as of from spot',
    [upTo],
  );
  return rows[0] ?? { done: 0, of: 0 };
}

/** Spots after a ref, in ref order: for exports that stream. */
export async function spotsAfter(db: Db, ref: string, limit: number): Promise<SpotRow[]> {
  return spotQuery(db).where('spot.ref', '>', ref).orderBy('spot.ref').limit(limit);
}

export interface LockedSpot {
  readonly id: string;
  readonly version: number;
  readonly changedBy: string;
  readonly treeId: string | null;
}

/** Takes the row lock that puts acts on one spot in order. */
export async function lockSpot(trx: Db, id: string): Promise<LockedSpot | undefined> {
  return (await lockSpots(trx, [id])).get(id);
}

/**
 * Takes the row locks of several spots, always in one order, so that two acts never wait for each other.
 * @returns those that are there, by id
 */
export async function lockSpots(trx: Db, ids: readonly string[]): Promise<Map<string, LockedSpot>> {
  const rows = await rowLocks(trx, ids);
  // Asked once the locks are held: the tree that stands there now, not the one that stood there while waiting.
  return lockedFrom(rows, await standingQuestion(trx, ids));
}

interface LockRow {
  readonly id: string;
  readonly version: number;
  readonly changed_by: string;
}

/** The row locks alone; which trees stand there is asked afterwards. */
export async function rowLocks(trx: Db, ids: readonly string[]): Promise<LockRow[]> {
  return trx('spot')
    .whereRaw('id = any(?::uuid[])', [[...ids]])
    .orderBy('id')
    .forUpdate()
    .select<LockRow[]>('id', 'version', 'changed_by');
}

/** What asks for the trees that stand at these spots. */
export const standingQuestion = (db: Db, ids: readonly string[]) =>
  db('tree')
    .where({ standing: true })
    .whereRaw('spot_id = any(?::uuid[])', [[...ids]])
    .select<StandingTree[]>('id', 'spot_id');

interface StandingTree {
  readonly id: string;
  readonly spot_id: string;
}

export function lockedFrom(rows: readonly LockRow[], trees: readonly unknown[]): Map<string, LockedSpot> {
  const treeOf = new Map((trees as readonly StandingTree[]).map(({ id, spot_id }) => [spot_id, id]));
  return new Map(
    rows.map(({ id, version, changed_by: changedBy }) => [
      id,
      { id, version, changedBy, treeId: treeOf.get(id) ?? null },
    ]),
  );
}

export async function bumpSpot(trx: Db, id: string, by: string): Promise<number> {
  const [row] = await trx('spot')
    .where({ id })
    .update({ version: trx.raw('version + 1'), changed_at: trx.fn.now(), changed_by: by })
    .returning<{ version: number }[]>('version');
  return row?.version ?? 0;
}

export async function bumpSpots(trx: Db, ids: readonly string[], by: string): Promise<void> {
  await trx('spot')
    .whereRaw('id = any(?::uuid[])', [[...ids]])
    .update({ version: trx.raw('version + 1'), changed_at: trx.fn.now(), changed_by: by });
}

/** Ids of the places with these names; unknown ones are made. */
export async function placeIds(trx: Db, names: readonly string[], newId: () => string): Promise<Map<string, string>> {
  const unique = [...new Set(names)];
  if (unique.length > 0) {
    await trx('place')
      .insert(unique.map((name) => ({ id: newId(), name })))
      .onConflict('name')
      .ignore();
  }
  const rows = await trx('place')
    .whereRaw('name = any(?::text[])', [unique])
    .select<{ id: string; name: string }[]>('id', 'name');
  return new Map(rows.map((row) => [row.name, row.id]));
}

export interface NewSpot {
  readonly id: string;
  /** The day it came into the programme. */
  readonly addedOn: string;
  readonly withdrawnOn?: string | null;
  readonly ref: string;
  readonly placeId: string;
  readonly lng: number;
  readonly lat: number;
  readonly treeId: string;
  readonly species: string | null;
}

const rowOf = (trx: Db, spot: NewSpot, by: string) => ({
  id: spot.id,
  ref: spot.ref,
  place_id: spot.placeId,
  added_on: spot.addedOn,
  withdrawn_on: spot.withdrawnOn ?? null,
  position: trx.raw('st_setsrid(st_makepoint(?, ?), 4326)', [spot.lng, spot.lat]),
  changed_by: by,
});

export async function insertSpots(trx: Db, spots: readonly NewSpot[], by: string): Promise<void> {
  if (spots.length === 0) return;
  await trx('spot').insert(spots.map((spot) => rowOf(trx, spot, by)));
  await trx('tree').insert(spots.map((spot) => ({ id: spot.treeId, spot_id: spot.id, species: spot.species })));
}

/** Returns false where its number is another spot's by now. */
export async function insertNewSpot(trx: Db, spot: NewSpot, by: string): Promise<boolean> {
  const added = await trx('spot')
    .insert(rowOf(trx, spot, by))
    .onConflict('ref')
    .ignore()
    .returning('id');
  if (added.length === 0) return false;
  await trx('tree').insert({ id: spot.treeId, spot_id: spot.id, species: spot.species });
  return true;
}

export async function updateSpot(
  trx: Db,
  spot: { id: string; placeId: string; lng: number; lat: number; treeId: string | null; species: string | null },
): Promise<void> {
  await trx('spot')
    .where({ id: spot.id })
    .update({
      place_id: spot.placeId,
      position: trx.raw('st_setsrid(st_makepoint(?, ?), 4326)', [spot.lng, spot.lat]),
    });
  if (spot.treeId) await trx('tree').where({ id: spot.treeId }).update({ species: spot.species });
}

/** Sets a spot elsewhere; the record that says why is written by the caller. */
export async function placeSpot(trx: Db, id: string, [lng, lat]: readonly [number, number]): Promise<void> {
  await trx('spot')
    .where({ id })
    .update({ position: trx.raw('st_setsrid(st_makepoint(?, ?), 4326)', [lng, lat]) });
}

/** Ids among these already used by spots or trees. */
export async function takenIds(db: Db, ids: readonly string[]): Promise<Set<string>> {
  const rows = await db
    .select<{ id: string }[]>('id')
    .from('spot')
    .whereRaw('id = any(?::uuid[])', [[...ids]])
    .unionAll(
      db
        .select('id')
        .from('tree')
        .whereRaw('id = any(?::uuid[])', [[...ids]]),
    );
  return new Set(rows.map((row) => row.id));
}

/** The tree of a spot is gone: the next one is to come. */
export async function replaceTree(trx: Db, { spotId, newId }: { spotId: string; newId: string }): Promise<void> {
  await trx('tree').where({ spot_id: spotId, standing: true }).update({ standing: false });
  await trx('tree').insert({ id: newId, spot_id: spotId });
}

/** It was not gone after all; false where something was recorded of the one that came after. */
export async function treeStandsAgain(
  trx: Db,
  { spotId, treeId }: { spotId: string; treeId: string },
): Promise<boolean> {
  const next = await trx('tree').where({ spot_id: spotId, standing: true }).first<{ id: string } | undefined>('id');
  const known =
    next && (await trx('field_record').where({ tree_id: next.id }).whereNot({ kind: 'retraction' }).first('id'));
  if (known) return false;
  await trx('tree').where({ spot_id: spotId, standing: true }).update({ standing: false });
  await trx('tree').where({ id: treeId }).update({ standing: true });
  return true;
}

export async function setSpecies(trx: Db, treeId: string, species: string | null): Promise<void> {
  await trx('tree').where({ id: treeId }).update({ species });
}
