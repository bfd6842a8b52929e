import { openDatabase } from '../platform/db';
import { renew } from './derive';
import type { RenewTask } from './renew-service';

/** Nobody waits for this thread, only for the spots of a chunk: a quarter of a second. */
const spotsAtATime = 200;

/** Runs in a worker thread, on a connection of its own; ending the thread leaves what was done as it is. */
export default async function work({ askedBy }: RenewTask): Promise<void> {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is missing');
  const db = openDatabase(url, { applicationName: 'sombra-renewal', maxConnections: 2 });
  try {
    await renew(db, askedBy, { chunk: spotsAtATime });
  } finally {
    await db.destroy();
  }
}
