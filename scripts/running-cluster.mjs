import { existsSync } from 'node:fs';
import path from 'node:path';
import { clusterFolder, startCluster } from './cluster.mjs';

/** Runs an act on the programme's cluster; a cluster that was not running is stopped again. */
export async function withRunningCluster(act) {
  const folder = clusterFolder('cluster');
  const running = existsSync(path.join(folder, 'data', 'postmaster.pid'));
  const cluster = await startCluster({ folder });
  try {
    return await act(cluster);
  } finally {
    if (!running) cluster.stop();
  }
}
