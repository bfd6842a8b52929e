import type { HourOfWeather } from '@sombra/core';
import type { Station, StationHour } from '../adapters/weather';
import type { Db } from '../platform/db';

export async function keepStation(db: Db, { id, name, position }: Station): Promise<void> {
  const at = db.raw('st_setsrid(st_makepoint(?, ?), 4326)', [...position]);
  await db('weather_station').insert({ id, name, position: at }).onConflict('id').merge(['name', 'position']);
}

/** What was measured stays; what was forecast is replaced by the newer word. */
export async function keepHours(db: Db, stationId: string, hours: readonly StationHour[]): Promise<void> {
  if (hours.length > 0) {
    await db.raw(
      `insert into weather_hour (station_id, at, source, rain_mm, temperature_c, humidity_pct, gust_ms, thunder_km, soil_c)
       select ?, at, source, "rainMm", "temperatureC", "humidityPct", "gustMs", "thunderKm", "soilC"
       from json_to_recordset(?::json) as given (at timestamptz, source text, "rainMm" double precision,
         "temperatureC" double precision, "humidityPct" double precision, "gustMs" double precision,
         "thunderKm" double precision, "soilC" double precision)
       on conflict (station_id, at, source) do update set rain_mm = excluded.rain_mm,
         temperature_c = excluded.temperature_c, humidity_pct = excluded.humidity_pct, gust_ms = excluded.gust_ms,
         thunder_km = excluded.thunder_km, soil_c = excluded.soil_c`,
      [stationId, JSON.stringify(hours)],
    );
  }
  await db('weather_station').where({ id: stationId }).update({ read_at: db.fn.now(), problem: null });
}

export async function keepProblem(db: Db, problem: string): Promise<void> {
  await db('weather_station').update({ problem: problem.slice(0, 200) });
}

/** When the longest unread station was last read; `null` where there is none, or one was never read. */
export async function readAt(db: Db): Promise<Date | null> {
  const row = await db('weather_station').first<{ at: Date | null; unread: number }>(
    db.raw('min(read_at) as at, count(*) filter (where read_at is null)::int as unread'),
  );
  return row.unread > 0 ? null : row.at;
}

/** The nearest station that knows a day at a place, and its hours: measured ones before those forecast. */
export async function hoursNear(
  db: Db,
  position: readonly [number, number] | null,
  day: { date: string; timeZone: string },
): Promise<{ station: string; hours: HourOfWeather[] } | null> {
  const { rows } = await db.raw<{ rows: { name: string; hours: HourOfWeather[] }[] }>(
    `select station.name, json_agg(json_build_object('hour', hour, 'rainMm', rain_mm, 'temperatureC', temperature_c,
       'humidityPct', humidity_pct, 'gustMs', gust_ms, 'thunderKm', thunder_km, 'soilC', soil_c) order by hour) as hours
     from weather_station station
     cross join lateral (
       select distinct on (at) cast(extract(hour from at at time zone :timeZone) as int) as hour, weather_hour.*
       from weather_hour
       where station_id = station.id and cast(at at time zone :timeZone as date) = cast(:date as date)
       order by at, source = 'recorded' desc
     ) known
     group by station.id, station.name, station.position
     order by station.position <-> coalesce(st_setsrid(st_makepoint(cast(:lng as float8), cast(:lat as float8)), 4326), station.position), station.id
     limit 1`,
    { timeZone: day.timeZone, date: day.date, lng: position?.[0] ?? null, lat: position?.[1] ?? null },
  );
  const [row] = rows;
  return row ? { station: row.name, hours: row.hours } : null;
}

/** Hours of a station that make a day of it. */
const hoursOfDay = 20;
/** A station nearer than this to the middle of the spots is as good as at it. m */
const asGoodAsThereM = 1000;

/**
 * Makes days of the hours that are known, as the mean of the stations by their nearness to the middle of the spots: what was measured of days that are over, and the
 * forecast from today on; of the last days, as far back as hours are read. A day that was measured otherwise, by a file or by hand, stays as it is.
 */
export async function keepDays(db: Db, { today, timeZone }: { today: string; timeZone: string }): Promise<void> {
  await db.raw(
    `with middle as (
       select st_setsrid(st_makepoint(avg(st_x(position)), avg(st_y(position))), 4326) as at from spot
     ), weighed as (
       -- By the square of the distance: a station twice as far off says a quarter as much.
       select id as station_id,
         1 / power(greatest(:near, coalesce(st_distance(cast(position as geography), cast(middle.at as geography)), 0)), 2) as w
       from weather_station cross join middle
     )
     insert into weather_day (day, source, rain_mm, t_min_c, t_max_c, humidity_min_pct, humidity_max_pct)
     select day, case when day < cast(:today as date) then 'recorded' else 'forecast' end,
       round(cast(sum(w * rain) / sum(w) as numeric), 2), round(cast(sum(w * low) / sum(w) as numeric), 2),
       round(cast(sum(w * high) / sum(w) as numeric), 2), round(cast(sum(w * dry) / sum(w) as numeric)),
       round(cast(sum(w * damp) / sum(w) as numeric))
     from (
       select station_id, day, sum(rain_mm) * 24 / count(*) as rain, min(temperature_c) as low, max(temperature_c) as high,
         min(humidity_pct) as dry, max(humidity_pct) as damp
       from (
         select distinct on (station_id, at) cast(at at time zone :timeZone as date) as day, weather_hour.*
         from weather_hour where at >= cast(:today as date) - 4
         order by station_id, at, source = 'recorded' desc
       ) known
       where day >= cast(:today as date) or source = 'recorded'
       group by station_id, day having count(*) >= :least
     ) stations join weighed using (station_id)
     group by day
     on conflict (day) do update set source = excluded.source, rain_mm = excluded.rain_mm, t_min_c = excluded.t_min_c,
       t_max_c = excluded.t_max_c, humidity_min_pct = excluded.humidity_min_pct,
       humidity_max_pct = excluded.humidity_max_pct, wind_ms = null, radiation_mj = null
     where weather_day.source = 'forecast'`,
    { today, timeZone, least: hoursOfDay, near: asGoodAsThereM },
  );
}
