import { parentPort } from 'node:worker_threads';
import { onOwnConnections } from '../platform/worker-database';
import type { WalkTask } from './runs-service';
import { walkAdoption } from './service';

/** Nobody waits for this thread, only for the spots of a chunk: a quarter of a second. */
const spotsAtATime = 200;

/** Runs in a worker thread; ending the thread leaves what was done as it is. */
export default function walk(task: WalkTask): Promise<void> {
  const onProgress = ({ done, of }: { readonly done: number; readonly of: number }) =>
    parentPort?.postMessage({ askedBy: task.askedBy, done, cost: of });
  const run = { signal: new AbortController().signal, onProgress };
  return onOwnConnections('adoption', (db) => walkAdoption(db, task, run, spotsAtATime));
}
