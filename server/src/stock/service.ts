import type {
  Delivery,
  DeliveryList,
  DeliveryState,
  Lot,
  NewDelivery,
  NewLotTree,
  ReceiveLot,
  User,
} from '@sombra/contract';
import {
  addDaysTo,
  ConflictError,
  InvalidInputError,
  isBad,
  judgeReceived,
  nameSign,
  NotFoundError,
  stockOfLot,
  stockOfTree,
  type Arrival,
  type IsoDate,
  whenItHappened,
  type Practice,
  type ReceivingRules,
} from '@sombra/core';
import type { Knex } from 'knex';
import { v7 as uuidv7 } from 'uuid';
import { asActor, type Db } from '../platform/db';
import { keepPhoto } from '../platform/uploads';
import { spotsByRef } from '../spots/repository';
import { speciesLibrary } from '../match/repository';
import { currentPractice, findPractice } from '../practice/repository';
import { keepRecords } from '../recording/service';
import { claimedLots } from './claims';
import {
  deliveriesOf,
  deliveryList,
  findDelivery,
  findLot,
  findLotTree,
  insertDelivery,
  insertLotTree,
  lockLot,
  insertWatering,
  isCorrected,
  keepDelivery,
  keepLot,
  keepTreePhoto,
  measuredSpots,
  unplantedSpots,
} from './repository';
import { programmeToday } from '../programme/today';
import { findOrder, releasePlaces } from '../orders/repository';

/**
 * A delivery with the rules its lots are judged by, those of the practice it was opened under, and the sign of each
 * species. @throws NotFoundError
 */
export async function oneDelivery(db: Db, id: string): Promise<Delivery> {
  const delivery = await withRules(db, id);
  const library = await speciesLibrary(db);
  const signed = (lot: Lot): Lot => {
    const sign = nameSign(lot.species, library);
    return { ...lot, sign: sign && { ...sign, others: [...sign.others] } };
  };
  return { ...delivery, lots: delivery.lots.map(signed) };
}

async function withRules(db: Db, id: string): Promise<Delivery> {
  const found = await findDelivery(db, id);
  if (!found) throw new NotFoundError('no such delivery', 'id');
  const { practiceId, practiceVersion, ...delivery } = found;
  const { version, name, receiving } = await practiceOf(db, practiceId, practiceVersion);
  return { ...delivery, practice: { id: practiceId, version, name }, rules: receiving };
}

async function practiceOf(db: Db, id: string, version: number): Promise<Practice> {
  return (await findPractice(db, id, version)) ?? (await currentPractice(db));
}

/** All deliveries of a nursery that something is claimed of. @throws NotFoundError where nothing is */
export async function claimedDeliveries(db: Db, nursery: string): Promise<Delivery[]> {
  const claimed: Delivery[] = [];
  for (const id of await deliveriesOf(db, nursery)) {
    const delivery = await withRules(db, id);
    if (claimedLots(delivery).length > 0) claimed.push(delivery);
  }
  if (claimed.length === 0) throw new NotFoundError('nothing is claimed from this nursery', 'nursery');
  return claimed;
}

/** What is awaited, what came, and what is claimed from whom. */
export async function allDeliveries(db: Db): Promise<DeliveryList> {
  const list = await deliveryList(db);
  const claims = new Map<string, DeliveryList['claims'][number]>();
  for (const { id, nursery } of list.deliveries) {
    const lots = claimedLots(await withRules(db, id));
    if (lots.length === 0) continue;
    const before = claims.get(nursery) ?? { nursery, returned: 0, missing: 0, deliveries: 0 };
    claims.set(nursery, {
      nursery,
      returned: before.returned + lots.reduce((sum, { returned }) => sum + returned, 0),
      missing: before.missing + lots.reduce((sum, { missing }) => sum + missing, 0),
      deliveries: before.deliveries + 1,
    });
  }
  return { ...list, claims: [...claims.values()].sort((a, b) => a.nursery.localeCompare(b.nursery)) };
}

/** Opens the delivery of an order: its lines become the lots that are expected. Sent twice, it is opened once. */
export async function openDelivery(db: Knex, user: User, asked: NewDelivery): Promise<Delivery> {
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
    const { id, version } = await currentPractice(trx);
    const added = await insertDelivery(trx, { ...asked, practice: { id, version } }, lots, user.name);
    if (!added && !(await findDelivery(trx, asked.id))) {
      throw new ConflictError(`order ${order.number} has a delivery`, 'orderId', {
        title: `Somebody opened the delivery of order ${order.number} first; it is in the list`,
      });
    }
  });
  return oneDelivery(db, asked.id);
}

const changedSince = (what: string, current: unknown): ConflictError =>
  new ConflictError(`${what} was changed since`, 'version', {
    title: `Somebody changed this ${what} while you were at it. Yours was not stored yet.`,
    current,
  });

export async function keepState(db: Knex, user: User, id: string, state: DeliveryState): Promise<Delivery> {
  const kept = await asActor(db, user.name, (trx) => keepDelivery(trx, id, state));
  if (!kept) throw changedSince('delivery', await oneDelivery(db, id));
  return oneDelivery(db, id);
}

/**
 * Keeps how many of a lot arrived and what is decided about it. A lot that is accepted, whole or to be corrected, gives
 * its measures to the places its trees are for, in the same act.
 * @throws ConflictError where somebody changed the lot since it was read, InvalidInputError for fewer than were opened
 */
