// npm run bench:town [SPOTS]: the doors a desk opens all day, on a region of 250 000 spots (or as many as named), each
// beside the raw query under it. Prints medians, p95 and ratios; judges nothing.
import { at, ms, times, whenStarted } from './rig.mjs';

export async function town({ client, call, read }, { runs = 15 } = {}) {
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
    const ours = await times(runs, async () => (await call('GET', where)).arrayBuffer());
    const raw = await times(runs, () => client.query(sql));
    const ratio = (at(ours, 0.5) / at(raw, 0.5)).toFixed(1);
    console.log(
      `${name}: median ${ms(at(ours, 0.5))}, p95 ${ms(at(ours, 0.95))}; raw database ${ms(at(raw, 0.5))}; ratio ${ratio}`,
    );
  }
}

await whenStarted(import.meta.url, { spots: Number(process.argv[2] ?? 250_000) }, (rig) => town(rig));
