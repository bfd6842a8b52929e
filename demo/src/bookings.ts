import type { DemoHelper } from './day-people';
import { addDaysTo, daysBetween, type IsoDate, type UtilityReply } from '@sombra/core';
import { dice, seededUuid } from './seed';
import { besideStreet, streetLengthM } from './street-plan';
import { crossStreets, preparedPlaces, uphillStreets } from './streets';
import { lngLat, type Metres } from './terrain';

export interface DemoDay {
  readonly id: string;
  readonly onDay: IsoDate;
  readonly title: string;
  readonly spotIds: readonly string[];
  readonly capacity: number;
  readonly helpers: readonly DemoHelper[];
  readonly arrangements: Readonly<Record<string, string>>;
  readonly gathering: readonly [number, number] | null;
  /** Of days that were: how many times the ruled hours it took. */
  readonly pace: number | null;
}

export interface DemoTicket {
  readonly id: string;
  readonly number: string;
  readonly validFrom: IsoDate;
  readonly validUntil: IsoDate;
  /** A closed ring of [longitude, latitude]. */
  readonly ring: readonly (readonly [number, number])[];
  readonly purpose: string;
  readonly replies: readonly UtilityReply[];
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

/** A cleared strip along a street, between two shares of its length. */
function strip(name: string, from = 0, to = 1): (readonly [number, number])[] {
  const street = [...crossStreets, ...uphillStreets, ...preparedPlaces].find((one) => one.name === name);
  if (!street) return [];
  const length = streetLengthM(street);
  const edge = (side: number): Metres[] =>
    Array.from({ length: 13 }, (_, i) => besideStreet(street, length * (from + ((to - from) * i) / 12), side));
  const ring = [...edge(-11), ...edge(11).reverse()].map(lngLat);
  return [...ring, ...ring.slice(0, 1)];
}

const utilities = ['Talhamar Water', 'Island Grid', 'Nordal Gas', 'Atlantic Telecom', 'Town Drains'] as const;

/** All clear but the water main, which is marked; `odd` says what else a utility answered. */
function replies(
  on: IsoDate,
  odd: Partial<Record<(typeof utilities)[number], 'waiting' | 'conflict'>> = {},
): UtilityReply[] {
  return utilities.map((utility) => {
    const state = odd[utility] ?? (utility === 'Talhamar Water' ? 'marked' : 'clear');
    const note = {
      waiting: '',
      conflict: 'Feeder cable under the pavement: call before anything is dug',
      marked: 'Main 110 mm along the kerb',
      clear: 'Nothing in the area',
    }[state];
    return {
      utility,
      state,
      repliedOn: state === 'waiting' ? null : on,
      toleranceMm: state === 'marked' ? 600 : null,
      note,
    };
  });
}

/**
 * Locate tickets around today. One covers most of next Saturday's street but stops short of its east end; the
 * one for Saltmakers Street runs out two days before its planting day: nobody renewed it. A gas company has not
 * replied for Weavers Row, and the grid objects on Harbour Parade.
 */
export function demoTickets(seed: string, today: IsoDate): DemoTicket[] {
  const from = dice(`${seed}/tickets`);
  const saturday = nextSaturday(today);
  const ticket = (
    number: string,
    street: string,
    made: { begin: number; end: IsoDate; odd?: Parameters<typeof replies>[1]; share?: readonly [number, number] },
  ): DemoTicket => {
    const validFrom = addDaysTo(today, made.begin);
    return {
      id: seededUuid(Date.parse(`${validFrom}T08:00:00Z`), from),
      number,
      purpose: `Planting, ${street}`,
      validFrom,
      validUntil: made.end,
      ring: strip(street, ...(made.share ?? [])),
      replies: replies(addDaysTo(validFrom, -1), made.odd),
    };
  };
  return [
    ticket('LC-2214', 'Tramway Avenue', { begin: -9, end: addDaysTo(saturday, 12), share: [0, 0.683] }),
    ticket('LC-2209', 'Saltmakers Street', { begin: -16, end: addDaysTo(saturday, 12) }),
    ticket('LC-2187', 'Kelp Road', { begin: -48, end: addDaysTo(today, -20) }),
    ticket('LC-2231', 'Figgery Walk', { begin: -6, end: addDaysTo(today, 21) }),
    ticket('LC-2232', 'Lamplighter Steps', { begin: -6, end: addDaysTo(today, 21) }),
    ticket('LC-2226', 'Weavers Row', { begin: -2, end: addDaysTo(today, 25), odd: { 'Nordal Gas': 'waiting' } }),
    ticket('LC-2228', 'Harbour Parade', { begin: -1, end: addDaysTo(today, 26), odd: { 'Island Grid': 'conflict' } }),
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
