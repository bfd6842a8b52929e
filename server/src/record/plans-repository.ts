import type { IsoDate, StockOffer } from '@sombra/core';
import type { Db } from '../platform/db';

/** The next planting day a spot is booked for. */
export async function bookedFor(db: Db, spotId: string, from: IsoDate): Promise<IsoDate | null> {
  const row = await db('planting_day_spot as booked')
    .join('planting_day as day', 'day.id', 'booked.day_id')
    .where('booked.spot_id', spotId)
    .where('day.on_day', '>=', from)
    .first<{ day: IsoDate | null } | undefined>(db.raw(`to_char(min(day.on_day), 'YYYY-MM-DD') as day`));
  return row?.day ?? null;
}

/** What nurseries have of these species, by species. */
export async function offersOf(db: Db, species: readonly (string | null)[]): Promise<Map<string, StockOffer[]>> {
  const asked = [...new Set(species.filter((name) => name !== null))];
  const rows = await db('nursery_offer as offer')
    .join('nursery', 'nursery.id', 'offer.nursery_id')
    .whereRaw('offer.species = any(?::text[])', [asked])
    .where('offer.available', '>', 0)
    .orderBy(['offer.species', 'offer.caliper_mm', 'offer.id'])
    .select<StockOffer[]>(
      'nursery.name as nursery',
      'offer.species',
      'offer.stock_kind as kind',
      'offer.caliper_mm as caliperMm',
      'offer.available',
    );
  return new Map(asked.map((name) => [name, rows.filter((row) => row.species === name)]));
}
