import {
  waterDeviceBody,
  zoneBodySchema,
  type CalibrateDevice,
  type KeptDevice,
  type KeptZone,
  type SaveDevice,
  type SaveZone,
} from '@sombra/contract';
import type { NextWater, TreeInputs, WaterDevice, ZoneProgramme } from '@sombra/core';
import type { Db } from '../platform/db';
import { withStandingTree } from '../spots/repository';
import { keepVersion } from './version-repository';
import { readStored } from '../platform/stored';

interface DeviceRow {
  id: string;
  body: unknown;
  retired: boolean;
  version: number;
  measured_on: string | null;
  l_per_h: number | null;
  spread_pct: number | null;
  runs: number | null;
  made_by: string | null;
  note: string | null;
  at_trees: number;
}

/** The catalogue, each with its newest measurement and at how many trees it stands. */
export async function devices(db: Db): Promise<KeptDevice[]> {
  const { rows } = await db.raw<{ rows: DeviceRow[] }>(`
    select device.id, device.body, device.retired, device.version, run.measured_on, run.l_per_h, run.spread_pct,
      jsonb_array_length(run.runs) as runs, run.made_by, run.note, coalesce(stands.count, 0)::int as at_trees
    from water_device device
    left join lateral (
      select * from device_run where device_id = device.id order by measured_on desc, made_at desc limit 1
    ) run on true
    left join (
      select latest.device_id, count(*) from (
        select distinct on (made.spot_id) made.spot_id, made.facts->>'deviceId' as device_id, made.facts->>'setOn' as set_on
        from field_record made
        where made.kind = 'device'
          and not exists (select from field_record later where later.supersedes = made.id)
        order by made.spot_id, made.facts->>'setOn' desc, made.happened_at desc
      ) latest
      where not exists (
        select from field_record off where off.spot_id = latest.spot_id and off.kind = 'remedy'
          and off.facts->>'remedy' = 'take_off_device' and off.facts->>'doneOn' >= latest.set_on)
      group by latest.device_id
    ) stands on stands.device_id = device.id
    order by device.body->>'name'`);
  return rows.map(({ id, body, retired, version, at_trees: atTrees, ...run }) => ({
    ...readStored(waterDeviceBody, body, `device ${id}`),
    retired,
    version,
    measured:
      run.measured_on === null || run.l_per_h === null
        ? null
        : {
            on: run.measured_on,
            lPerH: run.l_per_h,
            spreadPct: run.spread_pct,
            runs: run.runs ?? 0,
            by: run.made_by ?? '',
            note: run.note ?? '',
          },
    atTrees,
  }));
}

/** The catalogue that ships, where nothing is kept of a device yet. */
export async function shipDevices(db: Db, catalogue: readonly WaterDevice[]): Promise<void> {
  const rows = catalogue.map((device) => ({ id: device.id, body: JSON.stringify(device) }));
  await db('water_device').insert(rows).onConflict('id').ignore();
}

/** Returns false where somebody kept that version first. */
export const keepDevice = (trx: Db, { retired, version, ...body }: SaveDevice): Promise<boolean> =>
  keepVersion(trx, 'water_device', { id: body.id, version, ...{ body: JSON.stringify(body), retired } });

export async function keepRuns(
  trx: Db,
  asked: CalibrateDevice & { deviceId: string; lPerH: number; spreadPct: number | null; by: string },
): Promise<void> {
  const { id, deviceId, measuredOn, runs, note, lPerH, spreadPct, by } = asked;
  const row = {
    id,
    device_id: deviceId,
    measured_on: measuredOn,
    runs: JSON.stringify(runs),
    l_per_h: lPerH,
    spread_pct: spreadPct,
  };
  await trx('device_run')
    .insert({ ...row, note, made_by: by })
    .onConflict('id')
    .ignore();
}

export interface ZoneRow {
  readonly id: string;
  readonly name: string;
  readonly body: KeptZone['body'];
  readonly retired: boolean;
  readonly version: number;
  readonly told: ZoneProgramme | null;
  readonly told_at: Date | null;
  readonly problem: string | null;
  readonly heard_until: Date | null;
}

const zoneOf = (row: ZoneRow): ZoneRow => ({ ...row, body: readStored(zoneBodySchema, row.body, `zone ${row.id}`) });

export const zones = async (db: Db): Promise<ZoneRow[]> => (await db<ZoneRow>('drip_zone').orderBy('name')).map(zoneOf);

/** Returns false where somebody kept that version first. */
export const keepZone = (trx: Db, { body, ...zone }: SaveZone): Promise<boolean> =>
  keepVersion(trx, 'drip_zone', { ...zone, ...{ body: JSON.stringify(body) } });

export async function noteTold(
  trx: Db,
  id: string,
  told: { programme: ZoneProgramme } | { problem: string },
): Promise<void> {
  const change =
    'problem' in told
      ? { problem: told.problem.slice(0, 200) }
      : { told: JSON.stringify(told.programme), told_at: trx.fn.now(), problem: null };
  await trx('drip_zone').where({ id }).update(change);
}

export async function noteHeard(trx: Db, id: string, until: Date): Promise<void> {
  await trx('drip_zone').where({ id }).update({ heard_until: until });
}

export async function keepZoneRuns(
  trx: Db,
  zoneId: string,
  runs: readonly { at: string; minutes: number; litres: number }[],
): Promise<void> {
  if (runs.length === 0) return;
  await trx('drip_run')
    .insert(runs.map((run) => ({ ...run, zone_id: zoneId })))
    .onConflict(['zone_id', 'at'])
    .ignore();
}

/** Minutes a valve was open on each day of a span, by the programme's clock. */
export async function minutesByDay(
  db: Db,
  zoneId: string,
  { from, until, timeZone }: { from: string; until: string; timeZone: string },
): Promise<{ day: string; minutes: number }[]> {
  const day = `to_char(at at time zone ?, 'YYYY-MM-DD')`;
  const { rows } = await db.raw<{ rows: { day: string; minutes: number }[] }>(
    `select ${day} as day, sum(minutes) as minutes from drip_run
     where zone_id = ? and ${day} between ? and ? group by 1 order by 1`,
    [timeZone, zoneId, timeZone, from, until],
  );
  return rows;
}

const shownRuns = 14;

export async function lastRuns(db: Db, zoneId: string): Promise<KeptZone['runs']> {
  const rows = await db('drip_run')
    .where({ zone_id: zoneId })
    .orderBy('at', 'desc')
    .limit(shownRuns)
    .select<{ at: Date; minutes: number; litres: number }[]>('at', 'minutes', 'litres');
  return rows.map(({ at, ...run }) => ({ at: at.toISOString(), ...run }));
}

export interface ZoneTree {
  readonly spotId: string;
  readonly treeId: string | null;
  readonly ref: string;
  readonly species: string | null;
  readonly subject: TreeInputs['subject'] | null;
  readonly next: NextWater | null;
}

export async function zoneTrees(db: Db, spotIds: readonly string[]): Promise<Map<string, ZoneTree>> {
  const rows = await withStandingTree(db, db('spot'))
    .leftJoin('tree_water as water', 'water.spot_id', 'spot.id')
    .whereRaw('spot.id = any(?::uuid[])', [[...spotIds]])
    .select<ZoneTree[]>(
      'spot.id as spotId',
      'tree.id as treeId',
      'spot.ref',
      'tree.species',
      'water.subject',
      'water.next',
    );
  return new Map(rows.map((row) => [row.spotId, row]));
}
