import {
  countUpToZoom,
  mapLimits,
  type BaseLayer,
  type MapInfo,
  type SpotFilter,
  type TilePath,
  type User,
} from '@sombra/contract';
import { InvalidInputError } from '@sombra/core';
import type { Knex } from 'knex';
import { createWriteStream } from 'node:fs';
import { mkdir, open, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { v7 as uuidv7 } from 'uuid';
import { asActor } from '../platform/db';
import { findProgramme } from '../programme/repository';
import { storageFault } from '../platform/uploads';
import { pmtilesFault, pmtilesHeaderBytes } from './pmtiles';
import { readLayer } from './read-layer';
import { baseLayerRows, dropPmtiles, pmtilesRow, replaceLayer, setPmtiles, spotBounds } from './repository';
import { glasses } from './glass-service';
import { countTile, markTile, plantedIn } from './tiles-repository';
import { programmeToday } from '../programme/today';

export async function mapInfo(db: Knex): Promise<MapInfo> {
  const today = await programmeToday(db);
  const [layers, pmtiles, bounds, programme] = await Promise.all([
    baseLayerRows(db),
    pmtilesRow(db),
    spotBounds(db, {}, today),
    findProgramme(db),
  ]);
  const changes = [...layers, ...(pmtiles ? [pmtiles] : [])].map(({ changed_at }) => changed_at.getTime());
  return {
    layers: layers.map(({ layer, features, changed_at }) => ({ layer, features, changedAt: changed_at.toISOString() })),
    pmtiles: pmtiles ? { fileName: pmtiles.file_name, bytes: pmtiles.bytes } : null,
    centre: [programme?.lngDeg ?? 0, programme?.latDeg ?? 0],
    bounds,
    stamp: `${changes.length}-${Math.max(0, ...changes)}`,
  };
}

/** Counts by area far out, marks near. */
export async function spotTile(db: Knex, tile: TilePath, filter: SpotFilter): Promise<Buffer> {
  const today = await programmeToday(db);
  if (tile.z <= countUpToZoom) return countTile(db, tile, filter, today);
  const trees = await plantedIn(db, tile, filter, today);
  const glass = await glasses(db, trees, { day: filter.on ?? today, today });
  return markTile(db, tile, { filter, today, glass });
}

/** Puts a GeoJSON file in the place of a layer; an empty collection removes the layer. */
export async function setLayer(db: Knex, user: User, layer: BaseLayer, bytes: Uint8Array): Promise<MapInfo> {
  const features = readLayer(bytes, layer);
  await asActor(db, user.name, (trx) => replaceLayer(trx, layer, features, user.name));
  return mapInfo(db);
}

/** Where the PMTiles file lies, or `null`. */
export async function pmtilesFile(db: Knex, folder: string): Promise<string | null> {
  const row = await pmtilesRow(db);
  return row ? path.resolve(folder, row.stored_as) : null;
}

/** Keeps a PMTiles file (version 3) as the base map, streamed to the storage folder. */
export async function storePmtiles(
  db: Knex,
  user: User,
  upload: { folder: string; fileName: string; body: Readable },
): Promise<MapInfo> {
  await mkdir(upload.folder, { recursive: true });
  const storedAs = `base-${uuidv7()}.pmtiles`;
  const file = path.join(upload.folder, storedAs);
  const part = `${file}.part`;
  const before = await pmtilesRow(db);
  try {
    await pipeline(upload.body, withinLimit(), createWriteStream(part));
    const size = await requirePmtiles(part);
    await rename(part, file);
    await asActor(db, user.name, (trx) =>
      setPmtiles(trx, { fileName: upload.fileName, bytes: size, storedAs }, user.name),
    );
  } catch (error) {
    for (const left of [part, file]) await rm(left, { force: true }).catch(() => undefined);
    throw storageFault(error);
  }
  if (before) await rm(path.join(upload.folder, before.stored_as), { force: true });
  return mapInfo(db);
}

/** Passes bytes on while they are within the limit. */
function withinLimit(): Transform {
  let seen = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      seen += chunk.length;
      if (seen > mapLimits.pmtilesBytes) done(refuse('file is too large', 'The file is larger than 512 MiB'));
      else done(null, chunk);
    },
  });
}

async function requirePmtiles(file: string): Promise<number> {
  const handle = await open(file, 'r');
  try {
    const { size } = await handle.stat();
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(pmtilesHeaderBytes), 0, pmtilesHeaderBytes, 0);
    const fault = pmtilesFault(buffer.subarray(0, bytesRead), size);
    if (fault) throw refuse(`file ${fault}`, `The file ${fault}`);
    // Told of as kept only once it is on the disk.
    await handle.sync();
    return size;
  } finally {
    await handle.close();
  }
}

const refuse = (message: string, title: string): InvalidInputError => new InvalidInputError(message, 'file', { title });

export async function removePmtiles(db: Knex, user: User, folder: string): Promise<MapInfo> {
  const before = await pmtilesRow(db);
  await asActor(db, user.name, (trx) => dropPmtiles(trx));
  if (before) await rm(path.join(folder, before.stored_as), { force: true });
  return mapInfo(db);
}
