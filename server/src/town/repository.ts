import type { Facets, RankQuery, SpotCsvQuery, SpotFilter, SpotLine, SpotListQuery, SpotSort } from '@sombra/contract';
import { preparingStages, stages, type IsoDate, type Level, type Stage } from '@sombra/core';
import type { Knex } from 'knex';
import { withStandingTree } from '../spots/repository';
import type { Db } from '../platform/db';
import { periodsOf } from './filter-repository';

const sortColumns: Readonly<Record<SpotSort, string>> = {
  ref: 'period.ref',
  place: 'place.name',
  species: 'tree.species',
  stage: `array_position(array[${stages.map((stage) => `'${stage}'`).join(',')}], period.stage)`,
  level: `array_position(array['good','watch','act','urgent'], period.level)`,
  plantedOn: 'period.planted_on',
  probe: `array_position(array['dry','slightly_dry','moist','wet','saturated'], period.probe)`,
  nextLookOn: 'period.next_look_on',
  dueOn: 'period.due_on',
  decisions: 'period.decisions',
};

interface Order {
  readonly sort: SpotSort;
  readonly down: boolean;
}

const sortedBy = ({ sort, down }: Order): string =>
  sort === 'ref'
    ? `period.ref ${down ? 'desc' : 'asc'}`
    : `${sortColumns[sort]} ${down ? 'desc' : 'asc'} nulls last, period.ref`;

/** The spots of a filter, joined to no more than their order needs. */
function orderable(db: Db, filter: SpotFilter, { sort }: Order, today: IsoDate): Knex.QueryBuilder {
  const query = periodsOf(db, filter, today);
  if (sort !== 'place' && sort !== 'species') return query;
  void query.join('spot', 'spot.id', 'period.spot_id');
  return sort === 'place' ? query.join('place', 'place.id', 'spot.place_id') : withStandingTree(db, query);
}

const lineColumns = (db: Db): (string | Knex.Raw)[] => [
  'spot.id as spotId',
  'tree.id as treeId',
  'spot.ref',
  'place.name as place',
  'tree.species',
  'period.stage',
  'period.level',
  'period.planted_on as plantedOn',
  'period.probe',
  'period.next_look_on as nextLookOn',
  'period.decisions',
  'period.due_on as dueOn',
  db.raw('array[period.lng, period.lat] as position'),
];

/** Fetches what a line says only for the lines of the page. */
function withLines(db: Db, page: Knex.QueryBuilder, order: Order): Promise<SpotLine[]> {
  const lines = db
    .from(page.select('period.spot_id', 'period.from_day').as('page'))
    .join('spot_period as period', (on) =>
      on.on('period.spot_id', 'page.spot_id').andOn('period.from_day', 'page.from_day'),
    )
    .join('spot', 'spot.id', 'period.spot_id')
    .join('place', 'place.id', 'spot.place_id');
  return withStandingTree(db, lines).orderByRaw(sortedBy(order)).select<SpotLine[]>(lineColumns(db));
}

/** One page of a list, uncounted. */
export function linesOf(
  db: Db,
  { sort, down, offset, limit, ...filter }: SpotListQuery,
  today: IsoDate,
): Promise<SpotLine[]> {
  const order = { sort, down };
  const page = orderable(db, filter, order, today).orderByRaw(sortedBy(order)).offset(offset).limit(limit);
  return withLines(db, page, order);
}

export async function countLines(db: Db, filter: SpotFilter, today: IsoDate): Promise<number> {
  const [counted] = await periodsOf(db, filter, today).count<{ count: number }[]>('* as count');
  return Number(counted?.count ?? 0);
}

/** Place of a spot in a list, from 0; `null` where the filter leaves it out. */
export async function rankOf(db: Db, query: RankQuery, today: IsoDate): Promise<number | null> {
  const { sort, down, spotId, ...filter } = query;
  const order = { sort, down };
  if (sort === 'ref') return rankByRef(db, { filter, spotId, down }, today);
  const numbered = orderable(db, filter, order, today).select(
    'period.spot_id',
    db.raw(`row_number() over (order by ${sortedBy(order)}) as place`),
  );
  const row = await db
    .from(numbered.as('numbered'))
    .where({ spot_id: spotId })
    .first<{ place: number } | undefined>('place');
  return row ? Number(row.place) - 1 : null;
}

