import type { EstablishingSeason } from '@sombra/contract';
import type { IsoDate } from '@sombra/core';
import type { Db } from '../platform/db';
import { comesAlong, plantingSeason, withComing } from '../town/filter-repository';

/** Trees that stand, by the season they were planted in, the newest first: how each season comes along on a day. */
export async function establishingSeasons(db: Db, today: IsoDate, most: number): Promise<EstablishingSeason[]> {
  const rows = withComing(db, db('spot_period as period'), today)
    .whereNull('period.until_day')
    .whereNotNull('period.planted_on')
    .select(db.raw(`${plantingSeason()} as season`), db.raw(`${comesAlong} as state`, [today, today]));
  return db
    .from(rows.as('tree'))
    .groupBy('season')
    .orderBy('season', 'desc')
    .limit(most)
    .select<EstablishingSeason[]>(
      'season',
      db.raw('count(*)::int as planted'),
      db.raw(`count(*) filter (where state = 'established')::int as established`),
      db.raw(`count(*) filter (where state = 'ready')::int as ready`),
      db.raw(`count(*) filter (where state = 'hangs')::int as hangs`),
      db.raw(`count(*) filter (where state = 'on_the_way')::int as "onTheWay"`),
    );
}
