import {
  receivedTreeSchema,
  type Delivery,
  type DeliveryList,
  type DeliveryState,
  type Lot,
  type LotTree,
  type NewLotTree,
  type ReceiveLot,
} from '@sombra/contract';
import type { IsoDate, StockKind } from '@sombra/core';
import { z } from 'zod';
import type { Db } from '../platform/db';
import { readStored } from '../platform/stored';
import { orderBodyOf } from '../orders/repository';

interface DeliveryRow {
  id: string;
  arrived_on: string;
  covered: boolean | null;
  moist: boolean | null;
  watered_every_days: number | null;
  holding: string;
  note: string;
  version: number;
  made_by: string;
  practice_id: string;
  practice_version: number;
  number: string;
  nursery: string;
  body: unknown;
}

interface LotRow {
  id: string;
  delivery_id: string;
  species: string;
  stock_kind: StockKind;
  caliper_mm: number;
  price: number;
  spots: unknown;
  expected: number;
  arrived: number | null;
  verdict: Lot['verdict'];
  reason: string;
  version: number;
}

interface LotTreeRow {
  id: string;
  lot_id: string;
  /** As some version stored it: read through the schema, which knows what was not asked then. */
  tree: unknown;
  seen_by: string;
  seen_at: Date;
  supersedes: string | null;
  photo_stored_as: string | null;
  photo_content_type: string | null;
  photo_lng: number | null;
  photo_lat: number | null;
}

const treeOf = (row: LotTreeRow): LotTree => ({
  id: row.id,
  tree: readStored(receivedTreeSchema, row.tree, `received tree ${row.id}`),
  seenBy: row.seen_by,
  seenAt: row.seen_at.toISOString(),
  hasPhoto: row.photo_stored_as !== null,
  photoAt: row.photo_lng === null || row.photo_lat === null ? null : [row.photo_lng, row.photo_lat],
});

const lotOf = (row: LotRow, trees: readonly LotTreeRow[]): Lot => ({
  id: row.id,
  species: row.species,
  stockKind: row.stock_kind,
  caliperMm: row.caliper_mm,
  price: row.price,
  spots: readStored(z.array(z.string()), row.spots, `lot ${row.id}`),
  expected: row.expected,
  arrived: row.arrived,
  trees: trees.filter(({ lot_id }) => lot_id === row.id).map(treeOf),
  verdict: row.verdict,
  reason: row.reason,
  version: row.version,
  sign: null,
});

/** Trees of these lots that no other corrects, oldest first. */
async function treesOf(db: Db, lotIds: readonly string[]): Promise<LotTreeRow[]> {
  return db<LotTreeRow>('lot_tree')
    .whereRaw('lot_id = any(?::uuid[])', [[...lotIds]])
    .whereNotExists(db('lot_tree as later').whereRaw('later.supersedes = lot_tree.id').select(db.raw('1')))
    .orderBy([{ column: 'seen_at' }, { column: 'id' }])
    .select('lot_tree.*');
}

/** A delivery without the rules it is judged by; those are its practice's. */
export type KeptDelivery = Omit<Delivery, 'rules' | 'practice'> & { practiceId: string; practiceVersion: number };

export async function findDelivery(db: Db, id: string): Promise<KeptDelivery | undefined> {
  const row = await db('delivery')
    .join('nursery_order as placed', 'placed.id', 'delivery.order_id')
    .where('delivery.id', id)
    .first<DeliveryRow | undefined>('delivery.*', 'placed.number', 'placed.nursery', 'placed.body');
  if (!row) return undefined;
  const lots = await db<LotRow>('delivery_lot').where({ delivery_id: id }).orderBy('position');
  const trees = await treesOf(
    db,
    lots.map((lot) => lot.id),
  );
  const watered = await db('delivery_water').where({ delivery_id: id }).orderBy('on_day').pluck('on_day');
  return {
    id: row.id,
    orderNumber: row.number,
    nursery: row.nursery,
    terms: orderBodyOf(row.body, row.number).terms,
    arrivedOn: row.arrived_on,
    covered: row.covered,
    moist: row.moist,
    wateredEveryDays: row.watered_every_days,
    holding: row.holding,
    note: row.note,
    version: row.version,
    madeBy: row.made_by,
    wateredOn: watered as string[],
    practiceId: row.practice_id,
    practiceVersion: row.practice_version,
    lots: lots.map((lot) => lotOf(lot, trees)),
  };
}

