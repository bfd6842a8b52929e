// npm run bench:map [COUNT]: tiles of a region of 250 000 spots (or COUNT), each timed at the server beside the raw
// query in the database. Prints medians, p95 and ratios for counts far out, marks near and the base map.
import { at, dice, ms, timed, whenStarted } from './rig.mjs';

const random = dice();

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

function raw(client, kind, tile) {
  const [z, x, y] = tile.split('/').map(Number);
  if (kind === 'base') return client.query(rawBase, [z, x, y]);
  if (z > 14) return client.query(rawMarks, [z, x, y]);
  const low = (at) => at * 2 ** (17 - z);
  return client.query(rawCount, [low(x), low(x + 1) - 1, low(y), low(y + 1) - 1, 14 - z]);
}

export async function map({ client, call }, { perZoom = 40, pages = 15 } = {}) {
  const all = [];
  for (const [kind, zooms] of [
    ['spots', [10, 11, 12, 13, 14, 15, 16, 17, 18]],
    ['base', [12, 14, 16]],
  ]) {
    for (const zoom of zooms) {
      const list = tiles(zoom, zoom < 12 ? Math.min(12, perZoom) : perZoom);
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
        theirs.push(await timed(() => raw(client, kind, tile)));
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
    for (let i = 0; i < pages; i++) {
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
}

await whenStarted(import.meta.url, { spots: Number(process.argv[2] ?? 250_000) }, (rig) => map(rig));
