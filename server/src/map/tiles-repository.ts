import type { BaseLayer, SpotFilter, TilePath } from '@sombra/contract';
import type { IsoDate, ProbeClass } from '@sombra/core';
import type { Knex } from 'knex';
import { withStandingTree } from '../spots/repository';
import type { Db } from '../platform/db';
import { periodsOf } from '../town/filter-repository';

/** Cells are kept at this zoom of the web map grid. */
const cellZoom = 17;
/** A tile shows 8 × 8 counted cells. */
const cellsPerTile = 3;

const countedNow = [
  'count(*)::int as spots',
  `count(*) filter (where period.level = 'urgent')::int as urgent`,
  `count(*) filter (where period.level = 'act')::int as act`,
  'count(*) filter (where period.planted_on is null)::int as preparing',
  'avg(period.lng) as lng',
  'avg(period.lat) as lat',
];

const countedBefore = [
  'sum(period.spots)::int as spots',
  'sum(period.urgent)::int as urgent',
  'sum(period.act)::int as act',
  'sum(period.preparing)::int as preparing',
  'sum(period.lng) / sum(period.spots) as lng',
  'sum(period.lat) / sum(period.spots) as lat',
];

/** Spots counted by area: how many, how many need an act, at their centre. */
export async function countTile(db: Db, tile: TilePath, filter: SpotFilter, today: IsoDate): Promise<Buffer> {
  const shift = cellZoom - Math.min(cellZoom, tile.z + cellsPerTile);
  const low = (at: number) => at * 2 ** (cellZoom - tile.z);
  const high = (at: number) => low(at + 1) - 1;
  // What everybody sees first is counted beforehand; a filter or another day is counted when asked for.
  const usual = Object.keys(filter).length === 0;
  const cells = (usual ? db('cell_change as period') : periodsOf(db, filter, today))
    .whereBetween('period.cell_x', [low(tile.x), high(tile.x)])
    .whereBetween('period.cell_y', [low(tile.y), high(tile.y)])
    .groupByRaw('period.cell_x >> ?, period.cell_y >> ?', [shift, shift])
    .select((usual ? countedBefore : countedNow).map((column) => db.raw(column)));
  if (usual) void cells.havingRaw('sum(period.spots) > 0');
  const placed = db.from(cells.as('cells')).select(
    'spots',
    'urgent',
    'act',
    'preparing',
    db.raw(
      `st_asmvtgeom(st_transform(st_setsrid(st_makepoint(lng, lat), 4326), 3857),
           st_tileenvelope(?, ?, ?), 4096, 256) as geom`,
      [tile.z, tile.x, tile.y],
    ),
  );
  return encoded(db, placed, 'count');
}

async function encoded(db: Db, rows: Knex.QueryBuilder, layer: 'count' | 'spot'): Promise<Buffer> {
  const [row] = await db
    .select<{ tile: Buffer | null }[]>(db.raw(`st_asmvt(tile, ?, 4096, 'geom') as tile`, [layer]))
    .from(rows.as('tile'));
  return row?.tile ?? Buffer.alloc(0);
}

/** From this zoom on marks carry their number, species and crown. */
const namesFromZoom = 17;

/** Planted spots of a tile. */
export const plantedIn = (db: Db, tile: TilePath, filter: SpotFilter, today: IsoDate): Promise<string[]> =>
  periodsOf(db, filter, today)
    .whereRaw('period.at && st_tileenvelope(?, ?, ?, margin => 0.0625)', [tile.z, tile.x, tile.y])
    .whereNotNull('period.planted_on')
    .pluck('period.spot_id');

/**
 * Each spot with its state; near by also its number, its species and its crown.
 * @param glass how full balls stand by their balance; the others show their last probe
 */
