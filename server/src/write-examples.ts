import { demoNurseries, preparedSpots } from '@sombra/demo';
import { offerColumns, spotColumns } from '@sombra/contract';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import Papa from 'papaparse';
import { spotCells, type Cell } from './files/spot-cells';

/** Writes the example files: what a crew measured on two streets, without ids or history; what nurseries have to sell. */
const folder = process.argv[2];
if (!folder) throw new Error('name the folder to write to');

const left = new Set([
  'added_on',
  'withdrawn_on',
  'spot_id',
  'tree_id',
  'records',
  'planted_on',
  'flare_above_grade_mm',
  'hole_width_mm',
  'first_water_l',
  'stakes_set',
  'put_back_mm',
  'taken_over_on',
  'taken_over_from',
  'surplus_left_mm',
  'first_branch_m',
  'graft_height_mm',
  'inspected_on',
  'flare_depth_mm',
  'mulch_depth_mm',
  'mulch_contact',
  'stake',
  'probe',
  'circling_roots',
]);
const columns = spotColumns.filter((column) => !left.has(column));
const yesNo = (value: Cell): Cell => (typeof value === 'boolean' ? (value ? 'yes' : 'no') : value);

const rows = preparedSpots({ seed: 'talhamar', today: '2026-11-01' }).map((spot) => {
  const records = spot.records.map(({ by, ...record }) => ({
    ...record,
    recordedBy: by,
    recordedById: null,
    receivedAt: record.recordedAt,
    deviceSaid: record.recordedAt,
    clock: 'kept' as const,
  }));
  return spotCells({ ...spot, version: 1, withdrawnOn: null }, records);
});

const csv = Papa.unparse(
  { fields: columns, data: rows.map((cells) => columns.map((column) => yesNo(cells[column]))) },
  { newline: '\r\n' },
);
writeFileSync(path.join(folder, 'spots.csv'), `${csv}\r\n`);

const features = rows.map((cells) => {
  const properties = Object.fromEntries(
    columns
      .filter((column) => column !== 'lng' && column !== 'lat' && cells[column] !== null)
      .map((column) => [column, cells[column]]),
  );
  return { type: 'Feature', geometry: { type: 'Point', coordinates: [cells.lng, cells.lat] }, properties };
});
const lines = features.map((feature) => JSON.stringify(feature)).join(',\n');
writeFileSync(path.join(folder, 'spots.geojson'), `{"type":"FeatureCollection","features":[\n${lines}\n]}\n`);

for (const { file, offers } of demoNurseries('talhamar')) {
  const data = offers.map(({ species, stockKind, caliperMm, heightM, price, available }) => [
    species,
    stockKind,
    caliperMm,
    heightM,
    price.toFixed(2),
    available,
  ]);
  const list = Papa.unparse({ fields: [...offerColumns], data }, { newline: '\r\n' });
  writeFileSync(path.join(folder, file), `${list}\r\n`);
}
