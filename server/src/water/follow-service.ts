import {
  addDaysTo,
  advanceWater,
  beginningOf,
  checkpointBefore,
  climateDiffersFrom,
  earliest,
  followedUntil,
  givenDiffersFrom,
  moistureChecks,
  signedOff,
  spotBasis,
  standing,
  waterClimate,
  waterInputs,
  addMonthsTo,
  type IsoDate,
  type TreeInputs,
  type WaterAdvance,
  type WaterCheckpoint,
  type WaterClimate,
} from '@sombra/core';
import type { Knex } from 'knex';
import { isDeepStrictEqual } from 'node:util';
import { speciesLibrary } from '../match/repository';
import { inOneGo, oneAtATime, type Db } from '../platform/db';
import { keepDoing } from '../platform/keep-doing';
import { pooledWorker, type Worker } from '../platform/worker-pool';
import { programmeToday } from '../programme/today';
import { recordsOfSpots, spotGrounds } from '../record/repository';
import { contextOf, programmeBasis } from '../record/spot-context';
import {
  checkpointsOf,
  followedAfter,
  forgetWater,
  keepNight,
  keepWater,
  lastNight,
  markAllDue,
  markOutgrown,
  markUnfollowed,
  storedWater,
  takeDue,
  type StoredWater,
} from '../record/water-repository';
import { programmeSeason, weatherDays } from '../season/repository';
import { speciesOfSpots, whatChanged } from './repository';

/** Others are served between two chunks. */
const chunk = { night: 500, due: 40 } as const;
/** Checkpoints are kept so long: a device takes one along, and what is recorded late is rarely later. */
const keptMonths = 14;
/** A tree planted so lately is asked about anew with each new weather, until there is some to follow it by. */
const unfollowedDays = 60;
const everyMs = 5000;
const [first, last] = ['1970-01-01', '9999-12-31'] as const;

/** Weather of the programme as its trees feel it, from its first day to the last of the forecast. */
export async function programmeClimate(db: Db, today: IsoDate): Promise<WaterClimate> {
  const { station, windows } = await programmeSeason(db);
  const weather = await weatherDays(db, { from: first, to: last });
  return waterClimate({ station, ...weather }, { windows, today });
}

export interface FollowReport {
  readonly advanced: number;
  readonly anew: number;
}

/**
 * Brings the water of every followed tree up to the last day of weather: night by night from where it stands, and anew
 * from its last checkpoint before whatever came late. Stopped anywhere it goes on from there, and gives what a run from
 * scratch gives.
 */
export async function followTrees(db: Knex): Promise<FollowReport> {
  const today = await programmeToday(db);
  const climate = await programmeClimate(db, today);
  if (climate.past.length === 0) return { advanced: 0, anew: 0 };
  const before = await lastNight(db);
  const weatherFrom = before && climateDiffersFrom(before.past, climate.past);
  const known = before && isDeepStrictEqual(comparable(before), comparable(climate));
  const night = { climate, today, weatherFrom };
  let advanced = 0;
  if (!known) {
    if (weatherFrom !== null) await inTurn(db, markAllDue);
    else advanced = await advanceAll(db, night);
    await inTurn(db, async (trx) => {
      await markOutgrown(trx, today);
      await markUnfollowed(trx, addDaysTo(today, -unfollowedDays));
    });
  }
  const anew = await followDue(db, night);
  if (!known) await inTurn(db, (trx) => keepNight(trx, climate));
  return { advanced, anew };
}

/** As it comes back from the database. */
const comparable = ({ past, ahead, forecastUntil, today }: WaterClimate): unknown =>
  JSON.parse(JSON.stringify({ past, ahead, forecastUntil, today }));

const inTurn = <T>(db: Knex, act: (trx: Knex.Transaction) => Promise<T>): Promise<T> =>
  inOneGo(db, async (trx) => {
    await oneAtATime(trx, 'water');
    return act(trx);
  });

interface Night {
  readonly climate: WaterClimate;
  readonly today: IsoDate;
  /** The first day of weather that is another than when trees were followed last. */
  readonly weatherFrom: IsoDate | null;
}

type Followed = Parameters<typeof keepWater>[1][number];

const followed = (stored: Omit<StoredWater, 'kept'>, from: WaterCheckpoint, advance: WaterAdvance): Followed => ({
  spotId: stored.spotId,
  inputs: stored.inputs,
  followedUntil: stored.followedUntil,
  checks: stored.checks,
  kept: advance.kept,
  after: from.day,
  monthEnds: advance.monthEnds,
});

