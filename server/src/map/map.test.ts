import { readdirSync } from 'node:fs';
import { VectorTile } from '@mapbox/vector-tile';
import type { Booked, MapInfo } from '@sombra/contract';
import { PbfReader } from 'pbf';
import { v7 as uuidv7 } from 'uuid';
import { loam, openTestTown, sending, Visitor, type TestTown } from '../../testing/test-town';
import { foldCells } from './tiles-repository';

let town: TestTown;
let ada: Visitor;
let cora: Visitor;
beforeAll(async () => {
  town = await openTestTown();
  ada = await Visitor.signedIn(town.url, 'ada');
  cora = await Visitor.signedIn(town.url, 'cora');
  for (const ref of ['T-1', 'T-2', 'T-3']) await town.addSpot(ref);
});
afterAll(() => town.stop());

/** The tile of a zoom that holds a place, by the usual formulas of the web map grid. */
function tileOf(zoom: number, lng: number, lat: number): string {
  const turn = (lat * Math.PI) / 180;
  const x = Math.floor(((lng + 180) / 360) * 2 ** zoom);
  const y = Math.floor(((1 - Math.asinh(Math.tan(turn)) / Math.PI) / 2) * 2 ** zoom);
  return `${zoom}/${x}/${y}`;
}

async function tile(path: string): Promise<VectorTile> {
  const { cookie } = cora.credentials();
  const response = await fetch(`${town.url}/api/map/${path}`, { headers: { cookie } });
  expect(response.status).toBe(200);
  return new VectorTile(new PbfReader(new Uint8Array(await response.arrayBuffer())));
}

const street = {
  type: 'Feature',
  properties: { name: 'Mole Street' },
  geometry: {
    type: 'LineString',
    coordinates: [
      [-25.41, 36.9],
      [-25.39, 36.9],
    ],
  },
};
const collection = (...features: unknown[]) => JSON.stringify({ type: 'FeatureCollection', features });
const upload = (layer: string, text: string, who = ada) =>
  who.send<MapInfo & { title: string }>('PUT', `/api/map/layers/${layer}`, text, {
    'content-type': 'application/geo+json',
  });

/** An archive of 508 bytes: header, a root directory, metadata and tiles. */
function archive(change: (header: Buffer) => void = () => undefined): Buffer {
  const bytes = Buffer.alloc(508, 7);
  bytes.write('PMTiles\x03', 0, 'latin1');
  for (const [at, value] of [
    [8, 127],
    [16, 20],
    [24, 147],
    [32, 30],
    [40, 177],
    [48, 0],
    [56, 177],
    [64, 331],
  ] as const) {
    bytes.writeBigUInt64LE(BigInt(value), at);
  }
  // Clustered, directories and tiles by gzip, vector tiles, zooms 0 to 14.
  for (const [at, value] of [
    [96, 1],
    [97, 2],
    [98, 2],
    [99, 1],
    [100, 0],
    [101, 14],
  ] as const)
    bytes.writeUInt8(value, at);
  change(bytes);
  return bytes;
}

describe('tiles of spots', () => {
  it('count far out and mark each near', async () => {
    const far = (await tile(`spots/${tileOf(12, -25.4, 36.9)}`)).layers['count'];
    expect(far?.length).toBe(1);
    expect(far?.feature(0).properties).toMatchObject({ spots: 3, urgent: 0, preparing: 3 });
    const near = (await tile(`spots/${tileOf(16, -25.4, 36.9)}`)).layers['spot'];
    expect(near?.length).toBe(3);
    expect(near?.feature(0).properties).toMatchObject({ stage: 'ground', level: 'good', probe: 'unknown' });
  });

  it('put each mark where its spot is', async () => {
    const path = tileOf(16, -25.4, 36.9).split('/').map(Number) as [number, number, number];
    const feature = (await tile(`spots/${path.join('/')}`)).layers['spot']?.feature(0);
    const { geometry } = feature?.toGeoJSON(path[1], path[2], path[0]) ?? {};
    const [lng = 0, lat = 0] = (geometry as { coordinates: number[] }).coordinates;
    // A tile of 4096 steps at this zoom is 0.0055° wide: a step is 1.3e-6°.
    expect(Math.abs(lng + 25.4)).toBeLessThan(3e-6);
    expect(Math.abs(lat - 36.9)).toBeLessThan(3e-6);
  });

  it('obey the filter and the day', async () => {
    const at = tileOf(16, -25.4, 36.9);
    expect((await tile(`spots/${at}?ref=T-1`)).layers['spot']?.length).toBe(1);
    expect((await tile(`spots/${at}?on=2022-01-01`)).layers['spot']).toBeUndefined();
  });

  it.each(['spots/3/9/1', 'spots/30/0/0', 'spots/a/0/0', 'base/2/4/0'])('refuses %s', async (path) => {
    expect((await cora.send('GET', `/api/map/${path}`)).status).toBe(400);
  });
});

