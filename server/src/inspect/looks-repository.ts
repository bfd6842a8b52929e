import {
  addDaysTo,
  iceThickness,
  latest,
  type IcyHour,
  type IsoDate,
  type Level,
  type NextWater,
  type Storm,
} from '@sombra/core';
import type { Db } from '../platform/db';
import { plantingSeason } from '../town/filter-repository';

export interface LookRow {
  readonly spotId: string;
  readonly treeId: string;
  readonly ref: string;
  readonly place: string;
  readonly species: string | null;
  readonly position: readonly [number, number];
  readonly level: Level;
  readonly plantedOn: IsoDate;
  readonly lookedOn: IsoDate | null;
  readonly dueOn: IsoDate | null;
  readonly next: NextWater | null;
  /** Of its species, planted in its season. */
  readonly trees: number;
  readonly troubled: number;
}

export interface LooksAsked {
  readonly place: string | undefined;
  readonly dueBy: IsoDate;
  readonly today: IsoDate;
  /** The last storm; young trees not looked at since are asked for too. `null` for none of late. */
  readonly stormOn: IsoDate | null;
  readonly youngSince: IsoDate;
  readonly most: number;
}

const season = plantingSeason();

/**
 * Planted trees whose look is due, or that something speaks for: their balance, a storm. Those found worst and latest come
 * first; a tree that was signed off is asked for only by what was found or done since.
 */
export async function looksAsked(db: Db, asked: LooksAsked): Promise<LookRow[]> {
  const { place, dueBy, today, stormOn, youngSince, most } = asked;
  const dryBy = addDaysTo(today, -2);
  const cohorts = db('spot_period as period')
    .join('tree', (on) => on.on('tree.spot_id', 'period.spot_id').andOn('tree.standing', db.raw('true')))
    .whereNull('period.until_day')
    .whereNotNull('period.planted_on')
    .groupByRaw(`coalesce(tree.species, ''), ${season}`)
    .select(
      db.raw(`coalesce(tree.species, '') as species`),
      db.raw(`${season} as season`),
      db.raw('count(*)::int as trees'),
      db.raw(`count(*) filter (where period.level in ('act', 'urgent'))::int as troubled`),
    );
  const asks = db('spot_period as period')
    .leftJoin('tree_water as water', 'water.spot_id', 'period.spot_id')
    .whereNull('period.until_day')
    .whereNotNull('period.planted_on')
    .where((any) => {
      void any
        .where('period.next_look_on', '<=', dueBy)
        .orWhereRaw(`water.next->>'kind' = 'drowned'`)
        .orWhereRaw(`(water.next->>'kind' = 'water' and water.next->>'on' <= ?)`, [dryBy]);
      if (stormOn !== null) {
        void any.orWhere((young) =>
          young
            .where('period.planted_on', '>=', youngSince)
            .where('period.planted_on', '<', stormOn)
            .whereNull('period.established_on')
            .whereRaw('coalesce(period.looked_on, period.planted_on) < ?', [stormOn]),
        );
      }
    })
    .orderByRaw(
      `array_position(array['urgent', 'act', 'watch', 'good'], period.level), period.next_look_on nulls last, period.spot_id`,
    )
    .limit(most)
    .select('period.*', 'water.next');
  if (place !== undefined) {
    const there = db('spot').join('place', 'place.id', 'spot.place_id').where('place.name', place).select('spot.id');
    void asks.whereIn('period.spot_id', there);
  }
  return db
    .from(asks.as('period'))
    .join('spot', 'spot.id', 'period.spot_id')
    .join('place', 'place.id', 'spot.place_id')
    .join('tree', (on) => on.on('tree.spot_id', 'period.spot_id').andOn('tree.standing', db.raw('true')))
    .join(cohorts.as('cohort'), (on) =>
      on.on(db.raw(`cohort.species = coalesce(tree.species, '')`)).andOn(db.raw(`cohort.season = ${season}`)),
    )
    .select<LookRow[]>(
      'period.spot_id as spotId',
      'tree.id as treeId',
      'spot.ref',
      'place.name as place',
      'tree.species',
      db.raw('array[period.lng, period.lat] as position'),
      'period.level',
      'period.planted_on as plantedOn',
      'period.looked_on as lookedOn',
      'period.next_look_on as dueOn',
      'period.next',
      'cohort.trees',
      'cohort.troubled',
    );
}

export interface StormAsked {
  readonly since: IsoDate;
  readonly gustMs: number;
  readonly iceMm: number;
  readonly zone: string;
}

/** The last storm since a day that any station measured: by its gusts, or by the ice it left on crowns. */
export async function lastStorm(db: Db, asked: StormAsked): Promise<Storm | null> {
  const [gust, ice] = [await lastGust(db, asked), await lastIce(db, asked)];
  return ice && (!gust || ice.on > gust.on) ? ice : gust;
}

async function lastGust(db: Db, { since, gustMs, zone }: StormAsked): Promise<Storm | null> {
  const row = await db('weather_hour')
    .where({ source: 'recorded' })
    .where('at', '>=', since)
    .where('gust_ms', '>=', gustMs)
    .groupByRaw('1')
    .orderByRaw('1 desc')
    .first<{ on: IsoDate; gustMs: number } | undefined>(
      db.raw('(at at time zone ?)::date as "on"', [zone]),
      db.raw('max(gust_ms)::float8 as "gustMs"'),
    );
  return row ?? null;
}

/** Only rain in frost makes ice: without it nothing but the index is read. */
async function lastIce(db: Db, { since, iceMm, zone }: StormAsked): Promise<Storm | null> {
  const measured = () => db('weather_hour').where({ source: 'recorded' }).where('at', '>=', since);
  const stations = measured().where('rain_mm', '>', 0).where('temperature_c', '<=', 0).distinct('station_id');
  const rows = await measured()
    .whereIn('station_id', stations)
    .groupBy('station_id')
    .select<{ hours: (IcyHour & { on: IsoDate })[] }[]>(
      db.raw(
        `json_agg(json_build_object('on', (at at time zone ?)::date, 'rainMm', rain_mm, 'temperatureC', temperature_c,
           'gustMs', gust_ms) order by at) as hours`,
        [zone],
      ),
    );
  const iced = rows.flatMap(({ hours }) => {
    const thick = iceThickness(hours);
    return hours.flatMap(({ on }, i) => ((thick[i] ?? 0) >= iceMm ? [{ on, iceMm: thick[i] ?? 0 }] : []));
  });
  const on = latest(iced.map((one) => one.on));
  return on === undefined
    ? null
    : { on, iceMm: Math.max(...iced.flatMap((one) => (one.on === on ? [one.iceMm] : []))) };
}
