import type { ImportPreview, ImportProgress, RowIssue, User } from '@sombra/contract';
import { ConflictError, InvalidInputError } from '@sombra/core';
import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import { requireCover } from '../ground/leave-service';
import { bumpSpots, insertSpots, lockSpots, placeIds, spotsByRef, takenIds, updateSpot } from '../spots/repository';
import { asActor, isTaken, oneAtATime, type Db } from '../platform/db';
import { deriveAndKeep } from '../record/derive';
import { insertRecords, recordsOfSpots } from '../record/repository';
import { findImport, insertImport, type Counts } from './repository';
import { importRow, planRow, type PlannedRow } from './plan-import';
import { readSpotFile, type GoodRow, type ReadFile } from './read-spot-file';
import { programmeToday } from '../programme/today';
import { currentPractice } from '../practice/repository';

/** Rows written between two signs of progress. */
const chunkRows = 250;

/** What a file would do, row by row. Writes nothing. @throws InvalidInputError for a file that cannot be read. */
export async function previewImport(
  db: Knex,
  user: User,
  file: { bytes: Uint8Array; fileName: string },
): Promise<ImportPreview> {
  const read = readSpotFile(file.bytes, file.fileName);
  const { planned, uncovered } = await coveredRows(db, await planRows(db, user, read.good));
  const bad = [...read.bad, ...uncovered.map(({ row, ref }): [number, string] => [row, ref])].map(([row, ref]) => ({
    row,
    ref,
    place: '',
    species: null,
    verdict: 'bad' as const,
    writes: [],
  }));
  const rows = [...planned.map(importRow), ...bad].sort((a, b) => a.row - b.row);
  const counts = { new: 0, changed: 0, same: 0, bad: 0 };
  for (const row of rows) counts[row.verdict] += 1;
  return {
    fileName: file.fileName,
    rows,
    issues: [...read.issues, ...uncovered.map(({ issue }) => issue)],
    counts,
    ignoredColumns: [...read.ignoredColumns],
  };
}

export interface ImportRun {
  readonly id: string;
  readonly fileName: string;
  readonly bytes: Uint8Array;
  /** Cancelled while running: everything is rolled back. */
  readonly signal: AbortSignal;
  readonly onProgress: (progress: ImportProgress) => void;
}

/** Writes the good rows of a file as one transaction. The same act sent twice is done once. */
export async function runImport(db: Knex, user: User, run: ImportRun): Promise<void> {
  const read = readSpotFile(run.bytes, run.fileName);
  const act = () => writeFile(db, user, run, read);
  // Somebody added a spot of the file on the map meanwhile: read against that one, it says something new or the same.
  const done = await act().catch((error: unknown) => {
    if (!isTaken(error)) throw error;
    return act();
  });
  run.onProgress({ kind: 'done', written: done.written, same: done.same, bad: done.bad });
}

function writeFile(db: Knex, user: User, run: ImportRun, read: ReadFile): Promise<Counts> {
  return asActor(db, user.name, async (trx) => {
    // One import at a time: two files naming the same new spot must see each other.
    await oneAtATime(trx, 'import');
    return (await findImport(trx, run.id)) ?? write(trx, user, run, read);
  });
}

async function write(trx: Knex.Transaction, user: User, run: ImportRun, read: ReadFile): Promise<Counts> {
  // Held before they are read: what is planned is planned against what is there when it is written.
  const known = await spotsByRef(
    trx,
    read.good.map(({ cells }) => cells.ref),
  );
  await lockSpots(
    trx,
    known.map(({ id }) => id),
  );
  const { planned, uncovered } = await coveredRows(trx, await planRows(trx, user, read.good));
  const changing = planned.filter(({ verdict }) => verdict !== 'same');
  await requireFreeIds(trx, changing);
  for (let at = 0; at < changing.length; at += chunkRows) {
    if (run.signal.aborted)
      throw new InvalidInputError('the import was cancelled', 'file', {
        title: 'The import was cancelled; nothing was stored',
      });
    await writeChunk(trx, user.name, changing.slice(at, at + chunkRows));
    run.onProgress({ kind: 'progress', done: Math.min(changing.length, at + chunkRows), of: changing.length });
  }
  const counts = {
    written: changing.length,
    same: planned.length - changing.length,
    bad: read.bad.size + uncovered.length,
  };
  await insertImport(trx, { id: run.id, fileName: run.fileName, by: user.name }, counts);
  return counts;
}

