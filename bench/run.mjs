// npm run bench: times the server beside the raw work under it. Prints medians, p95 and ratios; judges nothing.
import { v7 as uuidv7 } from 'uuid';
import { at, ms, timed, times, whenStarted } from './rig.mjs';

export async function doors({ client, call, read }, { runs = 60, rows = 10_000 } = {}) {
  async function beside(name, where, sql, values = []) {
    const ours = await times(runs, async () => (await call('GET', where)).arrayBuffer());
    const raw = await times(runs, () => client.query(sql, values));
    const ratio = (at(ours, 0.5) / at(raw, 0.5)).toFixed(1);
    console.log(
      `${name}: median ${ms(at(ours, 0.5))}, p95 ${ms(at(ours, 0.95))}; raw database ${ms(at(raw, 0.5))}; ratio ${ratio}`,
    );
  }
  const { spotId } = (await read('/api/spots?find=W-0101')).lines[0];
  const decided = `select * from decision join spot on spot.id = decision.spot_id join place on place.id = spot.place_id`;
  await beside('Desk', '/api/desk', decided);
  const records = 'select * from field_record where spot_id = $1';
  await beside('One spot with its records', `/api/spots/${spotId}`, records, [spotId]);

  const lines = Array.from({ length: rows }, (_, i) => `B-${i},Mole Street,-25.4,36.9`);
  const file = `ref,place,lng,lat\n${lines.join('\n')}\n`;
  const send = () =>
    timed(async () => (await call('POST', `/api/imports?fileName=b.csv&id=${uuidv7()}`, file, 'text/csv')).text());
  const [imported, again] = [await send(), await send()];
  const place = (await client.query('select id from place limit 1')).rows[0].id;
  const raw = await timed(() =>
    client.query(
      `insert into spot (id, ref, place_id, position, added_on, changed_by)
       select gen_random_uuid(), 'raw-' || i, $1, st_setsrid(st_makepoint(-25.4, 36.9), 4326), current_date, 'bench'
       from generate_series(1, $2::int) i`,
      [place, rows],
    ),
  );
  console.log(
    `Import of ${rows} rows: ${ms(imported)}, read again ${ms(again)}; raw insert of as many spots ${ms(raw)}; ratio ${(imported / raw).toFixed(1)}`,
  );
}

await whenStarted(import.meta.url, {}, (rig) => doors(rig));
