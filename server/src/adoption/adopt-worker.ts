import { parentPort } from 'node:worker_threads';
import { openDatabase } from '../platform/db';
import type { WalkTask } from './runs-service';
import { walkAdoption } from './service';

/** Nobody waits for this thread, only for the spots of a chunk: a quarter of a second. */
const spotsAtATime = 200;

/** Runs in a worker thread, on connections of its own; ending the thread leaves what was done as it is. */
export default async function walk(task: WalkTask): Promise<void> {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is missing');
  const db = openDatabase(url, { applicationName: 'sombra-adoption', maxConnections: 2 });
  const onProgress = ({ done, of }: { readonly done: number; readonly of: number }) =>
    parentPort?.postMessage({ askedBy: task.askedBy, done, cost: of });
  try {
    await walkAdoption(db, task, { signal: new AbortController().signal, onProgress }, spotsAtATime);
  } finally {
    await db.destroy();
  }
}
