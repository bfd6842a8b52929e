import { storedFactsSchemas, type ClockQuestion, type KeptRecord } from '@sombra/contract';
import {
  pressesBy,
  recordTable,
  type ClockState,
  type Decision,
  type FieldRecord,
  type Happened,
  type IsoDate,
  type Level,
  type SpotPeriod,
  type Stage,
} from '@sombra/core';
import { isoMoment, type Db } from '../platform/db';
import { readStored } from '../platform/stored';

export interface RecordRow {
  id: string;
  kind: FieldRecord['kind'];
  spot_id: string;
  tree_id: string | null;
  facts: unknown;
  /** Moments as a row holds them, or as JSON does. */
  recorded_at: Date | string;
  /** What records are ordered by. */
  happened_at: Date | string;
  clock: ClockState;
  received_at: Date | string;
  recorded_by: string;
  recorded_by_id: string | null;
  device: string;
  supersedes: string | null;
}

export interface NewRecord {
  readonly spotId: string;
  readonly treeId: string | null;
  readonly recordedBy: string;
  readonly recordedById?: string;
  /** Its place in time; as the record says where nothing else is known. */
  readonly happened?: Happened;
  readonly device: string;
  readonly record: FieldRecord;
}

/** @throws StoredDataError where the facts are not what a door ever took */
export function recordOfRow(row: RecordRow): KeptRecord {
  return {
    id: row.id,
    kind: row.kind,
    facts: readStored(storedFactsSchemas[row.kind], row.facts, `${row.kind} ${row.id}`),
    supersedes: row.supersedes,
    recordedAt: isoMoment(row.happened_at),
    receivedAt: isoMoment(row.received_at),
    deviceSaid: isoMoment(row.recorded_at),
    clock: row.clock,
    recordedBy: row.recorded_by,
    recordedById: row.recorded_by_id,
    device: row.device,
  } as KeptRecord;
}

const rowsOfStatement = 1000;

const columnsOf = ({ spotId, treeId, recordedBy, recordedById, device, record, happened }: NewRecord) => ({
  id: record.id,
  kind: record.kind,
  spot_id: spotId,
  tree_id: recordTable[record.kind].of === 'place' ? null : treeId,
  facts: JSON.stringify(record.facts),
  recorded_at: record.recordedAt,
  happened_at: happened?.happenedAt ?? record.recordedAt,
  clock: happened?.clock ?? 'kept',
  recorded_by: recordedBy,
  recorded_by_id: recordedById ?? null,
  device,
  supersedes: record.supersedes,
});

/** Adds records that are not here yet. Returns the ids that were added. */
export async function insertRecords(db: Db, records: readonly NewRecord[]): Promise<Set<string>> {
  const rows = records.map(columnsOf);
  const added = new Set<string>();
  // A statement holds 65,535 values at most.
  for (let at = 0; at < rows.length; at += rowsOfStatement) {
    const part = rows.slice(at, at + rowsOfStatement);
    const kept = await db('field_record').insert(part).onConflict('id').ignore().returning<{ id: string }[]>('id');
    for (const { id } of kept) added.add(id);
  }
  return added;
}

/** Adds a record whose id is no other's. */
export async function insertRecord(db: Db, record: NewRecord): Promise<RecordRow> {
  const [row] = await db('field_record').insert(columnsOf(record)).returning<RecordRow[]>('*');
  return row as RecordRow;
}

export async function findRecord(db: Db, id: string): Promise<RecordRow | undefined> {
  return db<RecordRow>('field_record').where({ id }).first();
}

/** What asks for those of these ids that are records already. */
export const knownQuestion = (db: Db, ids: readonly string[]) =>
  db<RecordRow>('field_record').whereRaw('id = any(?::uuid[])', [[...ids]]);

/** Which of these ids are records already. */
export async function recordsThere(db: Db, ids: readonly string[]): Promise<Set<string>> {
  const rows = await db('field_record')
    .whereRaw('id = any(?::uuid[])', [[...ids]])
    .select<{ id: string }[]>('id');
  return new Set(rows.map(({ id }) => id));
}

