import type { Delivery, DeliveryState, Lot, NewDelivery, ReceiveLot, User } from '@sombra/contract';
import { addDaysTo, ConflictError, InvalidInputError, NotFoundError, type IsoDate, type Stock } from '@sombra/core';
import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import { findOrder } from '../match/repository';
import { programmeToday } from '../people/service';
import { asActor, type Db } from '../platform/db';
import { requireRole } from '../platform/sessions';
import { keepFile } from '../platform/uploads';
import { keepRecords } from '../record/service';
import {
  findDelivery,
  findLot,
  insertDelivery,
  insertWatering,
  keepDelivery,
  keepLot,
  keepLotPhoto,
  unplantedSpots,
} from './repository';

const mayReceive = (user: User): void => requireRole(user, ['coordinator', 'crew_lead'], 'receive stock');

/** @throws NotFoundError */
export async function oneDelivery(db: Db, id: string): Promise<Delivery> {
  const delivery = await findDelivery(db, id);
  if (!delivery) throw new NotFoundError('no such delivery', 'id');
  return delivery;
}

/** Opens the delivery of an order: its lines become the lots that are expected. Sent twice, it is opened once. */
export async function openDelivery(db: Knex, user: User, asked: NewDelivery): Promise<Delivery> {
  mayReceive(user);
  const today = await programmeToday(db);
  if (asked.arrivedOn > addDaysTo(today, 1)) {
    throw new InvalidInputError(`arrivedOn must not be after ${today}, got ${asked.arrivedOn}`, 'arrivedOn');
  }
  await asActor(db, user.name, async (trx) => {
    const order = await findOrder(trx, asked.orderId);
    if (!order) throw new NotFoundError('no such order', 'orderId');
    const lots = order.body.lines.map(({ species, stockKind, caliperMm, price, spots, count }) => ({
      id: uuidv7(),
      species,
      stockKind,
      caliperMm,
      price,
      spots,
      expected: count,
    }));
    await insertDelivery(trx, asked, lots, user.name);
  });
  return oneDelivery(db, asked.id);
}

const changedSince = (what: string, current: unknown): ConflictError =>
  new ConflictError(`${what} was changed since`, 'version', {
    title: `Somebody changed this ${what} while you were at it. Yours was not stored yet.`,
    current,
  });

export async function keepState(db: Knex, user: User, id: string, state: DeliveryState): Promise<Delivery> {
  mayReceive(user);
  const kept = await asActor(db, user.name, (trx) => keepDelivery(trx, id, state));
  if (!kept) throw changedSince('delivery', await oneDelivery(db, id));
  return oneDelivery(db, id);
}

/**
 * Keeps how a lot arrived and what is decided about it. A lot that is accepted, whole or to be corrected, gives its
 * measures to the places its trees are for, in the same act.
 * @throws ConflictError where somebody changed the lot since it was read
 */
export async function receiveLot(db: Knex, user: User, id: string, received: ReceiveLot): Promise<Delivery> {
  mayReceive(user);
  const lot = await findLot(db, id);
  if (!lot) throw new NotFoundError('no such lot', 'id');
  await asActor(db, user.name, async (trx) => {
    if (!(await keepLot(trx, id, received))) throw changedSince('lot', await oneDelivery(trx, lot.deliveryId));
    if (received.verdict === 'accept' || received.verdict === 'correct') await measureSpots(trx, user, lot, received);
  });
  return oneDelivery(db, lot.deliveryId);
}

/** The measures of an opened tree stand for its lot; places whose stock somebody measured keep theirs. */
async function measureSpots(trx: Knex.Transaction, user: User, lot: Lot, received: ReceiveLot): Promise<void> {
  const stock = stockOf(lot, received);
  if (!stock) return;
  const spots = (await unplantedSpots(trx, lot.spots)).slice(0, received.arrived);
  const measured = new Set(
    await trx('field_record')
      .whereIn(
        'spot_id',
        spots.map((spot) => spot.id),
      )
      .where({ kind: 'stock' })
      .pluck('spot_id'),
  );
  const recordedAt = new Date().toISOString();
  const records = spots
    .filter((spot) => !measured.has(spot.id))
    .map((spot) => ({
      spotId: spot.id,
      device: 'receiving',
      spotVersion: spot.version,
      record: { id: uuidv7(), kind: 'stock' as const, recordedAt, supersedes: null, facts: stock },
    }));
  if (records.length > 0) await keepRecords(trx, user, records);
}

function stockOf({ stockKind }: Lot, { tree }: ReceiveLot): Stock | null {
  const { caliperMm, heightM, ballDiameterMm, ballHeightMm, rootSpreadMm, rootDepthMm } = tree;
  if (caliperMm === null || heightM === null) return null;
  if (stockKind === 'bare_root') {
    return rootSpreadMm === null || rootDepthMm === null
      ? null
      : { kind: stockKind, caliperMm, heightM, rootSpreadMm, rootDepthMm };
  }
  if (ballDiameterMm === null || ballHeightMm === null || tree.topRootsDepthMm.length === 0) return null;
  const topRootsDepthMm = Math.max(...tree.topRootsDepthMm);
  return topRootsDepthMm < ballHeightMm
    ? { kind: stockKind, caliperMm, heightM, ballDiameterMm, ballHeightMm, topRootsDepthMm }
    : null;
}

export async function waterHeld(db: Knex, user: User, id: string, onDay: IsoDate): Promise<Delivery> {
  mayReceive(user);
  await oneDelivery(db, id);
  await asActor(db, user.name, (trx) => insertWatering(trx, id, onDay, user.name));
  return oneDelivery(db, id);
}

export async function addLotPhoto(
  db: Knex,
  user: User,
  id: string,
  upload: { folder: string; bytes: Uint8Array },
): Promise<Delivery> {
  mayReceive(user);
  const lot = await findLot(db, id);
  if (!lot) throw new NotFoundError('no such lot', 'id');
  const stored = await keepFile(upload.folder, `lot-${uuidv7()}`, upload.bytes, ['image/jpeg', 'image/png']);
  await asActor(db, user.name, (trx) => keepLotPhoto(trx, id, stored));
  return oneDelivery(db, lot.deliveryId);
}
