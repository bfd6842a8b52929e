import { onOwnConnections } from '../platform/worker-database';
import { followTrees, type FollowReport } from './follow-service';

/** Runs in a worker thread: many trees at once would hold up the server. */
export default (): Promise<FollowReport> => onOwnConnections('water', followTrees);
