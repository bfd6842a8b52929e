import type { KeptRecord } from '@sombra/contract';
import { spotPeriods } from '@sombra/core';
import type { Knex } from 'knex';
import { allSpotIds, lockSpots, spotsAfterId } from '../spots/repository';
import { asActor, type Db } from '../platform/db';
import {
  changed,
  derivedOf,
  derivedVersion,
  keepDerived,
  recordsOfSpots,
  setDerivedVersion,
  spotGrounds,
  type DerivedSpot,
  type SpotGround,
} from './repository';
import { contextOf, programmeBasis, type ProgrammeBasis } from './spot-context';
import { markWaterDue } from './water-repository';

/** Raised whenever the core judges otherwise or keeps more: what was derived before is then worked out again. */
const version = 15;

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

/**
 * Works every spot out afresh in acts of their own, a few spots each, in the order every act locks spots in: what others
 * record meanwhile waits for one chunk at most. Ends with what is derived being up to date, unless it grew old again.
 */
export async function rebuildInChunks(db: Knex, actor: string): Promise<void> {
  const before = await derivedVersion(db);
  for (let after: string | null = null; ;) {
    const ids: string[] = await spotsAfterId(db, after, chunkSpots);
    if (ids.length === 0) break;
    await asActor(db, actor, async (trx) => {
      await lockSpots(trx, ids);
      await keepDifferent(trx, ids);
    });
    after = ids.at(-1) ?? null;
  }
  await setDerivedVersion(db, version, before);
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

/** After an update of Sombra: works out afresh what an older version derived. */
export async function rebuildIfStale(db: Db): Promise<void> {
  if ((await derivedVersion(db)) !== version) await rebuildAll(db);
}
