import type { Db } from './db';

const byDatabase = new WeakMap<object, Map<string, unknown>>();

/**
 * What is stored once for a key of this database and never changed, kept in this process once it was read: practices and
 * rules by version, which would be read and checked anew with each request. Whoever takes it changes nothing in it.
 * What is not there yet may come, and what an act has only just written may be rolled back: neither is kept.
 */
export async function readOnce<T>(db: Db, key: string, read: () => Promise<T | undefined>): Promise<T | undefined> {
  // A transaction has a client of its own, and the configuration of the database it is of.
  const { config } = db.client as { readonly config: object };
  const kept = byDatabase.get(config) ?? new Map<string, unknown>();
  byDatabase.set(config, kept);
  if (kept.has(key)) return kept.get(key) as T;
  const made = await read();
  if (made !== undefined && !db.isTransaction) kept.set(key, made);
  return made;
}
