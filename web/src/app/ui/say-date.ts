import { format, parseISO } from 'date-fns';

/** `Mon 23 Nov 2026`, from a calendar date. */
export const sayDate = (isoDate: string): string => (isoDate ? format(parseISO(isoDate), 'EEE d MMM yyyy') : '');

/** `23 Nov 2026` */
export const sayDay = (isoDate: string): string => (isoDate ? format(parseISO(isoDate), 'd MMM yyyy') : '');

/** `27 Nov 2026, 16:05`, from an instant. */
export const sayMoment = (instant: string): string => format(parseISO(instant), 'd MMM yyyy, HH:mm');

/** `2025/26`: planted from July of the year to June of the next. */
export const saySeason = (season: number): string => `${season}/${String((season + 1) % 100).padStart(2, '0')}`;

/** `3 h 05`, of whole minutes. */
export function sayHours(minutes: number): string {
  const whole = Math.round(minutes);
  return `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, '0')}`;
}

/** `14 days late`, `today`, `in 3 days`. */
export function sayLateness(daysLate: number): string {
  if (daysLate === 0) return 'today';
  const days = Math.abs(daysLate) === 1 ? '1 day' : `${Math.abs(daysLate)} days`;
  return daysLate > 0 ? `${days} late` : `in ${days}`;
}
