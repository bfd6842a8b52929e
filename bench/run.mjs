// npm run bench: times the server beside the raw work under it. Prints medians, p95 and ratios; judges nothing.
import { spawn, spawnSync } from 'node:child_process';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import { root } from '../scripts/root.mjs';
import { startTestCluster } from '../scripts/test-cluster.mjs';

const entry = (name) => path.join(root, 'dist/server', `${name}.js`);
const cluster = await startTestCluster();
const database = 'template_town';
const env = {
  ...process.env,
  PORT: '0',
  DATABASE_URL: cluster.appUrl(database),
  SESSION_SECRET: cluster.sessionSecret,
  LOG_LEVEL: 'silent',
};
spawnSync(process.execPath, [entry('load-demo')], { env, stdio: 'inherit' });
const server = spawn(process.execPath, [entry('main')], { env, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
const port = await new Promise((resolve) => server.once('message', ({ listening }) => resolve(listening)));
const url = `http://127.0.0.1:${port}`;
const client = new pg.Client({ connectionString: cluster.ownerUrl(database) });
await client.connect();

const headers = { cookie: '', 'x-csrf-token': '', 'content-type': 'application/json' };
async function call(method, where, body, type = 'application/json') {
  const response = await fetch(url + where, { method, body, headers: { ...headers, 'content-type': type } });
  const cookie = response.headers.getSetCookie()[0];
  if (cookie) headers.cookie = cookie.split(';')[0];
  return response;
}
headers['x-csrf-token'] = (await (await call('GET', '/api/session')).json()).csrfToken;
const signIn = JSON.stringify({ signIn: 'ines', password: 'shade-walks' });
headers['x-csrf-token'] = (await (await call('POST', '/api/session', signIn)).json()).csrfToken;

async function time(runs, act) {
  const times = [];
  for (let i = 0; i < runs + 3; i++) {
    const started = performance.now();
    await act();
    if (i >= 3) times.push(performance.now() - started);
  }
  times.sort((a, b) => a - b);
  return { median: times[Math.floor(runs / 2)], p95: times[Math.floor(runs * 0.95)] };
}

const ms = (value) => `${value.toFixed(1)} ms`;
function report(name, ours, raw) {
  const ratio = (ours.median / raw.median).toFixed(1);
  console.log(
    `${name}: median ${ms(ours.median)}, p95 ${ms(ours.p95)}; raw database ${ms(raw.median)}; ratio ${ratio}`,
  );
}

const spot = (await (await call('GET', '/api/spots?find=W-0101')).json()).lines[0];
report(
  'Desk',
  await time(60, async () => (await call('GET', '/api/desk')).arrayBuffer()),
  await time(60, () =>
    client.query('select * from decision join spot on spot.id = spot_id join place on place.id = place_id'),
  ),
);
report(
  'One spot with its records',
  await time(60, async () => (await call('GET', `/api/spots/${spot.spotId}`)).arrayBuffer()),
  await time(60, () => client.query('select * from field_record where spot_id = $1', [spot.spotId])),
);

const rows = Array.from({ length: 10_000 }, (_, i) => `B-${i},Mole Street,-25.4,36.9`);
const file = `ref,place,lng,lat\n${rows.join('\n')}\n`;
const started = performance.now();
await (await call('POST', `/api/imports?fileName=b.csv&id=${uuidv7()}`, file, 'text/csv')).text();
const imported = performance.now() - started;
const place = (await client.query('select id from place limit 1')).rows[0].id;
const rawStarted = performance.now();
await client.query(
  `insert into spot (id, ref, place_id, position, changed_by)
   select gen_random_uuid(), 'raw-' || i, $1, st_setsrid(st_makepoint(-25.4, 36.9), 4326), 'bench' from generate_series(1, 10000) i`,
  [place],
);
const raw = performance.now() - rawStarted;
console.log(
  `Import of 10 000 rows: ${ms(imported)}; raw insert of as many spots ${ms(raw)}; ratio ${(imported / raw).toFixed(1)}`,
);

await client.end();
server.kill('SIGTERM');
await new Promise((resolve) => server.once('exit', resolve));
cluster.stop();