export async function receiveLot(db: Knex, user: User, id: string, received: ReceiveLot): Promise<Delivery> {
  const lot = await requireLot(db, id);
  const opened = lot.trees.length;
  if (received.arrived < opened) {
    throw new InvalidInputError(
      `arrived must be at least what was opened, ${opened}, got ${received.arrived}`,
      'arrived',
    );
  }
  await asActor(db, user.name, async (trx) => {
    if (!(await keepLot(trx, id, received))) throw changedSince('lot', await oneDelivery(trx, lot.deliveryId));
    // What goes back frees its places for another order.
    if (received.verdict === 'return')
      await releasePlaces(
        trx,
        (await spotsByRef(trx, lot.spots)).map((spot) => spot.id),
      );
    if (received.verdict !== 'accept' && received.verdict !== 'correct') return;
    const { rules, covered, moist, wateredEveryDays } = await withRules(trx, lot.deliveryId);
    const arrival = { covered, moist, wateredEveryDays };
    await measureSpots(trx, user, { ...lot, arrived: received.arrived }, { rules, arrival });
  });
  return oneDelivery(db, lot.deliveryId);
}

async function requireLot(db: Db, id: string): Promise<Lot & { deliveryId: string }> {
  const lot = await findLot(db, id);
  if (!lot) throw new NotFoundError('no such lot', 'id');
  return lot;
}

/**
 * Keeps one tree of a lot as it was opened and looked at; a correction names the one it corrects. Sent twice, it is
 * kept once.
 * @throws InvalidInputError where more would be opened than arrived, ConflictError for a tree corrected before
 */
export async function openTree(
  db: Knex,
  user: User,
  lotId: string,
  seen: NewLotTree,
  deviceNow: string | null,
): Promise<Delivery> {
  const { deliveryId } = await requireLot(db, lotId);
  const { happenedAt } = whenItHappened(seen.seenAt, { deviceNow }, new Date().toISOString());
  await asActor(db, user.name, async (trx) => {
    await lockLot(trx, lotId);
    if (await findLotTree(trx, seen.id)) return;
    const lot = await requireLot(trx, lotId);
    const most = lot.arrived ?? lot.expected;
    if (seen.supersedes === null && lot.trees.length >= most) {
      const title = `All ${most} trees of this lot are opened; count what arrived first`;
      throw new InvalidInputError(`opened must be at most what arrived, ${most}, got ${most + 1}`, 'opened', { title });
    }
    if (seen.supersedes !== null) await requireCorrectable(trx, lot, seen.supersedes);
    await insertLotTree(trx, lotId, seen, { id: user.id, name: user.name, seenAt: happenedAt });
  });
  return oneDelivery(db, deliveryId);
}

async function requireCorrectable(trx: Db, lot: Lot & { deliveryId: string }, treeId: string): Promise<void> {
  if ((await findLotTree(trx, treeId))?.lotId !== lot.id) throw new NotFoundError('no such tree', 'supersedes');
  if (await isCorrected(trx, treeId)) throw changedSince('tree', await oneDelivery(trx, lot.deliveryId));
}

/**
 * Trees that were opened and are good go to the first places, each with its own measures; one stock stands for those
 * nobody opened. Places whose stock somebody measured keep theirs.
 */
async function measureSpots(
  trx: Knex.Transaction,
  user: User,
  lot: Lot,
  { rules, arrival }: { readonly rules: ReceivingRules; readonly arrival: Arrival },
): Promise<void> {
  const ordered = { kind: lot.stockKind, caliperMm: lot.caliperMm };
  const good = lot.trees.map(({ tree }) => tree).filter((tree) => !isBad(judgeReceived(tree, ordered, rules)));
  const own = good.map((tree) => stockOfTree(tree, lot.stockKind)).filter((stock) => stock !== null);
  const usual = stockOfLot(good, lot.stockKind);
  if (!usual) return;
  const spots = (await unplantedSpots(trx, lot.spots)).slice(0, (lot.arrived ?? 0) - (lot.trees.length - good.length));
  const measured = await measuredSpots(
    trx,
    spots.map((spot) => spot.id),
  );
  const recordedAt = new Date().toISOString();
  const records = spots
    .filter((spot) => !measured.has(spot.id))
    .map((spot, i) => ({
      spotId: spot.id,
      device: 'receiving',
      spotVersion: spot.version,
      record: {
        id: uuidv7(),
        kind: 'stock' as const,
        recordedAt,
        supersedes: null,
        facts: { ...(own[i] ?? usual), arrival },
      },
    }));
  if (records.length > 0) await keepRecords(trx, user, records, null);
}

export async function waterHeld(db: Knex, user: User, id: string, onDay: IsoDate): Promise<Delivery> {
  await oneDelivery(db, id);
  await asActor(db, user.name, (trx) => insertWatering(trx, id, onDay, user.name));
  return oneDelivery(db, id);
}

/** Keeps the picture of a tree, drawn anew; where it was taken is kept only where it was sent along. */
export async function addTreePhoto(
  db: Knex,
  user: User,
  id: string,
  upload: { folder: string; bytes: Uint8Array; lng: number | null; lat: number | null },
): Promise<Delivery> {
  const tree = await findLotTree(db, id);
  if (!tree) throw new NotFoundError('no such tree', 'id');
  const { deliveryId } = await requireLot(db, tree.lotId);
  const { storedAs, contentType } = await keepPhoto(upload.folder, upload.bytes);
  const { lng, lat } = upload;
  await asActor(db, user.name, (trx) => keepTreePhoto(trx, id, { storedAs, contentType, lng, lat }));
  return oneDelivery(db, deliveryId);
}