async function advanceAll(db: Knex, { climate, today }: Night): Promise<number> {
  let done = 0;
  for (let after: string | null = null; ;) {
    const ids: string[] = await inTurn(db, async (trx) => {
      const trees = await followedAfter(trx, { after, count: chunk.night });
      const moved = trees.map((tree) => {
        const { checkpoint } = tree.kept;
        return followed(tree, checkpoint, advanceWater(tree.inputs, checkpoint, climate));
      });
      await keepWater(trx, moved, addMonthsTo(today, -keptMonths));
      return trees.map(({ spotId }) => spotId);
    });
    done += ids.length;
    after = ids.at(-1) ?? null;
    if (ids.length < chunk.night) return done;
  }
}

async function followDue(db: Knex, night: Night): Promise<number> {
  let done = 0;
  for (;;) {
    const count = await inTurn(db, async (trx) => {
      const ids = await takeDue(trx, chunk.due);
      if (ids.length > 0) await followAnew(trx, ids, night);
      return ids.length;
    });
    done += count;
    if (count < chunk.due) return done;
  }
}

/** All it goes by is read after the spots were taken: what changes meanwhile marks them anew. */
async function followAnew(trx: Db, ids: readonly string[], night: Night): Promise<void> {
  const species = new Map((await speciesLibrary(trx)).map((one) => [one.botanical, one]));
  const programme = await programmeBasis(trx);
  const [records, grounds, names, stored, checkpoints] = [
    await recordsOfSpots(trx, ids),
    await spotGrounds(trx, ids),
    await speciesOfSpots(trx, ids),
    await storedWater(trx, ids),
    await checkpointsOf(trx, ids),
  ];
  const moved: Followed[] = [];
  const gone: string[] = [];
  for (const { id, treeId, withdrawnOn } of grounds) {
    const all = records.get(id) ?? [];
    const basis = spotBasis(standing(all), contextOf(programme, id, all));
    const inputs = waterInputs(all, basis, species.get(names.get(id) ?? '') ?? null);
    const signed = inputs && signedOff(standing(all), inputs.subject.plantedOn);
    const until = inputs && basis.stock && (signed ?? followedUntil(inputs.subject.plantedOn, basis.stock, basis.care));
    if (!inputs || !until || until < night.today || treeId === null || withdrawnOn !== null) {
      gone.push(id);
      continue;
    }
    const from = goOnFrom(inputs, { stored: stored.get(id), checkpoints: checkpoints.get(id) ?? [], night });
    if (from) {
      const checks = moistureChecks(inputs.subject.plantedOn, basis.care, basis.windows);
      const tree = { spotId: id, inputs, followedUntil: until, checks };
      moved.push(followed(tree, from, advanceWater(inputs, from, night.climate)));
    } else gone.push(id);
  }
  await forgetWater(trx, gone);
  await keepWater(trx, moved, addMonthsTo(night.today, -keptMonths));
}

/** From where a tree has to be followed anew: where it stands, if nothing it was followed by is another. */
function goOnFrom(
  inputs: TreeInputs,
  {
    stored,
    checkpoints,
    night,
  }: { stored: StoredWater | undefined; checkpoints: readonly WaterCheckpoint[]; night: Night },
): WaterCheckpoint | null {
  const { climate, weatherFrom } = night;
  const sameTree = stored && isDeepStrictEqual(stored.inputs.subject, JSON.parse(JSON.stringify(inputs.subject)));
  if (!sameTree) return beginningOf(inputs, climate);
  const given = givenDiffersFrom(stored.inputs.given, inputs.given);
  const from = earliest([given, weatherFrom].filter((day) => day !== null));
  if (from === undefined || from > stored.kept.checkpoint.day) return stored.kept.checkpoint;
  return beginningOf(inputs, climate, checkpointBefore(checkpoints, from));
}

export interface FollowTask {
  readonly askedBy: string;
}
export type Follower = Worker<FollowTask, FollowReport>;

/** In a thread of its own, with connections of its own. */
export const pooledFollower = (): Follower => pooledWorker('water/follow-worker');

/** So many trees hold nobody up; more are followed beside the server, where that is to be had. */
const fewTrees = 2000;

/** Follows in the background until stopped, whenever there is something to follow. */
export function keepFollowing(
  db: Knex,
  follower: Follower | null,
  onError: (error: unknown) => void,
): () => Promise<void> {
  let seen = '';
  const stop = new AbortController();
  const follow = async () => {
    const { due, trees, weather } = await whatChanged(db);
    const key = `${await programmeToday(db)} ${weather}`;
    const all = key !== seen;
    if (due === 0 && !all) return;
    const many = due + (all ? trees : 0) > fewTrees;
    if (follower && many)
      await follower.run({ askedBy: 'water' }, { signal: stop.signal, onProgress: () => undefined });
    else await followTrees(db);
    seen = key;
  };
  const stopFollowing = keepDoing(follow, {
    everyMs,
    atOnce: true,
    onError: (error) => {
      if (!stop.signal.aborted) onError(error);
    },
  });
  return async () => {
    // Stopped anywhere, it is gone on with at the next start.
    stop.abort();
    await stopFollowing();
  };
}
