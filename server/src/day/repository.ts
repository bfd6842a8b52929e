import {
  arrangementsSchema,
  dayEventSchema,
  dayHoursSchema,
  locksSchema,
  plannedTeamSchema,
  workedDaySchema,
  type ChangeDay,
  type DayDetail,
  type DayEvent,
  type NewDay,
  type NewDayEvent,
  type PlantingDays,
  type User,
} from '@sombra/contract';
import { usualDayHours, type IsoDate, type ToolCode, type ToolCounts, type WorkedDay } from '@sombra/core';
import { z } from 'zod';
import { inLockOrder, type Db } from '../platform/db';
import { readStored } from '../platform/stored';

const mostDays = 60;
const mostWorked = 200;

/** Planting days, the next first and those gone by after them. */
export async function plantingDays(db: Db, today: IsoDate): Promise<PlantingDays> {
  return db('planting_day as day')
    .orderByRaw('day.on_day < ?, abs(day.on_day - ?::date), day.title', [today, today])
    .limit(mostDays)
    .select<PlantingDays>(
      'day.id',
      'day.title',
      'day.on_day as onDay',
      'day.kind',
      'day.state',
      'day.capacity',
      db.raw('(select count(*)::int from planting_day_spot where day_id = day.id) as spots'),
      db.raw(`(select count(*)::int from day_person where day_id = day.id and state = 'confirmed') as confirmed`),
      db.raw(`(select count(*)::int from planting_day_spot member join spot_period period
        on period.spot_id = member.spot_id and period.until_day is null and period.planted_on is not null
        where member.day_id = day.id) as planted`),
    );
}

export type KeptDayRow = Pick<
  DayDetail,
  | 'id'
  | 'title'
  | 'onDay'
  | 'kind'
  | 'state'
  | 'capacity'
  | 'hours'
  | 'arrangements'
  | 'gathering'
  | 'teams'
  | 'locks'
  | 'linkOpen'
  | 'version'
> & { readonly spotIds: readonly string[] };

interface DayRow {
  id: string;
  title: string;
  on_day: string;
  kind: DayDetail['kind'];
  state: DayDetail['state'];
  capacity: number;
  hours: unknown;
  arrangements: unknown;
  gathering: string | null;
  teams: unknown;
  locks: unknown;
  link_hash: string | null;
  version: number;
  spot_ids: string[];
}

function dayOf(row: DayRow): KeptDayRow {
  const what = `planting day ${row.id}`;
  const gathering = row.gathering === null ? null : (JSON.parse(row.gathering) as { coordinates: [number, number] });
  return {
    id: row.id,
    title: row.title,
    onDay: row.on_day,
    kind: row.kind,
    state: row.state,
    capacity: row.capacity,
    hours: readStored(dayHoursSchema, row.hours, what),
    arrangements: readStored(arrangementsSchema, row.arrangements, what),
    gathering: gathering?.coordinates ?? null,
    teams: readStored(z.array(plannedTeamSchema), row.teams, what),
    locks: readStored(locksSchema, row.locks, what),
    linkOpen: row.link_hash !== null,
    version: row.version,
    spotIds: row.spot_ids,
  };
}

function query(db: Db) {
  return db<DayRow>('planting_day').select(
    'planting_day.*',
    db.raw('st_asgeojson(gathering) as gathering'),
    db.raw(`array(select member.spot_id from planting_day_spot member join spot on spot.id = member.spot_id
      where member.day_id = planting_day.id order by spot.ref) as spot_ids`),
  );
}

export async function findDay(db: Db, id: string): Promise<KeptDayRow | undefined> {
  const row = (await query(db).where({ id }).first()) as DayRow | undefined;
  return row && dayOf(row);
}

/** By the hash of its link, while the link is open. */
export async function findDayByLink(db: Db, linkHash: string): Promise<KeptDayRow | undefined> {
  const row = (await query(db).where({ link_hash: linkHash }).first()) as DayRow | undefined;
  return row && dayOf(row);
}

/** Held to the end of the act: whoever counts places, or changes the day, waits. */
export async function lockDay(trx: Db, id: string): Promise<KeptDayRow | undefined> {
  await trx('planting_day').where({ id }).forUpdate().first('id');
  return findDay(trx, id);
}

const pointOf = (db: Db, position: readonly [number, number] | null) =>
  position === null ? null : db.raw('st_setsrid(st_makepoint(?, ?), 4326)', [...position]);

