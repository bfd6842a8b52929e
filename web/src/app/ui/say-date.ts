import { monthNames, sayIsoDay } from '@sombra/core';

const weekdays = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];
const two = (value: number): string => String(value).padStart(2, '0');

/** `Mon 23 Nov 2026`, from a calendar date. */
export const sayDate = (isoDate: string): string =>
  isoDate ? `${weekdays[new Date(`${isoDate}T00:00:00Z`).getUTCDay()] ?? ''} ${sayIsoDay(isoDate)}` : '';

/** `23 Nov 2026` */
export const sayDay = (isoDate: string): string => (isoDate ? sayIsoDay(isoDate) : '');

/** `16:05`, as the clock here shows an instant. */
export const sayClock = (instant: string | number | Date): string => {
  const at = new Date(instant);
  return `${two(at.getHours())}:${two(at.getMinutes())}`;
};

/** `27 Nov 2026, 16:05`, from an instant. */
export const sayMoment = (instant: string | number): string => {
  const at = new Date(instant);
  return `${at.getDate()} ${monthNames[at.getMonth()] ?? ''} ${at.getFullYear()}, ${sayClock(at)}`;
};

/** `2026-11-27T16:05`, as a field for a moment takes an instant. */
export const localMoment = (instant: string | number): string => {
  const at = new Date(instant);
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${sayClock(at)}`;
};

/** `3 minutes`, `2 hours`, `5 days`: about how long. */
export function sayAbout(ms: number): string {
  const minutes = Math.round(Math.abs(ms) / 60_000);
  const [count, unit] =
    minutes < 60
      ? [minutes, 'minute']
      : minutes < 48 * 60
        ? [Math.round(minutes / 60), 'hour']
        : [Math.round(minutes / 1440), 'day'];
  return `${count} ${unit}${count === 1 ? '' : 's'}`;
}

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
