// npm run bench:map [COUNT]: tiles of a region of 250 000 spots (or COUNT), each timed at the server beside the raw
// query in the database. Prints medians, p95 and ratios for counts far out, marks near and the base map.
import { spawn, spawnSync } from 'node:child_process';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import pg from 'pg';
import { root } from '../scripts/root.mjs';
import { startTestCluster } from '../scripts/test-cluster.mjs';

const count = Number(process.argv[2] ?? 250_000);
const entry = (name) => path.join(root, 'dist/server', `${name}.js`);
const cluster = await startTestCluster();
const database = 'template_town';
const env = {
  ...process.env,
  PORT: '0',
  DATABASE_URL: cluster.appUrl(database),
  OWNER_DATABASE_URL: cluster.ownerUrl(database),
  SESSION_SECRET: cluster.sessionSecret,
  LOG_LEVEL: 'silent',
};
const filling = performance.now();
spawnSync(process.execPath, [entry('load-big'), String(count)], { env, stdio: 'inherit' });
console.log(`filled in ${Math.round((performance.now() - filling) / 1000)} s`);
const server = spawn(process.execPath, [entry('main')], { env, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
const port = await new Promise((resolve) => server.once('message', ({ listening }) => resolve(listening)));
const url = `http://127.0.0.1:${port}`;
const client = new pg.Client({ connectionString: cluster.ownerUrl(database) });
await client.connect();

const headers = { cookie: '', 'x-csrf-token': '', 'content-type': 'application/json' };
async function call(method, where, body) {
  const response = await fetch(url + where, { method, body, headers });
  const cookie = response.headers.getSetCookie()[0];
  if (cookie) headers.cookie = cookie.split(';')[0];
  return response;
}
headers['x-csrf-token'] = (await (await call('GET', '/api/session')).json()).csrfToken;
await call('POST', '/api/session', JSON.stringify({ signIn: 'ines', password: 'shade-walks' }));

const seed = { state: 20261123 };
const random = () => {
  seed.state = (seed.state * 1103515245 + 12345) % 2147483648;
  return seed.state / 2147483648;
};

/** Tiles a person panning over the region would ask for. */
function tiles(zoom, many) {
  const found = new Set();
  for (let i = 0; i < many * 4 && found.size < many; i++) {
    const lng = -25.49 + random() * 0.168;
    const lat = 36.85 + random() * 0.105;
    const turn = (lat * Math.PI) / 180;
    const x = Math.floor(((lng + 180) / 360) * 2 ** zoom);
    const y = Math.floor(((1 - Math.asinh(Math.tan(turn)) / Math.PI) / 2) * 2 ** zoom);
    found.add(`${zoom}/${x}/${y}`);
  }
  return [...found];
}

const rawCount = `select sum(spots), sum(urgent), sum(act), sum(lng), sum(lat) from cell_change
  where cell_x between $1 and $2 and cell_y between $3 and $4 group by cell_x >> $5, cell_y >> $5`;
const rawMarks = `select st_asmvt(t) from (select spot_id::text, st_asmvtgeom(at, st_tileenvelope($1, $2, $3)) as geom
  from spot_period where until_day is null and at && st_tileenvelope($1, $2, $3)) as t`;
const rawBase = `select st_asmvt(t) from (select name, st_asmvtgeom(geom, st_tileenvelope($1, $2, $3)) as geom
  from base_feature where geom && st_tileenvelope($1, $2, $3)) as t`;

function raw(kind, tile) {
  const [z, x, y] = tile.split('/').map(Number);
  if (kind === 'base') return client.query(rawBase, [z, x, y]);
  if (z > 14) return client.query(rawMarks, [z, x, y]);
  const low = (at) => at * 2 ** (17 - z);
  return client.query(rawCount, [low(x), low(x + 1) - 1, low(y), low(y + 1) - 1, 14 - z]);
}

async function timed(act) {
  const started = performance.now();
  await act();
  return performance.now() - started;
}

const at = (times, share) =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))];
const ms = (value) => `${value.toFixed(1)} ms`.padStart(9);
const all = [];
for (const [kind, zooms] of [
  ['spots', [10, 11, 12, 13, 14, 15, 16, 17, 18]],
  ['base', [12, 14, 16]],
]) {
  for (const zoom of zooms) {
    const list = tiles(zoom, zoom < 12 ? 12 : 40);
    for (const tile of list.slice(0, 3)) await (await call('GET', `/api/map/${kind}/${tile}`)).arrayBuffer();
    const ours = [];
    const theirs = [];
    let bytes = 0;
    for (const tile of list) {
      ours.push(
        await timed(
          async () => (bytes += (await (await call('GET', `/api/map/${kind}/${tile}`)).arrayBuffer()).byteLength),
        ),
      );
      theirs.push(await timed(() => raw(kind, tile)));
    }
    if (kind === 'spots') all.push(...ours);
    const ratio = (at(ours, 0.5) / at(theirs, 0.5)).toFixed(1);
    console.log(
      `${kind} zoom ${zoom}: median ${ms(at(ours, 0.5))}, p95 ${ms(at(ours, 0.95))}; raw database ${ms(at(theirs, 0.5))}, p95 ${ms(at(theirs, 0.95))}; ratio ${ratio}; ${list.length} tiles of ${Math.round(bytes / list.length / 1024)} kB`,
    );
  }
}
console.log(`spots, all zooms: median ${ms(at(all, 0.5))}, p95 ${ms(at(all, 0.95))}`);

async function page(name, where, sql) {
  const ours = [];
  const theirs = [];
  for (let i = 0; i < 15; i++) {
    ours.push(await timed(async () => (await call('GET', where)).arrayBuffer()));
    theirs.push(await timed(() => client.query(sql)));
  }
  console.log(`${name}: median ${ms(at(ours, 0.5))}, p95 ${ms(at(ours, 0.95))}; raw database ${ms(at(theirs, 0.5))}`);
}
const now = 'spot_period where until_day is null';
await page(
  'desk',
  '/api/desk',
  `select kind, remedy, level, count(*) from decision where until_day is null group by 1, 2, 3`,
);
await page('list, first page', '/api/spots?limit=100', `select * from ${now} order by spot_id limit 100`);
await page(
  'list, page at 40 000',
  '/api/spots?limit=100&offset=40000',
  `select * from ${now} order by spot_id offset 40000 limit 100`,
);
await page(
  'list by due day',
  '/api/spots?limit=100&sort=dueOn&stage=inspect',
  `select * from ${now} and stage = 'inspect' order by due_on limit 100`,
);

await client.end();
server.kill('SIGTERM');
await new Promise((resolve) => server.once('exit', resolve));
cluster.stop();