/** Returns false where the id is there already. */
export async function insertDay(trx: Db, day: NewDay, from: KeptDayRow | undefined, by: string): Promise<boolean> {
  const added = await trx('planting_day')
    .insert({
      id: day.id,
      title: day.title,
      on_day: day.onDay,
      kind: day.kind,
      capacity: day.capacity,
      hours: JSON.stringify(from?.hours ?? usualDayHours),
      arrangements: JSON.stringify(from?.arrangements ?? {}),
      gathering: pointOf(trx, from?.gathering ?? null),
      made_by: by,
    })
    .onConflict('id')
    .ignore()
    .returning('id');
  if (added.length === 0) return false;
  await setSpots(trx, day.id, day.spotIds);
  return true;
}

export async function updateDay(trx: Db, id: string, change: ChangeDay): Promise<void> {
  await trx('planting_day')
    .where({ id })
    .update({
      title: change.title,
      on_day: change.onDay,
      kind: change.kind,
      capacity: change.capacity,
      hours: JSON.stringify(change.hours),
      arrangements: JSON.stringify(change.arrangements),
      gathering: pointOf(trx, change.gathering),
      version: change.version + 1,
    });
  await setSpots(trx, id, change.spotIds);
}

async function setSpots(trx: Db, dayId: string, spotIds: readonly string[]): Promise<void> {
  await trx('planting_day_spot')
    .where({ day_id: dayId })
    .whereNotIn('spot_id', [...spotIds])
    .delete();
  const rows = spotIds.map((spot_id) => ({ day_id: dayId, spot_id }));
  if (rows.length > 0)
    await trx('planting_day_spot').insert(inLockOrder(rows)).onConflict(['day_id', 'spot_id']).ignore();
}

export async function keepTeams(
  trx: Db,
  id: string,
  { teams, locks, version }: Pick<KeptDayRow, 'teams' | 'locks' | 'version'>,
): Promise<void> {
  await trx('planting_day')
    .where({ id })
    .update({ teams: JSON.stringify(teams), locks: JSON.stringify(locks), version: version + 1 });
}

export async function setState(trx: Db, id: string, state: KeptDayRow['state']): Promise<void> {
  // Said again it changes nothing: whoever arranges the day meanwhile need not be told.
  await trx('planting_day')
    .where({ id })
    .whereNot({ state })
    .update({ state, version: trx.raw('version + 1') });
}

export async function setLink(trx: Db, id: string, linkHash: string | null): Promise<void> {
  await trx('planting_day').where({ id }).update({ link_hash: linkHash });
}

/** Other days of the same date or later that hold one of these spots. */
export async function bookedElsewhere(
  db: Db,
  dayId: string,
  spotIds: readonly string[],
  from: IsoDate,
): Promise<{ ref: string; title: string }[]> {
  return db('planting_day_spot as member')
    .join('planting_day as day', 'day.id', 'member.day_id')
    .join('spot', 'spot.id', 'member.spot_id')
    .whereRaw('member.spot_id = any(?::uuid[])', [[...spotIds]])
    .whereNot('day.id', dayId)
    .where('day.state', 'planned')
    .where('day.on_day', '>=', from)
    .orderBy('spot.ref')
    .select<{ ref: string; title: string }[]>('spot.ref', 'day.title');
}

interface EventRow {
  id: string;
  day_id: string;
  kind: string;
  facts: unknown;
  at: Date;
  by_name: string;
  device: string;
}

export async function eventsOf(db: Db, dayId: string): Promise<DayEvent[]> {
  const rows = await db<EventRow>('day_event').where({ day_id: dayId }).orderBy(['at', 'id']);
  return rows.map(({ id, kind, facts, at, by_name, device }) =>
    readStored(
      dayEventSchema,
      { id, kind, facts, at: at.toISOString(), device, byName: by_name },
      `event ${id} of a day`,
    ),
  );
}

/** Returns false where it was kept before. */
export async function insertEvent(trx: Db, dayId: string, event: NewDayEvent, user: User): Promise<boolean> {
  const { id, kind, facts, at, device } = event;
  const added = await trx('day_event')
    .insert({
      id,
      day_id: dayId,
      kind,
      facts: JSON.stringify(facts),
      at,
      device,
      by_id: user.id,
      by_name: user.name,
    })
    .onConflict('id')
    .ignore()
    .returning('id');
  return added.length > 0;
}

