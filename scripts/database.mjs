// The database server commands work on: Sombra's own cluster, or one that is there already (DATABASE_URL).
import { databaseName, homeFolder, seasonKeysFolder, storageFolder } from './home.mjs';
import { ensureDatabasePackages } from './packages.mjs';
import { alone, otherStarts } from './starts.mjs';

/** One database of a server somebody else runs: the URLs are taken as they are given. */
function given() {
  const { DATABASE_URL: app, OWNER_DATABASE_URL: owner = app, SESSION_SECRET: sessionSecret } = process.env;
  const named = (url) => (name) => {
    const at = new URL(url);
    at.pathname = `/${name}`;
    return at.href;
  };
  const database = new URL(app).pathname.slice(1);
  return { ownerUrl: named(owner), appUrl: named(app), database, sessionSecret, ours: false };
}

/** Sombra's own cluster, started where it does not run; `stop` leaves it to whoever else runs Sombra from this home. */
async function own(database) {
  ensureDatabasePackages();
  const { startCluster } = await import('./cluster.mjs');
  const cluster = await alone(() => startCluster({ folder: homeFolder('cluster'), database }));
  return {
    ...cluster,
    ours: true,
    restart: () => alone(async () => (cluster.running() ? false : (await cluster.start(), true))),
    stop: () => alone(() => (otherStarts().length > 0 ? undefined : cluster.stop())),
  };
}

export async function openDatabaseServer(args) {
  const server = process.env.DATABASE_URL ? given() : await own(databaseName(args));
  return { ...server, storage: storageFolder(server.database), seasonKeys: seasonKeysFolder(server.database) };
}

/** Runs an act on the database server; a cluster that did not run before is stopped again. */
export async function withDatabaseServer(act) {
  const server = await openDatabaseServer(process.argv.slice(2));
  try {
    return await act(server);
  } finally {
    if (server.ours && !server.found) await server.stop();
  }
}

/** How the programs of PostgreSQL are told where to connect: the password goes by the environment, never by argument. */
export function connection(url) {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    args: ['--host', hostname, '--port', port || '5432', '--username', decodeURIComponent(username)],
    database: pathname.slice(1),
    env: { ...process.env, PGPASSWORD: decodeURIComponent(password) },
  };
}
