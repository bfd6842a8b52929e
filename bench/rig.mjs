// What every bench stands on: the real server on a database of its own, somebody signed in, and the raw database beside.
import { spawn, spawnSync } from 'node:child_process';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import { pathToFileURL } from 'node:url';
import pg from 'pg';
import { root } from '../scripts/root.mjs';
import { startTestCluster } from '../scripts/test-cluster.mjs';

const entry = (name) => path.join(root, 'dist/server', `${name}.js`);
const database = 'template_town';

/** `spots`: of a region around the demo town; the town alone where none is said. */
export async function openRig({ spots } = {}) {
  const cluster = await startTestCluster();
  const env = {
    ...process.env,
    PORT: '0',
    DATABASE_URL: cluster.appUrl(database),
    OWNER_DATABASE_URL: cluster.ownerUrl(database),
    SESSION_SECRET: cluster.sessionSecret,
    STORAGE_FOLDER: path.join(cluster.folder, 'storage'),
    WEB_ROOT: path.join(root, 'dist/web/browser'),
    LOG_LEVEL: 'error',
  };
  const load = spots === undefined ? [entry('load-demo')] : [entry('load-big'), String(spots)];
  const loaded = spawnSync(process.execPath, load, { env, stdio: ['ignore', 'inherit', 'inherit'] });
  if (loaded.status !== 0) throw new Error('the town was not loaded');
  const server = spawn(process.execPath, [entry('main')], { env, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
  const port = await new Promise((resolve) => server.once('message', ({ listening }) => resolve(listening)));
  const url = `http://127.0.0.1:${port}`;
  const client = new pg.Client({ connectionString: cluster.ownerUrl(database) });
  await client.connect();

  const headers = { cookie: '', 'x-csrf-token': '' };
  async function call(method, where, body, type = 'application/json') {
    const response = await fetch(url + where, { method, body, headers: { ...headers, 'content-type': type } });
    const cookie = response.headers.getSetCookie()[0];
    if (cookie) headers.cookie = cookie.split(';')[0];
    if (!response.ok) throw new Error(`${where}: ${response.status} ${(await response.text()).slice(0, 300)}`);
    return response;
  }
  const read = async (where) => (await call('GET', where)).json();
  headers['x-csrf-token'] = (await read('/api/session')).csrfToken;
  const signIn = JSON.stringify({ signIn: 'ines', password: 'shade-walks' });
  headers['x-csrf-token'] = (await (await call('POST', '/api/session', signIn)).json()).csrfToken;

  return {
    url,
    client,
    call,
    read,
    serverPid: server.pid,
    async close() {
      await client.end();
      server.kill('SIGTERM');
      await new Promise((resolve) => server.once('exit', resolve));
      cluster.stop();
    },
  };
}

/** Runs a bench by itself, when its file is what was started. */
export async function whenStarted(moduleUrl, options, bench) {
  if (moduleUrl !== pathToFileURL(process.argv[1] ?? '').href) return;
  const rig = await openRig(options);
  try {
    await bench(rig);
  } finally {
    await rig.close();
  }
}

/** Numbers that look random and are the same every time. */
export function dice(state = 20261123) {
  return () => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return state / 2147483648;
  };
}

export async function timed(act) {
  const started = performance.now();
  await act();
  return performance.now() - started;
}

/** `runs` times after `warm` that are not counted: a server that people work with has been asked some hundred times. */
export async function times(runs, act, warm = 3) {
  const all = [];
  for (let i = 0; i < runs + warm; i++) {
    const took = await timed(act);
    if (i >= warm) all.push(took);
  }
  return all;
}

/** The value that this share of them does not pass. */
export const at = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];
export const ms = (value) => `${value.toFixed(1)} ms`;
