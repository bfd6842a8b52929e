import type { SpotDetail } from '@sombra/contract';
import { addDaysTo, NotFoundError, type IsoDate, type StockOffer } from '@sombra/core';
import { askTogether, type Db } from '../platform/db';
import { bookingQuestion, offersAtQuestion } from '../record/plans-repository';
import { recordsFrom, recordsQuestion } from '../record/repository';
import { contextOf, programmeBasis } from '../record/spot-context';
import { checkpointFrom, checkpointQuestion } from '../record/water-repository';
import { placeOfTree, spotQuestion, type SpotRow } from '../spots/repository';
import { leaveFrom, leaveQuestions, photosFrom, photosQuestion } from './leave-repository';

/** A tree's water is shown so far back, from a checkpoint on. Days. */
const waterDaysBack = 250;

/** @throws NotFoundError */
export async function spotDetailOfTree(db: Db, treeId: string): Promise<SpotDetail> {
  const place = await placeOfTree(db, treeId);
  if (!place) throw noSpot();
  return spotDetail(db, place.spotId);
}

const noSpot = () => new NotFoundError('no such spot', 'id');

/** @throws NotFoundError */
export async function spotDetail(db: Db, spotId: string): Promise<SpotDetail> {
  const programme = await programmeBasis(db);
  const { today } = programme;
  const asked = await askTogether(db, {
    spot: spotQuestion(db, spotId),
    records: recordsQuestion(db, [spotId]),
    ...leaveQuestions(db, spotId, today),
    booking: bookingQuestion(db, spotId, today),
    offers: offersAtQuestion(db, spotId),
    photos: photosQuestion(db, spotId),
    checkpoint: checkpointQuestion(db, spotId, addDaysTo(today, -waterDaysBack)),
  });
  const row = asked.spot[0] as SpotRow | undefined;
  if (!row) throw noSpot();
  const records = recordsFrom([spotId], asked.records).get(spotId) ?? [];
  const { practice, plantedUnder, windows, latDeg } = contextOf(programme, spotId, records);
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
