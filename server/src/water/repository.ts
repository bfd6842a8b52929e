import type { WaterFilter, WaterGroup, WaterLine } from '@sombra/contract';
import { addDaysTo, addMonthsTo, leastFollowedMonths, type IsoDate, type ProvenWatering } from '@sombra/core';
import type { Knex } from 'knex';
import type { Db } from '../platform/db';
import { seasonSpan } from '../town/filter-repository';

/** The species of the tree that stands at each of these spots. */
export async function speciesOfSpots(db: Db, spotIds: readonly string[]): Promise<Map<string, string>> {
  const rows = await db('tree')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .where({ standing: true })
    .whereNotNull('species')
    .select<{ spot_id: string; species: string }[]>('spot_id', 'species');
  return new Map(rows.map(({ spot_id, species }) => [spot_id, species]));
}

/** How many trees wait to be followed anew, how many are followed, and a fingerprint of all weather and of where it is. */
export async function whatChanged(db: Db): Promise<{ due: number; trees: number; weather: string }> {
  const { rows } = await db.raw<{ rows: { due: number; trees: number; weather: string | null }[] }>(
    `select (select count(*)::int from water_due) as due,
       (select greatest(reltuples, 0)::int from pg_class where oid = 'tree_water'::regclass) as trees,
       (select md5(string_agg(weather_day::text, ',' order by day)) from weather_day)
         || (select md5(string_agg(programme::text, ',')) from programme) as weather`,
  );
  const [row] = rows;
  return { due: row?.due ?? 0, trees: row?.trees ?? 0, weather: row?.weather ?? '' };
}

/** Where a tree belongs on a day: by when it asks for water. */
const groupSql = (today: string) => ({
  sql: `case when water.next->>'kind' = 'drowned' then 'drowned'
    when water.next->>'kind' <> 'water' then 'later'
    when water.next->>'on' <= ? then 'now' when water.next->>'on' <= ? then 'week' else 'later' end`,
  values: [today, addDaysTo(today, 7)],
});

interface Asked extends WaterFilter {
  readonly today: IsoDate;
}

/** Followed trees with the group each is in. */
export function grouped(
  db: Db,
  { place, unread, today }: Pick<Asked, 'place' | 'unread' | 'today'>,
): Knex.QueryBuilder {
  const { sql, values } = groupSql(today);
  const trees = db('tree_water as water')
    .join('spot', 'spot.id', 'water.spot_id')
    .join('place', 'place.id', 'spot.place_id')
    .select('water.*', 'spot.ref', 'spot.position', 'place.name as place', db.raw(`${sql} as part`, values));
  if (place !== undefined) void trees.where('place.name', place);
  if (unread === 'yes') void trees.whereRaw(isUnread, [today, today]);
  return trees;
}

/** In the first growing season, and not felt for as long as the practice has it felt. */
const isUnread = `water.probe_every is not null and ?::date between water.probe_from and water.probe_until
  and greatest(water.read_on, water.probe_from - 1) + water.probe_every < ?::date`;

const inGroup = (db: Db, asked: Asked): Knex.QueryBuilder => {
  const query = db.from(grouped(db, asked).as('water'));
  return asked.group === undefined ? query : query.where('part', asked.group);
};

/** The most urgent first: those that drown, then by the day they ask for water, the drier ones before. */
const order = `(part = 'drowned') desc, coalesce(water.next->>'on', '9999') , water.supply, water.ref`;

/** Followed trees of a place, or planted in a season, by number. */
export async function followedTrees(
  db: Db,
  { place, season }: { readonly place: string | null; readonly season: number | null },
): Promise<string[]> {
  const trees = db('tree_water as water')
    .join('spot', 'spot.id', 'water.spot_id')
    .orderBy('spot.ref')
    .pluck<string[]>('water.spot_id');
  if (place !== null) {
    void trees.join('place', 'place.id', 'spot.place_id').where('place.name', place);
  }
  if (season !== null) {
    void trees.whereRaw(`water.subject->>'plantedOn' between ? and ?`, seasonSpan(season));
  }
  return trees;
}

export async function waterLines(
  db: Db,
  asked: Asked & { readonly offset: number; readonly limit: number },
): Promise<WaterLine[]> {
  return inGroup(db, asked)
    .leftJoin('tree', (on) => on.on('tree.spot_id', 'water.spot_id').andOn('tree.standing', db.raw('true')))
    .orderByRaw(order)
    .offset(asked.offset)
    .limit(asked.limit)
    .select<WaterLine[]>(
      'water.spot_id as spotId',
      'tree.id as treeId',
      'water.ref',
      'water.place',
      'tree.species',
      db.raw('array[st_x(water.position), st_y(water.position)] as position'),
      db.raw(`water.subject->>'plantedOn' as "plantedOn"`),
      'water.share',
      'water.error_share as errorShare',
      'water.next',
      'water.read_on as readOn',
      'water.stress_days as stressDays',
      'water.waterlogged_days as waterloggedDays',
    );
}

