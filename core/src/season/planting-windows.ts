import type { IsoDate } from '../calendar';
import type { StockKind } from '../stock';

/** When a kind of stock may be planted, by calendar; from and to are `MM-DD` and may pass the new year. */
export interface PlantingWindow {
  readonly stock: StockKind;
  readonly from: string;
  readonly to: string;
  readonly because: string;
}

/**
 * Windows for dry summers and mild winters: roots grow on through autumn, and the first summer finds them
 * out in the soil. Data a programme changes to its climate.
 */
export const mildWinterWindows: readonly PlantingWindow[] = [
  {
    stock: 'container',
    from: '10-15',
    to: '04-15',
    because: 'Whenever the rains carry part of the watering; any other day only with water every few days.',
  },
  { stock: 'balled', from: '11-01', to: '03-15', because: 'Dug and planted while the top rests.' },
  { stock: 'bare_root', from: '12-01', to: '02-25', because: 'Only while fully dormant.' },
];

/** The same day half a year later; `MM-DD`, the day kept within its month. */
function halfAYearOn(day: string): string {
  const month = ((Number(day.slice(0, 2)) + 5) % 12) + 1;
  const last = month === 2 ? 28 : [4, 6, 9, 11].includes(month) ? 30 : 31;
  return `${String(month).padStart(2, '0')}-${String(Math.min(Number(day.slice(3)), last)).padStart(2, '0')}`;
}

/** Degrees from the equator within which rain makes the seasons, not cold. */
const tropicDeg = 15;

/**
 * Windows to begin with at a latitude, degrees: a proposal for the programme to change. South of the equator the year
 * is turned; near it nothing rests, and only stock with all its roots moves.
 */
export function proposedWindows(latDeg: number): readonly PlantingWindow[] {
  if (Math.abs(latDeg) < tropicDeg) {
    const because = 'No cold season: best as the rains begin. Set the days your rains begin and end.';
    return [{ stock: 'container', from: '01-01', to: '12-31', because }];
  }
  if (latDeg > 0) return mildWinterWindows;
  return mildWinterWindows.map((one) => ({ ...one, from: halfAYearOn(one.from), to: halfAYearOn(one.to) }));
}

/** Whether a day lies in the three months before winter, at a latitude; near the equator there are none. */
export function isAutumn(day: IsoDate, latDeg: number | undefined): boolean {
  if (latDeg === undefined || Math.abs(latDeg) < tropicDeg) return false;
  const month = Number(day.slice(5, 7));
  return latDeg > 0 ? month >= 9 && month <= 11 : month >= 3 && month <= 5;
}

/**
 * The next such day after another, for days that follow the seasons: `MM-DD` north of the tropics, half a year later south
 * of them; `null` near the equator, or where nobody knows.
 */
export function dayInYear(latDeg: number | undefined): ((monthDay: string, since: IsoDate) => IsoDate) | null {
  if (latDeg === undefined || Math.abs(latDeg) < tropicDeg) return null;
  return (monthDay, since) => {
    const day = latDeg > 0 ? monthDay : halfAYearOn(monthDay);
    const year = Number(since.slice(0, 4));
    return since < `${year}-${day}` ? `${year}-${day}` : `${year + 1}-${day}`;
  };
}

/** The side the sun stands on at noon all year, degrees from north; `null` where it changes sides, or nobody knows. */
export const noonSunDeg = (latDeg: number | undefined): number | null =>
  latDeg === undefined || Math.abs(latDeg) < 23.5 ? null : latDeg > 0 ? 180 : 0;

export interface WindowSpan {
  readonly stock: StockKind;
  readonly from: IsoDate;
  readonly to: IsoDate;
  readonly because: string;
}

/** The stretches of the windows that fall within a span of days, cut to it; both ends included. */
export function windowSpans(windows: readonly PlantingWindow[], span: { from: IsoDate; to: IsoDate }): WindowSpan[] {
  const firstYear = Number(span.from.slice(0, 4)) - 1;
  const lastYear = Number(span.to.slice(0, 4));
  const years = Array.from({ length: lastYear - firstYear + 1 }, (_, i) => firstYear + i);
  return windows.flatMap(({ stock, from, to, because }) =>
    years
      .map((year) => ({ from: `${year}-${from}`, to: `${from <= to ? year : year + 1}-${to}` }))
      .filter((one) => one.to >= span.from && one.from <= span.to)
      .map((one) => ({
        stock,
        because,
        from: one.from < span.from ? span.from : one.from,
        to: one.to > span.to ? span.to : one.to,
      })),
  );
}

/** Whether a day lies in a window of this stock; both ends included, and a window may pass the new year. */
export function inPlantingWindow(windows: readonly PlantingWindow[], stock: StockKind, day: IsoDate): boolean {
  const monthDay = day.slice(5);
  return windows.some(
    ({ stock: of, from, to }) =>
      of === stock && (from <= to ? from <= monthDay && monthDay <= to : from <= monthDay || monthDay <= to),
  );
}
