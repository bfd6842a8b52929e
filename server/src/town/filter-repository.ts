import type { SpotFilter } from '@sombra/contract';
import { addDaysTo, type IsoDate } from '@sombra/core';
import type { Knex } from 'knex';
import { escapeLike, type Db } from '../platform/db';

/** First and last day of the planting season that begins in a year. */
export const seasonSpan = (year: number): [IsoDate, IsoDate] => [`${year}-07-01`, `${year + 1}-06-30`];

/** The periods a day falls in. The last one of a spot also answers for every day ahead. */
export function onDay(query: Knex.QueryBuilder, table: string, on: IsoDate, today: IsoDate): Knex.QueryBuilder {
  if (on >= today) return query.whereNull(`${table}.until_day`);
  return query
    .where(`${table}.from_day`, '<=', on)
    .where((or) => or.whereNull(`${table}.until_day`).orWhere(`${table}.until_day`, '>', on));
}

/** One row for each spot a filter means, as `period`; conditions never multiply rows. */
export function periodsOf(db: Db, filter: SpotFilter, today: IsoDate): Knex.QueryBuilder {
  const on = filter.on ?? today;
  const query = filter.find
    ? foundOn(db, filter.find, on, today)
    : onDay(db('spot_period as period'), 'period', on, today);
  if (filter.stage) void query.whereIn('period.stage', filter.stage);
  if (filter.level) void query.whereIn('period.level', filter.level);
  if (filter.probe) void query.whereIn('period.probe', filter.probe);
  if (filter.planted === 'yes') void query.whereNotNull('period.planted_on');
  if (filter.planted === 'no') void query.whereNull('period.planted_on');
  if (filter.comes) {
    void withComing(db, query, on);
    void query.whereNotNull('period.planted_on').whereRaw(`${comesAlong} = ?`, [on, on, filter.comes]);
  }
  if (filter.season) {
    void query.whereBetween('period.planted_on', seasonSpan(filter.season));
  }
  if (filter.plantedFrom) void query.where('period.planted_on', '>=', filter.plantedFrom);
  if (filter.plantedUntil) void query.where('period.planted_on', '<=', filter.plantedUntil);
  if (filter.due === 'late') void query.where('period.due_on', '<', on);
  if (filter.due === 'week') void query.where('period.due_on', '<=', addDaysTo(on, 7));
  if (filter.area)
    void query.whereRaw(`st_intersects(period.at, st_transform(st_geomfromtext(?, 4326), 3857))`, [ring(filter.area)]);
  for (const spots of spotsNamed(db, filter)) void query.whereIn('period.spot_id', spots);
  return query;
}

/**
 * What is found by its words is found first and then looked up one by one: no more work than reading every spot where it
 * is many, and none to speak of where it is few. `offset 0` keeps the database from turning that round by a guess of how
 * many there are, which is far off where much has just come in.
 */
function foundOn(db: Db, words: string, on: IsoDate, today: IsoDate): Knex.QueryBuilder {
  const its = onDay(db('spot_period'), 'spot_period', on, today).whereRaw('spot_period.spot_id = found.spot_id');
  return db.from(
    db.raw('unnest(array(?)) as found (spot_id) cross join lateral (? offset 0) as period', [
      spotsLike(db, words),
      its,
    ]),
  );
}

/** The season a period's tree was planted in, as SQL: it goes from July of its year to June. */
export const plantingSeason = (period = 'period'): string =>
  `extract(year from ${period}.planted_on - interval '6 months')::int`;

/**
 * Adds to a query of `period`s, as `coming`, those that wait for somebody's word; then says how each planted tree comes
 * along on a day, with the day bound twice.
 */
export const withComing = (db: Db, query: Knex.QueryBuilder, on: IsoDate): Knex.QueryBuilder =>
  query.leftJoin(
    db('decision').where({ kind: 'sign_off' }).where('due_on', '<=', on).select('spot_id', 'from_day').as('coming'),
    (join) => join.on('coming.spot_id', 'period.spot_id').andOn('coming.from_day', 'period.from_day'),
  );
export const comesAlong = `case
  when period.established_on <= ?::date then 'established'
  when coming.spot_id is not null then 'ready'
  when period.level in ('act', 'urgent') or period.next_look_on < ?::date - 30 then 'hangs'
  else 'on_the_way' end`;

const ring = (corners: readonly (readonly [number, number])[]): string =>
  `POLYGON((${[...corners, ...corners.slice(0, 1)].map(([lng, lat]) => `${lng} ${lat}`).join(',')}))`;

/** Conditions on what belongs to a spot, as sets of spots. */
function spotsNamed(db: Db, filter: SpotFilter): Knex.QueryBuilder[] {
  const sets: Knex.QueryBuilder[] = [];
  const inPlaces = () => db('spot').join('place', 'place.id', 'spot.place_id').select('spot.id');
  const standing = () => db('tree').where({ standing: true }).select('spot_id');
  if (filter.ref) sets.push(db('spot').whereIn('ref', filter.ref).select('id'));
  if (filter.place) sets.push(inPlaces().whereIn('place.name', filter.place));
  if (filter.species) sets.push(standing().whereIn('species', filter.species));
  if (filter.recordedBy) sets.push(db('field_record').where({ recorded_by: filter.recordedBy }).select('spot_id'));
  if (filter.day) sets.push(db('planting_day_spot').where({ day_id: filter.day }).select('spot_id'));
  if (filter.remedy) {
    const open = db('decision').whereIn('remedy', filter.remedy).select('spot_id');
    sets.push(open.whereRaw('decision.spot_id = period.spot_id and decision.from_day = period.from_day'));
  }
  if (filter.waits) {
    const waiting = db('decision').whereRaw('decision.because @> ?::jsonb', [JSON.stringify([{ code: filter.waits }])]);
    sets.push(
      waiting.select('spot_id').whereRaw('decision.spot_id = period.spot_id and decision.from_day = period.from_day'),
    );
  }
  return sets;
}

/** The spots whose number, place or species holds some words. */
function spotsLike(db: Db, words: string): Knex.QueryBuilder {
  const like = `%${escapeLike(words)}%`;
  // Each by its own index: one condition over both tables would read every spot.
  const inPlacesLike = db('place').whereILike('name', like).select('id');
  return db('spot')
    .whereILike('ref', like)
    .select('id')
    .union(db('spot').whereIn('place_id', inPlacesLike).select('id'))
    .union(db('tree').where({ standing: true }).whereILike('species', like).select('spot_id'));
}
