import { addDaysTo, daysBetween, type IsoDate } from '@sombra/core';
import { dice, seededUuid } from './seed';
import { crossStreetY } from './street-plan';
import { crossStreets } from './streets';
import { extent, lngLat, type Metres } from './terrain';

export interface DemoDay {
  readonly id: string;
  readonly onDay: IsoDate;
  readonly title: string;
  readonly spotIds: readonly string[];
}

export interface DemoTicket {
  readonly id: string;
  readonly number: string;
  readonly validFrom: IsoDate;
  readonly validUntil: IsoDate;
  /** A closed ring of [longitude, latitude]. */
  readonly ring: readonly (readonly [number, number])[];
}

export interface DemoRound {
  readonly id: string;
  readonly title: string;
  readonly fromDay: IsoDate;
  readonly untilDay: IsoDate;
}

/** The Saturday after a day, never the day itself. */
export function nextSaturday(day: IsoDate): IsoDate {
  // 3 January 1970 was a Saturday.
  const weekday = ((daysBetween('1970-01-03', day) % 7) + 7) % 7;
  return addDaysTo(day, 7 - weekday);
}

/** Planting Saturdays of the season that begins on this day: every second or third week until the spring. */
export function plantingSaturdays(seasonStart: IsoDate): IsoDate[] {
  return [4, 18, 32, 67, 88, 109].map((days) => nextSaturday(addDaysTo(seasonStart, days)));
}

/** A cleared strip along a street across the slope, from one easting to another. */
function strip(name: string, west: number, east: number): (readonly [number, number])[] {
  const street = crossStreets.find((one) => one.name === name);
  if (!street) return [];
  const edge = (side: number): Metres[] =>
    Array.from({ length: 13 }, (_, i) => west + ((east - west) * i) / 12).map((x) => [
      x,
      crossStreetY(street, x) + side,
    ]);
  const ring = [...edge(-11), ...edge(11).reverse()].map(lngLat);
  return [...ring, ...ring.slice(0, 1)];
}

/**
 * Locate tickets around today. One covers most of next Saturday's street but stops short of its east end;
 * the one for Saltmakers Street runs out two days before its planting day: nobody renewed it.
 */
export function demoTickets(seed: string, today: IsoDate): DemoTicket[] {
  const from = dice(`${seed}/tickets`);
  const saturday = nextSaturday(today);
  const ticket = (number: string, validFrom: IsoDate, validUntil: IsoDate, ring: DemoTicket['ring']): DemoTicket => ({
    id: seededUuid(Date.parse(`${validFrom}T08:00:00Z`), from),
    number,
    validFrom,
    validUntil,
    ring,
  });
  return [
    ticket('LC-2214', addDaysTo(today, -9), addDaysTo(saturday, 12), strip('Tramway Avenue', -extent.halfWidthM, 330)),
    ticket('LC-2209', addDaysTo(today, -16), addDaysTo(saturday, 12), strip('Saltmakers Street', -880, 880)),
    ticket('LC-2187', addDaysTo(today, -48), addDaysTo(today, -20), strip('Kiln Road', -500, 500)),
  ];
}

export function demoRounds(seed: string, today: IsoDate): DemoRound[] {
  const from = dice(`${seed}/rounds`);
  const year = Number(today.slice(0, 4));
  const round = (title: string, fromDay: IsoDate, untilDay: IsoDate): DemoRound => ({
    id: seededUuid(Date.parse(`${fromDay}T07:00:00Z`), from),
    title,
    fromDay,
    untilDay,
  });
  const yearly = [year - 2, year - 1, year, year + 1].flatMap((y) => [
    round('Spring collar round', `${y}-04-06`, `${y}-05-08`),
    round('Summer moisture round', `${y}-06-22`, `${y}-09-18`),
    round('Autumn round: stakes and mulch', `${y}-10-12`, `${y}-11-06`),
  ]);
  return [...yearly, round('Inspection round under way', addDaysTo(today, -8), addDaysTo(today, 11))];
}
