// npm run bench:town [SPOTS]: the doors a desk opens all day, on a region of 250 000 spots (or as many as named), each
// beside the raw query under it. Prints medians, p95 and ratios; judges nothing.
import { v7 as uuidv7 } from 'uuid';
import { at, ms, timed, times, whenStarted } from './rig.mjs';

/** Doors are timed warm, as they are after some minutes of a morning. */
const warmPerRun = 10;

export async function town(rig, { runs = 15, rows = 10_000, people = 50, seconds = 10, adopting = 20 } = {}) {
  await doors(rig, runs);
  const planted = (await rig.read('/api/spots?limit=500&planted=yes&offset=1000')).lines.map(({ spotId }) => spotId);
  const trees =
    planted.length > 0 ? planted : (await rig.read('/api/spots?limit=500&planted=yes')).lines.map((one) => one.spotId);
  await desks(rig, runs);
  await records(rig, trees, runs);
  await files(rig, rows);
  await everybody(rig, trees, { people, seconds });
  await adoption(rig, adopting);
}

async function doors({ client, call, read }, runs) {
  const total = (await read('/api/spots?limit=1')).total;
  const near = (await read('/api/spots?limit=1&sort=ref&offset=3')).lines[0];
  const late = Math.max(0, total - 10_000);
  const doors = [
    [
      'Desk',
      '/api/desk',
      'select kind, remedy, level, count(*) from decision where until_day is null group by 1, 2, 3',
    ],
    ['List, first page', '/api/spots?limit=100', 'select * from spot order by ref limit 100'],
    [
      `List at ${late}`,
      `/api/spots?limit=100&offset=${late}`,
      `select * from spot order by ref offset ${late} limit 100`,
    ],
    [
      'List by due day',
      '/api/spots?limit=100&sort=dueOn',
      'select * from spot_period where until_day is null order by due_on, spot_id limit 100',
    ],
    [
      'Find in the list',
      `/api/spots?limit=100&find=${encodeURIComponent(near.ref)}`,
      `select * from spot where ref ilike '%${near.ref}%' limit 100`,
    ],
    ['Find anything', `/api/find?words=${near.ref}`, `select * from spot where ref ilike '%${near.ref}%' limit 6`],
    [
      'Facets',
      '/api/spots/facets',
      'select stage, level, count(*) from spot_period where until_day is null group by 1, 2',
    ],
    [
      'Facets of a stage',
      '/api/spots/facets?stage=ground',
      `select count(*) from spot_period where until_day is null and stage = 'ground'`,
    ],
    [
      'Tickets',
      '/api/tickets',
      'select ticket.id, count(*) from locate_ticket ticket join spot on st_covers(area, position) group by 1',
    ],
    [
      'Practices',
      '/api/practices',
      `select count(*) from spot_period where until_day is null and planted_on is not null`,
    ],
    ['One spot', `/api/spots/${near.spotId}`, `select * from field_record where spot_id = '${near.spotId}'`],
  ];
  for (const [name, where, sql] of doors) {
    const ours = await times(runs, async () => (await call('GET', where)).arrayBuffer(), runs * warmPerRun);
    const raw = await times(runs, () => client.query(sql), runs * warmPerRun);
    const ratio = (at(ours, 0.5) / at(raw, 0.5)).toFixed(1);
    console.log(
      `${name}: median ${ms(at(ours, 0.5))}, p95 ${ms(at(ours, 0.95))}; raw database ${ms(at(raw, 0.5))}; ratio ${ratio}`,
    );
  }
}

/** Eight people at once, beside one; and the desk of somebody else after a record. */
async function desks({ call }, runs) {
  const desk = async () => (await call('GET', '/api/desk')).arrayBuffer();
  const one = at(await times(runs, desk), 0.5);
  const eight = at(await times(runs, () => Promise.all(Array.from({ length: 8 }, desk))), 0.5);
  console.log(`8 desks at once: median ${ms(eight)}, ${(eight / one).toFixed(1)} times one`);
}

const watering = (spotId) => {
  const [now, facts] = [new Date().toISOString(), { wateredOn: new Date().toISOString().slice(0, 10), litres: 30 }];
  const record = { id: uuidv7(), kind: 'watering', recordedAt: now, supersedes: null, facts };
  return JSON.stringify({ spotId, device: 'bench', spotVersion: null, format: 3, aheadMs: 0, record });
};

/** One record with what follows from it, beside the rows it writes, written by hand. */
async function records({ client, call }, trees, runs) {
  let n = 0;
  const next = () => trees[n++ % trees.length];
  const store = async () => (await call('POST', '/api/records', watering(next()))).arrayBuffer();
  const ours = await times(runs * 2, store, runs * warmPerRun);
  const byHand = async () => {
    await client.query('begin');
    const { rows } = await client.query('select tree.id, spot_id from tree where standing and spot_id = $1', [next()]);
    await client.query(
      `insert into field_record (id, kind, spot_id, tree_id, facts, recorded_at, happened_at, recorded_by, device)
       values (gen_random_uuid(), 'watering', $1, $2, '{}', now(), now(), 'bench', 'raw')`,
      [rows[0].spot_id, rows[0].id],
    );
    await client.query('update spot set version = version + 1 where id = $1', [rows[0].spot_id]);
    await client.query('update spot_period set decisions = decisions where spot_id = $1 and until_day is null', [
      rows[0].spot_id,
    ]);
    await client.query('rollback');
  };
  const raw = await times(runs * 2, byHand, runs * warmPerRun);
  const [a, b] = [at(ours, 0.5), at(raw, 0.5)];
  console.log(
    `One record stored: median ${ms(a)}, p95 ${ms(at(ours, 0.95))}; raw ${ms(b)}; ratio ${(a / b).toFixed(1)}`,
  );
}

