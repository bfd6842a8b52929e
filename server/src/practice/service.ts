import type { AdoptPractice, AdoptProgress, MeasuredSettlement, Practices, User } from '@sombra/contract';
import {
  ConflictError,
  InvalidInputError,
  measuredDrop,
  NotFoundError,
  presetIds,
  requirePractice,
  trainedSettlement,
  type Practice,
} from '@sombra/core';
import type { Knex } from 'knex';
import { asActor } from '../platform/db';
import { deriveAndKeep, rebuildAll } from '../record/derive';
import { announceAll, currentPractice, recordsOfSpots } from '../record/repository';
import {
  allPractices,
  findPractice,
  insertPractice,
  newestVersion,
  setProgrammePractice,
  spotsOnPutBack,
  spotsRecordedSince,
} from './repository';

/**
 * Keeps a practice as the next version of itself, or as a new one at version 0.
 * @throws InvalidInputError for a shipped practice or a choice outside its limits, ConflictError when somebody
 * changed it since it was read
 */
export async function savePractice(db: Knex, user: User, practice: Practice): Promise<Practices> {
  if (presetIds.has(practice.id)) {
    throw new InvalidInputError('a shipped practice is copied, never changed', 'practice.id', {
      title: 'A shipped practice is copied, never changed',
    });
  }
  requirePractice(practice);
  return asActor(db, user.name, async (trx) => {
    const newest = await newestVersion(trx, practice.id);
    const next = { ...practice, version: practice.version + 1 };
    if (newest !== practice.version || !(await insertPractice(trx, next, user.name))) {
      throw new ConflictError(`practice is at version ${newest}`, 'version', {
        title: 'Somebody changed this practice while you were editing it. Nothing of yours was stored yet.',
      });
    }
    return allPractices(trx);
  });
}

/** What the drops that crews measured say of fill under balls, beside what the programme's practice says. */
export async function measuredSettlement(db: Knex): Promise<MeasuredSettlement> {
  const records = await recordsOfSpots(db, await spotsOnPutBack(db));
  const drops = [...records.values()].map(measuredDrop).filter((drop) => drop !== null);
  const { settlementFirmed } = (await currentPractice(db)).flareAboveGrade;
  return trainedSettlement(drops, settlementFirmed);
}

export interface Adoption {
  /** Cancelled while running: the programme's practice stays what it was. */
  readonly signal: AbortSignal;
  readonly onProgress: (progress: AdoptProgress) => void;
}

/** Others are served between two chunks of this many spots. */
const chunkSpots = 25;

/**
 * Makes a practice the programme's, and works out afresh what follows from it for every spot, in one act. Trees keep
 * the version they were planted under.
 */
export async function adoptPractice(db: Knex, user: User, asked: AdoptPractice, run: Adoption): Promise<void> {
  const began = new Date();
  await asActor(db, user.name, async (trx) => {
    await requireAlone(trx);
    const practice = await findPractice(trx, asked.id, asked.version);
    if (!practice) throw new NotFoundError('no such practice', 'id');
    await insertPractice(trx, practice, 'Sombra');
    await setProgrammePractice(trx, asked);
    await rebuildAll(trx, { chunk: chunkSpots, onProgress: run.onProgress, check: () => requireRunning(run.signal) });
    await announceAll(trx);
  });
  // What others recorded meanwhile was still worked out by the practice before.
  await asActor(db, user.name, async (trx) => deriveAndKeep(trx, await spotsRecordedSince(trx, began)));
  run.onProgress({ kind: 'done', practices: await allPractices(db) });
}

/** One change of practice at a time: two would work out the same spots by two practices. */
async function requireAlone(trx: Knex.Transaction): Promise<void> {
  const { rows } = await trx.raw<{ rows: { alone: boolean }[] }>(
    `select pg_try_advisory_xact_lock(hashtext('sombra.adopt')) as alone`,
  );
  if (rows[0]?.alone) return;
  throw new ConflictError('another change of practice is running', 'id', {
    title: 'Somebody is changing the practice of the programme just now; wait until that is done',
  });
}

function requireRunning(signal: AbortSignal): void {
  if (!signal.aborted) return;
  throw new InvalidInputError('the change of practice was cancelled', 'id', {
    title: 'The change was cancelled; the programme plants by what it did before',
  });
}