/** What asks for the records of some spots, as they happened. */
export const recordsQuestion = (db: Db, spotIds: readonly string[]) =>
  db('field_record as made')
    .leftJoin('clock_answer as answer', 'answer.record_id', 'made.id')
    .whereRaw('made.spot_id = any(?::uuid[])', [[...spotIds]])
    .orderByRaw('coalesce(answer.happened_at, made.happened_at), made.id')
    .select(
      'made.id',
      'made.kind',
      'made.spot_id',
      'made.tree_id',
      'made.facts',
      'made.recorded_at',
      'made.received_at',
      'made.recorded_by',
      'made.recorded_by_id',
      'made.device',
      'made.supersedes',
      db.raw('coalesce(answer.happened_at, made.happened_at) as happened_at'),
      db.raw(`case when answer.record_id is null then made.clock else 'measured' end as clock`),
    );

export function recordsFrom(spotIds: readonly string[], rows: readonly unknown[]): Map<string, KeptRecord[]> {
  const bySpot = new Map<string, KeptRecord[]>(spotIds.map((id) => [id, []]));
  for (const row of rows as readonly RecordRow[]) bySpot.get(row.spot_id)?.push(recordOfRow(row));
  return bySpot;
}

export const recordsOfSpots = async (db: Db, spotIds: readonly string[]): Promise<Map<string, KeptRecord[]>> =>
  recordsFrom(spotIds, await recordsQuestion(db, spotIds));

export interface DecisionRow {
  spot_id: string;
  place_id: string;
  from_day: string;
  until_day: string | null;
  position: number;
  tree_id: string | null;
  kind: Decision['kind'];
  stage: Stage;
  level: Level;
  due_on: string | null;
  remedy: Decision['remedy'];
  because: Decision['because'];
}

export interface PeriodRow {
  spot_id: string;
  from_day: string;
  until_day: string | null;
  stage: Stage;
  level: Level;
  planted_on: string | null;
  established_on: string | null;
  looked_on: string | null;
  probe: string | null;
  next_look_on: string | null;
  decisions: number;
  due_on: string | null;
  crown_m: number | null;
  lng: number;
  lat: number;
  ref: string;
}

export interface DerivedSpot {
  readonly spotId: string;
  readonly periods: readonly PeriodRow[];
  readonly decisions: readonly DecisionRow[];
}

/** What a derivation needs of a spot besides its records. */
export interface SpotGround {
  readonly id: string;
  readonly ref: string;
  readonly placeId: string;
  readonly treeId: string | null;
  readonly addedOn: string;
  readonly withdrawnOn: string | null;
  readonly lng: number;
  readonly lat: number;
}

export const groundsQuestion = (db: Db, spotIds: readonly string[]) =>
  db('spot')
    .leftJoin('tree', (on) => on.on('tree.spot_id', 'spot.id').andOn('tree.standing', db.raw('true')))
    .whereRaw('spot.id = any(?::uuid[])', [[...spotIds]])
    .select<SpotGround[]>(
      'spot.id',
      'spot.ref',
      'spot.place_id as placeId',
      'tree.id as treeId',
      'spot.added_on as addedOn',
      'spot.withdrawn_on as withdrawnOn',
      db.raw('st_x(spot.position) as lng'),
      db.raw('st_y(spot.position) as lat'),
    );

export const spotGrounds = async (db: Db, spotIds: readonly string[]): Promise<SpotGround[]> =>
  groundsQuestion(db, spotIds);

/** The rows of a spot's periods; those after it was withdrawn are left out. */
export function derivedOf(spot: SpotGround, periods: readonly SpotPeriod[]): DerivedSpot {
  const { withdrawnOn } = spot;
  const lived = periods.filter(({ fromDay }) => withdrawnOn === null || fromDay <= withdrawnOn);
  return {
    spotId: spot.id,
    periods: lived.map((period) => periodRow(spot, period)),
    decisions: lived.flatMap((period) =>
      period.life.decisions.map((decision, position) => decisionRow(spot, period, decision, position)),
    ),
  };
}

