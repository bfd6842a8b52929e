import { practiceSchema, type KeptRecord } from '@sombra/contract';
import { fieldDefault, ofKind, presetIds, presets, standing, type Practice } from '@sombra/core';
import type { Db } from '../platform/db';
import { readOnce, writtenHere } from '../platform/kept-versions';
import { readStored } from '../platform/stored';

interface PracticeRow {
  id: string;
  version: number;
  body: unknown;
  made_by: string;
}

/** Plantings of a place under one practice. */
export interface PlantedUnder {
  readonly placeId: string;
  readonly practiceId: string;
  readonly count: number;
}

/** @param places those of these places alone; all where it is `null` */
export async function plantings(db: Db, places: readonly string[] | null): Promise<PlantedUnder[]> {
  const query = db('field_record as made').join('spot', 'spot.id', 'made.spot_id').where('made.kind', 'planting');
  if (places) void query.whereRaw('spot.place_id = any(?::uuid[])', [[...places]]);
  return query
    .groupByRaw(`spot.place_id, made.facts->>'practiceId'`)
    .select<PlantedUnder[]>(
      'spot.place_id as placeId',
      db.raw(`made.facts->>'practiceId' as "practiceId"`),
      db.raw('count(*)::int as count'),
    );
}

/** The newest version of each practice the programme made itself. */
export async function ownPractices(db: Db): Promise<{ practice: Practice; madeBy: string }[]> {
  const { rows } = await db.raw<{ rows: PracticeRow[] }>(
    'select distinct on (id) id, version, body, made_by from practice order by id, version desc',
  );
  return rows
    .filter(({ id }) => !presetIds.has(id))
    .map((row) => ({
      practice: readStored(practiceSchema, row.body, `practice ${row.id}`),
      madeBy: row.made_by,
    }));
}

/** A version of a practice as it is kept, else as it is shipped. */
export async function findPractice(db: Db, id: string, version: number): Promise<Practice | undefined> {
  return (await keptPractice(db, id, version)) ?? presets.find((one) => one.id === id && one.version === version);
}

async function keptPractice(db: Db, id: string, version: number): Promise<Practice | undefined> {
  const key = `practice ${shelfKey(id, version)}`;
  return readOnce(db, key, async () => {
    const row = await db('practice')
      .where({ id, version })
      .first<{ body: unknown; mine: boolean } | undefined>('body', writtenHere(db));
    return row && { value: readStored(practiceSchema, row.body, key), mine: row.mine };
  });
}

/** The newest version kept or shipped; 0 where there is none. */
export async function newestVersion(db: Db, id: string): Promise<number> {
  const row = await db('practice').where({ id }).max<{ max: number | null }>('version as max').first();
  return Math.max(row?.max ?? 0, presets.find((one) => one.id === id)?.version ?? 0);
}

/** Returns false where the version is taken by now. */
export async function insertPractice(db: Db, practice: Practice, by: string): Promise<boolean> {
  const { id, version } = practice;
  const added = await db('practice')
    .insert({ id, version, body: JSON.stringify(practice), made_by: by })
    .onConflict(['id', 'version'])
    .ignore()
    .returning<{ id: string }[]>('id');
  return added.length > 0;
}

export async function setProgrammePractice(db: Db, { id, version }: { id: string; version: number }): Promise<void> {
  await db('programme').update({ practice_id: id, practice_version: version });
}

/** Spots whose tree was planted on soil that was put back under it. */
export async function spotsOnPutBack(db: Db): Promise<string[]> {
  return db('field_record')
    .where({ kind: 'planting' })
    .whereRaw("(facts->>'putBackMm')::double precision > 0")
    .distinct()
    .pluck('spot_id');
}

// Adoption: while it runs, spots up to `at_spot` go by the practice that is adopted, the others by the programme's

interface AdoptionRow {
  practice_id: string;
  practice_version: number;
  at_spot: string | null;
  running: boolean;
  back: boolean;
  asked_by: string;
}

export interface KeptAdoption {
  readonly id: string;
  readonly version: number;
  readonly atSpot: string | null;
  /** Somebody is at it just now; one that has not moved for a minute is not. */
  readonly alive: boolean;
  /** Nobody gave it up. */
  readonly running: boolean;
  /** It is being taken back. */
  readonly back: boolean;
  readonly askedBy: string;
}

const adoptionOf = (row: AdoptionRow & { alive: boolean }): KeptAdoption => ({
  id: row.practice_id,
  version: row.practice_version,
  atSpot: row.at_spot,
  alive: row.alive,
  running: row.running,
  back: row.back,
  askedBy: row.asked_by,
});

