// npm start (npm run dev: from a development build, with its gallery): installs what is missing, starts the database, brings it up to date, serves, and stops it all on Ctrl-C.
import { spawn, spawnSync } from 'node:child_process';
import { createServer } from 'node:net';
import path from 'node:path';
import { ensureDatabasePackages, ensureNpmPackages } from './packages.mjs';
import { root } from './root.mjs';

const port = process.env.PORT ?? '4310';
// Looked at before anything is touched: a second start would take the first one's database over, and down with it.
const taken = await new Promise((resolve) => {
  const probe = createServer();
  probe.once('error', () => resolve(true));
  probe.listen(Number(port), '127.0.0.1', () => probe.close(() => resolve(false)));
});
if (taken) {
  console.error(`Port ${port} is in use. Stop what uses it, or set PORT to another.`);
  process.exit(1);
}

ensureNpmPackages();
ensureDatabasePackages();
const { clusterFolder, startCluster } = await import('./cluster.mjs');
const { buildAll } = await import('./build.mjs');
const dev = process.argv.includes('--dev');
await buildAll({ web: dev ? 'development' : true });

const { startPosition } = await import('../standins/position.mjs');
const { startNurseries } = await import('../standins/nursery.mjs');
const { startLocateCentre } = await import('../standins/locate-centre.mjs');

const cluster = await startCluster({ folder: clusterFolder('cluster') });
const position = process.env.POSITION_URL ? undefined : await startPosition();
const locate = process.env.LOCATE_URL ? undefined : await startLocateCentre();
const nurseries = process.env.NURSERY_URL ? undefined : await startNurseries();
const database = process.env.DATABASE ?? cluster.database;
const env = {
  ...process.env,
  PORT: port,
  OWNER_DATABASE_URL: cluster.ownerUrl(database),
  DATABASE_URL: cluster.appUrl(database),
  SESSION_SECRET: cluster.sessionSecret,
  WEB_ROOT: path.join(root, dev ? 'dist/web-dev/browser' : 'dist/web/browser'),
  STORAGE_FOLDER: process.env.STORAGE_FOLDER ?? clusterFolder('storage'),
  LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
  ...(nurseries ? { NURSERY_URL: nurseries.url, NURSERY_SIMULATED: 'yes' } : {}),
  ...(locate ? { LOCATE_URL: locate.url, LOCATE_SIMULATED: 'yes' } : {}),
  ...(position ? { POSITION_URL: position.url, POSITION_SIMULATED: 'yes' } : {}),
};

const entry = (name) => path.join(root, 'dist/server', `${name}.js`);
let server;
let stopping = false;

function stop(status) {
  if (stopping) return;
  stopping = true;
  const finish = () => {
    position?.stop();
    locate?.stop();
    nurseries?.stop();
    cluster.stop();
    process.exit(status);
  };
  if (server && server.exitCode === null) {
    server.once('exit', finish);
    server.kill('SIGTERM');
  } else finish();
}

process.on('SIGINT', () => stop(0));
process.on('SIGTERM', () => stop(0));

for (const step of ['migrate', 'load-demo']) {
  const run = spawnSync(process.execPath, ['--enable-source-maps', entry(step)], { env, stdio: 'inherit' });
  if (run.status !== 0) stop(1);
}

if (!stopping) {
  // Detached: Ctrl-C reaches this script alone, which then stops the server before the database.
  server = spawn(process.execPath, ['--enable-source-maps', entry('main')], {
    env,
    detached: true,
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  server.once('message', ({ listening }) => {
    console.log(
      `Sombra is at http://127.0.0.1:${listening} — sign in as ines, password shade-walks (demo). Ctrl-C stops it.`,
    );
  });
  server.once('exit', (code) => {
    if (!stopping) console.error('The server stopped by itself.');
    stop(code ?? 1);
  });
}
