import type { ImportRow, KeptRecord } from '@sombra/contract';
import {
  ofKind,
  standing,
  type FieldRecord,
  type Inspection,
  type Practice,
  type RecordFacts,
  type RecordKind,
  type Stock,
} from '@sombra/core';
import { isDeepStrictEqual } from 'node:util';
import type { SpotRow as StoredSpot } from '../spots/repository';
import type { NewRecord } from '../record/repository';
import type { GoodRow } from './read-spot-file';

/** What one row of a file will write. */
export interface PlannedRow {
  readonly row: GoodRow;
  readonly spotId: string;
  readonly treeId: string;
  readonly verdict: 'new' | 'changed' | 'same';
  readonly writes: readonly string[];
  readonly updatesSpot: boolean;
  readonly records: readonly NewRecord[];
}

export interface PlanContext {
  readonly stored: ReadonlyMap<string, StoredSpot>;
  readonly records: ReadonlyMap<string, readonly KeptRecord[]>;
  readonly practice: Practice;
  readonly by: { readonly id: string; readonly name: string };
  readonly now: string;
  readonly newId: () => string;
}

/** A position moved by less than this is rounding in a file, not a move. Degrees, about 1 cm. */
const samePositionDeg = 1e-7;

/**
 * Compares a row with what is stored: records the file carries come first, by their own ids; then the
 * cells, where they say something other than the newest record, become a new record or a correction.
 */
export function planRow(row: GoodRow, context: PlanContext): PlannedRow {
  const { cells } = row;
  const stored = context.stored.get(cells.ref);
  const spotId = stored?.id ?? cells.spot_id ?? context.newId();
  const treeId = stored?.treeId ?? cells.tree_id ?? context.newId();
  const kept = stored ? (context.records.get(stored.id) ?? []) : [];
  const keptIds = new Set(kept.map((record) => record.id));
  const carried = cells.records
    .filter((record) => !keptIds.has(record.id))
    .map(({ recordedBy, device, ...record }): NewRecord => {
      // Records of years are taken as they are; none is from after the file was read.
      const happenedAt = Date.parse(record.recordedAt) > Date.parse(context.now) ? context.now : record.recordedAt;
      return { spotId, treeId, recordedBy, device, record, happened: { happenedAt, clock: 'kept' } };
    });
  const known: FieldRecord[] = [...kept, ...carried.map(({ record }) => record)];
  const changes = changedFacts(row, known, context).map((record): NewRecord => ({
    spotId,
    treeId,
    recordedBy: context.by.name,
    recordedById: context.by.id,
    device: 'file import',
    record,
  }));
  const records = [...carried, ...changes];
  const updatesSpot = stored !== undefined && differs(row, stored);
  const verdict = !stored ? 'new' : updatesSpot || records.length > 0 ? 'changed' : 'same';
  const kinds = new Set<string>(stored ? [] : ['spot']);
  if (updatesSpot) kinds.add('position or name');
  for (const { record } of records) kinds.add(record.kind);
  return { row, spotId, treeId, verdict, writes: [...kinds], updatesSpot, records };
}

function differs({ cells }: GoodRow, stored: StoredSpot): boolean {
  const moved =
    Math.abs(cells.lng - stored.lng) > samePositionDeg || Math.abs(cells.lat - stored.lat) > samePositionDeg;
  return moved || cells.place !== stored.place || (cells.species !== null && cells.species !== stored.species);
}

function changedFacts(row: GoodRow, known: readonly FieldRecord[], context: PlanContext): FieldRecord[] {
  const kept = standing(known);
  const { ground, planting, inspection } = row.facts;
  const changes: FieldRecord[] = [];
  const write = <K extends RecordKind>(kind: K, facts: RecordFacts[K], corrects: FieldRecord | undefined) => {
    const record = { id: context.newId(), kind, recordedAt: context.now, supersedes: corrects?.id ?? null, facts };
    changes.push(record as FieldRecord);
  };
  const current = <K extends 'ground' | 'stock' | 'planting'>(kind: K) => ofKind(kept, kind).at(-1);
  if (ground && !isDeepStrictEqual(current('ground')?.facts, ground)) write('ground', ground, current('ground'));
  const stock = row.facts.stock && withUnsaid(row.facts.stock, current('stock')?.facts);
  if (stock && !isDeepStrictEqual(current('stock')?.facts, stock)) write('stock', stock, current('stock'));
  if (planting) {
    const before = current('planting');
    const { id: practiceId, version: practiceVersion } = context.practice;
    const { stakes, putBackMm } = before?.facts ?? {};
    // Of the same planting all stays that a row has no column for; of another one what the pit was like.
    const unsaid =
      before?.facts.plantedOn === planting.plantedOn
        ? before.facts
        : { ...(stakes === undefined ? {} : { stakes }), ...(putBackMm === undefined ? {} : { putBackMm }) };
    const facts = {
      ...unsaid,
      ...planting,
      practiceId: before?.facts.practiceId ?? practiceId,
      practiceVersion: before?.facts.practiceVersion ?? practiceVersion,
    };
    if (!isDeepStrictEqual(before?.facts, facts)) write('planting', facts, before);
  }
  if (inspection) {
    const looks = ofKind(kept, 'inspection');
    const sameDay = looks.find((look) => look.facts.inspectedOn === inspection.inspectedOn);
    const look = lookWithUnsaid(inspection, sameDay?.facts);
    if (!isDeepStrictEqual(sameDay?.facts, look)) write('inspection', look, sameDay);
  }
  return changes;
}

/** A row has columns for some of what a look finds, and of each root for some: the rest stays as it is known. */
function lookWithUnsaid(look: Inspection, before: Inspection | undefined): Inspection {
  if (!before) return look;
  const circlingRoots = look.circlingRoots?.map((root) => {
    const same = before.circlingRoots?.find(
      ({ arc, diameterMm }) => diameterMm === root.diameterMm && isDeepStrictEqual(arc, root.arc),
    );
    return { ...same, ...root };
  });
  return { ...before, ...look, circlingRoots: circlingRoots ?? null };
}

/** Facts that may be left out stay as they are known where the row says nothing of them. */
function withUnsaid(stock: Stock, before: Stock | undefined): Stock {
  if (before?.kind !== stock.kind) return stock;
  if (stock.kind === 'bare_root' || before.kind === 'bare_root') return { ...before, ...stock };
  const { surplusLeftMm: left, ...rest } = before;
  return { ...rest, ...(left === undefined || left > stock.topRootsDepthMm ? {} : { surplusLeftMm: left }), ...stock };
}

export function importRow({ row, verdict, writes }: PlannedRow): ImportRow {
  const { ref, place, species } = row.cells;
  return { row: row.row, ref, place, species, verdict, writes: [...writes] };
}
