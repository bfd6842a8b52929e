import type { IsoDate, StockOffer } from '@sombra/core';
import type { Knex } from 'knex';
import type { Db } from '../platform/db';

/** What asks for the next planting day a spot is booked for: `day`, `null` where it is booked for none. */
export const bookingQuestion = (db: Db, spotId: string, from: IsoDate) =>
  db('planting_day_spot as booked')
    .join('planting_day as day', 'day.id', 'booked.day_id')
    .where('booked.spot_id', spotId)
    .where('day.on_day', '>=', from)
    .select(db.raw(`to_char(min(day.on_day), 'YYYY-MM-DD') as day`));

/** What nurseries have of these species, by species. */
export async function offersOf(db: Db, species: readonly (string | null)[]): Promise<Map<string, StockOffer[]>> {
  const asked = [...new Set(species.filter((name) => name !== null))];
  const rows: StockOffer[] = await offersQuestion(db, db.select(db.raw('unnest(?::text[])', [asked])));
  return new Map(asked.map((name) => [name, rows.filter((row) => row.species === name)]));
}

/** What asks for all that nurseries have of some species; those are asked for themselves. */
const offersQuestion = (db: Db, species: Knex.QueryBuilder) =>
  db('nursery_offer as offer')
    .join('nursery', 'nursery.id', 'offer.nursery_id')
    .whereIn('offer.species', species)
    .where('offer.available', '>', 0)
    .orderBy(['offer.species', 'offer.caliper_mm', 'offer.id'])
    .select<StockOffer[]>(
      'nursery.name as nursery',
      'offer.species',
      'offer.stock_kind as kind',
      'offer.caliper_mm as caliperMm',
      'offer.available',
    );

/** What asks for all that nurseries have of the species of the tree that stands, or is to stand, at a spot. */
export const offersAtQuestion = (db: Db, spotId: string) =>
  offersQuestion(db, db('tree').where({ spot_id: spotId, standing: true }).whereNotNull('species').select('species'));
