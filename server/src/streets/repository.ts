import type { Db } from '../platform/db';

/**
 * Knits the base map's streets into a network: lines cut wherever they meet or cross, ends that lie within two metres of
 * another line drawn to it, and nodes where pieces meet. Lengths are metres along the ground.
 */
export async function knitStreets(trx: Db): Promise<void> {
  await trx('street_edge').delete();
  await trx('street_node').delete();
  await trx.raw(`
    create temporary table knit on commit drop as
    with lines as (
      select (st_dump(geom)).geom as geom from base_feature
      where layer = 'street' and geometrytype(geom) in ('LINESTRING', 'MULTILINESTRING')
    ), drawn as (
      select st_snap(one.geom, (select st_collect(other.geom) from lines other where st_dwithin(other.geom, one.geom, 3)), 3) as geom
      from lines one
    )
    select row_number() over () as id, piece.geom as geom
    from (select (st_dump(st_node(st_union(geom)))).geom from drawn) piece
    where st_length(piece.geom) > 0.01`);
  await trx.raw(`
    insert into street_node (id, geom)
    select row_number() over (), at from (
      select st_snaptogrid(st_startpoint(geom), 0.01) as at from knit
      union select st_snaptogrid(st_endpoint(geom), 0.01) from knit) ends`);
  await trx.raw(`
    insert into street_edge (source, target, length_m, geom)
    select s.id, t.id, st_length(st_transform(knit.geom, 4326)::geography), knit.geom
    from knit
    join street_node s on s.geom = st_snaptogrid(st_startpoint(knit.geom), 0.01)
    join street_node t on t.geom = st_snaptogrid(st_endpoint(knit.geom), 0.01)`);
  await trx.raw('drop table knit');
}

/** For a base map that came before streets were knit. */
export async function knitIfMissing(trx: Db): Promise<void> {
  const any = await trx('street_edge').first('id');
  const streets = await trx('base_feature').where({ layer: 'street' }).first('id');
  if (!any && streets) await knitStreets(trx);
}

/** A straight line is so much shorter than the way along streets. */
const straightFactor = 1.35;
/** Nobody is led to a street farther off than this. m */
const reachM = 150;

/** So near people walk straight, across a street too. m */
const besideM = 40;

/**
 * Metres on foot between places: straight where they are neighbours, along the streets where they are near some and
 * these lead there, else the straight line × 1.35.
 * @returns rows and columns in the order given, with how many ways follow streets
 */
export async function walkMatrix(
  db: Db,
  places: readonly (readonly [number, number])[],
): Promise<{ metres: number[][]; routed: boolean }> {
  const n = places.length;
  if (n === 0) return { metres: [], routed: false };
  const given = JSON.stringify(places.map(([lng, lat], i) => ({ id: i + 1, lng, lat })));
  const { rows } = await db.raw<{ rows: { a: number; b: number; straight: number; routed: number | null }[] }>(
    `with given as (
       select id, st_setsrid(st_makepoint(lng, lat), 4326) as at
       from json_to_recordset(cast(:given as json)) as one (id int, lng double precision, lat double precision)
     ), near as (
       select given.id, given.at, edge.id as edge_id, st_linelocatepoint(edge.geom, st_transform(given.at, 3857)) as fraction,
         st_distance(st_transform(edge.geom, 4326)::geography, given.at::geography) as off_m
       from given
       left join lateral (
         select id, geom from street_edge order by geom <-> st_transform(given.at, 3857) limit 1
       ) edge on true
     ), ways as (
       select * from pgr_withpointscostmatrix(
         'select id, source, target, length_m as cost from street_edge',
         (select coalesce(string_agg(format('select %s::bigint as pid, %s::bigint as edge_id, %s::float8 as fraction', id, edge_id,
           least(0.999999, greatest(0.000001, fraction))), ' union all '), 'select 1::bigint as pid, 1::bigint as edge_id, 0.5::float8 as fraction where false')
          from near where edge_id is not null and off_m <= :reach),
         (select coalesce(array_agg(-id::bigint), array[]::bigint[]) from near where edge_id is not null and off_m <= :reach),
         directed => false)
       where exists (select 1 from near where edge_id is not null and off_m <= :reach)
     )
     select a.id as a, b.id as b, st_distance(a.at::geography, b.at::geography) as straight,
       ways.agg_cost + a.off_m + b.off_m as routed
     from near a cross join near b
     left join ways on ways.start_vid = -a.id and ways.end_vid = -b.id
     where a.id <> b.id`,
    { given, reach: reachM },
  );
  const metres = Array.from({ length: n }, () => Array.from({ length: n }, () => 0));
  let routed = false;
  for (const { a, b, straight, routed: along } of rows) {
    const row = metres[a - 1];
    if (!row) continue;
    if (along !== null) routed = true;
    const far = along === null ? straight * straightFactor : Math.max(straight, along);
    row[b - 1] = Math.round(straight <= besideM ? straight : far);
  }
  return { metres, routed };
}
