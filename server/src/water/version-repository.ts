import { ConflictError } from '@sombra/core';
import type { Db } from '../platform/db';

type Versioned = 'water_truck' | 'fill_point' | 'water_device' | 'drip_zone';

/**
 * Keeps a version of a row that one person edits at a time: a new one at version 0, else over the version it was read at.
 * Returns false where somebody kept that one first. What the row does not name stays as it is.
 */
export async function keepVersion(
  trx: Db,
  table: Versioned,
  row: { readonly id: string; readonly version: number },
): Promise<boolean> {
  const next = { ...row, version: row.version + 1 };
  const insert = trx(table).insert(next).onConflict('id');
  const kept =
    row.version === 0
      ? await insert.ignore().returning('id')
      : await insert.merge().where(`${table}.version`, row.version).returning('id');
  return kept.length > 0;
}

/** Somebody else was first: said by `title`. */
export const changedFirst = (title: string): ConflictError =>
  new ConflictError('version is not the newest', 'version', { title, current: null });
