import { wayTo } from './way';

describe('the way to a place', () => {
  it.each([
    // A thousandth of a degree north is 111.2 m; east of 60° N half of that.
    [[10, 60], [10, 60.001], 111.2, 0],
    [[10, 60], [10.001, 60], 55.6, 90],
    [[10, -60], [9.999, -60], 55.6, 270],
    [[0, 0], [-0.001, -0.001], 157.3, 225],
  ] as const)('from %j to %j: %d m, %d°', (from, to, distanceM, bearingDeg) => {
    const way = wayTo(from, to);
    expect(way.distanceM).toBeCloseTo(distanceM, 0);
    expect(way.bearingDeg).toBeCloseTo(bearingDeg, 1);
  });
  it('is nothing where one stands', () => {
    expect(wayTo([5, 5], [5, 5]).distanceM).toBe(0);
  });
});
