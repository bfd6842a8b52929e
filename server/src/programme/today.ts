import { TZDate } from '@date-fns/tz';
import type { IsoDate } from '@sombra/core';
import { formatISO } from 'date-fns';
import type { Db } from '../platform/db';
import { timeZone } from './repository';

/** Today's date where the programme is. */
export async function programmeToday(db: Db): Promise<IsoDate> {
  const now = TZDate.tz(await timeZone(db));
  return formatISO(now, { representation: 'date' });
}