describe('the base map', () => {
  it('takes a layer, shows it, and replaces it by the next', async () => {
    const before = (await cora.send<MapInfo>('GET', '/api/map')).body;
    const { body } = await upload('street', collection(street, street));
    expect(body.layers).toMatchObject([{ layer: 'street', features: 2 }]);
    expect(body.stamp).not.toBe(before.stamp);
    const shown = (await tile(`base/${tileOf(15, -25.4, 36.9)}`)).layers['street'];
    expect(shown?.feature(0).properties).toEqual({ name: 'Mole Street' });
    expect((await upload('street', collection(street))).body.layers[0]?.features).toBe(1);
    expect((await upload('street', collection())).body.layers).toEqual([]);
  });

  it.each([
    ['no JSON', 'The file is not JSON in UTF-8'],
    ['{"type":"Feature"}', 'The file is not a GeoJSON FeatureCollection'],
    [
      collection({ ...street, geometry: { type: 'Point', coordinates: [1, 2] } }),
      'Feature 1: its geometry must be LineString or MultiLineString in the layer street',
    ],
    [
      collection(street, {
        ...street,
        geometry: {
          type: 'LineString',
          coordinates: [
            [4_000_000, 5],
            [1, 2],
          ],
        },
      }),
      'Feature 2: its coordinates must lie within ±180, ±85 degrees, got 4000000, 5',
    ],
    [
      collection({ ...street, properties: { name: 7 } }),
      'Feature 1: properties.name Invalid input: expected string, received number',
    ],
  ])('refuses %s and keeps what was there', async (text, title) => {
    await upload('street', collection(street));
    const { status, body } = await upload('street', text);
    expect([status, body.title]).toEqual([400, title]);
    expect((await cora.send<MapInfo>('GET', '/api/map')).body.layers[0]?.features).toBe(1);
  });

  it('reads lines that carry heights, and leaves the heights out', async () => {
    const heights = street.geometry.coordinates.map(([lng, lat], i) => [lng, lat, 12.5 + i]);
    const { status } = await upload(
      'street',
      collection({ ...street, geometry: { type: 'LineString', coordinates: heights } }),
    );
    expect(status).toBe(200);
    expect((await tile(`base/${tileOf(14, -25.4, 36.9)}`)).layers['street']?.length).toBe(1);
  });

  it('is the administrator’s to change', async () => {
    expect((await upload('street', collection(street), cora)).status).toBe(403);
  });

  it('takes a PMTiles file and serves parts of it, and nothing else under that name', async () => {
    const header = archive();
    const put = (bytes: Uint8Array) =>
      ada.send<MapInfo & { title: string }>('PUT', '/api/map/base.pmtiles?fileName=town.pmtiles', bytes);
    expect((await put(header)).body.pmtiles).toEqual({ fileName: 'town.pmtiles', bytes: 508 });
    const { cookie } = ada.credentials();
    const part = await fetch(`${town.url}/api/map/base.pmtiles`, { headers: { cookie, range: 'bytes=0-6' } });
    expect([part.status, await part.text()]).toEqual([206, 'PMTiles']);
    const bad: readonly [Buffer, string][] = [
      [Buffer.from('GIF89a and more'), 'is not a PMTiles file of version 3'],
      [archive().subarray(0, 100), 'ends within its header'],
      [archive().subarray(0, 400), 'is cut off, or says it is longer than it is'],
      [archive((h) => h.writeBigUInt64LE(2n ** 63n, 64)), 'is cut off, or says it is longer than it is'],
      [archive((h) => h.writeBigUInt64LE(0n, 16)), 'has no root directory'],
      [archive((h) => h.writeUInt8(4, 98)), 'is compressed in a way that browsers do not read'],
      [archive((h) => h.writeUInt8(2, 99)), 'holds no vector tiles'],
      [archive((h) => h.writeUInt8(30, 101)), 'names zooms that are none'],
    ];
    for (const [bytes, why] of bad) {
      const { status, body } = await put(bytes);
      expect([status, body.title]).toEqual([400, `The file ${why}`]);
    }
    expect((await ada.send<MapInfo>('GET', '/api/map')).body.pmtiles).toEqual({ fileName: 'town.pmtiles', bytes: 508 });
    expect(readdirSync(town.storageFolder).filter((name) => name.endsWith('.part'))).toEqual([]);
    expect((await ada.send<MapInfo>('DELETE', '/api/map/base.pmtiles')).body.pmtiles).toBeNull();
    expect((await ada.send('GET', '/api/map/base.pmtiles')).status).toBe(404);
  });
});

