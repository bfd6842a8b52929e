import { worstLevel, type Level } from '../reason';
import { heatIndexC } from './heat-index';
import { because, type DayReason } from './reasons';

/** One hour of weather, forecast or measured. */
export interface HourOfWeather {
  /** Hours since midnight of the day, in the programme's time zone: 9 is 09:00–10:00. */
  readonly hour: number;
  readonly rainMm: number;
  readonly temperatureC: number;
  readonly humidityPct: number;
  readonly gustMs: number;
  /** To the nearest thunder; `null` where there is none. */
  readonly thunderKm: number | null;
  /** Of the soil at 50 mm, where a station measures or forecasts it. */
  readonly soilC: number | null;
}

/** From when on weather stops work outside; a programme's own numbers, below its local code. */
export interface WeatherRules {
  /** Thunder nearer than this stops work. */
  readonly thunderKm: number;
  /** Nobody goes out again before so long after the last thunder. */
  readonly afterThunderMin: number;
  /** From this heat index on work goes in short turns, with shade and water. */
  readonly heatBreaksC: number;
  /** Rest in the shade, with water, in each hour that hot. */
  readonly heatBreakMin: number;
  /** From this heat index on nobody digs. */
  readonly heatStopC: number;
  /** Gusts that stop lifting and staking. */
  readonly gustStopMs: number;
  /** Rain in an hour that goes on all the same. */
  readonly lightRainMm: number;
  /** Rain in an hour that stops work: soil smears, tools slip. */
  readonly rainStopMm: number;
  /** Soil this cold is frozen: nothing is planted. */
  readonly frozenSoilC: number;
}

/**
 * 10 km and 30 min: outdoors-safety guidance of the US National Weather Service (lightning strikes that far from the
 * rain). Heat index 32 °C caution with breaks, 39 °C stop: the bands of its chart (extreme caution from 32, danger from
 * 39.4). Ten minutes of rest in an hour that hot: an estimate, between what outdoor-work codes ask. Gusts of Beaufort 7 from 13.9 m/s. Rain: light up to 2.5 mm in an hour, heavy from 7.6 (American
 * Meteorological Society, Glossary). Local codes go first.
 */
export const defaultWeatherRules: WeatherRules = {
  thunderKm: 10,
  afterThunderMin: 30,
  heatBreaksC: 32,
  heatBreakMin: 10,
  heatStopC: 39,
  gustStopMs: 13.9,
  lightRainMm: 2.5,
  rainStopMm: 7.6,
  frozenSoilC: 0,
};

export interface JudgedHour {
  readonly hour: number;
  readonly level: Level;
  /** Nobody works outside in it. */
  readonly stops: boolean;
  readonly because: readonly DayReason[];
}

export type WeatherAdvice = 'go' | 'delay' | 'call_off' | 'unknown';

export interface WeatherWatch {
  readonly advice: WeatherAdvice;
  /** First hour to begin at; where the advice is to delay it is later than asked. */
  readonly beginHour: number | null;
  readonly hours: readonly JudgedHour[];
  readonly because: readonly DayReason[];
}

/** One hour against the rules. */
export function judgeHour(hour: HourOfWeather, rules: WeatherRules = defaultWeatherRules): JudgedHour {
  const found: { level: Level; stops: boolean; why: DayReason }[] = [];
  const say = (level: Level, stops: boolean, why: DayReason) => found.push({ level, stops, why });
  const feelsC = heatIndexC(hour.temperatureC, hour.humidityPct);
  const at = { hour: hour.hour };
  if (hour.thunderKm !== null && hour.thunderKm <= rules.thunderKm) {
    say('urgent', true, because('weather_thunder', { ...at, km: hour.thunderKm, limitKm: rules.thunderKm }));
  }
  if (feelsC >= rules.heatStopC) {
    say('urgent', true, because('weather_heat_stops', { ...at, feelsC, limitC: rules.heatStopC }));
  } else if (feelsC >= rules.heatBreaksC) {
    say('watch', false, because('weather_heat_breaks', { ...at, feelsC, limitC: rules.heatBreaksC }));
  }
  if (hour.gustMs >= rules.gustStopMs) {
    say('act', true, because('weather_gusts', { ...at, gustMs: hour.gustMs, limitMs: rules.gustStopMs }));
  }
  if (hour.rainMm >= rules.rainStopMm) {
    say('act', true, because('weather_heavy_rain', { ...at, rainMm: hour.rainMm, limitMm: rules.rainStopMm }));
  } else if (hour.rainMm > rules.lightRainMm) {
    say('watch', false, because('weather_rain', { ...at, rainMm: hour.rainMm, limitMm: rules.lightRainMm }));
  }
  if (hour.soilC !== null && hour.soilC <= rules.frozenSoilC) {
    say('act', true, because('weather_frozen', { ...at, soilC: hour.soilC }));
  }
  return {
    hour: hour.hour,
    level: worstLevel(found.map(({ level }) => level)),
    stops: found.some(({ stops }) => stops),
    because: found.map(({ why }) => why),
  };
}

