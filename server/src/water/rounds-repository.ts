import {
  roundPlanSchema,
  type Fleet,
  type KeptRoundPlan,
  type RoundHead,
  type WaterFillPoint,
  type WaterTruck,
} from '@sombra/contract';
import type { IsoDate, NextWater } from '@sombra/core';
import type { Db } from '../platform/db';
import { readStored } from '../platform/stored';
import { establishedTrees, grouped } from './repository';
import { keepVersion } from './version-repository';

/** Trucks and fill points, with how far each fill point lies from a street. */
export async function fleet(db: Db): Promise<Fleet> {
  const trucks = await db('water_truck')
    .orderBy('name')
    .select<WaterTruck[]>(
      'id',
      'name',
      'on_foot as onFoot',
      'tank_l as tankL',
      'pour_l_per_min as pourLPerMin',
      'km_per_h as kmPerH',
      db.raw('array[st_x(depot), st_y(depot)] as depot'),
      'retired',
      'version',
    );
  const fills = await db('fill_point')
    .orderBy('name')
    .select<Fleet['fills']>(
      'id',
      'name',
      db.raw('array[st_x(position), st_y(position)] as position'),
      'flow_l_per_min as flowLPerMin',
      'connect_minutes as connectMinutes',
      'permit',
      'retired',
      'version',
      db.raw(`(select st_distance(st_transform(edge.geom, 4326)::geography, fill_point.position::geography)
        from street_edge edge order by edge.geom <-> st_transform(fill_point.position, 3857) limit 1) as "fromStreetM"`),
    );
  return { trucks, fills };
}

const point = (db: Db, [lng, lat]: readonly [number, number]) =>
  db.raw('st_setsrid(st_makepoint(?, ?), 4326)', [lng, lat]) as unknown as string;

export const keepTruck = (
  trx: Db,
  { onFoot, tankL, pourLPerMin, kmPerH, depot, ...rest }: WaterTruck,
): Promise<boolean> =>
  keepVersion(trx, 'water_truck', {
    ...rest,
    ...{ on_foot: onFoot, tank_l: tankL, pour_l_per_min: pourLPerMin, km_per_h: kmPerH, depot: point(trx, depot) },
  });

export const keepFill = (
  trx: Db,
  { position, flowLPerMin, connectMinutes, ...rest }: WaterFillPoint,
): Promise<boolean> =>
  keepVersion(trx, 'fill_point', {
    ...rest,
    ...{ flow_l_per_min: flowLPerMin, connect_minutes: connectMinutes, position: point(trx, position) },
  });

export interface ThirstyTree {
  readonly spotId: string;
  readonly ref: string;
  readonly place: string;
  readonly position: readonly [number, number];
  readonly supply: number;
  readonly next: NextWater;
}

/** Trees that ask for water, of some groups and a place, the most urgent first. */
export async function thirstyTrees(
  db: Db,
  { groups, place, today, most }: { groups: readonly string[]; place: string | null; today: IsoDate; most: number },
): Promise<ThirstyTree[]> {
  return db
    .from(grouped(db, { place: place ?? undefined, today }).as('water'))
    .whereIn('part', [...groups])
    .whereRaw(`water.next->>'kind' = 'water'`)
    .orderByRaw(`water.next->>'on', water.supply, water.ref`)
    .limit(most)
    .select<ThirstyTree[]>(
      'water.spot_id as spotId',
      'ref',
      'place',
      db.raw('array[st_x(water.position), st_y(water.position)] as position'),
      'supply',
      'next',
    );
}

/** Established trees of some species, the first in the order of their numbers, with how large they were planted. */
export async function droughtTrees(
  db: Db,
  {
    today,
    species,
    place,
    most,
  }: { today: IsoDate; species: readonly (string | null)[]; place: string | null; most: number },
): Promise<(Omit<ThirstyTree, 'supply' | 'next'> & { readonly caliperMm: number | null })[]> {
  const trees = establishedTrees(db, today)
    .join('spot', 'spot.id', 'period.spot_id')
    .join('place', 'place.id', 'spot.place_id')
    .whereNull('spot.withdrawn_on')
    .whereRaw(`coalesce(tree.species, '') = any(?::text[])`, [species.map((one) => one ?? '')])
    .orderBy('spot.ref')
    .limit(most);
  if (place !== null) void trees.where('place.name', place);
  return trees.select(
    'spot.id as spotId',
    'spot.ref',
    'place.name as place',
    db.raw('array[st_x(spot.position), st_y(spot.position)] as position'),
    db.raw(`(select (made.facts->>'caliperMm')::float8 from field_record made where made.spot_id = spot.id
      and made.kind = 'stock' order by made.happened_at desc, made.id desc limit 1) as "caliperMm"`),
  );
}

interface RoundRow {
  id: string;
  title: string;
  on_day: string;
  state: RoundHead['state'];
  plan: unknown;
  made_by: string;
  made_at: Date;
  given_at: Date | null;
  version: number;
}

export interface KeptRound {
  readonly id: string;
  readonly title: string;
  readonly onDay: string;
  readonly state: RoundHead['state'];
  readonly plan: KeptRoundPlan;
  readonly madeBy: string;
  readonly madeAt: string;
  readonly givenAt: string | null;
  readonly version: number;
}

const roundOf = (row: RoundRow): KeptRound => ({
  id: row.id,
  title: row.title,
  onDay: row.on_day,
  state: row.state,
  plan: readStored(roundPlanSchema, row.plan, `round ${row.id}`),
  madeBy: row.made_by,
  madeAt: row.made_at.toISOString(),
  givenAt: row.given_at?.toISOString() ?? null,
  version: row.version,
});

/** A draft takes the place of the draft there was. Returns false where the round was given out already. */
export async function keepRound(
  trx: Db,
  round: { id: string; title: string; onDay: string; plan: KeptRoundPlan; by: string },
): Promise<boolean> {
  const { id, title, onDay, plan, by } = round;
  const kept = await trx('water_round')
    .insert({ id, title, on_day: onDay, plan: JSON.stringify(plan), made_by: by })
    .onConflict('id')
    .merge({
      title,
      on_day: onDay,
      plan: JSON.stringify(plan),
      made_by: by,
      version: trx.raw('water_round.version + 1'),
    })
    .where('water_round.state', 'draft')
    .returning('id');
  return kept.length > 0;
}

export async function findRound(db: Db, id: string): Promise<KeptRound | undefined> {
  const row = await db<RoundRow>('water_round').where({ id }).first();
  return row && roundOf(row);
}

export async function lockRound(trx: Db, id: string): Promise<KeptRound | undefined> {
  const row = await trx<RoundRow>('water_round').where({ id }).forUpdate().first();
  return row && roundOf(row);
}

export async function roundHeads(db: Db): Promise<RoundHead[]> {
  const rows = await db<RoundRow>('water_round').orderBy('on_day', 'desc').orderBy('made_at', 'desc').limit(100);
  return rows.map((row) => {
    const { plan, givenAt: _given, ...head } = roundOf(row);
    return {
      ...head,
      stops: plan.trucks.reduce((sum, { steps }) => sum + steps.filter(({ kind }) => kind === 'stop').length, 0),
      trucks: plan.trucks.filter(({ steps }) => steps.length > 0).length,
      litres: plan.trucks.reduce((sum, { litres }) => sum + litres, 0),
    };
  });
}

export async function markGiven(trx: Db, id: string): Promise<void> {
  await trx('water_round')
    .where({ id })
    .update({ state: 'given', given_at: trx.fn.now(), version: trx.raw('version + 1') });
}
