// npm run rebuild-state: works out every spot's state from its records, reports differences, keeps the fresh state.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { ensureDatabasePackages, ensureNpmPackages } from './packages.mjs';
import { root } from './root.mjs';

ensureNpmPackages();
ensureDatabasePackages();
const { buildAll } = await import('./build.mjs');
const { withRunningCluster } = await import('./running-cluster.mjs');
await buildAll({ web: false });
process.exitCode = await withRunningCluster((cluster) => {
  const env = { ...process.env, DATABASE_URL: cluster.appUrl(cluster.database) };
  return (
    spawnSync(process.execPath, [path.join(root, 'dist/server/rebuild.js')], { env, stdio: 'inherit' }).status ?? 1
  );
});
