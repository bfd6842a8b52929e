import type {
  ClimateDay,
  IsoDate,
  KeptWater,
  MoistureChecks,
  TreeInputs,
  WaterCheckpoint,
  WaterClimate,
} from '@sombra/core';
import { inLockOrder, type Db } from '../platform/db';

interface CheckpointRow {
  spot_id: string;
  day: string;
  ball_l: number;
  soil_l: number;
  variance: number;
  degree_days: number;
  stress_days: number;
  waterlogged_days: number;
  drowned_since: string | null;
  asking_since: string | null;
}

const checkpointOf = (row: CheckpointRow): WaterCheckpoint => ({
  day: row.day,
  ballL: row.ball_l,
  soilL: row.soil_l,
  variance: row.variance,
  degreeDays: row.degree_days,
  stressDays: row.stress_days,
  waterloggedDays: row.waterlogged_days,
  drownedSince: row.drowned_since,
  askingSince: row.asking_since,
});

/** What is kept of one tree: what it goes by, and where it stands. */
export interface StoredWater {
  readonly spotId: string;
  readonly inputs: TreeInputs;
  readonly followedUntil: IsoDate;
  readonly kept: KeptWater;
  /** When its ball is to be felt; `null` where nobody asks. */
  readonly checks: MoistureChecks | null;
}

type TreeWaterRow = CheckpointRow & {
  subject: TreeInputs['subject'];
  given: TreeInputs['given'];
  followed_until: string;
  share: number;
  error_share: number;
  supply: number;
  next: KeptWater['next'];
  probe_every: number | null;
  probe_from: string | null;
  probe_until: string | null;
};

const storedOf = (row: TreeWaterRow): StoredWater => ({
  spotId: row.spot_id,
  inputs: { subject: row.subject, given: row.given },
  followedUntil: row.followed_until,
  checks:
    row.probe_every !== null && row.probe_from !== null && row.probe_until !== null
      ? { everyDays: row.probe_every, from: row.probe_from, until: row.probe_until }
      : null,
  kept: {
    checkpoint: checkpointOf(row),
    share: row.share,
    errorShare: row.error_share,
    supply: row.supply,
    next: row.next,
  },
});

/**
 * Says that the water of what is planted at these spots, or was, is to be followed anew; part of every act that writes
 * records.
 * @param notice what everybody who is looking is told in the same trip, once the transaction is committed
 */
export async function markWaterDue(db: Db, spotIds: readonly string[], notice: string | null = null): Promise<void> {
  if (spotIds.length === 0) return;
  // In one order, so that two acts never wait for each other.
  await db.raw(
    `with due as (
       insert into water_due select id from unnest(?::uuid[]) as asked (id)
       where exists (select 1 from spot_period where spot_id = id and until_day is null and planted_on is not null)
         or exists (select 1 from tree_water where spot_id = id)
       order by 1 on conflict do nothing)
     select pg_notify('sombra_changed', notice) from (select ?::text as notice) told where notice is not null`,
    [[...spotIds], notice],
  );
}

/** Takes some of those that are to be followed anew; others may be taken at the same time. */
export async function takeDue(trx: Db, count: number): Promise<string[]> {
  const { rows } = await trx.raw<{ rows: { spot_id: string }[] }>(
    `delete from water_due where spot_id in
       (select spot_id from water_due order by spot_id limit ? for update skip locked) returning spot_id`,
    [count],
  );
  return rows.map(({ spot_id }) => spot_id);
}

export async function dueCount(db: Db): Promise<number> {
  const row = await db('water_due').first<{ n: number }>(db.raw('count(*)::int as n'));
  return row.n;
}

export async function storedWater(db: Db, spotIds: readonly string[]): Promise<Map<string, StoredWater>> {
  const rows = await db<TreeWaterRow>('tree_water').whereRaw('spot_id = any(?::uuid[])', [[...spotIds]]);
  return new Map(rows.map((row) => [row.spot_id, storedOf(row)]));
}

