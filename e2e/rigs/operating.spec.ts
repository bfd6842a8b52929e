import { expect, test } from '@playwright/test';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import pg from 'pg';
import { buildAll } from '../../scripts/build.mjs';
import { startCluster } from '../../scripts/cluster.mjs';
import { root } from '../../scripts/root.mjs';

// What an operator does at a terminal. Each test has a home of its own, away from whoever uses this folder.
let home: string;
let running: ChildProcess[] = [];
test.beforeAll(() => buildAll());
test.beforeEach(() => {
  home = mkdtempSync(path.join(tmpdir(), 'sombra-home-'));
  chmodSync(home, 0o711);
});
test.afterEach(async () => {
  for (const one of running.reverse()) await end(one);
  running = [];
  rmSync(home, { recursive: true, force: true });
});

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });

interface Started {
  readonly child: ChildProcess;
  /** All it has printed. */
  said(): string;
  /** Once it serves, or has ended. */
  readonly up: Promise<void>;
}

function start(command: string, env: Record<string, string>): Started {
  const child = spawn('bash', ['-c', command], {
    cwd: root,
    env: { ...process.env, SOMBRA_HOME: home, ...env },
    detached: true,
  });
  running.push(child);
  let text = '';
  const up = new Promise<void>((resolve) => {
    const hear = (part: Buffer) => {
      text += part.toString();
      if (text.includes('Sombra is at http')) resolve();
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('exit', () => resolve());
  });
  return { child, said: () => text, up };
}

async function end(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null || child.pid === undefined) return;
  const gone = new Promise((resolve) => child.once('close', resolve));
  process.kill(-child.pid, 'SIGTERM');
  await gone;
}

function command(line: string): { status: number | null; said: string } {
  const run = spawnSync('bash', ['-c', line], {
    cwd: root,
    env: { ...process.env, SOMBRA_HOME: home },
    encoding: 'utf8',
  });
  return { status: run.status, said: run.stdout + run.stderr };
}

const codeIn = (text: string): string => /one-time code ([A-Z0-9-]+)/.exec(text)?.[1] ?? '';

async function setUp(url: string, code: string): Promise<number> {
  const windows: unknown[] = [];
  const programme = {
    name: 'Leafy Harbour',
    timeZone: 'UTC',
    latDeg: 36.9,
    lngDeg: -25.4,
    elevationM: 20,
    currency: 'EUR',
  };
  const body = {
    code,
    person: {
      id: '0190a5c2-0000-7000-8000-0000000000aa',
      signIn: 'rosa',
      name: 'Rosa',
      units: 'metric',
      password: 'slow walks at dusk',
    },
    programme: { ...programme, units: 'metric', holidays: [], windows },
    practice: { id: 'field-default', version: 1 },
  };
  const headers = { 'content-type': 'application/json' };
  return (await fetch(`${url}/api/open/set-up`, { method: 'POST', headers, body: JSON.stringify(body) })).status;
}
const programmeAt = async (url: string): Promise<unknown> =>
  ((await (await fetch(`${url}/api/session`)).json()) as { programme: unknown }).programme;

