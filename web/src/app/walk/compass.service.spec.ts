import { declinationDeg, magneticHeading } from './compass.service';

describe('the heading of a device', () => {
  it.each([
    [{ alpha: 90, absolute: true }, 270],
    [{ alpha: 0, absolute: true }, 0],
    [{ alpha: 90, absolute: false }, null],
    [{ alpha: null, absolute: true }, null],
    [{ alpha: null, webkitCompassHeading: 12 }, 12],
  ] as const)('%j is %j', (event, heading) => {
    expect(magneticHeading(event)).toBe(heading);
  });
});

describe('the declination', () => {
  // Test values published with the World Magnetic Model 2025 (NOAA and BGS), 3 km up at 50° S; the others at 39 and 51 km,
  // where it differs from that of the ground by some hundredths of a degree.
  it.each([
    [-103, -50, 27.96],
    [-8, -59, -15.75],
    [109, -33, -5.49],
  ])('at %d° E, %d° N is %d°', async (lng, lat, deg) => {
    expect(await declinationDeg([lng, lat], new Date('2025-01-01T00:00:00Z'))).toBeCloseTo(deg, 0);
  });
});