/** It ends with the spot at the latest. */
function untilOf({ withdrawnOn }: SpotGround, { untilDay }: SpotPeriod): IsoDate | null {
  if (untilDay === null || withdrawnOn === null) return untilDay ?? withdrawnOn;
  return untilDay < withdrawnOn ? untilDay : withdrawnOn;
}

export function periodRow(spot: SpotGround, period: SpotPeriod): PeriodRow {
  const { life, position, plantedOn, establishedOn, lookedOn, probe, crownM } = period;
  const last = life.decisions
    .filter(pressesBy)
    .map(({ dueOn }) => dueOn)
    .filter((day) => day !== null);
  return {
    spot_id: spot.id,
    from_day: period.fromDay,
    until_day: untilOf(spot, period),
    stage: life.stage,
    level: life.level,
    planted_on: plantedOn,
    established_on: establishedOn,
    looked_on: lookedOn,
    probe,
    next_look_on: life.nextLook?.on ?? null,
    decisions: life.decisions.length,
    due_on: last.sort()[0] ?? null,
    crown_m: crownM,
    lng: position[0],
    lat: position[1],
    ref: spot.ref,
  };
}

export function decisionRow(spot: SpotGround, period: SpotPeriod, decision: Decision, position: number): DecisionRow {
  return {
    spot_id: spot.id,
    from_day: period.fromDay,
    until_day: untilOf(spot, period),
    place_id: spot.placeId,
    position,
    tree_id: spot.treeId,
    kind: decision.kind,
    stage: decision.stage,
    level: decision.level,
    due_on: decision.dueOn,
    remedy: decision.remedy,
    because: decision.because,
  };
}

const periodColumns = [
  'spot_id',
  'from_day',
  'until_day',
  'stage',
  'level',
  'planted_on',
  'established_on',
  'looked_on',
  'probe',
  'next_look_on',
  'decisions',
  'due_on',
  'crown_m',
  'lng',
  'lat',
  'ref',
] as const satisfies readonly (keyof PeriodRow)[];
const decisionColumns = [
  'spot_id',
  'from_day',
  'position',
  'place_id',
  'until_day',
  'tree_id',
  'kind',
  'stage',
  'level',
  'due_on',
  'remedy',
  'because',
] as const satisfies readonly (keyof DecisionRow)[];

/**
 * What is kept and is not among the fresh rows as it is. Compared as text in one set that is made once, whatever the
 * database guesses of how many rows there are.
 */
const deleteOutdated = (table: string, columns: readonly string[]) => `
  delete from ${table} where spot_id = any((:ids)::uuid[]) and row(${columns.join(', ')})::text not in (
    select row(${columns.join(', ')})::text from json_populate_recordset(null::${table}, (:fresh_${table})::json))
  returning spot_id`;
/** The fresh rows whose key is not kept. */
const insertMissing = (table: string, columns: readonly string[]) => `
  insert into ${table} (${columns.join(', ')})
  select ${columns.join(', ')} from json_populate_recordset(null::${table}, (:fresh_${table})::json)
  on conflict do nothing returning spot_id`;
const inBoth = (act: typeof deleteOutdated) => `
  with periods as (${act('spot_period', periodColumns)}), decisions as (${act('decision', decisionColumns)})
  select spot_id from periods union select spot_id from decisions`;

/**
 * Keeps what was derived in the place of what is kept of these spots. Both are compared in the database, so that only what
 * differs is written and nothing is read here.
 * @returns the ids of the spots of which something differed
 */
