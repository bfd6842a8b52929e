import type { SpotDetail } from '@sombra/contract';
import { NotFoundError } from '@sombra/core';
import type { Db } from '../platform/db';
import { programmeToday } from '../people/service';
import { currentPractice, plantedUnder, practiceShelf, recordsOfSpots } from '../record/repository';
import { currentRules, ticketsSince } from '../rules/repository';
import { leaveOf } from './leave-repository';
import { findSpot, findSpotOfTree, type SpotRow } from './repository';

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
    practice: await currentPractice(db),
    plantedUnder: plantedUnder(records, await practiceShelf(db)) ?? null,
    rules: await currentRules(db),
    leave: await leaveOf(db, row.id, await programmeToday(db)),
    ticketsSince: await ticketsSince(db),
    records,
  };
}
