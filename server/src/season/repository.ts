import type { BandMark, IsoDate, PlantingWindow, Station, WeatherDay } from '@sombra/core';
import type { Db } from '../platform/db';
import { findProgramme } from '../programme/repository';

interface WeatherRow {
  day: string;
  source: 'recorded' | 'forecast';
  rain_mm: number;
  t_min_c: number;
  t_max_c: number;
  humidity_min_pct: number | null;
  humidity_max_pct: number | null;
  wind_ms: number | null;
  radiation_mj: number | null;
}

export async function weatherDays(
  db: Db,
  span: { from: IsoDate; to: IsoDate },
): Promise<{ recorded: WeatherDay[]; forecast: WeatherDay[] }> {
  const rows = await db<WeatherRow>('weather_day').whereBetween('day', [span.from, span.to]).orderBy('day');
  const of = (source: WeatherRow['source']) =>
    rows
      .filter((row) => row.source === source)
      .map((row): WeatherDay => ({
        day: row.day,
        rainMm: row.rain_mm,
        tMinC: row.t_min_c,
        tMaxC: row.t_max_c,
        humidityMinPct: row.humidity_min_pct,
        humidityMaxPct: row.humidity_max_pct,
        windMs: row.wind_ms,
        radiationMj: row.radiation_mj,
      }));
  return { recorded: of('recorded'), forecast: of('forecast') };
}

export async function insertWeather(db: Db, days: readonly WeatherDay[], source: WeatherRow['source']): Promise<void> {
  const rows = days.map((day) => ({
    day: day.day,
    source,
    rain_mm: day.rainMm,
    t_min_c: day.tMinC,
    t_max_c: day.tMaxC,
    humidity_min_pct: day.humidityMinPct,
    humidity_max_pct: day.humidityMaxPct,
    wind_ms: day.windMs,
    radiation_mj: day.radiationMj,
  }));
  await db.batchInsert('weather_day', rows, 500);
}

/** Keeps measured days in the place of what was known of them. Returns how many say something new. */
export async function keepMeasured(db: Db, days: readonly WeatherDay[]): Promise<number> {
  const rows = days.map((day) => ({
    day: day.day,
    source: 'recorded',
    rain_mm: day.rainMm,
    t_min_c: day.tMinC,
    t_max_c: day.tMaxC,
    humidity_min_pct: day.humidityMinPct,
    humidity_max_pct: day.humidityMaxPct,
    wind_ms: day.windMs,
    radiation_mj: day.radiationMj,
  }));
  const { rows: changed } = await db.raw<{ rows: unknown[] }>(
    `insert into weather_day select given.* from json_populate_recordset(null::weather_day, ?::json) given
     on conflict (day) do update set source = excluded.source, rain_mm = excluded.rain_mm, t_min_c = excluded.t_min_c,
       t_max_c = excluded.t_max_c, humidity_min_pct = excluded.humidity_min_pct,
       humidity_max_pct = excluded.humidity_max_pct, wind_ms = excluded.wind_ms, radiation_mj = excluded.radiation_mj
     where weather_day.* is distinct from excluded.*
     returning day`,
    [JSON.stringify(rows)],
  );
  return changed.length;
}

/** The rain of a measured day, by a gauge. Returns false where the day is not on record. */
export async function keepRain(db: Db, day: IsoDate, rainMm: number): Promise<boolean> {
  return (await db('weather_day').where({ day }).update({ rain_mm: rainMm, source: 'recorded' })) > 0;
}

export async function programmeSeason(db: Db): Promise<{ station: Station; windows: PlantingWindow[] }> {
  const kept = await findProgramme(db);
  return {
    station: { latDeg: kept?.latDeg ?? 0, elevationM: kept?.elevationM ?? 0 },
    windows: kept?.windows ?? [],
  };
}

/** What is booked in a span of days. */
export async function bandMarks(db: Db, span: { from: IsoDate; to: IsoDate }): Promise<BandMark[]> {
  const [days, rounds, tickets] = await Promise.all([
    db('planting_day')
      .leftJoin('planting_day_spot as member', 'member.day_id', 'planting_day.id')
      .whereBetween('on_day', [span.from, span.to])
      .groupBy('planting_day.id')
      .orderBy('on_day')
      .select<{ on_day: string; title: string; spots: number }[]>(
        'on_day',
        'title',
        db.raw('count(member.spot_id)::int as spots'),
      ),
    db<{ title: string; from_day: string; until_day: string }>('field_round')
      .where('from_day', '<=', span.to)
      .where('until_day', '>=', span.from)
      .orderBy('from_day'),
    db<{ number: string; valid_from: string; valid_until: string }>('locate_ticket')
      .where('valid_from', '<=', span.to)
      .where('valid_until', '>=', span.from)
      .orderBy('valid_from')
      .select('number', 'valid_from', 'valid_until'),
  ]);
  return [
    ...days.map(({ on_day, title, spots }): BandMark => ({
      kind: 'planting_day',
      from: on_day,
      to: on_day,
      title: `Planting day ${on_day}: ${title}, ${spots} spots`,
    })),
    ...rounds.map(({ title, from_day, until_day }): BandMark => ({
      kind: 'round',
      from: from_day,
      to: until_day,
      title: `${title}, ${from_day} to ${until_day}`,
    })),
    ...tickets.map(({ number, valid_from, valid_until }): BandMark => ({
      kind: 'ticket',
      from: valid_from,
      to: valid_until,
      title: `Locate ticket ${number}, valid ${valid_from} to ${valid_until}`,
    })),
  ];
}
