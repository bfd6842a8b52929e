import { contour, extent, fall, heightM, lngLat, shoreY } from './terrain';
import { allStreets, besideStreet, greenPlaces, onStreet, streetLengthM, stripPlaces } from './street-plan';
import { greens } from './streets';
import { dice } from './seed';

const apart = ([x1, y1]: readonly [number, number], [x2, y2]: readonly [number, number]) =>
  Math.hypot(x2 - x1, y2 - y1);

describe('terrain', () => {
  it('rises from the harbour to the hill, everywhere', () => {
    for (let x = -extent.halfWidthM; x <= extent.halfWidthM; x += 90) {
      for (let y = 20; y < extent.depthM; y += 40) expect(heightM([x, y + 40])).toBeGreaterThan(heightM([x, y]));
    }
  });

  it('falls towards the sea, more on the hill than by the quay', () => {
    expect(fall([0, 60]).slopePct).toBeLessThan(fall([0, 1300]).slopePct);
    for (const y of [100, 700, 1250]) expect(Math.abs(fall([0, y]).towardsDeg - 180)).toBeLessThan(45);
  });

  it.each([10, 40, 75])('has the contour of %d m at that height', (height) => {
    const line = contour(height);
    expect(line.length).toBeGreaterThan(20);
    for (const point of line) expect(heightM(point)).toBeCloseTo(height, 6);
  });

  it('keeps a metre a metre in degrees', () => {
    const [lng, lat] = lngLat([0, 0]);
    const [east, north] = lngLat([1000, 1000]);
    // A sphere of 6 371 km: 111 195 m a degree north, times cos 36.9° east; the ellipsoid differs by 0.3 %.
    expect(Math.abs((north - lat) * 111_195 - 1000)).toBeLessThan(5);
    expect(Math.abs((east - lng) * 111_195 * Math.cos((36.9 * Math.PI) / 180) - 1000)).toBeLessThan(5);
  });
});

describe('street plan', () => {
  it('puts trees in the strips beside a street, never two in one place, none at a crossing', () => {
    for (const street of allStreets) {
      const places = stripPlaces(street, 60, dice(street.name));
      expect(places.length).toBe(60);
      places.forEach((a, i) => places.slice(i + 1).forEach((b) => expect(apart(a, b)).toBeGreaterThan(5)));
      for (const [x, y] of places) expect(y).toBeGreaterThan(shoreY(x));
    }
  });

  it('keeps beside what it says is beside', () => {
    for (const street of allStreets) {
      const along = streetLengthM(street) / 3;
      expect(apart(onStreet(street, along), besideStreet(street, along, 7))).toBeCloseTo(7, 9);
    }
  });

  it.each(greens.map((green) => [green.name, green] as const))('keeps the trees of %s inside it', (name, green) => {
    const [west, south, east, north] = green.box;
    for (const [x, y] of greenPlaces(green, green.trees, dice(name))) {
      expect(x >= west && x <= east && y >= south && y <= north).toBe(true);
    }
  });
});