/** What is awaited and what came; what is claimed follows from the lots. */
export async function deliveryList(db: Db): Promise<Omit<DeliveryList, 'claims'>> {
  const { rows } = await db.raw<{ rows: DeliveryList['deliveries'] }>(
    `select delivery.id, placed.number as "orderNumber", placed.nursery, delivery.arrived_on as "arrivedOn",
       coalesce(sum(lot.expected), 0)::int as expected, coalesce(sum(lot.arrived), 0)::int as arrived,
       count(*) filter (where lot.verdict is null)::int as undecided,
       coalesce(sum(lot.arrived) filter (where lot.verdict = 'return'), 0)::int as returned
     from delivery join nursery_order placed on placed.id = delivery.order_id
     left join delivery_lot lot on lot.delivery_id = delivery.id
     group by delivery.id, placed.number, placed.nursery order by delivery.arrived_on desc, placed.number desc limit 100`,
  );
  const awaited = await db('nursery_order as placed')
    .whereNotExists(db('delivery').whereRaw('delivery.order_id = placed.id').select(db.raw('1')))
    .orderBy('number')
    .select<{ id: string; number: string; nursery: string; body: unknown }[]>('id', 'number', 'nursery', 'body');
  return {
    deliveries: rows,
    awaited: awaited.map(({ body, ...order }) => {
      const { lines, plantOn } = orderBodyOf(body, order.number);
      return { ...order, trees: lines.reduce((sum, { count }) => sum + count, 0), plantOn };
    }),
  };
}

export interface NewLot {
  readonly id: string;
  readonly species: string;
  readonly stockKind: StockKind;
  readonly caliperMm: number;
  readonly price: number;
  readonly spots: readonly string[];
  readonly expected: number;
}

/** Returns false where this delivery, or another one of the order, is here already. */
export async function insertDelivery(
  trx: Db,
  delivery: { id: string; orderId: string; arrivedOn: IsoDate; practice: { id: string; version: number } },
  lots: readonly NewLot[],
  by: string,
): Promise<boolean> {
  const added = await trx('delivery')
    .insert({
      id: delivery.id,
      order_id: delivery.orderId,
      arrived_on: delivery.arrivedOn,
      made_by: by,
      practice_id: delivery.practice.id,
      practice_version: delivery.practice.version,
    })
    .onConflict()
    .ignore()
    .returning<{ id: string }[]>('id');
  if (added.length === 0) return false;
  const rows = lots.map((lot, position) => ({
    id: lot.id,
    delivery_id: delivery.id,
    position,
    species: lot.species,
    stock_kind: lot.stockKind,
    caliper_mm: lot.caliperMm,
    price: lot.price,
    spots: JSON.stringify(lot.spots),
    expected: lot.expected,
  }));
  await trx.batchInsert('delivery_lot', rows, 200);
  return true;
}

/** Returns false where somebody changed it since. */
export async function keepDelivery(
  db: Db,
  id: string,
  { version, wateredEveryDays, ...state }: DeliveryState,
): Promise<boolean> {
  const changed = await db('delivery')
    .where({ id, version })
    .update({
      ...state,
      ...(wateredEveryDays === undefined ? {} : { watered_every_days: wateredEveryDays }),
      version: version + 1,
    });
  return changed > 0;
}

/** Returns false where somebody changed it since. */
export async function keepLot(db: Db, id: string, { version, ...lot }: ReceiveLot): Promise<boolean> {
  const changed = await db('delivery_lot')
    .where({ id, version })
    .update({ ...lot, version: version + 1 });
  return changed > 0;
}

