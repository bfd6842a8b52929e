import type { Knex } from 'knex';
import { openDatabase } from './db';

/** What a worker thread does on connections of its own, closed when it is done. */
export async function onOwnConnections<T>(name: string, act: (db: Knex) => Promise<T>): Promise<T> {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is missing');
  const db = openDatabase(url, { applicationName: `sombra-${name}`, maxConnections: 2 });
  try {
    return await act(db);
  } finally {
    await db.destroy();
  }
}
