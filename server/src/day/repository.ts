import type { PlantingDays } from '@sombra/contract';
import type { IsoDate } from '@sombra/core';
import type { Db } from '../platform/db';

const mostDays = 60;

/** Planting days, the next first and those gone by after them. */
export async function plantingDays(db: Db, today: IsoDate): Promise<PlantingDays> {
  return db('planting_day as day')
    .leftJoin('planting_day_spot as member', 'member.day_id', 'day.id')
    .groupBy('day.id')
    .orderByRaw('day.on_day < ?, abs(day.on_day - ?::date), day.title', [today, today])
    .limit(mostDays)
    .select<PlantingDays>('day.id', 'day.title', 'day.on_day as onDay', db.raw('count(member.spot_id)::int as spots'));
}