export async function waterCounts(
  db: Db,
  asked: Asked,
): Promise<{ counts: Record<WaterGroup, number>; total: number; litres: number }> {
  const rows = await db
    .from(grouped(db, asked).as('water'))
    .groupBy('part')
    .select<{ part: WaterGroup; count: number; litres: number | null }[]>(
      'part',
      db.raw('count(*)::int as count'),
      db.raw(`sum((water.next->>'litres')::float8) as litres`),
    );
  const counts = { now: 0, week: 0, later: 0, drowned: 0 };
  for (const { part, count } of rows) counts[part] = count;
  const shown = asked.group === undefined ? rows : rows.filter(({ part }) => part === asked.group);
  return {
    counts,
    total: shown.reduce((sum, { count }) => sum + count, 0),
    litres: shown.reduce((sum, { litres }) => sum + (litres ?? 0), 0),
  };
}

export async function unreadCount(db: Db, { place, today }: Pick<Asked, 'place' | 'today'>): Promise<number> {
  const trees = grouped(db, { place, unread: 'yes', today });
  const row = await db.from(trees.as('water')).first<{ n: number } | undefined>(db.raw('count(*)::int as n'));
  return row?.n ?? 0;
}

export async function waterPlaces(db: Db, asked: Asked): Promise<{ name: string; count: number }[]> {
  const { place: _any, ...others } = asked;
  return inGroup(db, others)
    .groupBy('place')
    .orderBy('place')
    .select<{ name: string; count: number }[]>('place as name', db.raw('count(*)::int as count'));
}

/** Trees and litres by the day they ask for water; what is overdue is asked for today. */
export async function waterByDay(
  db: Db,
  { place, today }: Pick<Asked, 'place' | 'today'>,
): Promise<{ day: IsoDate; trees: number; litres: number }[]> {
  const trees = grouped(db, { place, today }).whereRaw(`water.next->>'kind' = 'water'`);
  return (
    db
      .from(trees.as('water'))
      // By its place: every tree has a `day` of its own too.
      .groupByRaw('1')
      .orderByRaw('1')
      .select<{ day: IsoDate; trees: number; litres: number }[]>(
        db.raw(`greatest(water.next->>'on', ?) as day`, [today]),
        db.raw('count(*)::int as trees'),
        db.raw(`sum((water.next->>'litres')::float8) as litres`),
      )
  );
}

/** Waterings on record at some trees within a span, with the photos taken there on their day. */
export async function provenWaterings(
  db: Db,
  { refs, from, until }: { readonly refs: readonly string[]; readonly from: IsoDate; readonly until: IsoDate },
): Promise<ProvenWatering[]> {
  const { rows } = await db.raw<{ rows: ProvenWatering[] }>(
    `select spot.ref, made.facts->>'wateredOn' as "wateredOn", (made.facts->>'litres')::float8 as litres,
       made.recorded_by as by, made.facts->>'toldBy' is not null as unseen,
       (select count(*)::int from spot_photo photo where photo.spot_id = spot.id
          and photo.added_at::date = (made.facts->>'wateredOn')::date) as photos
     from spot join field_record made on made.spot_id = spot.id and made.kind = 'watering'
     where lower(spot.ref) = any(?::text[]) and made.facts->>'wateredOn' between ? and ?
       and not exists (select from field_record later where later.supersedes = made.id)
     order by spot.ref, made.facts->>'wateredOn', made.id`,
    [refs.map((ref) => ref.trim().toLowerCase()), from, until],
  );
  return rows;
}

/** Planted trees whose own water is followed no more, by species. */
export async function establishedBySpecies(
  db: Db,
  today: IsoDate,
): Promise<{ species: string | null; trees: number }[]> {
  return establishedTrees(db, today)
    .groupBy('tree.species')
    .select<{ species: string | null; trees: number }[]>('tree.species', db.raw('count(*)::int as trees'));
}

/** Trees signed off, or planted long enough ago for nobody to follow their own water any more, each at its spot. */
export const establishedTrees = (db: Db, today: IsoDate): Knex.QueryBuilder =>
  db('spot_period as period')
    .join('tree', (on) => on.on('tree.spot_id', 'period.spot_id').andOn('tree.standing', db.raw('true')))
    .whereNull('period.until_day')
    .where((old) =>
      old
        .where('period.planted_on', '<=', addMonthsTo(today, -leastFollowedMonths))
        .orWhereNotNull('period.established_on'),
    )
    .whereNotExists(db('tree_water as water').whereRaw('water.spot_id = period.spot_id').select(db.raw('1')));
