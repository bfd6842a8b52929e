import fc from 'fast-check';
import { sightTriangleLegM } from './sight-triangle';

describe('the sight triangle at a junction', () => {
  it.each([
    ['on one kerb, 6 m from the corner', { eastM: 6, northM: 0 }, [0, 90], 6],
    // The hypotenuse of a right triangle with legs of 9 m runs through its middle at 4.5, 4.5.
    ['in the middle of the long side', { eastM: 4.5, northM: 4.5 }, [0, 90], 9],
    ['in the quarter across', { eastM: -4.5, northM: 4.5 }, [180, 270], 9],
    // Kerbs at 60°: half way along the side between both legs of 10 m.
    [
      'between kerbs that meet at 60°',
      { eastM: 10 * Math.sin(Math.PI / 6) * Math.cos(Math.PI / 6), northM: 7.5 },
      [0, 60],
      10,
    ],
    ['beside kerbs that hardly turn', { eastM: 3, northM: 4 }, [80, 85], 5],
  ] as const)('%s', (_name, at, kerbs, legM) => {
    expect(sightTriangleLegM(at, [kerbs[0], kerbs[1]])).toBeCloseTo(legM, 6);
  });

  it('is never shorter than the way to the corner over sharp corners, and grows evenly with distance', () => {
    const metres = fc.double({ min: -40, max: 40, noNaN: true });
    fc.assert(
      fc.property(metres, metres, fc.integer({ min: 60, max: 90 }), (eastM, northM, angle) => {
        const leg = sightTriangleLegM({ eastM, northM }, [0, angle]);
        expect(leg).toBeGreaterThanOrEqual(Math.hypot(eastM, northM) - 1e-9);
        expect(sightTriangleLegM({ eastM: 2 * eastM, northM: 2 * northM }, [0, angle])).toBeCloseTo(2 * leg, 6);
      }),
    );
  });
});