interface Uncovered {
  readonly row: number;
  readonly ref: string;
  readonly issue: RowIssue;
}

/** Parts from the planned rows those that would plant where nobody may dig: a file is no way round the ticket. */
async function coveredRows(
  db: Db,
  rows: readonly PlannedRow[],
): Promise<{ planned: PlannedRow[]; uncovered: Uncovered[] }> {
  const planned: PlannedRow[] = [];
  const uncovered: Uncovered[] = [];
  for (const one of rows) {
    const { row, ref } = { row: one.row.row, ref: one.row.cells.ref };
    const message = await uncoveredWhy(db, one);
    if (message === null) planned.push(one);
    else uncovered.push({ row, ref, issue: { row, column: 'planted_on', message } });
  }
  return { planned, uncovered };
}

async function uncoveredWhy(db: Db, { row, records, spotId, verdict }: PlannedRow): Promise<string | null> {
  const position: [number, number] = [row.cells.lng, row.cells.lat];
  for (const { record } of records) {
    if (record.kind !== 'planting') continue;
    try {
      await requireCover(db, verdict === 'new' ? { position } : { spotId }, record.facts);
    } catch (error) {
      if (!(error instanceof InvalidInputError)) throw error;
      return error.message.replace(`${error.path} `, '');
    }
  }
  return null;
}

async function requireFreeIds(trx: Db, planned: readonly PlannedRow[]): Promise<void> {
  const fresh = planned.filter(({ verdict }) => verdict === 'new');
  const taken = await takenIds(
    trx,
    fresh.flatMap(({ spotId, treeId }) => [spotId, treeId]),
  );
  const clash = fresh.find(({ spotId, treeId }) => taken.has(spotId) || taken.has(treeId));
  if (clash) {
    throw new ConflictError(`row ${clash.row.row} carries the id of another spot`, 'spot_id', {
      title: `Row ${clash.row.row} carries the id of a spot that has another ref here; nothing was stored`,
    });
  }
}

/** A spot a file brings along has been in the programme since the first record it carries. */
const addedOn = ({ row, records }: PlannedRow, today: string): string =>
  row.cells.added_on ?? [today, ...records.map(({ record }) => record.recordedAt.slice(0, 10))].sort()[0] ?? today;

async function writeChunk(trx: Knex.Transaction, by: string, rows: readonly PlannedRow[]): Promise<void> {
  const today = await programmeToday(trx);
  const places = await placeIds(
    trx,
    rows.map(({ row }) => row.cells.place),
    uuidv7,
  );
  const placeOf = ({ row }: PlannedRow) => places.get(row.cells.place) ?? '';
  const fresh = rows.filter(({ verdict }) => verdict === 'new');
  const spotOf = (planned: PlannedRow) => {
    const { ref, lng, lat, species, withdrawn_on: withdrawnOn } = planned.row.cells;
    const { spotId: id, treeId } = planned;
    return {
      id,
      addedOn: addedOn(planned, today),
      withdrawnOn,
      ref,
      placeId: placeOf(planned),
      lng,
      lat,
      treeId,
      species,
    };
  };
  await insertSpots(trx, fresh.map(spotOf), by);
  for (const planned of rows.filter(({ updatesSpot }) => updatesSpot)) await updateSpot(trx, spotOf(planned));
  const changed = rows.filter(({ verdict }) => verdict === 'changed').map(({ spotId }) => spotId);
  if (changed.length > 0) await bumpSpots(trx, changed, by);
  await insertRecords(
    trx,
    rows.flatMap(({ records }) => records),
  );
  await deriveAndKeep(
    trx,
    rows.map(({ spotId }) => spotId),
  );
}

async function planRows(db: Db, user: User, rows: readonly GoodRow[]): Promise<PlannedRow[]> {
  const stored = new Map(
    (
      await spotsByRef(
        db,
        rows.map(({ cells }) => cells.ref),
      )
    ).map((spot) => [spot.ref, spot]),
  );
  const records = await recordsOfSpots(
    db,
    [...stored.values()].map(({ id }) => id),
  );
  const practice = await currentPractice(db);
  const now = new Date().toISOString();
  return rows.map((row) => planRow(row, { stored, records, practice, by: user, now, newId: uuidv7 }));
}
