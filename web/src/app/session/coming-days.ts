import { TZDate } from '@date-fns/tz';
import { addDays, formatISO, startOfDay } from 'date-fns';
import { opensForDays } from './device-marks';

/** Yesterday, today and the days a device opens by itself, with one more for whoever changes its clock. */
const days = opensForDays + 3;

/** When each day from yesterday on begins in a zone, ms, with the day, `2026-11-28`. @throws RangeError for an unknown zone */
export function comingDays(timeZone: string, now = Date.now()): [number, string][] {
  const today = startOfDay(new TZDate(now, timeZone));
  return Array.from({ length: days }, (_, n) => {
    const day = addDays(today, n - 1);
    return [startOfDay(day).getTime(), formatISO(day, { representation: 'date' })];
  });
}
