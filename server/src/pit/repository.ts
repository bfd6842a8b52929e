import type { StoreAmount } from '@sombra/contract';
import type { Amounts, IsoDate, MaterialCode } from '@sombra/core';
import type { Db } from '../platform/db';

export interface CardSpot {
  readonly spotId: string;
  readonly ref: string;
  readonly place: string;
  readonly treeId: string | null;
  readonly species: string | null;
  readonly lng: number;
  readonly lat: number;
  /** Day of the next planting day it is booked on. */
  readonly plantOn: IsoDate | null;
}

const columns = (db: Db, from: IsoDate) => [
  'spot.id as spotId',
  'spot.ref',
  'place.name as place',
  'tree.id as treeId',
  'tree.species',
  db.raw('st_x(spot.position) as lng, st_y(spot.position) as lat'),
  db.raw(
    `(select to_char(min(day.on_day), 'YYYY-MM-DD') from planting_day_spot booked
      join planting_day day on day.id = booked.day_id
      where booked.spot_id = spot.id and day.on_day >= ?) as "plantOn"`,
    [from],
  ),
];

/** Spots whose stock is measured and whose tree is not planted: of a planting day, or all; booked from a day on. */
export async function spotsToPlant(db: Db, from: IsoDate, dayId?: string): Promise<CardSpot[]> {
  const query = db('spot')
    .join('place', 'place.id', 'spot.place_id')
    .join('spot_period as period', (on) => on.on('period.spot_id', 'spot.id').andOnNull('period.until_day'))
    .leftJoin('tree', (on) => on.on('tree.spot_id', 'spot.id').andOn('tree.standing', db.raw('true')))
    .whereNull('spot.withdrawn_on')
    .whereNull('period.planted_on')
    .whereIn('period.stage', ['pit', 'day'])
    .orderBy('spot.ref');
  if (dayId) {
    void query.whereIn('spot.id', db('planting_day_spot').where({ day_id: dayId }).select('spot_id'));
  }
  return query.select<CardSpot[]>(...columns(db, from));
}

export async function spotsByIds(db: Db, from: IsoDate, ids: readonly string[]): Promise<CardSpot[]> {
  return db('spot')
    .join('place', 'place.id', 'spot.place_id')
    .leftJoin('tree', (on) => on.on('tree.spot_id', 'spot.id').andOn('tree.standing', db.raw('true')))
    .whereRaw('spot.id = any(?::uuid[])', [[...ids]])
    .orderBy('spot.ref')
    .select<CardSpot[]>(...columns(db, from));
}

export async function dayTitle(db: Db, dayId: string): Promise<string | undefined> {
  const row = await db('planting_day').where({ id: dayId }).first<{ title: string } | undefined>('title');
  return row?.title;
}

interface StoreRow {
  material: MaterialCode;
  amount: number;
  version: number;
}

export async function store(db: Db): Promise<{ amounts: Amounts; versions: Partial<Record<MaterialCode, number>> }> {
  const rows = await db<StoreRow>('material_store').select();
  return {
    amounts: Object.fromEntries(rows.map(({ material, amount }) => [material, amount])),
    versions: Object.fromEntries(rows.map(({ material, version }) => [material, version])),
  };
}

/** What was used leaves the store; where less was counted than was used, nothing is left. */
export async function takeFromStore(trx: Db, used: Amounts): Promise<void> {
  for (const [material, amount] of Object.entries(used)) {
    await trx('material_store')
      .where({ material })
      .update({
        amount: trx.raw('greatest(0, amount - ?)', [amount]),
        version: trx.raw('version + 1'),
      });
  }
}

/** Returns false where somebody counted it since. */
export async function keepStore(db: Db, { material, amount, version }: StoreAmount): Promise<boolean> {
  if (version === 0) {
    const added = await db('material_store')
      .insert({ material, amount })
      .onConflict('material')
      .ignore()
      .returning<{ material: string }[]>('material');
    return added.length > 0;
  }
  const changed = await db('material_store')
    .where({ material, version })
    .update({ amount, version: version + 1 });
  return changed > 0;
}
