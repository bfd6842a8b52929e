import { addDaysTo, addMonthsTo, daysBetween, type IsoDate } from '../calendar';
import { referenceEtMm, type Station, type WeatherDay } from '../weather';

/** Depths of one week, mm of water, with the range they may fall in; for a recorded week all three agree. */
export interface WeekDepth {
  readonly mm: number;
  readonly lowMm: number;
  readonly highMm: number;
}

export interface SeasonWeek {
  readonly monday: IsoDate;
  /** `usual`: no forecast reaches so far; the mean of the same week in earlier years stands in. */
  readonly source: 'recorded' | 'forecast' | 'usual' | 'unknown';
  readonly rain: WeekDepth;
  /** Reference evapotranspiration: what the air asks of a well-watered short crop. */
  readonly demand: WeekDepth;
}

export interface SeasonWeather {
  readonly recorded: readonly WeatherDay[];
  readonly forecast: readonly WeatherDay[];
  readonly station: Station;
}

/** The Monday on or before a day. */
export function mondayOf(day: IsoDate): IsoDate {
  // 5 January 1970 was a Monday.
  const since = daysBetween('1970-01-05', day);
  return addDaysTo(day, -(((since % 7) + 7) % 7));
}

/** Years looked back on for what a week usually brings. */
const yearsBack = 6;

interface DayDepth {
  readonly rainMm: number;
  readonly demandMm: number;
}

/**
 * Rain and water demand week by week. Days on record count as they were; days ahead come from the
 * forecast, and beyond it from the same days of earlier years, with their least and most as the range.
 */
export function seasonWeeks(weather: SeasonWeather, span: { from: IsoDate; weeks: number }): SeasonWeek[] {
  const depths = (days: readonly WeatherDay[]) =>
    new Map(
      days.map((day): [IsoDate, DayDepth] => [
        day.day,
        { rainMm: day.rainMm, demandMm: referenceEtMm(day, weather.station) },
      ]),
    );
  const recorded = depths(weather.recorded);
  const forecast = depths(weather.forecast);
  const first = mondayOf(span.from);
  return Array.from({ length: span.weeks }, (_, i) => weekFrom(addDaysTo(first, 7 * i), recorded, forecast));
}

type Days = ReadonlyMap<IsoDate, DayDepth>;
const daysOf = (monday: IsoDate): IsoDate[] => Array.from({ length: 7 }, (_, i) => addDaysTo(monday, i));

function weekFrom(monday: IsoDate, recorded: Days, forecast: Days): SeasonWeek {
  const days = daysOf(monday);
  const known = days.map((day) => recorded.get(day)).filter((day) => day !== undefined);
  const ahead = days.flatMap((day) => (recorded.has(day) ? [] : (forecast.get(day) ?? [])));
  const usual = usualWeeks(days, recorded);
  const depth = (of: (day: DayDepth) => number) =>
    weekDepth(
      known.map(of),
      ahead.map(of),
      usual.map((w) => w.map(of)),
    );
  const source = sourceOf(known.length, ahead.length, usual.length);
  return { monday, source, rain: depth((d) => d.rainMm), demand: depth((d) => d.demandMm) };
}

function sourceOf(known: number, ahead: number, usual: number): SeasonWeek['source'] {
  if (known === 7) return 'recorded';
  if (known + ahead > 0) return 'forecast';
  return usual > 0 ? 'usual' : 'unknown';
}

/** The same seven days in earlier years, where all are on record. */
function usualWeeks(days: readonly IsoDate[], recorded: Days): DayDepth[][] {
  return Array.from({ length: yearsBack }, (_, i) =>
    days.map((day) => recorded.get(addMonthsTo(day, -12 * (i + 1)))).filter((day) => day !== undefined),
  ).filter((week) => week.length === 7);
}

function weekDepth(
  known: readonly number[],
  ahead: readonly number[],
  usual: readonly (readonly number[])[],
): WeekDepth {
  const sum = (values: readonly number[]) => values.reduce((total, value) => total + value, 0);
  const weeks = usual.map(sum);
  const mean = weeks.length > 0 ? sum(weeks) / weeks.length : 0;
  const share = (days: number) => days / 7;
  const mm = sum(known) + sum(ahead) + share(7 - known.length - ahead.length) * mean;
  const open = share(7 - known.length);
  const low = sum(known) + open * Math.min(mean, ...weeks);
  const high = sum(known) + open * Math.max(mean, ...weeks);
  return { mm, lowMm: Math.min(mm, low), highMm: Math.max(mm, high) };
}
