import type { KeptRecord } from '@sombra/contract';
import type { IsoDate, PlantingWindow, Practice, SpotContext, StockOffer } from '@sombra/core';
import type { Db } from '../platform/db';
import { findProgramme } from '../programme/repository';
import { adoptedUpTo, currentPractice, plantedUnder, practiceShelf, type Shelf } from './repository';

/** What the programme brings to every spot, read once for many. */
export interface ProgrammeBasis {
  readonly practice: Practice;
  /** While another practice is being adopted: the spots up to this one go by it already. */
  readonly adopting: { readonly practice: Practice; readonly upTo: string } | null;
  readonly windows: readonly PlantingWindow[];
  readonly shelf: Shelf;
}

export async function programmeBasis(db: Db): Promise<ProgrammeBasis> {
  const windows = (await findProgramme(db))?.windows ?? [];
  const adopting = await adoptedUpTo(db);
  return { practice: await currentPractice(db), adopting, windows, shelf: await practiceShelf(db) };
}

/** What one spot goes by, besides its own records; by another practice than the programme's where one is named. */
export function contextOf(
  { practice, adopting, windows, shelf }: ProgrammeBasis,
  spotId: string,
  records: readonly KeptRecord[],
  of: {
    readonly practice?: Practice;
    readonly plantOn?: IsoDate | null;
    readonly offers?: readonly StockOffer[] | undefined;
  } = {},
): SpotContext {
  return {
    practice: of.practice ?? (adopting && spotId <= adopting.upTo ? adopting.practice : practice),
    plantedUnder: plantedUnder(records, shelf),
    windows,
    plantOn: of.plantOn ?? null,
    offers: of.offers,
  };
}

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
