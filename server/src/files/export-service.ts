import { spotColumns } from '@sombra/contract';
import { spotsAfter } from '../spots/repository';
import { csvRow } from '../platform/csv';
import type { Db } from '../platform/db';
import { recordsOfSpots } from '../record/repository';
import { spotCells, type Cells } from './spot-cells';

const pageSpots = 500;

/** All spots in ref order, page by page, so that memory stays level however many there are. */
async function* allCells(db: Db): AsyncGenerator<Cells> {
  let last = '';
  for (;;) {
    const spots = await spotsAfter(db, last, pageSpots);
    if (spots.length === 0) return;
    const records = await recordsOfSpots(
      db,
      spots.map(({ id }) => id),
    );
    for (const spot of spots) yield spotCells(spot, records.get(spot.id) ?? []);
    last = spots.at(-1)?.ref ?? last;
  }
}

/** Trees and spots as CSV, one row each, UTF-8, RFC 4180. */
export async function* exportCsv(db: Db): AsyncGenerator<string> {
  yield `${spotColumns.join(',')}\r\n`;
  for await (const cells of allCells(db)) {
    yield csvRow(spotColumns.map((column) => csvCell(cells[column])));
  }
}

function csvCell(value: Cells[keyof Cells]): string {
  if (value === null) return '';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return Array.isArray(value) ? JSON.stringify(value) : String(value);
}

/** Trees and spots as a GeoJSON FeatureCollection, RFC 7946. */
export async function* exportGeoJson(db: Db): AsyncGenerator<string> {
  yield '{"type":"FeatureCollection","features":[';
  let first = true;
  for await (const { lng, lat, ...properties } of allCells(db)) {
    const geometry = { type: 'Point', coordinates: [lng, lat] };
    yield (first ? '\n' : ',\n') + JSON.stringify({ type: 'Feature', id: properties.spot_id, geometry, properties });
    first = false;
  }
  yield '\n]}\n';
}
