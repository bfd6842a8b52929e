import { stockKinds, type IsoDate } from '@sombra/core';
import { z } from 'zod';
import { inLockOrder, type Db } from '../platform/db';
import { readStored } from '../platform/stored';

const orderBodySchema = z.strictObject({
  lines: z.array(
    z.strictObject({
      species: z.string(),
      stockKind: z.enum(stockKinds),
      caliperMm: z.number(),
      heightM: z.number().nullable(),
      count: z.int().min(0),
      price: z.number().min(0),
      spots: z.array(z.string()),
    }),
  ),
  terms: z.string(),
  currency: z.string(),
  plantOn: z.iso.date(),
});
export type OrderBody = z.infer<typeof orderBodySchema>;
export type OrderLine = OrderBody['lines'][number];

/** What was ordered, as it was kept. @throws StoredDataError */
export const orderBodyOf = (body: unknown, number: string): OrderBody =>
  readStored(orderBodySchema, body, `order ${number}`);

export interface Order {
  readonly id: string;
  readonly number: string;
  readonly nursery: string;
  readonly body: OrderBody;
  readonly madeBy: string;
  readonly madeOn: IsoDate;
}

export async function insertOrder(db: Db, order: Omit<Order, 'madeOn'> & { listId: string }): Promise<void> {
  const { id, number, nursery, body, madeBy, listId } = order;
  await db('nursery_order').insert({
    id,
    list_id: listId,
    number,
    nursery,
    body: JSON.stringify(body),
    made_by: madeBy,
  });
}

/** Places an order is for; held until the tree is planted or sent back. Returns the spots another order holds. */
export async function holdPlaces(db: Db, orderId: string, spotIds: readonly string[]): Promise<string[]> {
  const rows = spotIds.map((spotId) => ({ order_id: orderId, spot_id: spotId }));
  if (rows.length === 0) return [];
  const held = await db('ordered_place')
    .insert(inLockOrder(rows))
    .onConflict()
    .ignore()
    .returning<{ spot_id: string }[]>('spot_id');
  const mine = new Set(held.map(({ spot_id }) => spot_id));
  return spotIds.filter((id) => !mine.has(id));
}

/** Frees places for another order. */
export async function releasePlaces(db: Db, spotIds: readonly string[]): Promise<void> {
  await db('ordered_place')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .whereNull('released_at')
    .update({ released_at: db.fn.now() });
}

export async function nextOrderNumber(db: Db, year: string): Promise<number> {
  const row = await db('nursery_order')
    .whereLike('number', `${year}-%`)
    .count<{ count: number }[]>('* as count')
    .first();
  return Number(row?.count ?? 0) + 1;
}

export async function findOrder(db: Db, id: string): Promise<Order | undefined> {
  const row = await db('nursery_order')
    .where({ id })
    .first<
      { id: string; number: string; nursery: string; body: unknown; made_by: string; made_at: Date } | undefined
    >();
  return (
    row && {
      id: row.id,
      number: row.number,
      nursery: row.nursery,
      body: orderBodyOf(row.body, row.number),
      madeBy: row.made_by,
      madeOn: row.made_at.toISOString().slice(0, 10),
    }
  );
}
