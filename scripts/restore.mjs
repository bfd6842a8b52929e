// npm run restore -- FILE: puts a backup in the place of the database. What was there is kept under another name.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { ensureDatabasePackages, ensureNpmPackages, postgresBin } from './packages.mjs';

ensureNpmPackages();
ensureDatabasePackages();
const { default: pg } = await import('pg');
const { withRunningCluster } = await import('./running-cluster.mjs');
const file = process.argv[2] ? path.resolve(process.argv[2]) : undefined;
if (!file || !existsSync(file)) {
  console.error('Name the backup to restore: npm run restore -- FILE');
  process.exit(1);
}
process.exitCode = await withRunningCluster(async (cluster) => {
  const client = new pg.Client({ connectionString: cluster.ownerUrl('postgres') });
  await client.connect();
  const fresh = `${cluster.database}_restoring`;
  const before = `${cluster.database}_before_${Date.now()}`;
  try {
    await client.query(`drop database if exists ${fresh}`);
    await client.query(`create database ${fresh}`);
    const args = ['--exit-on-error', `--dbname=${cluster.ownerUrl(fresh)}`, file];
    const run = spawnSync(path.join(postgresBin(), 'pg_restore'), args, { stdio: 'inherit' });
    if (run.status !== 0) {
      console.error('The backup could not be read; the database is as it was.');
      return 1;
    }
    await client.query(`alter database ${cluster.database} rename to ${before}`);
    await client.query(`alter database ${fresh} rename to ${cluster.database}`);
    console.log(`Restored. What was there before is kept as database ${before}.`);
    return 0;
  } finally {
    await client.end();
  }
});
