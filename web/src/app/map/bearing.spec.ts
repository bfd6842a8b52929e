import { geodesicBearingDeg } from './measure';

describe('the direction of a place', () => {
  it.each([
    [[10, 60], [10, 60.001], 0],
    [[10, 60], [10.001, 60], 90],
    [[10, -60], [9.999, -60], 270],
    // On the equator a degree of longitude is 111,319.5 m, one of latitude 110,574.3 m: 180° + atan(111,319.5 / 110,574.3).
    [[0, 0], [-0.001, -0.001], 225.19],
    // From Greenwich 51.4779° N to 0° N 90° E: sin and cos of the great circle give 90° + 0 at a quarter away.
    [[0, 0], [90, 0], 90],
  ] as const)('from %j to %j is %d°', (from, to, deg) => {
    expect(geodesicBearingDeg(from, to)).toBeCloseTo(deg, 1);
  });
  it('is north where one stands', () => {
    expect(geodesicBearingDeg([5, 5], [5, 5])).toBe(0);
  });
});
