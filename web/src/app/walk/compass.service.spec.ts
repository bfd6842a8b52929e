import { TestBed } from '@angular/core/testing';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { CompassService, declinationDeg, magneticHeading } from './compass.service';

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

describe('a compass that is followed', () => {
  const turnTo = (alpha: number) => {
    const event = Object.assign(new Event('deviceorientationabsolute'), { alpha, absolute: true });
    window.dispatchEvent(event);
  };
  const made = () => {
    TestBed.configureTestingModule({ providers: [CompassService, provideFakeSession(new FakeSession())] });
    return TestBed.inject(CompassService);
  };
  const listeners = () => {
    const [add, remove] = [jest.spyOn(window, 'addEventListener'), jest.spyOn(window, 'removeEventListener')];
    const of = (calls: readonly (readonly unknown[])[]) =>
      calls.filter(([name]) => name === 'deviceorientationabsolute').length;
    return () => of(add.mock.calls) - of(remove.mock.calls);
  };
  afterEach(() => jest.restoreAllMocks());

  it('is listened to once, however often another tree is gone to, and by nobody once the page is left', async () => {
    const compass = made();
    const open = listeners();
    await Promise.all([compass.follow([-25, 36]), compass.follow([-25, 37]), compass.follow([-25, 38])]);
    expect(open()).toBe(1);
    turnTo(0);
    const north = compass.headingDeg() ?? 0;
    turnTo(90);
    // Turned by 90° to the left.
    expect((north - (compass.headingDeg() ?? 0) + 360) % 360).toBeCloseTo(90, 6);
    const late = compass.follow([-25, 39]);
    compass.ngOnDestroy();
    await late;
    expect(open()).toBe(0);
  });
  it('is asked for by a press where the browser wants that, and again where it was refused', async () => {
    let answer = 'denied';
    const before = (globalThis as { DeviceOrientationEvent?: unknown }).DeviceOrientationEvent;
    Object.assign(globalThis, { DeviceOrientationEvent: { requestPermission: () => Promise.resolve(answer) } });
    try {
      const compass = made();
      await compass.follow([-25, 36]);
      expect(compass.needsAsking()).toBe(true);
      await compass.ask();
      expect(compass.needsAsking()).toBe(true);
      answer = 'granted';
      await compass.ask();
      expect(compass.needsAsking()).toBe(false);
    } finally {
      Object.assign(globalThis, { DeviceOrientationEvent: before });
    }
    TestBed.resetTestingModule();
    const other = made();
    await other.follow([-25, 36]);
    expect(other.needsAsking()).toBe(false);
  });
});
