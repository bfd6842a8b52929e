import { InvalidInputError } from '../errors';
import { addDaysTo, daysBetween, type IsoDate } from './calendar';

/**
 * Days on which a locate centre does not work: `YYYY-MM-DD` for one date, `MM-DD` for every year. Data of the
 * programme: holidays are local.
 */
export type Holiday = string;

const pattern = /^(\d{4}-)?(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/;

/** Whether a day is neither Saturday, Sunday nor a holiday. @throws InvalidInputError for a malformed holiday */
export function isWorkingDay(day: IsoDate, holidays: readonly Holiday[]): boolean {
  const odd = holidays.findIndex((holiday) => !pattern.test(holiday));
  if (odd >= 0) throw new InvalidInputError(`holidays[${odd}] must be YYYY-MM-DD or MM-DD`, `holidays[${odd}]`);
  // 5 January 1970 was a Monday.
  const weekday = ((daysBetween('1970-01-05', day) % 7) + 7) % 7;
  return weekday < 5 && !holidays.includes(day) && !holidays.includes(day.slice(5));
}

/** Longest run without a working day that is believed: a list that closes every day is a slip. */
const longestRun = 60;

/**
 * The `count`-th working day after a day, which itself does not count; with a negative count, before it. Zero
 * gives the day itself, working day or not.
 * @throws InvalidInputError for a count that is no whole number, or where 60 days on end are no working days
 */
export function addWorkingDays(day: IsoDate, count: number, holidays: readonly Holiday[]): IsoDate {
  if (!Number.isInteger(count)) throw new InvalidInputError(`count must be a whole number, got ${count}`, 'count');
  const step = count < 0 ? -1 : 1;
  let at = day;
  let idle = 0;
  for (let left = Math.abs(count); left > 0;) {
    at = addDaysTo(at, step);
    const works = isWorkingDay(at, holidays);
    idle = works ? 0 : idle + 1;
    if (idle > longestRun) throw new InvalidInputError(`no working day within ${longestRun} days`, 'holidays');
    if (works) left -= 1;
  }
  return at;
}

/** Working days after `from` up to and with `to`; negative when `to` is earlier. */
export function workingDaysBetween(from: IsoDate, to: IsoDate, holidays: readonly Holiday[]): number {
  const span = daysBetween(from, to);
  const [first, days] = span >= 0 ? [from, span] : [to, -span];
  let count = 0;
  for (let i = 1; i <= days; i++) if (isWorkingDay(addDaysTo(first, i), holidays)) count += 1;
  return span >= 0 ? count : -count;
}
