import { bearingDeg } from './where.service';

describe('the direction of a place', () => {
  it.each([
    [[10, 60], [10, 60.001], 0],
    [[10, 60], [10.001, 60], 90],
    [[10, -60], [9.999, -60], 270],
    [[0, 0], [-0.001, -0.001], 225],
    // From Greenwich 51.4779° N to 0° N 90° E: sin and cos of the great circle give 90° + 0 at a quarter away.
    [[0, 0], [90, 0], 90],
  ] as const)('from %j to %j is %d°', (from, to, deg) => {
    expect(bearingDeg(from, to)).toBeCloseTo(deg, 1);
  });
  it('is north where one stands', () => {
    expect(bearingDeg([5, 5], [5, 5])).toBe(0);
  });
});
