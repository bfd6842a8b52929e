import type { MapDistance, Neighbour, Surroundings } from '@sombra/contract';
import { sightTriangleLegM, type SiteThing } from '@sombra/core';
import type { Db } from '../platform/db';

/** Farther than this nothing matters to a tree. m */
const reachM = 60;

/** Layers a distance is read off, and the thing each stands for. */
const measured: readonly (readonly [layer: string, thing: SiteThing])[] = [
  ['building', 'building'],
  ['wire', 'wire'],
  ['kerb', 'kerb'],
  ['hydrant', 'hydrant'],
  ['driveway', 'driveway'],
  ['lamp', 'lamp'],
  ['sign', 'sign'],
];

const here = `(select position from spot where id = ?)`;
const geography = (geom: string) => `st_transform(${geom}, 4326)::geography`;
/** About `reachM` in the map's own metres, wide enough up to 66° north and south. */
const nearby = `st_expand(st_transform(${here}, 3857), ${reachM * 2.5})`;

/** What stands around a spot, read off the base map on the ellipsoid; to be corrected by tape. */
export async function surroundingsOf(db: Db, spotId: string): Promise<Surroundings> {
  const [distances, junction, neighbours, street, layers] = await Promise.all([
    nearestThings(db, spotId),
    nearestJunction(db, spotId),
    neighbourTrees(db, spotId),
    wayToStreet(db, spotId),
    db('base_layer').pluck('layer') as unknown as Promise<string[]>,
  ]);
  const nextTree = neighbours[0];
  const wayTo = ({ distanceM, towardsDeg }: FoundTree) => ({ distanceM, towardsDeg });
  return {
    distances: [
      ...distances,
      ...(junction === null
        ? []
        : [{ thing: 'junction' as const, distanceM: junction, towardsDeg: null, heightM: null }]),
      ...(nextTree ? [{ thing: 'tree' as const, ...wayTo(nextTree), heightM: null }] : []),
    ],
    neighbours: neighbours.map(({ towardsDeg: _side, ...neighbour }) => neighbour),
    streetDeg: street,
    layersMissing: measured.map(([layer]) => layer).filter((layer) => !layers.includes(layer)),
  };
}

async function nearestThings(db: Db, spotId: string): Promise<MapDistance[]> {
  const { rows } = await db.raw<{
    rows: { layer: string; distance_m: number; bearing: number | null; height_m: number | null }[];
  }>(
    `select distinct on (layer) layer, height_m, st_distance(${geography('geom')}, ${here}::geography) as distance_m,
       degrees(st_azimuth(${here}::geography, st_closestpoint(st_transform(geom, 4326), ${here})::geography)) as bearing
     from base_feature where layer = any(?) and geom && ${nearby}
     order by layer, distance_m`,
    [spotId, spotId, spotId, measured.map(([layer]) => layer), spotId],
  );
  return rows
    .filter(({ distance_m }) => distance_m <= reachM)
    .map(({ layer, distance_m, bearing, height_m }) => ({
      thing: measured.find(([name]) => name === layer)?.[1] ?? 'building',
      distanceM: round(distance_m),
      towardsDeg: bearing === null ? null : Math.round(bearing),
      heightM: height_m,
    }));
}

/**
 * Leg of the sight triangle that just holds the spot, at the crossing of two kerbs where it is least; of two street
 * middles where no kerbs are drawn.
 */
async function nearestJunction(db: Db, spotId: string): Promise<number | null> {
  const bearing = (line: string) =>
    `(select degrees(st_azimuth(st_startpoint(piece.geom), st_endpoint(piece.geom)))
      from st_dump(st_intersection(${line}, st_buffer(crossing.at, 4))) piece
      where st_geometrytype(piece.geom) = 'ST_LineString' order by st_length(piece.geom) desc limit 1)`;
  const { rows } = await db.raw<{
    rows: { distance_m: number; bearing_deg: number; first_deg: number | null; second_deg: number | null }[];
  }>(
    `with near as (
       select id, layer, geom from base_feature where layer in ('kerb','street') and geom && ${nearby}
     ), used as (
       select * from near where layer = (select case when count(*) > 0 then 'kerb' else 'street' end from near where layer = 'kerb')
     ), crossing as (
       select (st_dump(st_intersection(a.geom, b.geom))).geom as at, a.geom as first, b.geom as second
       from used a join used b on a.id < b.id and st_crosses(a.geom, b.geom)
     )
     select st_distance(${geography('at')}, ${here}::geography) as distance_m,
       degrees(st_azimuth(${geography('at')}, ${here}::geography)) as bearing_deg,
       ${bearing('first')} as first_deg, ${bearing('second')} as second_deg
     from crossing where st_geometrytype(at) = 'ST_Point'`,
    [spotId, spotId, spotId],
  );
  const legs = rows.map((row) => {
    if (row.first_deg === null || row.second_deg === null) return row.distance_m;
    const turn = ((row.bearing_deg ?? 0) * Math.PI) / 180;
    const at = { eastM: row.distance_m * Math.sin(turn), northM: row.distance_m * Math.cos(turn) };
    return sightTriangleLegM(at, [row.first_deg, row.second_deg]);
  });
  const least = Math.min(...legs);
  return least <= reachM ? round(least) : null;
}

type FoundTree = Neighbour & { readonly towardsDeg: number | null };

async function neighbourTrees(db: Db, spotId: string): Promise<FoundTree[]> {
  const { rows } = await db.raw<{ rows: FoundTree[] }>(
    `select period.spot_id as "spotId", spot.ref, tree.species,
       st_distance(spot.position::geography, ${here}::geography) as "distanceM",
       round(degrees(st_azimuth(${here}::geography, spot.position::geography))) as "towardsDeg",
       coalesce(period.crown_m, 0) as "crownNowM",
       coalesce(((species.body->'spreadM'->>'min')::float + (species.body->'spreadM'->>'max')::float) / 2, 8) as "crownMatureM"
     from spot_period period
     join spot on spot.id = period.spot_id
     left join tree on tree.spot_id = spot.id and tree.standing
     left join species on species.botanical = tree.species
     where period.until_day is null and period.planted_on is not null and period.spot_id <> ?
       and st_dwithin(period.at, st_transform(${here}, 3857), ${reachM / 2})
     order by 4 limit 6`,
    [spotId, spotId, spotId, spotId],
  );
  return rows.map((row) => ({ ...row, distanceM: round(row.distanceM), crownNowM: round(row.crownNowM) }));
}

async function wayToStreet(db: Db, spotId: string): Promise<number | null> {
  const { rows } = await db.raw<{ rows: { bearing: number | null }[] }>(
    `select degrees(st_azimuth(${here}::geography, st_closestpoint(st_transform(geom, 4326), ${here})::geography)) as bearing
     from base_feature where layer = 'street' and geom && ${nearby}
     order by geom <-> st_transform(${here}, 3857) limit 1`,
    [spotId, spotId, spotId, spotId],
  );
  const bearing = rows[0]?.bearing ?? null;
  return bearing === null ? null : Math.round(bearing);
}

const round = (metres: number): number => Math.round(metres * 100) / 100;
