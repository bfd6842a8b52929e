// npm run rebuild-state: works out every spot's state from its records, reports differences, keeps the fresh state.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { ensureNpmPackages } from './packages.mjs';
import { root } from './root.mjs';

ensureNpmPackages();
const { buildAll } = await import('./build.mjs');
const { withDatabaseServer } = await import('./database.mjs');
await buildAll({ web: false });
process.exitCode = await withDatabaseServer(({ appUrl, database }) => {
  const env = { ...process.env, DATABASE_URL: appUrl(database) };
  const run = spawnSync(process.execPath, [path.join(root, 'dist/server/rebuild.js')], { env, stdio: 'inherit' });
  return run.status ?? 1;
});