/** Numbers are each spot's own: those before one are counted, none is put in order. */
async function rankByRef(
  db: Db,
  { filter, spotId, down }: { readonly filter: SpotFilter; readonly spotId: string; readonly down: boolean },
  today: IsoDate,
): Promise<number | null> {
  const [own] = await periodsOf(db, filter, today)
    .where('period.spot_id', spotId)
    .limit(1)
    .select<{ ref: string }[]>('period.ref');
  if (!own) return null;
  const [before] = await periodsOf(db, filter, today)
    .where('period.ref', down ? '>' : '<', own.ref)
    .count<{ count: number }[]>('* as count');
  return Number(before?.count ?? 0);
}

/** All lines of a list, page by page, for files. */
export async function* everyLine(db: Db, query: SpotCsvQuery, today: IsoDate, page = 2000): AsyncGenerator<SpotLine> {
  const { sort, down, columns: _columns, ...filter } = query;
  for (let offset = 0; ; offset += page) {
    const lines = await linesOf(db, { ...filter, sort, down, offset, limit: page }, today);
    yield* lines;
    if (lines.length < page) return;
  }
}

export type Choices = Omit<Facets, 'waits'>;
export const mostChoices = 500;

/** Spots of a place that are alike in all that is usually asked of them. */
export interface AlikeSpots {
  readonly placeId: string;
  readonly place: string;
  readonly stage: Stage;
  readonly level: Level;
  readonly planted: boolean;
  readonly species: string | null;
  readonly count: number;
}

/** @param places those of these places alone; all where it is `null` */
export async function alikeSpots(db: Db, places: readonly string[] | null): Promise<AlikeSpots[]> {
  const ofSpots = withStandingTree(
    db,
    db('spot_period as period').whereNull('period.until_day').join('spot', 'spot.id', 'period.spot_id'),
  );
  if (places) void ofSpots.whereRaw('spot.place_id = any(?::uuid[])', [[...places]]);
  const planted = 'period.planted_on is not null';
  const counted = ofSpots
    .groupBy('spot.place_id', 'period.stage', 'period.level', 'tree.species', db.raw(planted))
    .select(
      'spot.place_id',
      'period.stage',
      'period.level',
      'tree.species',
      db.raw(`${planted} as planted`),
      db.raw('count(*)::int as count'),
    );
  return db
    .from(counted.as('counted'))
    .join('place', 'place.id', 'counted.place_id')
    .select<AlikeSpots[]>(
      'place.id as placeId',
      'place.name as place',
      'stage',
      'level',
      'planted',
      'species',
      'count',
    );
}

/** What there is to choose from, counted from the spots themselves. */
export async function choicesOf(db: Db, filter: SpotFilter, today: IsoDate): Promise<Choices> {
  const most = (query: Knex.QueryBuilder, column: string) =>
    query
      .groupBy(column)
      .orderByRaw('count(*) desc')
      .orderBy(column)
      .limit(mostChoices)
      .select<{ name: string; count: number }[]>(`${column} as name`, db.raw('count(*)::int as count'));
  // Counted by their ids first: a name is read for each place once, not for each spot.
  const ofPlaces = db
    .from(
      periodsOf(db, filter, today)
        .join('spot', 'spot.id', 'period.spot_id')
        .groupBy('spot.place_id')
        .select('spot.place_id', db.raw('count(*)::int as count'))
        .as('counted'),
    )
    .join('place', 'place.id', 'counted.place_id')
    .orderBy([{ column: 'counted.count', order: 'desc' }, { column: 'place.name' }])
    .limit(mostChoices)
    .select<{ name: string; count: number }[]>('place.name as name', 'counted.count');
  const ofSpecies = most(
    periodsOf(db, filter, today)
      .join('tree', (on) => on.on('tree.spot_id', 'period.spot_id').andOn('tree.standing', db.raw('true')))
      .whereNotNull('tree.species'),
    'tree.species',
  );
  const ofPeriods = (column: string, planted: boolean) =>
    periodsOf(db, filter, today)
      .modify((query) => (planted ? query.whereNotNull('period.planted_on') : query))
      .groupBy(column)
      .orderByRaw('count(*) desc')
      .select<{ name: string; count: number }[]>(`${column} as name`, db.raw('count(*)::int as count'));
  const [places, species, stages, levels] = await Promise.all([
    ofPlaces,
    ofSpecies,
    ofPeriods('period.stage', false),
    ofPeriods('period.level', true),
  ]);
  return { places, species, stages, levels };
}

export type Waits = Facets['waits'];
export const mostWaits = 40;

/** What the spots of one stage wait for; nothing where several are looked at. */
export async function waitsOf(db: Db, filter: SpotFilter, today: IsoDate): Promise<Waits> {
  const [stage, more] = filter.stage ?? [];
  if (!stage || more) return [];
  return waiting(db, periodsOf(db, filter, today), stage)
    .orderByRaw('count(distinct decision.spot_id) desc')
    .limit(mostWaits);
}

