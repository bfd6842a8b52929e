import { spotLife } from '@sombra/core';
import type { Db } from '../platform/db';
import {
  currentPractice,
  derivedOf,
  recordsOfSpots,
  replaceDerived,
  standingTrees,
  storedDerived,
  type DerivedSpot,
} from './repository';
import { isDeepStrictEqual } from 'node:util';

/** Works out from the records where these spots stand. */
export async function derive(db: Db, spotIds: readonly string[]): Promise<DerivedSpot[]> {
  const practice = await currentPractice(db);
  const records = await recordsOfSpots(db, spotIds);
  const trees = await standingTrees(db, spotIds);
  return spotIds.map((id) => derivedOf(id, trees.get(id) ?? null, spotLife(records.get(id) ?? [], practice)));
}

/** Works out where these spots stand and keeps it; part of every act that writes records. */
export async function deriveAndKeep(db: Db, spotIds: readonly string[]): Promise<void> {
  await replaceDerived(db, await derive(db, spotIds));
}

export interface RebuildReport {
  readonly spots: number;
  readonly differing: readonly string[];
}

/** Works everything out afresh, compares it with what is kept, and keeps the fresh state. */
export async function rebuildAll(db: Db, chunk = 500): Promise<RebuildReport> {
  const ids = (await db<{ id: string }>('spot').orderBy('id').select('id')).map((row) => row.id);
  const differing: string[] = [];
  for (let at = 0; at < ids.length; at += chunk) {
    const part = ids.slice(at, at + chunk);
    const fresh = await derive(db, part);
    const stored = await storedDerived(db, part);
    for (const spot of fresh) {
      // Reasons pass through JSON in the database: compare what they say, not how numbers were held.
      const same = isDeepStrictEqual(
        JSON.parse(JSON.stringify(spot)),
        JSON.parse(JSON.stringify(stored.get(spot.state.spot_id) ?? null)),
      );
      if (!same) differing.push(spot.state.spot_id);
    }
    await replaceDerived(db, fresh);
  }
  return { spots: ids.length, differing };
}