/** How full balls stand today, and whether they drown: all that a mark needs of them. */
export async function ballsNow(
  db: Db,
  spotIds: readonly string[],
): Promise<{ spotId: string; share: number; drowned: boolean }[]> {
  return db('tree_water')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .select<{ spotId: string; share: number; drowned: boolean }[]>(
      'spot_id as spotId',
      'share',
      db.raw('drowned_since is not null as drowned'),
    );
}

/** Followed trees, some at a time, in the order of their ids. */
export async function followedAfter(
  trx: Db,
  { after, count }: { readonly after: string | null; readonly count: number },
): Promise<StoredWater[]> {
  const query = trx<TreeWaterRow>('tree_water').orderBy('spot_id').limit(count);
  return (await (after === null ? query : query.where('spot_id', '>', after))).map(storedOf);
}

export async function checkpointsOf(db: Db, spotIds: readonly string[]): Promise<Map<string, WaterCheckpoint[]>> {
  const rows = await db<CheckpointRow>('water_checkpoint')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .orderBy('day');
  const bySpot = new Map<string, WaterCheckpoint[]>();
  for (const row of rows) bySpot.set(row.spot_id, [...(bySpot.get(row.spot_id) ?? []), checkpointOf(row)]);
  return bySpot;
}

/**
 * The first checkpoint of a spot on or after a day. What was recorded since is no part of it; what was recorded late from
 * before it is, once the tree was followed anew, seconds later.
 */
export const checkpointQuestion = (db: Db, spotId: string, day: IsoDate) =>
  db('water_checkpoint').where({ spot_id: spotId }).where('day', '>=', day).orderBy('day').limit(1).select();

export const checkpointFrom = ([row]: readonly unknown[]): WaterCheckpoint | null =>
  row === undefined ? null : checkpointOf(row as CheckpointRow);

/** Keeps where trees stand, and replaces their checkpoints from after a day on. */
export async function keepWater(
  trx: Db,
  trees: readonly (StoredWater & { readonly after: IsoDate; readonly monthEnds: readonly WaterCheckpoint[] })[],
  keepFrom: IsoDate,
): Promise<void> {
  if (trees.length === 0) return;
  const lines = trees.map(
    ({ spotId, inputs, followedUntil, checks, kept: { checkpoint, share, errorShare, supply, next } }) => ({
      spot_id: spotId,
      ...inputs,
      followed_until: followedUntil,
      ...columnsOf(checkpoint),
      share,
      error_share: errorShare,
      supply,
      next,
      probe_every: checks?.everyDays ?? null,
      probe_from: checks?.from ?? null,
      probe_until: checks?.until ?? null,
      read_on: lastOf(inputs.given.readings.map(({ day }) => day)),
    }),
  );
  await trx.raw(
    `insert into tree_water (spot_id, subject, given, followed_until, ${checkpointColumns}, share, error_share, supply, next,
       probe_every, probe_from, probe_until, read_on)
     select spot_id, subject, given, followed_until, ${checkpointColumns}, share, error_share, supply, next,
       probe_every, probe_from, probe_until, read_on
     from json_populate_recordset(null::tree_water, ?::json)
     on conflict (spot_id) do update set subject = excluded.subject, given = excluded.given,
       followed_until = excluded.followed_until, day = excluded.day, ball_l = excluded.ball_l, soil_l = excluded.soil_l,
       variance = excluded.variance, degree_days = excluded.degree_days, stress_days = excluded.stress_days,
       waterlogged_days = excluded.waterlogged_days, drowned_since = excluded.drowned_since,
       asking_since = excluded.asking_since, share = excluded.share,
       error_share = excluded.error_share, supply = excluded.supply, next = excluded.next, probe_every = excluded.probe_every,
       probe_from = excluded.probe_from, probe_until = excluded.probe_until, read_on = excluded.read_on`,
    [JSON.stringify(inLockOrder(lines))],
  );
  const from = trees.map(({ spotId, after }) => ({ spot_id: spotId, day: after }));
  await trx.raw(
    `delete from water_checkpoint old using json_to_recordset(?::json) as given (spot_id uuid, day date)
     where old.spot_id = given.spot_id and (old.day > given.day or old.day < ?)`,
    [JSON.stringify(from), keepFrom],
  );
  const ends = trees.flatMap(({ spotId, monthEnds }) =>
    monthEnds.filter(({ day }) => day >= keepFrom).map((end) => ({ spot_id: spotId, ...columnsOf(end) })),
  );
  await trx.raw(
    `insert into water_checkpoint (spot_id, ${checkpointColumns})
     select spot_id, ${checkpointColumns} from json_populate_recordset(null::water_checkpoint, ?::json)`,
    [JSON.stringify(inLockOrder(ends))],
  );
}

