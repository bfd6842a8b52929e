import type { Knex } from 'knex';
import type { Db } from './db';

const byDatabase = new WeakMap<object, Map<string, unknown>>();

/** Whether a row was written by the act that reads it, as `mine`: such a row may still be rolled back. */
export const writtenHere = (db: Db): Knex.Raw =>
  db.raw(`xmin::text is not distinct from pg_current_xact_id_if_assigned()::xid::text as mine`);

interface Read<T> {
  readonly value: T;
  readonly mine: boolean;
}

/**
 * What is stored once for a key of this database and never changed, kept in this process once it was read: practices and
 * rules by version, which would be read and checked anew with each request. Whoever takes it changes nothing in it.
 * What is not there yet may come, and what this act wrote itself may be rolled back: neither is kept.
 */
export async function readOnce<T>(
  db: Db,
  key: string,
  read: () => Promise<Read<T> | undefined>,
): Promise<T | undefined> {
  // A transaction has a client of its own, and the configuration of the database it is of.
  const { config } = db.client as { readonly config: object };
  const kept = byDatabase.get(config) ?? new Map<string, unknown>();
  byDatabase.set(config, kept);
  if (kept.has(key)) return kept.get(key) as T;
  const found = await read();
  if (found && !found.mine) kept.set(key, found.value);
  return found?.value;
}
