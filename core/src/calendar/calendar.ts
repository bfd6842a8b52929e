import { addDays, addMonths, differenceInCalendarDays, differenceInMonths } from 'date-fns';
import { InvalidInputError, requireWithin } from '../errors';

/** A calendar date `YYYY-MM-DD` in the programme's time zone. */
export type IsoDate = string;

// date-fns is the one library the core uses: calendar arithmetic on whole dates, free of clock and locale. Reading and
// writing the one form dates have is done here: every state of every tree asks for it thousands of times over.

function parse(path: string, date: IsoDate): Date {
  const [, year, month, day] = /^(\d{4})-(\d{2})-(\d{2})$/.exec(date) ?? [];
  const parsed = new Date(Number(year), Number(month) - 1, Number(day));
  // A day that a month does not have rolls over into the next.
  if (year === undefined || iso(parsed) !== date)
    throw new InvalidInputError(`${path} must be a date YYYY-MM-DD`, path);
  return parsed;
}

/** Days or months that are believed; a thousand years of days. */
const farthest = { min: -365_250, max: 365_250, unit: '' };

const digits = (value: number, length: number): string => String(value).padStart(length, '0');
const iso = (date: Date): IsoDate =>
  `${digits(date.getFullYear(), 4)}-${digits(date.getMonth() + 1, 2)}-${digits(date.getDate(), 2)}`;

/** @throws InvalidInputError for what is no date, or days that are no number or more than a thousand years */
export const addDaysTo = (date: IsoDate, days: number): IsoDate =>
  iso(addDays(parse('date', date), requireWithin('days', days, farthest)));

/** The 31st of a month becomes the last day of a shorter one. @throws InvalidInputError as `addDaysTo` does */
export const addMonthsTo = (date: IsoDate, months: number): IsoDate =>
  iso(addMonths(parse('date', date), requireWithin('months', months, farthest)));

/** Whole days from `from` to `to`; negative when `to` is earlier. */
export const daysBetween = (from: IsoDate, to: IsoDate): number =>
  differenceInCalendarDays(parse('to', to), parse('from', from));

/** Whole months completed from `from` to `to`; never negative. */
export const monthsBetween = (from: IsoDate, to: IsoDate): number =>
  Math.max(0, differenceInMonths(parse('to', to), parse('from', from)));

export const latest = (dates: readonly IsoDate[]): IsoDate | undefined => [...dates].sort().at(-1);

export const earliest = (dates: readonly IsoDate[]): IsoDate | undefined => [...dates].sort()[0];
