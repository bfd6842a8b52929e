// npm run backup [FILE]: a complete copy of the database, readable by pg_restore.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { ensureDatabasePackages, ensureNpmPackages, postgresBin } from './packages.mjs';

ensureNpmPackages();
ensureDatabasePackages();
const { withRunningCluster } = await import('./running-cluster.mjs');
const day = new Date().toISOString().slice(0, 10);
const file = path.resolve(process.argv[2] ?? `sombra-${day}.dump`);
process.exitCode = await withRunningCluster((cluster) => {
  const url = cluster.ownerUrl(cluster.database);
  const run = spawnSync(path.join(postgresBin(), 'pg_dump'), ['--format=custom', `--file=${file}`, url], {
    stdio: 'inherit',
  });
  if (run.status === 0) console.log(`Backup written to ${file}`);
  return run.status ?? 1;
});
