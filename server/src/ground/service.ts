import type { SpotDetail } from '@sombra/contract';
import { addDaysTo, NotFoundError } from '@sombra/core';
import type { Db } from '../platform/db';
import { recordsOfSpots } from '../record/repository';
import { contextOf, programmeBasis } from '../record/spot-context';
import { checkpointFrom } from '../record/water-repository';
import { currentRules, ticketsSince } from '../rules/repository';
import { leaveOf, photosOf } from './leave-repository';
import { findSpot, findSpotOfTree, type SpotRow } from '../spots/repository';
import { programmeToday } from '../programme/today';
import { bookedFor, offersOf } from '../record/plans-repository';

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
  const today = await programmeToday(db);
  const { practice, plantedUnder, windows, latDeg } = contextOf(await programmeBasis(db), row.id, records);
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
    plantOn: await bookedFor(db, row.id, today),
    offers: row.species === null ? [] : ((await offersOf(db, [row.species])).get(row.species) ?? []),
    rules: await currentRules(db),
    leave: await leaveOf(db, row.id, today),
    ticketsSince: await ticketsSince(db),
    photos: await photosOf(db, row.id),
    waterFrom: await checkpointFrom(db, row.id, addDaysTo(today, -waterDaysBack)),
    records,
  };
}
