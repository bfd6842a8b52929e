import type { RulesTried } from '@sombra/contract';
import { parentPort } from 'node:worker_threads';
import { onOwnConnections } from '../platform/worker-database';
import { triedOnTrees, type TriedTask } from './rules-service';

/** Runs in a worker thread: a year of hundreds of trees under every rule would hold up the server. */
export default (task: TriedTask): Promise<RulesTried> =>
  onOwnConnections('rules', (db) =>
    triedOnTrees(db, task, (done, cost) => parentPort?.postMessage({ askedBy: task.askedBy, done, cost })),
  );
