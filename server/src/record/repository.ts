import { practiceSchema, type KeptRecord } from '@sombra/contract';
import {
  fieldDefault,
  type Decision,
  type FieldRecord,
  type Level,
  type Practice,
  type SpotLife,
  type Stage,
} from '@sombra/core';
import type { Db } from '../platform/db';

export interface RecordRow {
  id: string;
  kind: FieldRecord['kind'];
  spot_id: string;
  tree_id: string | null;
  facts: unknown;
  recorded_at: Date;
  received_at: Date;
  recorded_by: string;
  device: string;
  supersedes: string | null;
}

export interface NewRecord {
  readonly spotId: string;
  readonly treeId: string | null;
  readonly recordedBy: string;
  readonly device: string;
  readonly record: FieldRecord;
}

/** Facts were checked by the schema at the door before they were stored. */
export function recordOfRow(row: RecordRow): KeptRecord {
  return {
    id: row.id,
    kind: row.kind,
    facts: row.facts,
    supersedes: row.supersedes,
    recordedAt: row.recorded_at.toISOString(),
    receivedAt: row.received_at.toISOString(),
    recordedBy: row.recorded_by,
    device: row.device,
  } as KeptRecord;
}

/** Adds records that are not here yet. Returns the ids that were added. */
export async function insertRecords(db: Db, records: readonly NewRecord[]): Promise<Set<string>> {
  if (records.length === 0) return new Set();
  const rows = records.map(({ spotId, treeId, recordedBy, device, record }) => ({
    id: record.id,
    kind: record.kind,
    spot_id: spotId,
    tree_id: record.kind === 'ground' ? null : treeId,
    facts: JSON.stringify(record.facts),
    recorded_at: record.recordedAt,
    recorded_by: recordedBy,
    device,
    supersedes: record.supersedes,
  }));
  const added = await db('field_record').insert(rows).onConflict('id').ignore().returning<{ id: string }[]>('id');
  return new Set(added.map((row) => row.id));
}

export async function findRecord(db: Db, id: string): Promise<RecordRow | undefined> {
  return db<RecordRow>('field_record').where({ id }).first();
}

export async function isSuperseded(db: Db, id: string): Promise<boolean> {
  return (await db<RecordRow>('field_record').where({ supersedes: id }).first('id')) !== undefined;
}

export async function recordsOfSpots(db: Db, spotIds: readonly string[]): Promise<Map<string, KeptRecord[]>> {
  const rows = await db<RecordRow>('field_record')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .orderBy([{ column: 'recorded_at' }, { column: 'id' }]);
  const bySpot = new Map<string, KeptRecord[]>(spotIds.map((id) => [id, []]));
  for (const row of rows) bySpot.get(row.spot_id)?.push(recordOfRow(row));
  return bySpot;
}

/** The practice the programme works by now. */
export async function currentPractice(db: Db): Promise<Practice> {
  const row = await db('programme')
    .join('practice', (on) =>
      on.on('practice.id', 'programme.practice_id').andOn('practice.version', 'programme.practice_version'),
    )
    .first<{ body: unknown } | undefined>('practice.body');
  return row ? practiceSchema.parse(row.body) : fieldDefault;
}

export async function standingTrees(db: Db, spotIds: readonly string[]): Promise<Map<string, string>> {
  const rows = await db<{ id: string; spot_id: string; standing: boolean }>('tree')
    .where({ standing: true })
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .select('id', 'spot_id');
  return new Map(rows.map((row) => [row.spot_id, row.id]));
}

export interface DecisionRow {
  spot_id: string;
  position: number;
  tree_id: string | null;
  kind: Decision['kind'];
  stage: Stage;
  level: Level;
  due_on: string | null;
  remedy: Decision['remedy'];
  because: Decision['because'];
}

export interface StateRow {
  spot_id: string;
  stage: Stage;
  level: Level;
  next_look_on: string | null;
}

export interface DerivedSpot {
  readonly state: StateRow;
  readonly decisions: readonly DecisionRow[];
}

export function derivedOf(spotId: string, treeId: string | null, life: SpotLife): DerivedSpot {
  return {
    state: { spot_id: spotId, stage: life.stage, level: life.level, next_look_on: life.nextLook?.on ?? null },
    decisions: life.decisions.map((decision, position) => ({
      spot_id: spotId,
      position,
      tree_id: treeId,
      kind: decision.kind,
      stage: decision.stage,
      level: decision.level,
      due_on: decision.dueOn,
      remedy: decision.remedy,
      because: decision.because,
    })),
  };
}

export async function replaceDerived(db: Db, derived: readonly DerivedSpot[]): Promise<void> {
  if (derived.length === 0) return;
  const ids = derived.map(({ state }) => state.spot_id);
  await db('decision').whereRaw('spot_id = any(?::uuid[])', [ids]).delete();
  await db('spot_state')
    .insert(derived.map(({ state }) => state))
    .onConflict('spot_id')
    .merge();
  const decisions = derived
    .flatMap((spot) => spot.decisions)
    .map((row) => ({ ...row, because: JSON.stringify(row.because) }));
  if (decisions.length > 0) await db.batchInsert('decision', decisions, 1000);
}

export async function storedDerived(db: Db, spotIds: readonly string[]): Promise<Map<string, DerivedSpot>> {
  const states = await db<StateRow>('spot_state').whereRaw('spot_id = any(?::uuid[])', [[...spotIds]]);
  const decisions = await db<DecisionRow>('decision')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .orderBy([{ column: 'spot_id' }, { column: 'position' }]);
  const stored = new Map<string, { state: StateRow; decisions: DecisionRow[] }>();
  for (const state of states) stored.set(state.spot_id, { state, decisions: [] });
  for (const row of decisions) stored.get(row.spot_id)?.decisions.push(row);
  return stored;
}
