import { TZDate } from '@date-fns/tz';
import type { IsoDate } from '@sombra/core';
import { formatISO } from 'date-fns';
import type { Db } from '../platform/db';
import { timeZone } from './repository';

/** Today's date where the programme is. */
export async function programmeToday(db: Db): Promise<IsoDate> {
  return todayIn(await timeZone(db));
}

/** The date of a moment where the programme is. */
export const dayOf = async (db: Db, moment: Date): Promise<IsoDate> =>
  formatISO(new TZDate(moment, await timeZone(db)), { representation: 'date' });

/** Today's date in a zone, by the server's clock. */
export const todayIn = (timeZone: string): IsoDate => formatISO(TZDate.tz(timeZone), { representation: 'date' });
