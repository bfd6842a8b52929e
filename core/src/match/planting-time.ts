import type { IsoDate } from '../calendar';
import type { Level } from '../reason';
import { because, type MatchReason } from './reasons';
import { inPlantingWindow, type PlantingWindow } from '../season';
import type { Arrival, StockKind } from '../stock';

export interface ForecastDay {
  readonly day: IsoDate;
  readonly tMinC: number;
  readonly tMaxC: number;
  readonly rainMm: number;
}

export interface PlantingTimeVerdict {
  readonly level: Level;
  readonly because: readonly MatchReason[];
}

/** Minimum below which the ground freezes, maximum above which fine roots dry in the hands. °C */
const frozenC = -3;
const hotC = 30;

/** Out of season it hangs on the way it came: covered and moist it may be planted, dried it may not live. */
function outOfSeason({ covered, moist }: Arrival): { level: Level; reason: MatchReason } {
  if (covered === true && moist === true) return { level: 'watch', reason: because('came_well', {}) };
  if (covered === false || moist === false) return { level: 'urgent', reason: because('came_dry', { covered, moist }) };
  return { level: 'act', reason: because('came_unasked', {}) };
}

/**
 * Whether a day is a time to plant a kind of stock: by the windows of the climate, then by what the forecast
 * says of the day and the week after it. Without a forecast only the calendar speaks.
 */
export function judgePlantingTime(input: {
  kind: StockKind;
  day: IsoDate;
  windows: readonly PlantingWindow[];
  forecast: readonly ForecastDay[];
  /** How it came, where it is here already. */
  arrival?: Arrival | undefined;
}): PlantingTimeVerdict {
  const { kind, day, windows, forecast } = input;
  const found: { level: Level; reason: MatchReason }[] = [];
  if (inPlantingWindow(windows, kind, day))
    found.push({ level: 'good', reason: because('window_open', { stock: kind }) });
  else {
    const level = kind === 'container' ? 'watch' : 'act';
    found.push({ level, reason: because('window_closed', { stock: kind }) });
    if (input.arrival) found.push(outOfSeason(input.arrival));
  }
  const week = forecast.filter((one) => one.day >= day).slice(0, 7);
  const coldC = Math.min(...week.map(({ tMinC }) => tMinC));
  const warmC = Math.max(...week.map(({ tMaxC }) => tMaxC));
  if (week.length > 0 && coldC < frozenC) found.push({ level: 'act', reason: because('forecast_frost', { coldC }) });
  if (week.length > 0 && warmC >= hotC) found.push({ level: 'act', reason: because('forecast_heat', { warmC }) });
  const rainMm = week.reduce((sum, one) => sum + one.rainMm, 0);
  if (week.length >= 5 && found.every(({ level }) => level === 'good')) {
    found.push({ level: 'good', reason: because('forecast_rain', { rainMm, days: week.length }) });
  }
  const order: readonly Level[] = ['good', 'watch', 'act', 'urgent'];
  const worst = Math.max(...found.map(({ level }) => order.indexOf(level)));
  return { level: order[worst] ?? 'good', because: found.map(({ reason }) => reason) };
}
