import type { KeptRecord } from '@sombra/contract';
import { spotPeriods } from '@sombra/core';
import type { Knex } from 'knex';
import { allSpotIds, countUpTo, lockSpots, spotsAfterId } from '../spots/repository';
import { asActor, type Db } from '../platform/db';
import {
  announce,
  announceAll,
  changed,
  derivedBy,
  derivedOf,
  keepDerived,
  moveDerived,
  recordsOfSpots,
  setDerivedVersion,
  spotGrounds,
  type DerivedSpot,
  type SpotGround,
} from './repository';
import { contextOf, programmeBasis, type ProgrammeBasis } from './spot-context';
import { markWaterDue } from './water-repository';

/** Raised whenever the core judges otherwise or keeps more: what was derived before is then worked out again. */
const version = 17;

/** What an act has read of these spots already, as it stands now. */
export interface Known {
  readonly programme: ProgrammeBasis;
  readonly records: ReadonlyMap<string, readonly KeptRecord[]>;
  /** Where they stand, unless the act changed that. */
  readonly grounds: readonly SpotGround[] | null;
}

/** Works out from the records where these spots stand, and stood. */
export async function derive(db: Db, spotIds: readonly string[], known?: Known): Promise<DerivedSpot[]> {
  const programme = known?.programme ?? (await programmeBasis(db));
  const records = known?.records ?? (await recordsOfSpots(db, spotIds));
  const grounds = known?.grounds ?? (await spotGrounds(db, spotIds));
  return grounds.map((spot) => {
    const its = records.get(spot.id) ?? [];
    const context = {
      ...contextOf(programme, spot.id, its),
      addedOn: spot.addedOn,
      position: [spot.lng, spot.lat] as const,
    };
    return derivedOf(spot, spotPeriods(its, context));
  });
}

/** Works out where these spots stand, keeps it and says so; part of every act that writes records. */
export async function deriveAndKeep(db: Db, spotIds: readonly string[], known?: Known): Promise<void> {
  await keepDerived(db, await derive(db, spotIds, known));
  await markWaterDue(db, spotIds, changed(spotIds));
}

export interface RebuildReport {
  readonly spots: number;
  readonly differing: readonly string[];
}

export interface Rebuild {
  /** Spots worked out at a time: few where others are served meanwhile. */
  readonly chunk?: number;
  readonly onProgress?: (progress: { kind: 'progress'; done: number; of: number }) => void;
  /** Throws to give up between two chunks. */
  readonly check?: () => void;
}

/** Works these spots out afresh. Returns the ids of those that differed from what was kept. */
export async function keepDifferent(db: Db, spotIds: readonly string[]): Promise<string[]> {
  const changed = await keepDerived(db, await derive(db, spotIds));
  await markWaterDue(db, spotIds);
  return spotIds.filter((id) => changed.has(id));
}

/** Others are served between two chunks of this many spots. */
export const chunkSpots = 50;

/** Whether every spot stands as this version of Sombra derives it, and how far that is where not. */
export async function renewal(db: Db): Promise<{ readonly done: number; readonly of: number } | null> {
  const by = await derivedBy(db);
  return by.version === version ? null : countUpTo(db, by.atSpot);
}

/** Asks for every spot to be worked out afresh, from the first on: what they go by has changed. */
export async function askForRenewal(db: Db): Promise<void> {
  // Each time another one below nought, so that whoever is at it begins anew.
  await setDerivedVersion(db, Math.min(0, (await derivedBy(db)).version) - 1);
}

/**
 * Works every spot out afresh where an older Sombra derived it, or what it goes by has changed: in acts of their own, a
 * few spots each, in the order every act locks spots in, so that what others record meanwhile waits for one chunk at most.
 * Until its turn a spot stands as it stood. Left at any moment, it is gone on with where it was.
 */
export async function renew(
  db: Knex,
  actor: string,
  { chunk = chunkSpots, signal }: { readonly chunk?: number; readonly signal?: AbortSignal } = {},
): Promise<void> {
  for (;;) {
    signal?.throwIfAborted();
    const by = await derivedBy(db);
    if (by.version === version) return;
    const ids = await spotsAfterId(db, by.atSpot, chunk);
    const last = ids.at(-1);
    await asActor(db, actor, async (trx) => {
      await lockSpots(trx, ids);
      const to = last === undefined ? { version, atSpot: null } : { version: by.version, atSpot: last };
      // Somebody was first: theirs is gone on with.
      if (!(await moveDerived(trx, by, to))) return;
      await keepDifferent(trx, ids);
      if (last === undefined) await announceAll(trx);
      else await announce(trx, ids);
    });
  }
}

/** In an empty programme nothing was derived by anything older. */
export async function beginDerived(db: Db): Promise<void> {
  if ((await spotsAfterId(db, null, 1)).length === 0) await setDerivedVersion(db, version);
}

/** Works everything out afresh, compares it with what is kept, and keeps what differs. */
export async function rebuildAll(db: Db, { chunk = 500, onProgress, check }: Rebuild = {}): Promise<RebuildReport> {
  const ids = await allSpotIds(db);
  const differing: string[] = [];
  for (let at = 0; at < ids.length; at += chunk) {
    check?.();
    const part = ids.slice(at, at + chunk);
    differing.push(...(await keepDifferent(db, part)));
    onProgress?.({ kind: 'progress', done: at + part.length, of: ids.length });
  }
  await setDerivedVersion(db, version);
  return { spots: ids.length, differing };
}
