import type { KeptRecord, Rules } from '@sombra/contract';
import {
  fieldDefault,
  type IsoDate,
  type PlantingWindow,
  type Practice,
  type SpotContext,
  type StockOffer,
} from '@sombra/core';
import type { Db } from '../platform/db';
import { findPractice, plantedUnder, practiceShelf, type Shelf } from '../practice/repository';
import { todayIn } from '../programme/today';
import { rulesOfVersion } from '../rules/repository';
import { basisFrom, basisQuestion } from './basis-repository';

/** What the programme brings to every spot, read once for many. */
export interface ProgrammeBasis {
  readonly practice: Practice;
  /** While another practice is being adopted: the spots up to this one go by it already. */
  readonly adopting: { readonly practice: Practice; readonly upTo: string } | null;
  readonly windows: readonly PlantingWindow[];
  readonly latDeg: number | undefined;
  readonly shelf: Shelf;
  /** Where the programme is. */
  readonly today: IsoDate;
  /** Since when a planting asks for a ticket or a clearance. */
  readonly ticketsSince: IsoDate;
  readonly rules: Rules;
}

export const programmeBasis = async (db: Db): Promise<ProgrammeBasis> => basisOf(db, await basisQuestion(db));

/** @param asked what the question for the basis was answered */
export async function basisOf(db: Db, asked: readonly unknown[]): Promise<ProgrammeBasis> {
  const kept = basisFrom(asked);
  const practiceOf = async ({ id, version }: Pick<Practice, 'id' | 'version'>) =>
    (await findPractice(db, id, version)) ?? fieldDefault;
  return {
    practice: await practiceOf(kept?.practice ?? fieldDefault),
    adopting: kept?.adopting ? { practice: await practiceOf(kept.adopting), upTo: kept.adopting.upTo } : null,
    windows: kept?.windows ?? [],
    latDeg: kept?.latDeg,
    shelf: await practiceShelf(db, kept?.practices ?? 0),
    today: todayIn(kept?.timeZone ?? 'UTC'),
    ticketsSince: kept?.ticketsSince ?? '1900-01-01',
    rules: await rulesOfVersion(db, kept?.rules ?? null),
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