export async function findLot(db: Db, id: string): Promise<(Lot & { deliveryId: string }) | undefined> {
  const row = await db<LotRow>('delivery_lot').where({ id }).first();
  return row && { ...lotOf(row, await treesOf(db, [id])), deliveryId: row.delivery_id };
}

/** Held while a tree of it is opened, so that no more are opened than arrived. */
export async function lockLot(trx: Db, id: string): Promise<void> {
  await trx('delivery_lot').where({ id }).forUpdate().first('id');
}

export async function findLotTree(db: Db, id: string): Promise<{ lotId: string } | undefined> {
  const row = await db<LotTreeRow>('lot_tree').where({ id }).first('lot_id');
  return row && { lotId: row.lot_id };
}

/** A tree as it was seen; the same one sent again changes nothing. */
export async function insertLotTree(
  db: Db,
  lotId: string,
  seen: NewLotTree,
  by: { readonly id: string; readonly name: string; readonly seenAt: string },
): Promise<void> {
  await db('lot_tree')
    .insert({
      id: seen.id,
      lot_id: lotId,
      tree: JSON.stringify(seen.tree),
      seen_by: by.name,
      seen_by_id: by.id,
      seen_at: by.seenAt,
      supersedes: seen.supersedes,
    })
    .onConflict('id')
    .ignore();
}

export async function isCorrected(db: Db, treeId: string): Promise<boolean> {
  return (await db<LotTreeRow>('lot_tree').where({ supersedes: treeId }).first('id')) !== undefined;
}

export async function keepTreePhoto(
  db: Db,
  id: string,
  photo: { storedAs: string; contentType: string; lng: number | null; lat: number | null },
): Promise<void> {
  await db('lot_tree').where({ id }).update({
    photo_stored_as: photo.storedAs,
    photo_content_type: photo.contentType,
    photo_lng: photo.lng,
    photo_lat: photo.lat,
  });
}

export async function treePhoto(db: Db, id: string): Promise<{ storedAs: string; contentType: string } | undefined> {
  const row = await db<LotTreeRow>('lot_tree').where({ id }).whereNotNull('photo_stored_as').first();
  return row && { storedAs: row.photo_stored_as ?? '', contentType: row.photo_content_type ?? '' };
}

/** Deliveries of a nursery, the newest first. */
export async function deliveriesOf(db: Db, nursery: string): Promise<string[]> {
  return db('delivery')
    .join('nursery_order as placed', 'placed.id', 'delivery.order_id')
    .where('placed.nursery', nursery)
    .orderBy('delivery.arrived_on', 'desc')
    .pluck('delivery.id');
}

export async function insertWatering(db: Db, id: string, onDay: IsoDate, by: string): Promise<void> {
  await db('delivery_water').insert({ delivery_id: id, on_day: onDay, by_name: by }).onConflict().ignore();
}

/** Spots by their numbers that hold a tree to come and none planted. */
export async function unplantedSpots(
  db: Db,
  refs: readonly string[],
): Promise<{ id: string; ref: string; version: number }[]> {
  return db('spot')
    .join('spot_period as period', (on) => on.on('period.spot_id', 'spot.id').andOnNull('period.until_day'))
    .join('tree', (on) => on.on('tree.spot_id', 'spot.id').andOn('tree.standing', db.raw('true')))
    .whereRaw('spot.ref = any(?::text[])', [[...refs]])
    .whereNull('period.planted_on')
    .orderBy('spot.ref')
    .select<{ id: string; ref: string; version: number }[]>('spot.id', 'spot.ref', 'spot.version');
}

/** Of these spots, those whose stock somebody measured. */
export async function measuredSpots(db: Db, spotIds: readonly string[]): Promise<Set<string>> {
  const ids: string[] = await db('field_record')
    .whereIn('spot_id', [...spotIds])
    .where({ kind: 'stock' })
    .pluck('spot_id');
  return new Set(ids);
}