/** A file of new spots, and the same again, beside the same rows written from a table. */
async function files({ client, call }, rows) {
  const tag = Date.now() % 1_000_000;
  const line = (_, i) => `B${tag}-${i},Bench street ${i % 80},-25.4${String(i).padStart(5, '0')},36.9,loam`;
  const csv = `ref,place,lng,lat,soil\n${Array.from({ length: rows }, line).join('\n')}\n`;
  const send = async () =>
    (await call('POST', `/api/imports?fileName=bench.csv&id=${uuidv7()}`, csv, 'text/csv')).arrayBuffer();
  const [fresh, again] = [await timed(send), await timed(send)];
  const raw = await timed(async () => {
    await client.query('begin');
    await client.query(`create temp table fresh on commit drop as
      select gen_random_uuid() as id, i, (select id from place limit 1) as place from generate_series(1, ${rows}) i`);
    await client.query(`insert into spot (id, ref, place_id, position, added_on, changed_by)
      select id, 'RAW${tag}-' || i, place, st_setsrid(st_makepoint(-25.4, 36.9), 4326), current_date, 'raw' from fresh`);
    await client.query('insert into tree (id, spot_id) select gen_random_uuid(), id from fresh');
    await client.query(`insert into field_record (id, kind, spot_id, facts, recorded_at, happened_at, recorded_by, device)
      select gen_random_uuid(), 'ground', id, '{}', now(), now(), 'raw', 'raw' from fresh`);
    await client.query(`insert into spot_period (spot_id, from_day, stage, level, decisions, lng, lat, ref)
      select id, current_date, 'ground', 'watch', 2, -25.4, 36.9, 'RAW' || i from fresh`);
    await client.query(`insert into decision (spot_id, place_id, from_day, position, kind, stage, level, because)
      select id, place, current_date, n, 'measure_ground', 'ground', 'watch', '[]' from fresh, generate_series(0, 1) n`);
    await client.query('rollback');
  });
  const ratio = (took) => (took / raw).toFixed(1);
  console.log(
    `${rows} rows of a file: new ${ms(fresh)} (${ratio(fresh)} times raw), the same again ${ms(again)} (${ratio(again)}); raw ${ms(raw)}`,
  );
}

/** People without a pause between two requests: trees opened, records, lists. They share the machine with the server. */
async function everybody({ call }, trees, { people, seconds }) {
  const until = performance.now() + seconds * 1000;
  const took = [];
  const one = async (_, person) => {
    for (let n = person; performance.now() < until; n++) {
      const [kind, spotId] = [n % 10, trees[n % trees.length]];
      took.push(
        await timed(async () => {
          const answer =
            kind < 6
              ? await call('GET', `/api/spots/${spotId}`)
              : kind < 8
                ? await call('POST', '/api/records', watering(spotId))
                : await call('GET', kind === 8 ? '/api/spots?limit=100' : '/api/session');
          await answer.arrayBuffer();
        }),
      );
    }
  };
  await Promise.all(Array.from({ length: people }, one));
  console.log(
    `${people} people: ${(took.length / seconds).toFixed(0)} requests a second, median ${ms(at(took, 0.5))}, p95 ${ms(at(took, 0.95))}`,
  );
}

/** A change of practice, for a while, and what somebody who taps waits meanwhile. */
async function adoption({ call, read }, seconds) {
  const { practices, current } = await read('/api/practices');
  const other = practices.find(({ practice, shipped }) => shipped && practice.id !== current.id).practice;
  const to = JSON.stringify({ id: other.id, version: other.version });
  const started = performance.now();
  let ended = 0;
  const walk = call('POST', '/api/practices/adopt', to)
    .then((answer) => answer.arrayBuffer())
    // Stopped before it told anything, it is refused.
    .catch(() => undefined)
    .finally(() => (ended = performance.now()));
  const taps = [];
  do {
    taps.push(await timed(async () => (await call('GET', '/api/session')).arrayBuffer()));
    await new Promise((resolve) => setTimeout(resolve, 20));
  } while (ended === 0 && performance.now() - started < seconds * 1000);
  const { adoption: open } = await read('/api/practices');
  const done = open?.done ?? (await read('/api/spots?limit=1')).total;
  const spent = (ended || performance.now()) - started;
  await (await call('POST', '/api/practices/adopt/stop', '{}')).arrayBuffer();
  await walk;
  console.log(
    `Practice adopted: ${(spent / done).toFixed(2)} ms a spot; a tap meanwhile: median ${ms(at(taps, 0.5))}, p95 ${ms(at(taps, 0.95))}, longest ${ms(at(taps, 1))}`,
  );
}

await whenStarted(import.meta.url, { spots: Number(process.argv[2] ?? 250_000) }, (rig) => town(rig));
