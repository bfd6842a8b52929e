import { onOwnConnections } from '../platform/worker-database';
import { renew } from './derive';
import type { RenewTask } from './renew-service';

/** Nobody waits for this thread, only for the spots of a chunk: a quarter of a second. */
const spotsAtATime = 200;

/** Runs in a worker thread; ending the thread leaves what was done as it is. */
export default ({ askedBy }: RenewTask): Promise<void> =>
  onOwnConnections('renewal', (db) => renew(db, askedBy, { chunk: spotsAtATime }));