const lastOf = (days: readonly IsoDate[]): IsoDate | null =>
  days.reduce<IsoDate | null>((last, day) => (last === null || day > last ? day : last), null);

const checkpointColumns =
  'day, ball_l, soil_l, variance, degree_days, stress_days, waterlogged_days, drowned_since, asking_since';

const columnsOf = (checkpoint: WaterCheckpoint) => ({
  day: checkpoint.day,
  ball_l: checkpoint.ballL,
  soil_l: checkpoint.soilL,
  variance: checkpoint.variance,
  degree_days: checkpoint.degreeDays,
  stress_days: checkpoint.stressDays,
  waterlogged_days: checkpoint.waterloggedDays,
  drowned_since: checkpoint.drownedSince,
  asking_since: checkpoint.askingSince,
});

/** Trees that are followed no more: gone, not planted, or long established. */
export async function forgetWater(trx: Db, spotIds: readonly string[]): Promise<void> {
  await trx('tree_water')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .delete();
  await trx('water_checkpoint')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .delete();
}

/** Spots whose trees are followed beyond the day they should be, to be looked at again. */
export async function markOutgrown(trx: Db, today: IsoDate): Promise<void> {
  await trx.raw(
    'insert into water_due select spot_id from tree_water where followed_until < ? order by spot_id on conflict do nothing',
    [today],
  );
}

export interface WaterNight extends WaterClimate {
  readonly endedAt: string;
}

/** The last night that was worked out; `null` before the first. */
export async function lastNight(db: Db): Promise<WaterNight | null> {
  const row = await db('water_night').first<
    { past: ClimateDay[]; ahead: ClimateDay[]; day: string; forecast_until: string; ended_at: Date } | undefined
  >();
  if (!row) return null;
  const { past, ahead, day: today, forecast_until: forecastUntil, ended_at } = row;
  return { past, ahead, today, forecastUntil, endedAt: ended_at.toISOString() };
}

export async function keepNight(trx: Db, { past, ahead, forecastUntil, today }: WaterClimate): Promise<void> {
  await trx('water_night')
    .insert({
      past: JSON.stringify(past),
      ahead: JSON.stringify(ahead),
      day: today,
      forecast_until: forecastUntil,
      ended_at: trx.fn.now(),
    })
    .onConflict('only_one')
    .merge();
}

/** Every tree is to be followed anew: its weather is another. */
export async function markAllDue(trx: Db): Promise<void> {
  await trx.raw('insert into water_due select spot_id from tree_water order by spot_id on conflict do nothing');
}

/** The trees of a species are to be followed anew: it drinks otherwise than was known. */
export async function markSpeciesDue(trx: Db, botanical: string): Promise<void> {
  await trx.raw(
    `insert into water_due select spot_id from tree where standing and species = ? order by spot_id on conflict do nothing`,
    [botanical],
  );
}

/** Trees planted of late that could not be followed, for want of weather: asked about again once it is another. */
export async function markUnfollowed(trx: Db, plantedSince: IsoDate): Promise<void> {
  await trx.raw(
    `insert into water_due
     select period.spot_id from spot_period period
     where period.until_day is null and period.planted_on >= ?
       and not exists (select 1 from tree_water water where water.spot_id = period.spot_id)
     order by 1 on conflict do nothing`,
    [plantedSince],
  );
}
