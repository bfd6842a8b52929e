// npm start: installs what is missing, starts the database, brings it up to date, serves, and stops it all on Ctrl-C.
// npm start -- --new: the same on an empty programme of one's own, beside the demo. npm run dev: from a development
// build, with its gallery.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { createServer } from 'node:net';
import path from 'node:path';
import { databaseName, isOwn } from './home.mjs';
import { ensureNpmPackages } from './packages.mjs';
import { root } from './root.mjs';
import { noteStart, otherStarts } from './starts.mjs';

const args = process.argv.slice(2);
const dev = args.includes('--dev');
const external = process.env.DATABASE_URL !== undefined;
const wanted = external ? new URL(process.env.DATABASE_URL).pathname.slice(1) : databaseName(args);
const port = process.env.PORT ?? '4310';

if (external && !process.env.SESSION_SECRET) {
  console.error('With DATABASE_URL, SESSION_SECRET must be set too: 32 characters or more, the same for every server.');
  process.exit(1);
}

// Looked at before anything is touched.
const others = otherStarts();
const same = others.find((one) => one.database === wanted && !external);
if (same) {
  console.log(
    `Sombra runs on this programme already, at http://127.0.0.1:${same.port} (process ${same.pid}). Nothing was started.`,
  );
  process.exit(0);
}
const taken = await new Promise((resolve) => {
  const probe = createServer();
  probe.once('error', () => resolve(true));
  probe.listen(Number(port), '127.0.0.1', () => probe.close(() => resolve(false)));
});
if (taken) {
  const hint = others.length > 0 ? ' (Sombra with another programme runs from here too)' : '';
  console.error(`Port ${port} is in use${hint}. Stop what uses it, or set PORT to another.`);
  process.exit(1);
}

// Beside a running one nothing is installed or built over: it is still served from those files.
const built = existsSync(path.join(root, 'dist/server/main.js')) && existsSync(path.join(root, 'dist/web/browser'));
if (others.length === 0 || !built) {
  ensureNpmPackages();
  const { buildAll } = await import('./build.mjs');
  await buildAll({ web: dev ? 'development' : true });
}
const forget = noteStart({ database: wanted, port });

const { openDatabaseServer } = await import('./database.mjs');
const { startPosition } = await import('../standins/position.mjs');
const { startNurseries } = await import('../standins/nursery.mjs');
const { startLocateCentre } = await import('../standins/locate-centre.mjs');
const { startWeather } = await import('../standins/weather.mjs');
const { startController } = await import('../standins/controller.mjs');
const { startMail } = await import('../standins/mail.mjs');

const database = await openDatabaseServer(args);
const position = process.env.POSITION_URL ? undefined : await startPosition();
const locate = process.env.LOCATE_URL ? undefined : await startLocateCentre();
const nurseries = process.env.NURSERY_URL ? undefined : await startNurseries();
const weather = process.env.WEATHER_URL ? undefined : await startWeather();
const { startSensors } = await import('../standins/sensors.mjs');
const sensors = process.env.SENSORS_URL ? undefined : await startSensors();
const controller = process.env.CONTROLLER_URL ? undefined : await startController();
const mail = process.env.SMTP_URL ? undefined : await startMail();
const env = {
  ...process.env,
  PORT: port,
  OWNER_DATABASE_URL: database.ownerUrl(database.database),
  DATABASE_URL: database.appUrl(database.database),
  SESSION_SECRET: database.sessionSecret,
  WEB_ROOT: path.join(root, dev ? 'dist/web-dev/browser' : 'dist/web/browser'),
  STORAGE_FOLDER: database.storage,
  SEASON_KEYS: process.env.SEASON_KEYS ?? database.seasonKeys,
  LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
  ...(weather ? { WEATHER_URL: weather.url, WEATHER_SIMULATED: 'yes' } : {}),
  ...(sensors ? { SENSORS_URL: sensors.url } : {}),
  ...(controller ? { CONTROLLER_URL: controller.url, CONTROLLER_SIMULATED: 'yes' } : {}),
  ...(mail ? { SMTP_URL: mail.smtpUrl, MAIL_PAGE: mail.pageUrl } : {}),
  ...(nurseries ? { NURSERY_URL: nurseries.url, NURSERY_SIMULATED: 'yes' } : {}),
  ...(locate ? { LOCATE_URL: locate.url, LOCATE_SIMULATED: 'yes' } : {}),
  ...(position ? { POSITION_URL: position.url, POSITION_SIMULATED: 'yes' } : {}),
};

const entry = (name) => path.join(root, 'dist/server', `${name}.js`);
let server;
let watch;
let stopping = false;

function stop(status) {
  if (stopping) return;
  stopping = true;
  clearInterval(watch);
  const finish = async () => {
    position?.stop();
    locate?.stop();
    nurseries?.stop();
    weather?.stop();
    sensors?.stop();
    controller?.stop();
    mail?.stop();
    forget();
    if (database.ours) await database.stop();
    process.exit(status);
  };
  if (server && server.exitCode === null) {
    server.once('exit', () => void finish());
    server.kill('SIGTERM');
  } else void finish();
}

process.on('SIGINT', () => stop(0));
process.on('SIGTERM', () => stop(0));

// An empty programme is filled by whoever sets it up; so is one on a database server of somebody's own.
const empty = external || isOwn(database.database);
for (const step of ['migrate', empty ? 'set-up-code' : 'load-demo']) {
  if (stopping) break;
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
    const who = empty ? '' : ' — sign in as ines, password shade-walks (demo)';
    if (mail) console.log(`Letters go to a simulated mail server, read at ${mail.pageUrl}.`);
    console.log(`Sombra is at http://127.0.0.1:${listening}${who}. Ctrl-C stops it.`);
  });
  server.once('exit', (code) => {
    if (!stopping) console.error('The server stopped by itself.');
    stop(code ?? 1);
  });
  if (database.ours) watch = setInterval(() => void lookAfterDatabase(), 3000);
}

/** A database that died, of a full memory or a hasty hand, is started again; the server reconnects by itself. */
async function lookAfterDatabase() {
  if (stopping || database.running()) return;
  try {
    if ((await database.restart()) && !stopping) console.error('The database had stopped; it is started again.');
  } catch (error) {
    console.error(`The database has stopped and cannot be started: ${error.message}`);
  }
}
