// A throw-away cluster for tests, with a migrated template database to copy for each suite.
import { spawnSync } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { buildAll } from './build.mjs';
import { startCluster } from './cluster.mjs';
import { root } from './root.mjs';

export async function startTestCluster() {
  await buildAll({ web: false });
  const folder = mkdtempSync(path.join(tmpdir(), 'sombra-test-'));
  chmodSync(folder, 0o711);
  const cluster = await startCluster({ folder, database: 'template_town', durable: false });
  const env = {
    ...process.env,
    OWNER_DATABASE_URL: cluster.ownerUrl('template_town'),
    DATABASE_URL: cluster.appUrl('template_town'),
  };
  const run = spawnSync(process.execPath, [path.join(root, 'dist/server/migrate.js')], { env, encoding: 'utf8' });
  if (run.status !== 0) throw new Error(run.stderr);
  process.env.TEST_OWNER_URL = cluster.ownerUrl('DATABASE');
  process.env.TEST_APP_URL = cluster.appUrl('DATABASE');
  return {
    ...cluster,
    folder,
    stop() {
      cluster.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