test('starts join, a dead database rises, and a backup comes back only where it may', async () => {
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const first = start('exec npm start -- --new', { PORT: String(port) });
  await first.up;
  expect(await setUp(url, codeIn(first.said()))).toBe(201);
  expect(await programmeAt(url)).toEqual({ name: 'Leafy Harbour', demo: false, timeZone: 'UTC' });

  // Another start of the same programme starts nothing, and takes nothing away.
  const second = start('exec npm start -- --new', { PORT: String(await freePort()) });
  await second.up;
  expect(second.said()).toContain(`runs on this programme already, at ${url}`);
  expect(await programmeAt(url)).not.toBeNull();

  const pidFile = path.join(home, 'cluster/data/postmaster.pid');
  process.kill(Number(readFileSync(pidFile, 'utf8').split('\n')[0]), 'SIGKILL');
  await expect(() => expect(first.said()).toContain('it is started again')).toPass({ timeout: 60_000 });
  await expect(async () => expect(await programmeAt(url)).not.toBeNull()).toPass({ timeout: 60_000 });

  // An upload goes with the backup; nobody else reads it; no password stands in an argument.
  const storage = path.join(home, 'storage-sombra_own');
  mkdirSync(storage, { recursive: true });
  writeFileSync(path.join(storage, 'ab-photo'), 'a picture');
  const backup = path.join(home, 'kept.tar');
  expect(command(`npm run backup -- ${backup} --new`).said).toContain('Backup of sombra_own written');
  expect(statSync(backup).mode & 0o777).toBe(0o600);

  const refused = command(`npm run restore -- ${backup} --new`);
  expect([refused.status, refused.said]).toEqual([
    1,
    expect.stringContaining('Sombra is running. Stop it, then restore.'),
  ]);
  await end(first.child);
  expect(existsSync(pidFile)).toBe(false);

  writeFileSync(path.join(storage, 'ab-photo'), 'changed since');
  expect(command(`npm run restore -- ${backup} --new`).said).toContain('Restored sombra_own');
  expect(readFileSync(path.join(storage, 'ab-photo'), 'utf8')).toBe('a picture');
  expect(readFileSync(path.join(home, 'storage-sombra_own-before-restore/ab-photo'), 'utf8')).toBe('changed since');

  // Of another application, of a newer Sombra, of nothing: each is refused and changes nothing.
  const cluster = await startCluster({ folder: path.join(home, 'cluster'), database: 'another' });
  await query(cluster.ownerUrl('another'), 'create table thing (id int)');
  await query(cluster.ownerUrl('postgres'), 'create database newer template sombra_own');
  await query(
    cluster.ownerUrl('newer'),
    "insert into knex_migrations (name, batch, migration_time) values ('999-later', 9, now())",
  );
  const another = path.join(home, 'another.tar');
  const newer = path.join(home, 'newer.tar');
  expect(command(`DATABASE=another npm run backup -- ${another}`).status).toBe(0);
  expect(command(`DATABASE=newer npm run backup -- ${newer}`).status).toBe(0);
  writeFileSync(path.join(home, 'none.tar'), 'words');
  for (const [file, why] of [
    [another, 'another application'],
    [newer, 'a newer Sombra (999-later)'],
    [path.join(home, 'none.tar'), 'no backup of Sombra'],
  ]) {
    const tried = command(`npm run restore -- ${file} --new`);
    expect([tried.status, tried.said]).toEqual([1, expect.stringContaining(why ?? '')]);
  }
  cluster.stop();

  const again = start('exec npm start -- --new', { PORT: String(port) });
  await again.up;
  expect(codeIn(again.said())).toBe('');
  expect(await programmeAt(url)).toEqual({ name: 'Leafy Harbour', demo: false, timeZone: 'UTC' });
});

async function query(url: string, sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(sql);
  await client.end();
}

/** A block of commands as docs/operating.md has it. */
function written(name: string): string {
  const text = readFileSync(path.join(root, 'docs/operating.md'), 'utf8');
  const block = new RegExp(`operating\\.spec\\.ts: ${name} -->\\n\`\`\`sh\\n([^\`]+)\`\`\``).exec(text)?.[1];
  if (!block) throw new Error(`no block ${name}`);
  return block;
}

test('a database server of one’s own, and a second server on it, by the commands as they are written', async () => {
  const cluster = await startCluster({ folder: path.join(home, 'theirs'), database: 'empty', durable: false });
  try {
    // A server that has never heard of Sombra.
    await query(cluster.ownerUrl('postgres'), 'drop role sombra_app');
    const given = {
      ADMIN_URL: cluster.ownerUrl('postgres'),
      OWNER_PASSWORD: 'owner-secret',
      APP_PASSWORD: 'app-secret',
      DATABASE_HOST: new URL(cluster.ownerUrl('postgres')).host,
      SHARED_FOLDER: path.join(home, 'shared'),
      SESSION_SECRET: 'x'.repeat(40),
    };
    const once = spawnSync('bash', ['-ec', written('once')], { env: { ...process.env, ...given }, encoding: 'utf8' });
    expect([once.status, once.stderr]).toEqual([0, '']);

    const ports = [await freePort(), await freePort()];
    const urls = ports.map((port) => `http://127.0.0.1:${port}`);
    const servers = ports.map(
      (port) => () =>
        start(written('each').replace('4310', String(port)).replace('npm start', 'exec npm start'), given),
    );
    const first = servers[0]?.();
    await first?.up;
    expect(await setUp(urls[0] ?? '', codeIn(first?.said() ?? ''))).toBe(201);
    await servers[1]?.().up;
    for (const url of urls)
      expect(await programmeAt(url)).toEqual({ name: 'Leafy Harbour', demo: false, timeZone: 'UTC' });
    expect(existsSync(path.join(home, 'cluster'))).toBe(false);
  } finally {
    for (const one of running.reverse()) await end(one);
    running = [];
    cluster.stop();
  }
});