describe('what is booked', () => {
  it('shows days ahead and tickets valid on the day', async () => {
    const { spotId } = await town.addSpot('T-9');
    const dayId = uuidv7();
    await town.db('planting_day').insert({ id: dayId, on_day: '2031-11-08', title: 'Mole Street' });
    await town.db('planting_day_spot').insert({ day_id: dayId, spot_id: spotId });
    const ring = 'MULTIPOLYGON(((-25.41 36.89,-25.39 36.89,-25.39 36.91,-25.41 36.89)))';
    const area = town.db.raw('st_geomfromtext(?, 4326)', [ring]);
    const ticketId = uuidv7();
    await town
      .db('locate_ticket')
      .insert({ id: ticketId, number: 'LC-1', area, valid_from: '2031-11-01', valid_until: '2031-11-20' });
    const reply = { ticket_id: ticketId, utility: 'Gas', state: 'clear', replied_on: '2031-10-30' };
    await town.db('ticket_reply').insert(reply);
    const on = async (day: string) => (await cora.send<Booked>('GET', `/api/map/booked?on=${day}`)).body;
    expect(await on('2031-11-05')).toMatchObject({
      days: [{ id: dayId, spots: [[-25.4, 36.9]] }],
      tickets: [{ number: 'LC-1' }],
    });
    expect(await on('2031-11-25')).toEqual({ days: [], tickets: [], zones: [] });
    // A reply that is missing clears nothing, whatever the dates say.
    await town.db('ticket_reply').update({ state: 'waiting', replied_on: null });
    expect((await on('2031-11-05')).tickets).toEqual([]);
  });
});

describe('counts kept beforehand', () => {
  const far = async () => (await tile(`spots/${tileOf(12, -25.4, 36.9)}`)).layers['count'];
  const sum = async (key: string) => {
    const layer = await far();
    return Array.from({ length: layer?.length ?? 0 }, (_, i) => Number(layer?.feature(i).properties[key])).reduce(
      (total, one) => total + one,
      0,
    );
  };
  const counted = async () => (await cora.send<{ total: number }>('GET', '/api/spots?limit=1')).body.total;

  it('agree with the list after adding, changing, withdrawing and folding', async () => {
    const { spotId } = await town.addSpot('T-77');
    expect(await sum('spots')).toBe(await counted());
    await cora.record(sending(spotId, { kind: 'ground', facts: loam }, 1));
    expect(await sum('spots')).toBe(await counted());
    expect(await sum('preparing')).toBe(await counted());
    await foldCells(town.db);
    expect(await sum('spots')).toBe(await counted());
    await cora.send('POST', '/api/spots/withdraw', { spotIds: [spotId], withdrawn: true });
    expect(await sum('spots')).toBe(await counted());
    // The same by counting when asked for.
    const direct = (await tile(`spots/${tileOf(12, -25.4, 36.9)}?planted=no`)).layers['count'];
    expect(direct?.feature(0).properties['spots']).toBe(await sum('spots'));
  });
});
