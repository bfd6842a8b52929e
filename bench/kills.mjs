// Kills the server, and the database under it, while records are sent, and counts what was acknowledged and is gone.
// npm run bench:kills runs it for long; a short form is part of npm test.
import { spawn, spawnSync } from 'node:child_process';
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { pathToFileURL } from 'node:url';
import pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import { startCluster } from '../scripts/cluster.mjs';
import { root } from '../scripts/root.mjs';

const entry = (name) => path.join(root, 'dist/server', `${name}.js`);
const clients = 6;

/**
 * Sends looks from several devices without pause, each again until it is acknowledged, as a phone does; kills the server
 * `serverKills` times and the database `databaseKills` times meanwhile, and starts them again.
 * Returns how many records were acknowledged, how many of those are missing or stored twice, and how many spots stand
 * otherwise than their records say.
 */
export async function kills({ serverKills, databaseKills }) {
  const folder = mkdtempSync(path.join(tmpdir(), 'sombra-kills-'));
  chmodSync(folder, 0o711);
  // Durable, as people run it.
  const cluster = await startCluster({ folder, database: 'kills' });
  const env = {
    ...process.env,
    PORT: '0',
    OWNER_DATABASE_URL: cluster.ownerUrl('kills'),
    DATABASE_URL: cluster.appUrl('kills'),
    SESSION_SECRET: cluster.sessionSecret,
    STORAGE_FOLDER: path.join(folder, 'storage'),
    LOG_LEVEL: 'silent',
  };
  const run = (name) => spawnSync(process.execPath, [entry(name)], { env, encoding: 'utf8' });
  let server;
  const start = async () => {
    server = spawn(process.execPath, [entry('main')], { env, stdio: ['ignore', 'ignore', 'ignore', 'ipc'] });
    const port = await new Promise((resolve, reject) => {
      server.once('message', ({ listening }) => resolve(listening));
      server.once('exit', () => reject(new Error('the server did not start')));
    });
    // The same door after a kill as before it.
    env.PORT = String(port);
  };
  try {
    for (const name of ['migrate', 'load-demo']) {
      const done = run(name);
      if (done.status !== 0) throw new Error(done.stderr);
    }
    await start();
    const sender = await openSender(() => `http://127.0.0.1:${env.PORT}`);
    const plan = [...Array(serverKills).fill('server'), ...Array(databaseKills).fill('database')];
    for (const what of plan) {
      // In the middle of the work, however slow the machine: some more are acknowledged since the last kill.
      await sender.until(sender.count() + 2 * clients);
      await setTimeout(Math.random() * 200);
      if (what === 'server') {
        const gone = new Promise((resolve) => server.once('exit', resolve));
        server.kill('SIGKILL');
        await gone;
        await start();
      } else {
        process.kill(
          Number(readFileSync(path.join(folder, 'data', 'postmaster.pid'), 'utf8').split('\n')[0]),
          'SIGKILL',
        );
        await startAgain(cluster);
      }
    }
    await sender.until(sender.count() + 2 * clients);
    const acknowledged = await sender.finish();
    const missing = await missingOf(cluster.ownerUrl('kills'), acknowledged);
    server.kill('SIGKILL');
    const rebuilt = run('rebuild');
    return { acknowledged: acknowledged.length, missing, rebuilt: rebuilt.status, said: rebuilt.stdout.trim() };
  } finally {
    server?.kill('SIGKILL');
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** What is left of a killed database holds its memory for a moment. */
async function startAgain(cluster) {
  for (let tries = 1; ; tries++) {
    await setTimeout(300);
    try {
      return await cluster.start();
    } catch (error) {
      if (tries > 30) throw error;
    }
  }
}

async function missingOf(url, ids) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const { rows } = await client.query('select count(*)::int as kept from field_record where id = any($1::uuid[])', [
    ids,
  ]);
  await client.end();
  return new Set(ids).size - rows[0].kept;
}

/** Devices that send until they are told to finish; a record is sent again until it is acknowledged. */
async function openSender(url) {
  const headers = { cookie: '', 'x-csrf-token': '', 'content-type': 'application/json' };
  const ask = async (method, where, body) => {
    const response = await fetch(url() + where, { method, headers, body: body && JSON.stringify(body) });
    const cookie = response.headers.getSetCookie()[0];
    if (cookie) headers.cookie = cookie.split(';')[0];
    return { status: response.status, body: await response.json() };
  };
  headers['x-csrf-token'] = (await ask('GET', '/api/session')).body.csrfToken;
  const signedIn = await ask('POST', '/api/session', { signIn: 'ines', password: 'shade-walks' });
  headers['x-csrf-token'] = signedIn.body.csrfToken;
  const inspectedOn = signedIn.body.today;
  const { body } = await ask('GET', '/api/spots?stage=inspect&limit=60');
  const spots = body.lines.map(({ spotId }) => spotId);

  const acknowledged = [];
  let finished = false;
  const device = async (n) => {
    for (let i = n; !finished; i += clients) {
      const facts = {
        inspectedOn,
        flareDepthMm: i % 30,
        mulchDepthMm: 60,
        mulchContact: 'clear',
        stake: 'none',
        probe: 'moist',
        circlingRoots: null,
      };
      const made = { id: uuidv7(), recordedAt: new Date().toISOString(), supersedes: null };
      const record = { ...made, kind: 'inspection', facts };
      const sent = { spotId: spots[i % spots.length], device: 'kills', spotVersion: null, record };
      while (!(await tried(ask, sent, acknowledged)) && !finished) await setTimeout(60);
    }
  };
  const devices = Promise.all(Array.from({ length: clients }, (_, n) => device(n)));
  return {
    count: () => acknowledged.length,
    async until(count) {
      while (acknowledged.length < count) await setTimeout(20);
    },
    async finish() {
      finished = true;
      await devices;
      return acknowledged;
    },
  };
}

async function tried(ask, sent, acknowledged) {
  try {
    const { status, body } = await ask('POST', '/api/records', sent);
    if (status === 200 || status === 201) acknowledged.push(sent.record.id);
    else if (status < 500) throw new Error(`refused: ${JSON.stringify(body)}`);
    return status < 500;
  } catch (error) {
    if (error.message.startsWith('refused')) throw error;
    return false;
  }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const { buildAll } = await import('../scripts/build.mjs');
  await buildAll({ web: false });
  const report = await kills({
    serverKills: Number(process.argv[2] ?? 60),
    databaseKills: Number(process.argv[3] ?? 5),
  });
  console.log(report);
  process.exitCode = report.missing === 0 && report.rebuilt === 0 ? 0 : 1;
}
