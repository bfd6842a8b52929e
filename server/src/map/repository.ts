import type { BaseLayer, Booked, SpotFilter } from '@sombra/contract';
import { addDaysTo, type IsoDate } from '@sombra/core';
import type { Db } from '../platform/db';
import { knitStreets } from '../streets/repository';
import { handDigZones } from '../tickets/repository';
import { onDay, periodsOf } from '../town/filter-repository';

export interface LayerRow {
  layer: BaseLayer;
  features: number;
  changed_at: Date;
}

export const baseLayerRows = (db: Db): Promise<LayerRow[]> =>
  db<LayerRow>('base_layer').orderBy('layer').select('layer', 'features', 'changed_at');

export interface PmtilesRow {
  file_name: string;
  bytes: number;
  stored_as: string;
  changed_at: Date;
}

export const pmtilesRow = (db: Db): Promise<PmtilesRow | undefined> => db<PmtilesRow>('base_pmtiles').first();

export async function setPmtiles(
  db: Db,
  file: { fileName: string; bytes: number; storedAs: string },
  by: string,
): Promise<void> {
  const row = { file_name: file.fileName, bytes: file.bytes, stored_as: file.storedAs, changed_by: by };
  await db('base_pmtiles')
    .insert({ only_one: true, ...row, changed_at: db.fn.now() })
    .onConflict('only_one')
    .merge();
}

export async function dropPmtiles(db: Db): Promise<void> {
  await db('base_pmtiles').delete();
}

export interface NewFeature {
  readonly name: string | null;
  readonly heightM: number | null;
  /** A GeoJSON geometry as text. */
  readonly geometry: string;
}

/** Puts these features in the place of a layer. */
export async function replaceLayer(
  trx: Db,
  layer: BaseLayer,
  features: readonly NewFeature[],
  by: string,
): Promise<void> {
  await trx('base_layer').where({ layer }).delete();
  if (features.length > 0) await insertLayer(trx, layer, features, by);
  if (layer === 'street') await knitStreets(trx);
}

async function insertLayer(trx: Db, layer: BaseLayer, features: readonly NewFeature[], by: string): Promise<void> {
  await trx('base_layer').insert({ layer, features: features.length, changed_by: by });
  const chunk = 1000;
  for (let at = 0; at < features.length; at += chunk) {
    const part = features.slice(at, at + chunk);
    const given = part.map(({ name, heightM, geometry }) => ({ name, height_m: heightM, geometry }));
    await trx.raw(
      `insert into base_feature (layer, name, height_m, geom)
       select ?, name, height_m, st_makevalid(st_transform(st_setsrid(st_geomfromgeojson(geometry), 4326), 3857))
       from json_to_recordset(?::json) as given (name text, height_m double precision, geometry text)`,
      [layer, JSON.stringify(given)],
    );
  }
}

export async function spotBounds(
  db: Db,
  filter: SpotFilter,
  today: IsoDate,
): Promise<[number, number, number, number] | null> {
  const row = await periodsOf(db, filter, today).first<{
    west: number | null;
    south: number;
    east: number;
    north: number;
  }>(db.raw('min(period.lng) as west, min(period.lat) as south, max(period.lng) as east, max(period.lat) as north'));
  return row.west === null ? null : [row.west, row.south, row.east, row.north];
}

/** Planting days within a month of a day, and the tickets valid on it. */
export async function bookedOn(db: Db, on: IsoDate, today: IsoDate): Promise<Booked> {
  const spots = onDay(
    db('planting_day')
      .join('planting_day_spot as member', 'member.day_id', 'planting_day.id')
      .join('spot_period as period', 'period.spot_id', 'member.spot_id'),
    'period',
    on,
    today,
  );
  const [days, tickets, zones] = await Promise.all([
    spots
      .whereBetween('planting_day.on_day', [on, addDaysTo(on, 30)])
      .groupBy('planting_day.id')
      .orderBy('on_day')
      .select<Booked['days']>(
        'planting_day.id',
        'planting_day.title',
        'planting_day.on_day as onDay',
        db.raw('json_agg(json_build_array(period.lng, period.lat)) as spots'),
      ),
    db('locate_ticket')
      .where('state', 'open')
      .where('valid_from', '<=', on)
      // Cleared is what every utility has answered for: no reply is not a yes.
      .whereExists(db('ticket_reply').whereRaw('ticket_id = locate_ticket.id').select(db.raw('1')))
      .whereNotExists(
        db('ticket_reply')
          .whereRaw('ticket_id = locate_ticket.id')
          .whereIn('state', ['waiting', 'conflict'])
          .select(db.raw('1')),
      )
      .where('valid_until', '>=', on)
      .orderBy('number')
      .select<{ id: string; number: string; validFrom: string; validUntil: string; area: string }[]>(
        'id',
        'number',
        'valid_from as validFrom',
        'valid_until as validUntil',
        db.raw('st_asgeojson(area) as area'),
      ),
    handDigZones(db, on),
  ]);
  return {
    days,
    zones,
    tickets: tickets.map(({ area, ...ticket }) => ({
      ...ticket,
      area: (JSON.parse(area) as { coordinates: [number, number][][][] }).coordinates.flatMap((polygon) =>
        polygon.slice(0, 1),
      ),
    })),
  };
}