const adoptionQuery = (db: Db) =>
  db('adoption').select<(AdoptionRow & { alive: boolean })[]>(
    'adoption.*',
    db.raw(`running and beat_at > now() - interval '1 minute' as alive`),
  );

export async function findAdoption(db: Db): Promise<KeptAdoption | undefined> {
  const [row] = await adoptionQuery(db);
  return row && adoptionOf(row);
}

export async function lockAdoption(trx: Db): Promise<KeptAdoption | undefined> {
  const [row] = await adoptionQuery(trx).forUpdate();
  return row && adoptionOf(row);
}

/** Returns false where another one was begun first. */
export async function insertAdoption(db: Db, { id, version }: Version, by: string, runId: string): Promise<boolean> {
  const added = await db('adoption')
    .insert({ practice_id: id, practice_version: version, running: true, run_id: runId, asked_by: by })
    .onConflict('only_one')
    .ignore()
    .returning('only_one');
  return added.length > 0;
}

export async function takeAdoptionOver(db: Db, runId: string, back: boolean): Promise<void> {
  await db('adoption').update({ running: true, back, run_id: runId, beat_at: db.fn.now() });
}

/** Gives it up for whoever is at it: their next chunk finds that it is theirs no more. */
export async function takeAdoptionFrom(db: Db, runId: string): Promise<void> {
  await db('adoption').update({ running: false, run_id: runId });
}

/** Moves the border between the two practices. Returns false where another run has taken over. */
export async function moveBorder(db: Db, runId: string, atSpot: string | null): Promise<boolean> {
  return (await db('adoption').where({ run_id: runId }).update({ at_spot: atSpot, beat_at: db.fn.now() })) > 0;
}

/** Says that nobody is at it any more, if it has not ended. */
export async function leaveAdoption(db: Db, runId: string): Promise<void> {
  await db('adoption').where({ run_id: runId }).update({ running: false });
}

export async function dropAdoption(db: Db): Promise<void> {
  await db('adoption').delete();
}

/** The spots on the near side of the border, the last of them first. */
export async function spotsUpTo(db: Db, upTo: string, limit: number): Promise<string[]> {
  return db('spot').where('id', '<=', upTo).orderBy('id', 'desc').limit(limit).pluck('id');
}

/** No spot is added while this is held, and none is being added. */
export async function holdSpots(trx: Db): Promise<void> {
  await trx.raw('lock table spot in share mode');
}

/** What does not get its locks in this time gives way. */
export async function setWaitingLimit(trx: Db, seconds: number): Promise<void> {
  await trx.raw(`select set_config('lock_timeout', ?, true)`, [`${seconds}s`]);
}

interface Version {
  readonly id: string;
  readonly version: number;
}
export async function programmePractice(db: Db): Promise<Version> {
  const row = await db('programme').first<{ practice_id: string; practice_version: number } | undefined>(
    'practice_id',
    'practice_version',
  );
  return row ? { id: row.practice_id, version: row.practice_version } : fieldDefault;
}

// What holds for the programme and its spots

/** The practice the programme works by now. */
export async function currentPractice(db: Db): Promise<Practice> {
  const { id, version } = await programmePractice(db);
  return (await findPractice(db, id, version)) ?? fieldDefault;
}

/** Practices by id and version. */
export type Shelf = ReadonlyMap<string, Practice>;
const shelfKey = (id: string, version: number): string => `${id}@${version}`;

/**
 * Every version of a practice that trees may have been planted under.
 * @param count how many are kept: they are added, and never changed
 */
export async function practiceShelf(db: Db, count: number): Promise<Shelf> {
  const shipped = presets.map((practice): [string, Practice] => [shelfKey(practice.id, practice.version), practice]);
  const shelf = await readOnce<Shelf>(db, `shelf of ${count}`, async () => {
    const rows = await db('practice').select<(Version & { body: unknown; mine: boolean })[]>(
      'id',
      'version',
      'body',
      writtenHere(db),
    );
    const kept = rows.map((row): [string, Practice] => [
      shelfKey(row.id, row.version),
      readStored(practiceSchema, row.body, `practice ${row.id}@${row.version}`),
    ]);
    return { value: new Map([...shipped, ...kept]), mine: rows.some(({ mine }) => mine) };
  });
  return shelf ?? new Map(shipped);
}

/** The practice the tree of these records was planted under; `undefined` before planting. */
export function plantedUnder(records: readonly KeptRecord[], shelf: Shelf): Practice | undefined {
  const planting = ofKind(standing(records), 'planting').at(-1)?.facts;
  return planting && shelf.get(shelfKey(planting.practiceId, planting.practiceVersion));
}
