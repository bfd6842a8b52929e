// npm run demo:big [COUNT]: makes a database of the demo town with 250 000 spots (or COUNT) around it, beside the
// usual one. Start Sombra on it with: DATABASE=sombra_big npm start
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { ensureNpmPackages } from './packages.mjs';
import { root } from './root.mjs';

ensureNpmPackages();
const { default: pg } = await import('pg');
const { buildAll } = await import('./build.mjs');
const { withDatabaseServer } = await import('./database.mjs');
await buildAll({ web: false });

const name = 'sombra_big';
process.exitCode = await withDatabaseServer(async (server) => {
  const client = new pg.Client({ connectionString: server.ownerUrl('postgres') });
  await client.connect();
  await client.query(`drop database if exists ${name} with (force)`);
  await client.query(`create database ${name}`);
  await client.end();

  const env = { ...process.env, OWNER_DATABASE_URL: server.ownerUrl(name), DATABASE_URL: server.appUrl(name) };
  const run = (entry, ...args) =>
    spawnSync(process.execPath, [path.join(root, 'dist/server', `${entry}.js`), ...args], { env, stdio: 'inherit' })
      .status ?? 1;
  const status = run('migrate') || run('load-big', ...process.argv.slice(2));
  if (status === 0) console.log('Start Sombra on it with: DATABASE=sombra_big npm start');
  return status;
});