/** Days that were closed with the hours they took, the newest first: what the pace is learnt from. */
export async function workedDays(db: Db): Promise<WorkedDay[]> {
  const rows = await db('planting_day')
    .whereNotNull('worked')
    .orderBy('on_day', 'desc')
    .limit(mostWorked)
    .select<{ id: string; worked: unknown }[]>('id', 'worked');
  return rows.map(({ id, worked }) => readStored(workedDaySchema, worked, `hours of planting day ${id}`));
}

export async function keepWorked(trx: Db, id: string, worked: WorkedDay): Promise<void> {
  await trx('planting_day')
    .where({ id })
    .update({ worked: JSON.stringify(worked) });
}

export async function toolStore(db: Db): Promise<ToolCounts> {
  const rows = await db<{ tool: ToolCode; count: number }>('tool_store').select('tool', 'count');
  return Object.fromEntries(rows.map(({ tool, count }) => [tool, count]));
}

export async function countTool(db: Db, tool: ToolCode, count: number): Promise<void> {
  await db('tool_store')
    .insert({ tool, count })
    .onConflict('tool')
    .merge({ count, version: db.raw('tool_store.version + 1') });
}

export async function currentWaiver(db: Db): Promise<{ version: number; text: string } | null> {
  const row = await db('waiver')
    .orderBy('version', 'desc')
    .first<{ version: number; text: string } | undefined>('version', 'text');
  return row ?? null;
}

export async function insertWaiver(trx: Db, waiver: { version: number; text: string }, by: string): Promise<void> {
  await trx('waiver').insert({ ...waiver, made_by: by });
}

/** By spot: of those a delivery lot sent back named, and those an open order still holds. */
export async function stockOnTheWay(db: Db, spotIds: readonly string[]): Promise<Map<string, 'not_here' | 'refused'>> {
  const ordered: string[] = await db('ordered_place')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .whereNull('released_at')
    .pluck('spot_id');
  const { rows } = await db.raw<{ rows: { id: string }[] }>(
    `select spot.id from delivery_lot lot, jsonb_array_elements_text(lot.spots) as named (ref) join spot on spot.ref = named.ref
     where lot.verdict = 'return' and spot.id = any(?::uuid[])`,
    [[...spotIds]],
  );
  const states = new Map<string, 'not_here' | 'refused'>();
  for (const id of ordered) states.set(id, 'not_here');
  for (const { id } of rows) states.set(id, 'refused');
  return states;
}

/** Trees for these spots that came and wait: when water was last given to their delivery, and how its nursery did. */
export async function heldTrees(
  db: Db,
  spotIds: readonly string[],
): Promise<Map<string, { readonly wateredOn: IsoDate; readonly everyDays: number | null }>> {
  const { rows } = await db.raw<{ rows: { id: string; watered_on: string; every: number | null }[] }>(
    `select spot.id, greatest(delivery.arrived_on, max(water.on_day))::text as watered_on,
       delivery.watered_every_days as every
     from spot join delivery_lot lot on jsonb_exists(lot.spots, spot.ref)
     join delivery on delivery.id = lot.delivery_id
     left join delivery_water water on water.delivery_id = delivery.id
     where spot.id = any(?::uuid[]) and lot.verdict in ('accept', 'correct', 'hold')
     group by spot.id, delivery.id order by watered_on`,
    [[...spotIds]],
  );
  return new Map(rows.map(({ id, watered_on, every }) => [id, { wateredOn: watered_on, everyDays: every }]));
}

/** Of these spots, those with an owner's yes, and those with a permit on a day. */
export async function leaveOn(
  db: Db,
  spotIds: readonly string[],
  day: IsoDate,
): Promise<{ consented: Set<string>; permitted: Set<string> }> {
  const consented: string[] = await db('owner_consent')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .where({ agrees: true })
    .whereNull('revoked_at')
    .pluck('spot_id');
  const permitted: string[] = await db('road_permit_spot as member')
    .join('road_permit as permit', 'permit.id', 'member.permit_id')
    .whereRaw('member.spot_id = any(?::uuid[])', [[...spotIds]])
    .where('valid_from', '<=', day)
    .where('valid_until', '>=', day)
    .pluck('member.spot_id');
  return { consented: new Set(consented), permitted: new Set(permitted) };
}
