import type { SpotDetail } from '@sombra/contract';
import { addDaysTo, NotFoundError, type IsoDate, type StockOffer } from '@sombra/core';
import { askTogether, type Db } from '../platform/db';
import { bookingQuestion, offersQuestion } from '../record/plans-repository';
import { recordsOfSpots } from '../record/repository';
import { contextOf, programmeBasis } from '../record/spot-context';
import { checkpointFrom, checkpointQuestion } from '../record/water-repository';
import { findSpot, findSpotOfTree, type SpotRow } from '../spots/repository';
import { leaveFrom, leaveQuestions, photosFrom, photosQuestion } from './leave-repository';

/** A tree's water is shown so far back, from a checkpoint on. Days. */
const waterDaysBack = 250;

/** @throws NotFoundError */
export async function spotDetail(db: Db, spotId: string): Promise<SpotDetail> {
  return detailOf(db, await findSpot(db, spotId));
}

/** @throws NotFoundError */
export async function spotDetailOfTree(db: Db, treeId: string): Promise<SpotDetail> {
  return detailOf(db, await findSpotOfTree(db, treeId));
}

async function detailOf(db: Db, row: SpotRow | undefined): Promise<SpotDetail> {
  if (!row) throw new NotFoundError('no such spot', 'id');
  const records = (await recordsOfSpots(db, [row.id])).get(row.id) ?? [];
  const programme = await programmeBasis(db);
  const { today } = programme;
  const { practice, plantedUnder, windows, latDeg } = contextOf(programme, row.id, records);
  const asked = await askTogether(db, {
    ...leaveQuestions(db, row.id, today),
    booking: bookingQuestion(db, row.id, today),
    offers: offersQuestion(db, row.species === null ? [] : [row.species]),
    photos: photosQuestion(db, row.id),
    checkpoint: checkpointQuestion(db, row.id, addDaysTo(today, -waterDaysBack)),
  });
  return {
    spot: {
      id: row.id,
      ref: row.ref,
      place: row.place,
      position: [row.lng, row.lat],
      version: row.version,
      withdrawnOn: row.withdrawnOn,
    },
    tree: row.treeId ? { id: row.treeId, species: row.species } : null,
    practice,
    plantedUnder: plantedUnder ?? null,
    windows: [...(windows ?? [])],
    latDeg: latDeg ?? null,
    plantOn: (asked.booking as readonly { day: IsoDate | null }[])[0]?.day ?? null,
    offers: [...(asked.offers as readonly StockOffer[])],
    rules: programme.rules,
    leave: leaveFrom(asked, today),
    ticketsSince: programme.ticketsSince,
    photos: photosFrom(asked.photos),
    waterFrom: checkpointFrom(asked.checkpoint),
    records,
  };
}
