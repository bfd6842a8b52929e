import { allStreets, besideStreet, crossStreetY, streetLengthM, streetLine } from './street-plan';
import { crossStreets, greens, uphillStreets } from './streets';
import { streetThings } from './street-things';
import { contour, extent, lngLat, shoreY, type Metres } from './terrain';
import { dice, type Dice } from './seed';

export interface DemoFeature {
  readonly type: 'Feature';
  readonly properties: { readonly name?: string; readonly height_m?: number };
  readonly geometry:
    | { readonly type: 'Point'; readonly coordinates: readonly [number, number] }
    | { readonly type: 'LineString'; readonly coordinates: readonly (readonly [number, number])[] }
    | { readonly type: 'Polygon'; readonly coordinates: readonly (readonly (readonly [number, number])[])[] };
}

export type DemoLayer =
  | 'water'
  | 'park'
  | 'contour'
  | 'street'
  | 'kerb'
  | 'driveway'
  | 'building'
  | 'tram'
  | 'wire'
  | 'hydrant'
  | 'lamp'
  | 'sign';

const line = (points: readonly Metres[], properties: DemoFeature['properties']): DemoFeature => ({
  type: 'Feature',
  properties,
  geometry: { type: 'LineString', coordinates: points.map(lngLat) },
});

const point = (at: Metres): DemoFeature => ({
  type: 'Feature',
  properties: {},
  geometry: { type: 'Point', coordinates: lngLat(at) },
});

const area = (points: readonly Metres[], properties: DemoFeature['properties']): DemoFeature => {
  const ring = points.map(lngLat);
  return {
    type: 'Feature',
    properties,
    geometry: { type: 'Polygon', coordinates: [[...ring, ...ring.slice(0, 1)]] },
  };
};

/** The base map of the town, layer by layer. */
export function baseMap(seed: string): Readonly<Record<DemoLayer, DemoFeature[]>> {
  const things = streetThings();
  return {
    water: [sea()],
    park: greens
      .filter(({ kind }) => kind !== 'corner')
      .map(({ name, box: [west, south, east, north] }) =>
        area(
          [
            [west, south],
            [east, south + 3],
            [east - 4, north],
            [west + 3, north - 2],
          ],
          { name },
        ),
      ),
    contour: Array.from({ length: 19 }, (_, i) => 5 * (i + 1)).map((height) =>
      line(contour(height), { height_m: height }),
    ),
    street: allStreets.map((street) => line(streetLine(street), { name: street.name })),
    kerb: things.kerb.map((points) => line(points, {})),
    driveway: things.driveway.map((points) => area(points, {})),
    hydrant: things.hydrant.map(point),
    lamp: things.lamp.map(point),
    sign: things.sign.map(point),
    building: buildings(dice(`${seed}/buildings`)),
    tram: [line(tramLine(), { name: 'Harbour tram' })],
    wire: allStreets
      .filter(({ wireHeightM }) => wireHeightM !== 'none')
      .map((street) => line(wireLine(street), { height_m: Number(street.wireHeightM) })),
  };
}

/** The sea with its shore, and a mole that shelters the basin. */
function sea(): DemoFeature {
  const shore: Metres[] = [];
  for (let x = -extent.halfWidthM - 1500; x <= extent.halfWidthM + 1500; x += 25) {
    shore.push([x, shoreY(x)]);
    if (x === 225) shore.push([232, -130], [120, -215], [112, -203], [219, -121], [240, shoreY(240)]);
  }
  return area([[-2400, -2000], ...shore, [2400, -2000]], { name: 'Talhamar Bay' });
}

function tramLine(): Metres[] {
  const avenue = crossStreets.find(({ name }) => name === 'Tramway Avenue');
  if (!avenue) return [];
  const along = Array.from({ length: 61 }, (_, i) => -extent.halfWidthM + i * 30);
  return along.map((x) => [x, crossStreetY(avenue, x)]);
}

const wireLine = (street: (typeof allStreets)[number]): Metres[] =>
  Array.from({ length: Math.floor(streetLengthM(street) / 40) }, (_, i) => besideStreet(street, i * 40, 7.4));

/** Rows of houses along the streets across the slope, low on the hill and higher by the harbour. */
function buildings(from: Dice): DemoFeature[] {
  return crossStreets.flatMap((street) => [...houseRow(street, 1, from), ...houseRow(street, -1, from)]);
}

function houseRow(street: (typeof crossStreets)[number], side: 1 | -1, from: Dice): DemoFeature[] {
  const houses: DemoFeature[] = [];
  let along = 14;
  while (along < streetLengthM(street) - 30) {
    const width = from.between(9, 19);
    const depth = from.between(11, 17);
    const corners: Metres[] = [
      besideStreet(street, along, side * 11.5),
      besideStreet(street, along + width, side * 11.5),
      besideStreet(street, along + width, side * (11.5 + depth)),
      besideStreet(street, along, side * (11.5 + depth)),
    ];
    const floors = from.whole(1, street.northM < 400 ? 4 : 3);
    if (corners.every((corner) => isBuildable(corner)) && from.chance(0.88)) {
      houses.push(area(corners, { height_m: Math.round((2.4 + 3 * floors) * 10) / 10 }));
    }
    along += width + (from.chance(0.3) ? from.between(4, 14) : 0.5);
  }
  return houses;
}

/** Free of streets that climb, greens and the water. */
function isBuildable([x, y]: Metres): boolean {
  if (y < shoreY(x) + 24) return false;
  const clearOfStreets = uphillStreets.every(
    ({ eastM }) => Math.abs(eastM + 11 * Math.sin(y / 260 + eastM / 300) - x) > 10,
  );
  const clearOfGreens = greens.every(
    ({ kind, box: [west, south, east, north] }) =>
      kind === 'yards' || x < west - 3 || x > east + 3 || y < south - 3 || y > north + 3,
  );
  return clearOfStreets && clearOfGreens;
}
