import type { AdoptPractice, User } from '@sombra/contract';
import { ConflictError, InvalidInputError, NotFoundError } from '@sombra/core';
import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import { countUpTo, lockSpots, spotsAfterId } from '../spots/repository';
import { asActor, isHeldByOthers } from '../platform/db';
import { chunkSpots, keepDifferent } from '../record/derive';
import { announce, announceAll } from '../record/repository';
import {
  dropAdoption,
  findAdoption,
  findPractice,
  holdSpots,
  insertAdoption,
  insertPractice,
  lockAdoption,
  moveBorder,
  programmePractice,
  setProgrammePractice,
  setWaitingLimit,
  spotsUpTo,
  takeAdoptionOver,
} from '../practice/repository';

export interface Adoption {
  /** Given up while running: it stands where it is, to be gone on with or taken back. */
  readonly signal: AbortSignal;
  readonly onProgress: (progress: { readonly done: number; readonly of: number }) => void;
}

/** A chunk waits this long for what others hold, and is tried this often. */
const waitingLimitS = 8;
const mostTries = 4;

/** One walk over the spots, towards a practice or back from it. */
export interface AdoptionWalk {
  readonly direction: 'on' | 'back' | 'nothing';
  readonly runId: string;
  /** In whose name. */
  readonly actor: string;
}

/**
 * Begins to make a practice the programme's. What follows from it is worked out spot by spot, a few in an act, in the
 * order every act locks spots in; a border in the database says up to which spot it is done. Each spot shows the practice
 * it goes by meanwhile. Given up, it stands at that border: asking for the same practice goes on from there, asking for
 * the one the programme had takes it back. Trees keep the version they were planted under.
 * @throws ConflictError while somebody is at it, or while another change stands half done
 */
export async function beginAdoption(db: Knex, user: User, asked: AdoptPractice): Promise<AdoptionWalk> {
  const runId = uuidv7();
  const direction = await asActor(db, user.name, (trx) => begin(trx, user, asked, runId));
  return { direction, runId, actor: user.name };
}

/** Goes on with a walk that nobody is at any more and nobody gave up: its process was killed. `null` where there is none. */
export async function takeUpAdoption(db: Knex): Promise<AdoptionWalk | null> {
  const open = await findAdoption(db);
  if (!open?.running || open.alive) return null;
  const runId = uuidv7();
  const mine = await asActor(db, open.askedBy, async (trx) => {
    const now = await lockAdoption(trx);
    if (!now?.running || now.alive) return false;
    await takeAdoptionOver(trx, runId, now.back);
    return true;
  });
  return mine ? { direction: open.back ? 'back' : 'on', runId, actor: open.askedBy } : null;
}

/** Walks to the end, chunk by chunk. @param chunk spots worked out in one act */
export async function walkAdoption(
  db: Knex,
  { direction, runId, actor }: AdoptionWalk,
  run: Adoption,
  chunk = chunkSpots,
): Promise<void> {
  const { done, of } = await countUpTo(db, (await findAdoption(db))?.atSpot ?? null);
  const walk = { run, runId, actor, chunk };
  if (direction === 'on') await goOn(db, { ...walk, done, of });
  if (direction === 'back') await takeBack(db, { ...walk, of: done });
}

async function begin(
  trx: Knex.Transaction,
  user: User,
  asked: AdoptPractice,
  runId: string,
): Promise<AdoptionWalk['direction']> {
  const practice = await findPractice(trx, asked.id, asked.version);
  if (!practice) throw new NotFoundError('no such practice', 'id');
  const current = await programmePractice(trx);
  const isCurrent = current.id === asked.id && current.version === asked.version;
  const open = await lockAdoption(trx);
  if (open?.alive) throw busy();
  if (!open) {
    if (isCurrent) return 'nothing';
    await insertPractice(trx, practice, 'Sombra');
    if (!(await insertAdoption(trx, asked, user.name, runId))) throw busy();
    return 'on';
  }
  const isOpen = open.id === asked.id && open.version === asked.version;
  if (!isOpen && !isCurrent) {
    throw new ConflictError('another change of practice stands half done', 'id', {
      title: 'Another change of practice stands half done: go on with it or take it back first',
    });
  }
  await takeAdoptionOver(trx, runId, !isOpen);
  return isOpen ? 'on' : 'back';
}

