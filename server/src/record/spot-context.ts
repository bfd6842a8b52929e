import type { KeptRecord } from '@sombra/contract';
import type { IsoDate, PlantingWindow, Practice, SpotContext, StockOffer } from '@sombra/core';
import type { Db } from '../platform/db';
import { findProgramme } from '../programme/repository';
import { adoptedUpTo, currentPractice, plantedUnder, practiceShelf, type Shelf } from '../practice/repository';

/** What the programme brings to every spot, read once for many. */
export interface ProgrammeBasis {
  readonly practice: Practice;
  /** While another practice is being adopted: the spots up to this one go by it already. */
  readonly adopting: { readonly practice: Practice; readonly upTo: string } | null;
  readonly windows: readonly PlantingWindow[];
  readonly latDeg: number | undefined;
  readonly shelf: Shelf;
}

export async function programmeBasis(db: Db): Promise<ProgrammeBasis> {
  const programme = await findProgramme(db);
  const adopting = await adoptedUpTo(db);
  return {
    practice: await currentPractice(db),
    adopting,
    windows: programme?.windows ?? [],
    latDeg: programme?.latDeg,
    shelf: await practiceShelf(db),
  };
}

/** What one spot goes by, besides its own records; by another practice than the programme's where one is named. */
export function contextOf(
  { practice, adopting, windows, latDeg, shelf }: ProgrammeBasis,
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
    latDeg,
    plantOn: of.plantOn ?? null,
    offers: of.offers,
  };
}
