import fc from 'fast-check';
import { shadedPavementM2, sunAt } from './shade';

describe('the sun', () => {
  // Reda and Andreas 2004, Solar position algorithm for solar radiation applications, worked example, no refraction.
  it('stands at zenith 50.1° and azimuth 194.3° over Golden on 17 October 2003, 19:30:30 UT', () => {
    const { altitudeDeg, azimuthDeg } = sunAt('2003-10-17T19:30:30Z', [-105.1786, 39.742476]);
    expect(90 - altitudeDeg).toBeCloseTo(50.1, 1);
    expect(azimuthDeg).toBeCloseTo(194.3, 1);
  });

  it('refuses an instant that is none', () => {
    expect(() => sunAt('noon', [0, 0])).toThrow('instant must be an ISO 8601 instant');
    expect(() => sunAt('2026-06-21T12:00:00Z', [0, 95])).toThrow('lat must be within');
  });
});

describe('shade on a pavement', () => {
  const tree = { heightM: 10, crownM: 8, clearM: 2.5 };
  const overhead = { altitudeDeg: 90, azimuthDeg: 180 };

  it('is the crown itself under a sun overhead', () => {
    const wide = { towardsDeg: 0, distanceM: -50, widthM: 100 };
    expect(shadedPavementM2(tree, overhead, wide)).toBeCloseTo(Math.PI * 16, 6);
    // A strip from the stem outwards takes half of it.
    expect(shadedPavementM2(tree, overhead, { ...wide, distanceM: 0 })).toBeCloseTo(Math.PI * 8, 6);
  });

  it('falls away from the sun', () => {
    const south = { altitudeDeg: 45, azimuthDeg: 180 };
    const pavement = { distanceM: 2, widthM: 3 };
    const north = shadedPavementM2(tree, south, { ...pavement, towardsDeg: 0 });
    expect(north).toBeGreaterThan(shadedPavementM2(tree, south, { ...pavement, towardsDeg: 180 }));
  });

  it('is none at night, and never more than the whole shadow', () => {
    expect(shadedPavementM2(tree, { altitudeDeg: -5, azimuthDeg: 0 }, { towardsDeg: 0, distanceM: 0, widthM: 9 })).toBe(
      0,
    );
    const num = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        num(3, 90),
        num(0, 360),
        num(0, 360),
        num(0, 30),
        num(0.5, 12),
        (altitudeDeg, azimuthDeg, towardsDeg, distanceM, widthM) => {
          const whole = Math.PI * 4 * Math.hypot(4, 3.75 / Math.tan((altitudeDeg * Math.PI) / 180));
          const shaded = shadedPavementM2(tree, { altitudeDeg, azimuthDeg }, { towardsDeg, distanceM, widthM });
          const wider = shadedPavementM2(
            tree,
            { altitudeDeg, azimuthDeg },
            { towardsDeg, distanceM, widthM: widthM + 1 },
          );
          return shaded >= -1e-9 && shaded <= whole + 1e-6 && wider >= shaded - 1e-9;
        },
      ),
    );
  });
});
