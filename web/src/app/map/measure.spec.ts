import { geodesicAreaM2, geodesicLengthM, isInside, thinned, type LngLat } from './measure';

describe('distances on the map', () => {
  it('is the published geodesic from Wellington to Salamanca: 19 959 679.267 m', () => {
    // GeographicLib documentation: −41.32, 174.81 to 40.96, −5.50.
    const metres = geodesicLengthM([
      [174.81, -41.32],
      [-5.5, 40.96],
    ]);
    expect(metres).toBeCloseTo(19959679.26735382, 3);
  });

  it('adds up its legs, and is nothing for one point', () => {
    const legs: LngLat[] = [
      [-25.4, 36.9],
      [-25.401, 36.9],
      [-25.401, 36.901],
    ];
    expect(geodesicLengthM(legs)).toBeCloseTo(geodesicLengthM(legs.slice(0, 2)) + geodesicLengthM(legs.slice(1)), 9);
    expect(geodesicLengthM(legs.slice(0, 1))).toBe(0);
  });
});

describe('areas on the map', () => {
  it('are the geodesic ones: a hundredth of a degree square at the equator', () => {
    // WGS 84: 1105.743 m of meridian and 1113.195 m of equator; the square is their product to a few parts in a million.
    const square: LngLat[] = [
      [0, 0],
      [0.01, 0],
      [0.01, 0.01],
      [0, 0.01],
    ];
    expect(geodesicAreaM2(square) / (1105.743 * 1113.195)).toBeCloseTo(1, 5);
    expect(geodesicAreaM2([...square].reverse())).toBeCloseTo(geodesicAreaM2(square), 6);
    expect(geodesicAreaM2(square.slice(0, 2))).toBe(0);
  });
});

describe('drawn areas', () => {
  it('keep their shape with fewer corners', () => {
    const ring = Array.from({ length: 1000 }, (_, i): LngLat => [Math.cos(i / 159.15), Math.sin(i / 159.15)]);
    expect(thinned(ring).length).toBeLessThanOrEqual(200);
    expect(isInside([0.9, 0], thinned(ring))).toBe(true);
  });

  it('know inside from outside, in a bay of the ring too', () => {
    const bay: LngLat[] = [
      [0, 0],
      [4, 0],
      [4, 4],
      [2, 1],
      [0, 4],
    ];
    expect(isInside([1, 1], bay)).toBe(true);
    expect(isInside([2, 2], bay)).toBe(false);
    expect(isInside([5, 1], bay)).toBe(false);
  });
});
