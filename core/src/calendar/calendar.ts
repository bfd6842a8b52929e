import {
  addDays,
  addMonths,
  differenceInCalendarDays,
  differenceInMonths,
  formatISO,
  isValid,
  parseISO,
} from 'date-fns';
import { InvalidInputError } from '../errors';

/** A calendar date `YYYY-MM-DD` in the programme's time zone. */
export type IsoDate = string;

// date-fns is the one library the core uses: calendar arithmetic on whole dates, free of clock and locale.

function parse(path: string, date: IsoDate): Date {
  const parsed = parseISO(date);
  if (!/^\d{4}-\d{2}-\d{2}$/.test(date) || !isValid(parsed)) {
    throw new InvalidInputError(`${path} must be a date YYYY-MM-DD`, path);
  }
  return parsed;
}

const iso = (date: Date): IsoDate => formatISO(date, { representation: 'date' });

export const addDaysTo = (date: IsoDate, days: number): IsoDate => iso(addDays(parse('date', date), days));

/** The 31st of a month becomes the last day of a shorter one. */
export const addMonthsTo = (date: IsoDate, months: number): IsoDate => iso(addMonths(parse('date', date), months));

/** Whole days from `from` to `to`; negative when `to` is earlier. */
export const daysBetween = (from: IsoDate, to: IsoDate): number =>
  differenceInCalendarDays(parse('to', to), parse('from', from));

/** Whole months completed from `from` to `to`; never negative. */
export const monthsBetween = (from: IsoDate, to: IsoDate): number =>
  Math.max(0, differenceInMonths(parse('to', to), parse('from', from)));

export const earliest = (dates: readonly IsoDate[]): IsoDate | undefined => [...dates].sort()[0];