export async function markTile(
  db: Db,
  tile: TilePath,
  { filter, today, glass }: { filter: SpotFilter; today: IsoDate; glass: ReadonlyMap<string, ProbeClass> },
): Promise<Buffer> {
  const envelope = [tile.z, tile.x, tile.y];
  const followed = JSON.stringify([...glass].map(([id, probe]) => ({ id, probe })));
  const spots = periodsOf(db, filter, today)
    .joinRaw('left join json_to_recordset(?::json) as glass (id uuid, probe text) on glass.id = period.spot_id', [
      followed,
    ])
    .whereRaw('period.at && st_tileenvelope(?, ?, ?, margin => 0.0625)', envelope)
    .select(
      'period.spot_id as id',
      'period.stage',
      db.raw('period.planted_on is not null as planted'),
      'period.level',
      db.raw(`coalesce(glass.probe, period.probe, 'unknown') as probe`),
      db.raw('st_asmvtgeom(period.at, st_tileenvelope(?, ?, ?), 4096, 256) as geom', envelope),
    );
  if (tile.z < namesFromZoom) return encoded(db, spots, 'spot');
  void withStandingTree(db, spots.join('spot', 'spot.id', 'period.spot_id')).select(
    'spot.ref',
    'tree.species',
    db.raw('coalesce(period.crown_m, 0)::real as crown'),
  );
  return encoded(db, spots, 'spot');
}

/** Folds the changes of each cell into one row. One process does it at a time; others go on counting meanwhile. */
export async function foldCells(db: Knex): Promise<void> {
  await db.transaction(async (trx) => {
    const lock: { rows: { got: boolean }[] } = await trx.raw(
      `select pg_try_advisory_xact_lock(hashtext('sombra.cells')) as got`,
    );
    if (!lock.rows[0]?.got) return;
    await trx.raw(`
      with gone as (delete from cell_change returning *)
      insert into cell_change
        select cell_x, cell_y, sum(spots), sum(urgent), sum(act), sum(preparing), sum(lng), sum(lat)
        from gone group by cell_x, cell_y having sum(spots) <> 0`);
  });
}

interface LayerRule {
  readonly layer: BaseLayer;
  readonly fromZoom: number;
  readonly columns: string;
}

/** What a zoom can show of the base map. */
const layerRules: readonly LayerRule[] = [
  { layer: 'water', fromZoom: 0, columns: 'name' },
  { layer: 'park', fromZoom: 11, columns: 'name' },
  { layer: 'contour', fromZoom: 13, columns: 'height_m' },
  { layer: 'street', fromZoom: 12, columns: 'name' },
  { layer: 'building', fromZoom: 14, columns: 'height_m' },
  { layer: 'tram', fromZoom: 12, columns: 'name' },
  { layer: 'wire', fromZoom: 15, columns: 'height_m' },
  { layer: 'kerb', fromZoom: 16, columns: 'name' },
  { layer: 'driveway', fromZoom: 16, columns: 'name' },
  { layer: 'hydrant', fromZoom: 17, columns: 'name' },
  { layer: 'lamp', fromZoom: 17, columns: 'name' },
  { layer: 'sign', fromZoom: 17, columns: 'name' },
];

/** The base map's layers that show at a zoom, simplified to half a pixel where far out. */
export async function baseTile(db: Db, { z, x, y }: TilePath): Promise<Buffer> {
  const shown = layerRules.filter(({ fromZoom }) => z >= fromZoom);
  const tolerance = z >= 16 ? 0 : 40_075_016 / 2 ** z / 1024;
  const parts = shown.map(
    ({ layer, columns }) => `coalesce((select st_asmvt(tile, '${layer}', 4096, 'geom') from (
      select ${columns}, st_asmvtgeom(st_simplify(geom, ?, true), st_tileenvelope(?, ?, ?), 4096, 64) as geom
      from base_feature where layer = '${layer}' and geom && st_tileenvelope(?, ?, ?)) as tile
      where geom is not null), ''::bytea)`,
  );
  const bindings = shown.flatMap(() => [tolerance, z, x, y, z, x, y]);
  const [row] = await db.select<{ tile: Buffer }[]>(db.raw(`${parts.join(' || ')} as tile`, bindings));
  return row?.tile ?? Buffer.alloc(0);
}