export async function keepDerived(db: Db, derived: readonly DerivedSpot[]): Promise<Set<string>> {
  const given = {
    ids: derived.map(({ spotId }) => spotId),
    fresh_spot_period: JSON.stringify(derived.flatMap((spot) => spot.periods)),
    fresh_decision: JSON.stringify(derived.flatMap((spot) => spot.decisions)),
  };
  const changed = new Set<string>();
  // One after the other: a row in the place of another is written once that one is gone.
  for (const statement of [inBoth(deleteOutdated), inBoth(insertMissing)]) {
    const { rows } = await db.raw<{ rows: { spot_id: string }[] }>(statement, given);
    for (const { spot_id } of rows) changed.add(spot_id);
  }
  return changed;
}

/** A notice that these spots changed; more than fit into one are "many". */
export const changed = (spotIds: readonly string[]): string =>
  // A notice carries 8000 bytes at most.
  JSON.stringify({ spots: spotIds.length <= 100 ? spotIds : null });

/** Tells everybody who is looking that these spots changed, once the transaction is committed. */
export async function announce(db: Db, spotIds: readonly string[]): Promise<void> {
  await db.raw(`select pg_notify('sombra_changed', ?)`, [changed(spotIds)]);
}

/** Says that what follows from the records of every spot may have changed. */
export async function announceAll(db: Db): Promise<void> {
  await db.raw(`select pg_notify('sombra_changed', ?)`, [JSON.stringify({ spots: null })]);
}

export interface DerivedBy {
  /** What all spots were derived by; those up to `atSpot` by the newest already. */
  readonly version: number;
  readonly atSpot: string | null;
}

export async function derivedBy(db: Db): Promise<DerivedBy> {
  const row = await db('derived_by').first<DerivedBy | undefined>('version', 'at_spot as atSpot');
  return row ?? { version: 0, atSpot: null };
}

export async function setDerivedVersion(db: Db, version: number): Promise<void> {
  await db('derived_by').insert({ only_one: true, version, at_spot: null }).onConflict('only_one').merge();
}

/** Held to the end of the act. Returns false where somebody moved it first, or asks for everything anew. */
export async function moveDerived(db: Db, from: DerivedBy, to: DerivedBy): Promise<boolean> {
  await db('derived_by').insert({ only_one: true, version: 0 }).onConflict('only_one').ignore();
  const moved = await db('derived_by')
    .where({ version: from.version })
    .whereRaw('at_spot is not distinct from ?::uuid', [from.atSpot])
    .update({ version: to.version, at_spot: to.atSpot });
  return moved > 0;
}

interface AskedRow {
  id: string;
  kind: FieldRecord['kind'];
  spot_id: string;
  ref: string;
  recorded_by: string;
  device: string;
  recorded_at: Date;
  received_at: Date;
}

/** Records the desk is asked about, unanswered and not corrected since; the oldest hundred. */
export async function askedRecords(db: Db): Promise<ClockQuestion[]> {
  const rows = await db('field_record as made')
    .join('spot', 'spot.id', 'made.spot_id')
    .where('made.clock', 'asked')
    .whereNotExists(db('clock_answer').whereRaw('record_id = made.id').select(db.raw('1')))
    .whereNotExists(db('field_record as later').whereRaw('later.supersedes = made.id').select(db.raw('1')))
    .orderBy('made.received_at')
    .limit(100)
    .select<AskedRow[]>('made.*', 'spot.ref');
  return rows.map((row) => ({
    recordId: row.id,
    kind: row.kind,
    spotId: row.spot_id,
    ref: row.ref,
    recordedBy: row.recorded_by,
    device: row.device,
    deviceSaid: row.recorded_at.toISOString(),
    receivedAt: row.received_at.toISOString(),
  }));
}

/** Returns false where it was answered before. */
export async function insertClockAnswer(
  db: Db,
  { recordId, happenedAt, by }: { recordId: string; happenedAt: string; by: string },
): Promise<boolean> {
  const added = await db('clock_answer')
    .insert({ record_id: recordId, happened_at: happenedAt, answered_by: by })
    .onConflict('record_id')
    .ignore()
    .returning<{ record_id: string }[]>('record_id');
  return added.length > 0;
}