/**
 * Go, begin later, or call off. The day goes where every hour of it may be worked; it begins later where a run of
 * workable hours long enough begins within it or soon after; else it is called off. A thunder hour closes the hour
 * after it too, where its wait reaches into it. Hours that no forecast covers are unknown, never good.
 * @param day first hour and end, whole hours of the day; `neededH` is the work in it; `latestEndHour` the latest end people accept
 */
export function watchWeather(
  forecast: readonly HourOfWeather[],
  day: { beginHour: number; endHour: number; neededH: number; latestEndHour: number },
  rules: WeatherRules = defaultWeatherRules,
): WeatherWatch {
  const judged = new Map(forecast.map((one) => [one.hour, judgeHour(one, rules)]));
  const { beginHour, endHour, neededH, latestEndHour } = day;
  const shown = range(beginHour, Math.max(endHour, latestEndHour)).flatMap((hour) => judged.get(hour) ?? []);
  const planned = range(beginHour, endHour);
  const missing = planned.filter((hour) => !judged.has(hour)).length;
  const closed = (hour: number) => isClosed(hour, judged, rules);
  const whole = { hours: shown };
  if (missing > 0) {
    const why = [because('weather_not_forecast', { hours: missing, ofHours: planned.length })];
    return { ...whole, advice: 'unknown', beginHour: null, because: why };
  }
  const stopped = planned.filter(closed);
  const reasons = planned.flatMap((hour) => judged.get(hour)?.because ?? []);
  if (stopped.length === 0) {
    const why = reasons.length > 0 ? reasons : [because('weather_fair', { hours: planned.length })];
    return { ...whole, advice: 'go', beginHour, because: why };
  }
  const later = range(beginHour, latestEndHour).find((from) =>
    range(from, from + Math.ceil(neededH)).every((hour) => hour < latestEndHour && judged.has(hour) && !closed(hour)),
  );
  if (later !== undefined) {
    const moved = because('weather_begin_later', { fromHour: beginHour, toHour: later, neededH: Math.ceil(neededH) });
    return { ...whole, advice: later === beginHour ? 'go' : 'delay', beginHour: later, because: [moved, ...reasons] };
  }
  const none = because('weather_no_run', { neededH: Math.ceil(neededH), latestEndHour });
  return { ...whole, advice: 'call_off', beginHour: null, because: [none, ...reasons] };
}

const range = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from) }, (_, i) => from + i);

/** Stopped itself, or within the wait after thunder in the hour before. */
function isClosed(hour: number, judged: ReadonlyMap<number, JudgedHour>, rules: WeatherRules): boolean {
  if (judged.get(hour)?.stops) return true;
  const before = judged.get(hour - 1);
  return rules.afterThunderMin > 0 && (before?.because.some(({ code }) => code === 'weather_thunder') ?? false);
}

/**
 * Minutes until work may go on after thunder; 0 once the wait is over.
 * @param heardAt and `now`, ms since the epoch
 */
export function thunderWaitMin(heardAt: number, now: number, rules: WeatherRules = defaultWeatherRules): number {
  return Math.max(0, Math.ceil(rules.afterThunderMin - (now - heardAt) / 60_000));
}
