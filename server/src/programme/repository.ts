import { plantingWindowSchema } from '@sombra/contract';
import type { PlantingWindow, UnitSystem } from '@sombra/core';
import { z } from 'zod';
import type { Db } from '../platform/db';
import { readStored } from '../platform/stored';

interface ProgrammeRow {
  name: string;
  demo: boolean;
  time_zone: string;
  station_lat: number;
  lng: number;
  station_elevation_m: number;
  units: UnitSystem;
  planting_windows: unknown;
  version: number;
}

export interface KeptProgramme {
  readonly name: string;
  readonly demo: boolean;
  readonly timeZone: string;
  readonly latDeg: number;
  readonly lngDeg: number;
  readonly elevationM: number;
  readonly units: UnitSystem;
  readonly windows: PlantingWindow[];
  readonly version: number;
}

/** The programme of this database; `undefined` until it was set up. */
export async function findProgramme(db: Db): Promise<KeptProgramme | undefined> {
  const row = await db<ProgrammeRow>('programme').first();
  return (
    row && {
      name: row.name,
      demo: row.demo,
      timeZone: row.time_zone,
      latDeg: row.station_lat,
      lngDeg: row.lng,
      elevationM: row.station_elevation_m,
      units: row.units,
      windows: readStored(z.array(plantingWindowSchema), row.planting_windows, 'planting windows'),
      version: row.version,
    }
  );
}

/** UTC until the programme was set up. */
export async function timeZone(db: Db): Promise<string> {
  const row = await db<ProgrammeRow>('programme').first('time_zone');
  return row?.time_zone ?? 'UTC';
}

type Settings = Omit<KeptProgramme, 'demo' | 'version'>;

const columnsOf = (settings: Settings) => ({
  name: settings.name,
  time_zone: settings.timeZone,
  station_lat: settings.latDeg,
  lng: settings.lngDeg,
  station_elevation_m: settings.elevationM,
  units: settings.units,
  planting_windows: JSON.stringify(settings.windows),
});

/** Returns false where somebody changed it since. */
export async function updateProgramme(db: Db, settings: Settings, version: number): Promise<boolean> {
  const changed = await db('programme')
    .where({ version })
    .update({ ...columnsOf(settings), version: version + 1 });
  return changed > 0;
}

export async function insertProgramme(
  db: Db,
  settings: Settings & { readonly demo: boolean },
  practice: { readonly id: string; readonly version: number },
): Promise<void> {
  await db('programme').insert({
    ...columnsOf(settings),
    demo: settings.demo,
    practice_id: practice.id,
    practice_version: practice.version,
  });
}

// The one-time code of the set-up

/** Puts a new code in the place of one that was shown before. */
export async function keepSetUpCode(db: Db, codeHash: string): Promise<void> {
  await db('set_up_code')
    .insert({ only_one: true, code_hash: codeHash, made_at: db.fn.now() })
    .onConflict('only_one')
    .merge();
}

/** The code that is waited for, held against two who set up at once. */
export async function lockSetUpCode(db: Db): Promise<string | undefined> {
  const row = await db('set_up_code').forUpdate().first<{ code_hash: string } | undefined>('code_hash');
  return row?.code_hash;
}

export async function dropSetUpCode(db: Db): Promise<void> {
  await db('set_up_code').delete();
}
