import type { PlantingPlan } from '@sombra/core';
import { createHash } from 'node:crypto';
import type { Db } from '../platform/db';

/** Changes with every number a card bears. */
export function planHash({
  pit,
  stakes,
  materials: amounts,
}: Pick<PlantingPlan, 'pit' | 'stakes' | 'materials'>): string {
  const said = [
    pit.proudMm.value,
    pit.depthMm.value,
    pit.widthMm.value,
    pit.firstWaterL.value,
    pit.berm,
    stakes?.stakes,
    amounts,
  ];
  return createHash('sha256').update(JSON.stringify(said)).digest('hex').slice(0, 24);
}

/** By spot: what the plan was when its card was printed last. */
export async function cardsPrinted(db: Db, spotIds: readonly string[]): Promise<Map<string, string>> {
  const rows = await db('spot_card')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .select<{ spot_id: string; plan_hash: string }[]>('spot_id', 'plan_hash');
  return new Map(rows.map(({ spot_id, plan_hash }) => [spot_id, plan_hash]));
}

/** What a card said when it was printed: another plan asks for another card. */
export async function keepPrinted(
  db: Db,
  cards: readonly { readonly spotId: string; readonly hash: string }[],
  by: string,
): Promise<void> {
  if (cards.length === 0) return;
  await db('spot_card')
    .insert(
      cards.map(({ spotId, hash }) => ({ spot_id: spotId, plan_hash: hash, printed_at: db.fn.now(), printed_by: by })),
    )
    .onConflict('spot_id')
    .merge();
}
