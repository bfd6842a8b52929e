import { clockOf, type DayHours } from '@sombra/core';
import { format, parseISO } from 'date-fns';
import { createEvent, type DateArray } from 'ics';
import { TZDate } from '@date-fns/tz';
import type { KeptDayRow } from './repository';

export interface LetterDay extends Pick<KeptDayRow, 'id' | 'title' | 'onDay' | 'hours' | 'arrangements'> {
  readonly programme: string;
  readonly timeZone: string;
}

export const sayDay = (day: string): string => format(parseISO(day), 'd MMMM yyyy');

function instantOf({ onDay, timeZone }: LetterDay, minutes: number): DateArray {
  const [year = 2000, month = 1, date = 1] = onDay.split('-').map(Number);
  const local = new TZDate(year, month - 1, date, Math.floor(minutes / 60), minutes % 60, timeZone);
  const utc = new Date(local.getTime());
  return [utc.getUTCFullYear(), utc.getUTCMonth() + 1, utc.getUTCDate(), utc.getUTCHours(), utc.getUTCMinutes()];
}

/** The day as a calendar file (RFC 5545). @throws Error where the library refuses what it is given */
export function calendarOf(day: LetterDay, about: { readonly uid: string; readonly cancelled?: boolean }): string {
  const { error, value } = createEvent({
    uid: `${about.uid}@sombra`,
    productId: 'Sombra',
    title: `${day.programme}: ${day.title}`,
    description: describeHours(day.hours),
    location: day.arrangements.gathering,
    start: instantOf(day, day.hours.gatherMin),
    startInputType: 'utc',
    end: instantOf(day, day.hours.endMin),
    endInputType: 'utc',
    status: about.cancelled ? 'CANCELLED' : 'CONFIRMED',
  });
  if (error || !value) throw error ?? new Error('no calendar file was made');
  return value;
}

const describeHours = (hours: DayHours): string =>
  `Check-in from ${clockOf(hours.gatherMin)}, we begin at ${clockOf(hours.beginMin)} and end at ${clockOf(hours.endMin)}.`;

const parts = (list: readonly (string | false)[]): string => list.filter(Boolean).join('\n\n');

function about(day: LetterDay): string {
  const { gathering, bring, parking, access } = day.arrangements;
  return parts([
    `${day.title}, ${sayDay(day.onDay)}. ${describeHours(day.hours)}`,
    gathering !== '' && `Where: ${gathering}`,
    bring !== '' && `Bring: ${bring}`,
    access !== '' && `Access: ${access}`,
    parking !== '' && `Parking: ${parking}`,
  ]);
}

/** What is written to people about their place. */
export const letters = {
  held: (day: LetterDay, { name, link, minutes }: { name: string; link: string; minutes: number }) => ({
    subject: `Please confirm: ${day.title}`,
    body: parts([
      `${name}, a place is held for you.`,
      about(day),
      `Confirm within ${minutes < 120 ? `${minutes} minutes` : `${Math.round(minutes / 60)} hours`}: ${link}`,
      'If it was not you who registered, do nothing: the place is given up by itself.',
    ]),
  }),
  waiting: (day: LetterDay, { name, link }: { name: string; link: string }) => ({
    subject: `On the waiting list: ${day.title}`,
    body: parts([
      `${name}, all places are taken. You are on the waiting list and get a letter as soon as one is free.`,
      about(day),
      `Leave the list: ${link}`,
    ]),
  }),
  again: (day: LetterDay, { name, link }: { name: string; link: string }) => ({
    subject: `You are registered already: ${day.title}`,
    body: parts([`${name}, you are registered already.`, about(day), `See, confirm or cancel it: ${link}`]),
  }),
  confirmed: (day: LetterDay, { name, link }: { name: string; link: string }) => ({
    subject: `See you there: ${day.title}`,
    body: parts([
      `${name}, your place is confirmed. The day is attached for your calendar.`,
      about(day),
      `If you cannot come, please say so, somebody else is glad of the place: ${link}`,
    ]),
  }),
  weather: (day: LetterDay, { name, words }: { name: string; words: string }) => ({
    subject: `${day.title}: weather`,
    body: parts([`${name},`, words, about(day)]),
  }),
} as const;