const busy = () =>
  new ConflictError('another change of practice is running', 'id', {
    title: 'Somebody is changing the practice of the programme just now; wait until that is done',
  });

interface Walk extends Pick<AdoptionWalk, 'runId' | 'actor'> {
  readonly of: number;
  readonly run: Adoption;
  readonly chunk: number;
}

async function goOn(db: Knex, { done, of, run, runId, actor, chunk }: Walk & { done: number }): Promise<void> {
  for (let count = done; ;) {
    requireRunning(run.signal);
    const worked = await inChunks(db, actor, async (trx) => {
      const atSpot = (await findAdoption(trx))?.atSpot ?? null;
      const ids = await spotsAfterId(trx, atSpot, chunk);
      if (ids.length === 0) return finish(trx, atSpot, runId);
      await workOut(trx, ids, { border: ids.at(-1) ?? null, runId });
      return ids.length;
    });
    if (worked === 0) return;
    count += worked;
    run.onProgress({ done: Math.min(count, of), of });
  }
}

/** Every spot goes by it: from here on it is the programme's. Goes on where a spot came in at the last moment. */
async function finish(trx: Knex.Transaction, atSpot: string | null, runId: string): Promise<number> {
  await holdSpots(trx);
  const late = await spotsAfterId(trx, atSpot, chunkSpots);
  if (late.length > 0) {
    await workOut(trx, late, { border: late.at(-1) ?? null, runId });
    return late.length;
  }
  const open = await findAdoption(trx);
  if (open) await setProgrammePractice(trx, open);
  await dropAdoption(trx);
  await announceAll(trx);
  return 0;
}

async function takeBack(db: Knex, { of, run, runId, actor, chunk }: Walk): Promise<void> {
  for (let count = 0; ;) {
    requireRunning(run.signal);
    const worked = await inChunks(db, actor, async (trx) => {
      const atSpot = (await findAdoption(trx))?.atSpot ?? null;
      const [below, ...last] = atSpot === null ? [] : (await spotsUpTo(trx, atSpot, chunk + 1)).reverse();
      if (below === undefined) {
        await dropAdoption(trx);
        await announceAll(trx);
        return 0;
      }
      const all = last.length < chunk;
      const ids = all ? [below, ...last] : last;
      await workOut(trx, ids, { border: all ? null : below, runId });
      return ids.length;
    });
    if (worked === 0) return;
    count += worked;
    run.onProgress({ done: Math.min(count, of), of });
  }
}

async function workOut(
  trx: Knex.Transaction,
  ids: readonly string[],
  { border, runId }: { border: string | null; runId: string },
): Promise<void> {
  await lockSpots(trx, ids);
  if (!(await moveBorder(trx, runId, border))) throw busy();
  await keepDifferent(trx, ids);
  // By another practice even those look different that stand where they stood.
  await announce(trx, ids);
}

/** One chunk, tried again where somebody holds its spots for longer than the limit. */
async function inChunks(db: Knex, actor: string, chunk: (trx: Knex.Transaction) => Promise<number>): Promise<number> {
  for (let tries = 1; ; tries++) {
    try {
      return await asActor(db, actor, async (trx) => {
        await setWaitingLimit(trx, waitingLimitS);
        return chunk(trx);
      });
    } catch (error) {
      if (!isHeldByOthers(error)) throw error;
      if (tries >= mostTries) {
        throw new ConflictError('spots are held by others', 'id', {
          title: 'Somebody holds spots for too long; the change stands where it is. Go on with it later.',
        });
      }
    }
  }
}

function requireRunning(signal: AbortSignal): void {
  if (signal.aborted) throw givenUp();
}

export const givenUp = () =>
  new InvalidInputError('the change of practice was stopped', 'id', {
    title: 'The change was stopped where it was; go on with it, or take it back',
  });
