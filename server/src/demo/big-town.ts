import { fieldDefault, spotPeriods, type FieldRecord, type SpotPeriod } from '@sombra/core';
import type { DemoSpot } from '@sombra/demo';
import type { Knex } from 'knex';
import { decisionRow, periodRow } from '../record/repository';

/** A history of the town to be copied: its records, and what follows from them. */
interface Pattern {
  readonly records: readonly FieldRecord[];
  readonly periods: readonly SpotPeriod[];
  readonly species: string | null;
  readonly addedOn: string;
}

const mostRecords = 5;
const patterns = 400;

/** Short histories: the ground, the stock, the planting and the last looks, derived by the core as any other. */
function patternsOf(spots: readonly DemoSpot[]): Pattern[] {
  return spots
    .filter((_, i) => i % Math.max(1, Math.floor(spots.length / patterns)) === 0)
    .slice(0, patterns)
    .map(({ records, species, addedOn, lng, lat }) => {
      const short = records.length <= mostRecords ? records : [...records.slice(0, 3), ...records.slice(-2)];
      const kept = short.map(({ by: _by, device: _device, ...record }): FieldRecord => record);
      return {
        records: kept,
        periods: spotPeriods(kept, { practice: fieldDefault, addedOn, position: [lng, lat] }),
        species,
        addedOn,
      };
    });
}

/**
 * Adds a region of so many spots around the town, each a copy of one of the town's own histories on a street
 * grid of 15 by 12 km. Runs as the owner: a million rows need no audit trail of their own.
 */
export async function addRegion(owner: Knex, spots: readonly DemoSpot[], count: number): Promise<void> {
  const found = patternsOf(spots);
  await owner.transaction(async (trx) => {
    await trx.raw(`set local session_replication_role = replica`);
    await stagePatterns(trx, found);
    await trx.raw(spread, [found.length, count]);
    for (const copy of copies) await trx.raw(copy);
  });
  await owner.raw('vacuum analyze');
}

async function stagePatterns(trx: Knex.Transaction, found: readonly Pattern[]): Promise<void> {
  await trx.raw(`
    create temp table pattern (n int primary key, species text, added_on date) on commit drop;
    create temp table pattern_record (n int, kind text, facts jsonb, recorded_at timestamptz) on commit drop;
    create temp table pattern_period (n int, like spot_period) on commit drop;
    create temp table pattern_decision (n int, like decision) on commit drop;
    alter table pattern_period drop column spot_id, drop column lng, drop column lat,
      drop column at, drop column cell_x, drop column cell_y;
    alter table pattern_decision drop column spot_id, drop column place_id, drop column tree_id;
  `);
  const none = { id: '', ref: '', placeId: '', treeId: null, addedOn: '', withdrawnOn: null, lng: 0, lat: 0 };
  await trx.batchInsert(
    'pattern',
    found.map(({ species, addedOn }, n) => ({ n, species, added_on: addedOn })),
  );
  await trx.batchInsert(
    'pattern_record',
    found.flatMap(({ records }, n) =>
      records.map(({ kind, facts, recordedAt }) => ({
        n,
        kind,
        facts: JSON.stringify(facts),
        recorded_at: recordedAt,
      })),
    ),
    500,
  );
  await trx.batchInsert(
    'pattern_period',
    found.flatMap(({ periods }, n) =>
      periods.map((period) => {
        const { spot_id: _spot, lng: _lng, lat: _lat, ...row } = periodRow(none, period);
        return { n, ...row };
      }),
    ),
    500,
  );
  await trx.batchInsert(
    'pattern_decision',
    found.flatMap(({ periods }, n) =>
      periods.flatMap((period) =>
        period.life.decisions.map((decision, position) => {
          const {
            spot_id: _spot,
            place_id: _place,
            tree_id: _tree,
            ...row
          } = decisionRow(none, period, decision, position);
          return { n, ...row, because: JSON.stringify(row.because) };
        }),
      ),
    ),
    500,
  );
}

// 2,000 streets of an even grid, trees on both sides, 6 m apart: as dense as a well-planted city.
const spread = `
  create temp table copied on commit drop as
  select gen_random_uuid() as id, gen_random_uuid() as tree_id, i, i % ?::int as n,
    'Z-' || lpad(i::text, 6, '0') as ref, (i / 125)::int as street,
    -25.49 + ((i / 125) % 40) * 0.0042 + ((i % 125) / 2) * 0.000066 as lng,
    36.85 + ((i / 5000)::int) * 0.0021 + ((i % 2) * 2 - 1) * 0.00006 as lat
  from generate_series(0, ?::int - 1) as i`;

const copies = [
  `insert into place (id, name) select gen_random_uuid(), 'Region street ' || lpad(street::text, 4, '0')
     from (select distinct street from copied) as s on conflict do nothing`,
  `insert into spot (id, ref, place_id, position, added_on, changed_by)
     select c.id, c.ref, p.id, st_setsrid(st_makepoint(c.lng, c.lat), 4326), t.added_on, 'Demo region'
     from copied c join pattern t using (n) join place p on p.name = 'Region street ' || lpad(c.street::text, 4, '0')`,
  `insert into tree (id, spot_id, species) select c.tree_id, c.id, t.species from copied c join pattern t using (n)`,
  `insert into field_record (id, kind, spot_id, tree_id, facts, recorded_at, happened_at, recorded_by, device)
     select gen_random_uuid(), r.kind, c.id, case when r.kind = 'ground' then null else c.tree_id end,
       r.facts, r.recorded_at, r.recorded_at, 'Demo region', 'demo'
     from copied c join pattern_record r using (n)`,
  `insert into spot_period (spot_id, from_day, until_day, stage, level, planted_on, probe, next_look_on, established_on, looked_on,
       decisions, due_on, crown_m, lng, lat, ref)
     select c.id, p.from_day, p.until_day, p.stage, p.level, p.planted_on, p.probe, p.next_look_on, p.established_on, p.looked_on,
       p.decisions, p.due_on, p.crown_m, c.lng, c.lat, c.ref
     from copied c join pattern_period p using (n)`,
  `insert into decision (spot_id, place_id, from_day, until_day, position, tree_id, kind, stage, level, due_on,
       remedy, because)
     select c.id, s.place_id, d.from_day, d.until_day, d.position, c.tree_id, d.kind, d.stage, d.level, d.due_on,
       d.remedy, d.because
     from copied c join pattern_decision d using (n) join spot s on s.id = c.id`,
  // Nobody has counted yet.
  `delete from place_change`,
  `delete from cell_change`,
  `insert into cell_change select cell_x, cell_y, count(*), count(*) filter (where level = 'urgent'),
       count(*) filter (where level = 'act'), count(*) filter (where planted_on is null), sum(lng), sum(lat)
     from spot_period where until_day is null group by cell_x, cell_y`,
];