/** The same of every spot of a stage, place by place; of these places alone where they are given. */
export async function waitsByPlace(
  db: Db,
  stage: Stage,
  places: readonly string[] | null,
): Promise<(Waits[number] & { readonly placeId: string })[]> {
  const current = db('spot_period as period').whereNull('period.until_day').where({ 'period.stage': stage });
  const query = waiting(db, current, stage).whereNull('decision.until_day');
  if (places) void query.whereRaw('decision.place_id = any(?::uuid[])', [[...places]]);
  return query.groupBy('decision.place_id').select('decision.place_id as placeId');
}

function waiting(db: Db, periods: Knex.QueryBuilder, stage: Stage): Knex.QueryBuilder {
  const query = periods
    .join('decision', (join) =>
      join.on('decision.spot_id', 'period.spot_id').andOn('decision.from_day', 'period.from_day'),
    )
    .groupBy('decision.kind', 'decision.remedy')
    .select('decision.kind', 'decision.remedy', db.raw('count(distinct decision.spot_id)::int as count'));
  if (!isPreparing(stage)) {
    return (
      query
        .where('decision.kind', 'do_remedy')
        // What is only booked, and lost by no waiting, is no trouble.
        .whereNot('decision.level', 'good')
        .select(db.raw('null as because'))
    );
  }
  return query
    .joinRaw('cross join lateral jsonb_array_elements(decision.because) as one')
    .groupByRaw(`one->>'code'`)
    .select(db.raw('(array_agg(one))[1] as because'));
}

const isPreparing = (stage: Stage): boolean => (preparingStages as readonly Stage[]).includes(stage);

/** The street or park of the base map, or the place of the spot, that lies nearest within 60 m. */
export async function nearestPlace(
  db: Db,
  [lng, lat]: readonly [number, number],
): Promise<{ place: string; distanceM: number } | undefined> {
  const here = db.raw('st_transform(st_setsrid(st_makepoint(?, ?), 4326), 3857)', [lng, lat]);
  // Web-map metres grow with latitude: shrunk back by its cosine.
  const scale = Math.cos((lat * Math.PI) / 180);
  const named = db('base_feature')
    .whereIn('layer', ['street', 'park'])
    .whereNotNull('name')
    .whereRaw('st_dwithin(geom, ?, ?)', [here, 60 / scale])
    .select('name as place', db.raw('st_distance(geom, ?) * ? as "distanceM"', [here, scale]));
  const spots = db('spot_period as period')
    .join('spot', 'spot.id', 'period.spot_id')
    .join('place', 'place.id', 'spot.place_id')
    .whereNull('period.until_day')
    .whereRaw('st_dwithin(period.at, ?, ?)', [here, 60 / scale])
    .select('place.name as place', db.raw('st_distance(period.at, ?) * ? as "distanceM"', [here, scale]));
  const rows = await db
    .from(named.unionAll(spots).as('near'))
    .orderBy('distanceM')
    .limit(1)
    .select<{ place: string; distanceM: number }[]>('*');
  return rows[0];
}

/** Numbers in use in a place, as `C-0101`. */
export async function refsOfPlace(db: Db, place: string): Promise<string[]> {
  const rows = await db('spot')
    .join('place', 'place.id', 'spot.place_id')
    .where('place.name', place)
    .select<{ ref: string }[]>('ref');
  return rows.map(({ ref }) => ref);
}

export async function lastRefLike(db: Db, prefix: string): Promise<string | undefined> {
  const row = await db('spot')
    .whereRaw('ref ~ ?', [`^${prefix}-[0-9]{4}$`])
    .orderBy('ref', 'desc')
    .first<{ ref: string } | undefined>('ref');
  return row?.ref;
}

export async function setWithdrawn(trx: Db, spotIds: readonly string[], on: IsoDate | null): Promise<string[]> {
  const rows = await trx('spot')
    .whereRaw('id = any(?::uuid[])', [[...spotIds]])
    .update({ withdrawn_on: on })
    .returning<{ id: string }[]>('id');
  return rows.map(({ id }) => id);
}

export async function plantedAmong(trx: Db, spotIds: readonly string[]): Promise<string[]> {
  const rows = await trx('spot_period')
    .join('spot', 'spot.id', 'spot_period.spot_id')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .whereNull('until_day')
    .whereNotNull('planted_on')
    .orderBy('spot.ref')
    .select<{ ref: string }[]>('spot.ref');
  return rows.map(({ ref }) => ref);
}
