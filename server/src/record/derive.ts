import { spotPeriods } from '@sombra/core';
import { isDeepStrictEqual } from 'node:util';
import type { Db } from '../platform/db';
import {
  announce,
  currentPractice,
  derivedOf,
  derivedVersion,
  recordsOfSpots,
  replaceDerived,
  setDerivedVersion,
  spotGrounds,
  storedDerived,
  type DerivedSpot,
} from './repository';

/** Raised whenever the core judges otherwise or keeps more: what was derived before is then worked out again. */
const version = 3;

/** Works out from the records where these spots stand, and stood. */
export async function derive(db: Db, spotIds: readonly string[]): Promise<DerivedSpot[]> {
  const practice = await currentPractice(db);
  const records = await recordsOfSpots(db, spotIds);
  const grounds = await spotGrounds(db, spotIds);
  return grounds.map((spot) => {
    const context = { practice, addedOn: spot.addedOn, position: [spot.lng, spot.lat] as const };
    return derivedOf(spot, spotPeriods(records.get(spot.id) ?? [], context));
  });
}

/** Works out where these spots stand, keeps it and says so; part of every act that writes records. */
export async function deriveAndKeep(db: Db, spotIds: readonly string[]): Promise<void> {
  await replaceDerived(db, await derive(db, spotIds));
  await announce(db, spotIds);
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
        JSON.parse(JSON.stringify(stored.get(spot.spotId) ?? null)),
      );
      if (!same) differing.push(spot.spotId);
    }
    await replaceDerived(db, fresh);
  }
  await setDerivedVersion(db, version);
  return { spots: ids.length, differing };
}

/** After an update of Sombra: works out afresh what an older version derived. */
export async function rebuildIfStale(db: Db): Promise<void> {
  if ((await derivedVersion(db)) !== version) await rebuildAll(db);
}
