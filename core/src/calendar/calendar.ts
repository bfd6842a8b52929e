import { addMonths } from 'date-fns';
import { InvalidInputError, requireWithin } from '../errors';

/** A calendar date `YYYY-MM-DD` in the programme's time zone. */
export type IsoDate = string;

// Days and months completed are counted as whole numbers here: every state of every tree asks for them thousands of times
// over. Adding months is left to date-fns, the one library the core uses, and tests hold the counting against it.

const dayMs = 86_400_000;
/** The same days are asked for again and again; so many are remembered. */
const rememberedDays = 50_000;
const numbers = new Map<IsoDate, number>();

/** A day as a whole number, from 1 January 1970. @throws InvalidInputError for what is no date */
function numberOf(path: string, date: IsoDate): number {
  const known = numbers.get(date);
  if (known !== undefined) return known;
  const number = Date.parse(`${date}T00:00:00Z`) / dayMs;
  // A day that a month does not have is none, whatever an engine makes of it.
  if (!/^\d{4}-\d{2}-\d{2}$/.test(date) || !Number.isInteger(number) || dateOf(number) !== date)
    throw new InvalidInputError(`${path} must be a date YYYY-MM-DD`, path);
  if (numbers.size >= rememberedDays) numbers.clear();
  numbers.set(date, number);
  return number;
}

const dateOf = (number: number): IsoDate => iso(new Date(number * dayMs));

/** Days or months that are believed; a thousand years of days. */
const farthest = { min: -365_250, max: 365_250, unit: '' };

const digits = (value: number, length: number): string => String(value).padStart(length, '0');
const iso = (date: Date): IsoDate =>
  `${digits(date.getUTCFullYear(), 4)}-${digits(date.getUTCMonth() + 1, 2)}-${digits(date.getUTCDate(), 2)}`;

/** The day as date-fns reads one: at midnight of wherever it runs. */
function localOf(path: string, date: IsoDate): Date {
  const at = new Date(numberOf(path, date) * dayMs);
  return new Date(at.getUTCFullYear(), at.getUTCMonth(), at.getUTCDate());
}

/** @throws InvalidInputError for what is no date, or days that are no number or more than a thousand years */
export const addDaysTo = (date: IsoDate, days: number): IsoDate =>
  dateOf(numberOf('date', date) + Math.trunc(requireWithin('days', days, farthest)));

/** The 31st of a month becomes the last day of a shorter one. @throws InvalidInputError as `addDaysTo` does */
export function addMonthsTo(date: IsoDate, months: number): IsoDate {
  const then = addMonths(localOf('date', date), requireWithin('months', months, farthest));
  return dateOf(Date.UTC(then.getFullYear(), then.getMonth(), then.getDate()) / dayMs);
}

/** Whole days from `from` to `to`; negative when `to` is earlier. */
export const daysBetween = (from: IsoDate, to: IsoDate): number => numberOf('to', to) - numberOf('from', from);

/**
 * Whole months completed from `from` to `to`; never negative. A month that has no such day is completed on its last one:
 * from 31 January to 28 February is a month.
 */
export function monthsBetween(from: IsoDate, to: IsoDate): number {
  if (daysBetween(from, to) <= 0) return 0;
  const months = 12 * (yearOf(to) - yearOf(from)) + monthOf(to) - monthOf(from);
  return dayOf(to) >= Math.min(dayOf(from), daysInMonth(to)) ? months : months - 1;
}

const yearOf = (date: IsoDate): number => Number(date.slice(0, 4));
const monthOf = (date: IsoDate): number => Number(date.slice(5, 7));
const dayOf = (date: IsoDate): number => Number(date.slice(8));
const daysInMonth = (date: IsoDate): number => new Date(Date.UTC(yearOf(date), monthOf(date), 0)).getUTCDate();

/** `undefined` of none. */
export const latest = (dates: readonly IsoDate[]): IsoDate | undefined => [...dates].sort().at(-1);

export const earliest = (dates: readonly IsoDate[]): IsoDate | undefined => [...dates].sort()[0];
