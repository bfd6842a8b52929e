import knex, { type Knex } from 'knex';
import { setTimeout } from 'node:timers/promises';
import pg from 'pg';

/** Either the database or a transaction on it: repositories work in both. */
export type Db = Knex | Knex.Transaction;

// Calendar dates stay text: a Date would move them across time zones.
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text);
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

export function openDatabase(
  url: string,
  options: { applicationName?: string; maxConnections?: number; onWarning?: (message: unknown) => void } = {},
): Knex {
  return knex({
    client: 'pg',
    connection: {
      connectionString: url,
      application_name: options.applicationName ?? 'sombra',
      // No query here runs long enough to earn back being compiled.
      options: '-c jit=off',
    },
    pool: { min: 0, max: options.maxConnections ?? 10 },
    // A person waits for this answer: say soon that the database is away rather than hang.
    acquireConnectionTimeout: 4000,
    compileSqlOnError: false,
    // A lost connection is told to the caller as an error; this is the driver's own remark about it.
    log: { warn: options.onWarning ?? (() => undefined), error: options.onWarning ?? (() => undefined) },
  });
}

/**
 * Several questions in one trip to the database, by the same view of it.
 * @returns the rows of each, as JSON holds them: days and moments are text
 */
export async function askTogether<K extends string>(
  db: Db,
  questions: Readonly<Record<K, Knex.QueryBuilder>>,
): Promise<Record<K, readonly unknown[]>> {
  const names = Object.keys(questions) as K[];
  const parts = names.map((name) =>
    db.raw(`(select coalesce(json_agg(asked), '[]') from ? asked) as ??`, [questions[name], name]),
  );
  const [rows] = await db.select<Record<K, readonly unknown[]>[]>(parts);
  return rows as Record<K, readonly unknown[]>;
}

/** A moment as a row holds it, or as JSON does. */
export const isoMoment = (moment: string | Date): string => new Date(moment).toISOString();

/** Words a person typed, with nothing in them that `like` would take for a pattern. */
export const escapeLike = (text: string): string => text.replace(/[\\%_]/g, (c) => `\\${c}`);

/** An act is tried this often where it and another wait for each other. */
const mostTries = 4;

/** Runs one act as one transaction; the audit trail names the actor. */
export const asActor = <T>(db: Knex, actor: string, act: (trx: Knex.Transaction) => Promise<T>): Promise<T> =>
  inOneGo(db, async (trx) => {
    await trx.raw(`select set_config('sombra.actor', ?, true)`, [actor]);
    return act(trx);
  });

/** One transaction. Where PostgreSQL ends it for another's sake it is run again from its beginning: nothing of it was stored. */
export async function inOneGo<T>(db: Knex, act: (trx: Knex.Transaction) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await db.transaction(act);
    } catch (error) {
      if (tries >= mostTries || !isWaitingOnEachOther(error)) throw error;
      // Not all at the same moment again.
      await setTimeout(Math.random() * 40 * tries);
    }
  }
}

/** Held to the end of the act: two acts of this name are done one after the other, and so see each other. */
export async function oneAtATime(trx: Db, name: string): Promise<void> {
  await trx.raw('select pg_advisory_xact_lock(hashtext(?))', [`sombra.${name}`]);
}

/** A serialisation failure or a deadlock: PostgreSQL says to run the transaction again. */
const isWaitingOnEachOther = (error: unknown): boolean =>
  ['40001', '40P01'].includes(String((error as { code?: unknown }).code));

/** Another transaction stored the same key first. */
export const isTaken = (error: unknown): boolean => (error as { code?: unknown }).code === '23505';

/** In the order in which acts take the locks of spots: each line that names a spot holds it for a moment. */
export const inLockOrder = <T extends { readonly spot_id: string }>(rows: readonly T[]): T[] =>
  rows.toSorted((a, b) => (a.spot_id < b.spot_id ? -1 : a.spot_id > b.spot_id ? 1 : 0));

/** A lock was not to be had within the limit that was set. */
export const isHeldByOthers = (error: unknown): boolean => (error as { code?: unknown }).code === '55P03';

/** Connection refused, cut, or the server going down or coming up: the caller may try again. */
export function isDatabaseAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const code = (error as { code?: unknown }).code;
  if (error.name === 'KnexTimeoutError') return true;
  if (error instanceof AggregateError) return error.errors.some(isDatabaseAway);
  // 57P0x: the server is going down or coming up; 53300: no connection left; 55000: the database takes none now.
  const away = ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', '57P01', '57P02', '57P03', '57P04', '53300'];
  if (code === '55000') return error.message.includes('not currently accepting connections');
  if (typeof code === 'string') return away.includes(code) || code.startsWith('08');
  return /Connection terminated|Connection ended|timeout expired|timeout exceeded when trying to connect/.test(
    error.message,
  );
}
