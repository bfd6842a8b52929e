import { InvalidInputError } from '../errors';
import { limits } from '../limits';
import { ballVolumeL, effectiveBallHeightMm, requireStock, type BallStock } from './stock';

const ball: BallStock = {
  kind: 'container',
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  topRootsDepthMm: 60,
};
const bare = { kind: 'bare_root', caliperMm: 25, heightM: 2, rootSpreadMm: 500, rootDepthMm: 300 } as const;

describe('stock', () => {
  it('loses the surplus over the topmost roots', () => {
    expect(effectiveBallHeightMm(ball)).toBe(340);
  });

  // π/4 · 450² · 340 · 0.85 and π/4 · 700² · 410 · 0.70, from an independent calculation.
  it('has the volume of its kind', () => {
    expect(ballVolumeL('container', 450, 340)).toBeCloseTo(45.96, 2);
    expect(ballVolumeL('balled', 700, 410)).toBeCloseTo(110.45, 2);
  });

  it.each(['ballDiameterMm', 'ballHeightMm', 'topRootsDepthMm', 'caliperMm'] as const)(
    'is refused with %s just past its limits',
    (measure) => {
      const { min, max } = limits[measure];
      for (const value of [min - 1, max + 1, Number.NaN, Number.POSITIVE_INFINITY]) {
        expect(() => requireStock({ ...ball, [measure]: value })).toThrow(InvalidInputError);
      }
    },
  );

  it('is taken at its limits', () => {
    expect(() =>
      requireStock({ ...ball, ballDiameterMm: limits.ballDiameterMm.max, caliperMm: limits.caliperMm.min }),
    ).not.toThrow();
    expect(() => requireStock({ ...bare, rootSpreadMm: limits.rootSpreadMm.min })).not.toThrow();
  });

  it('says which measure of bare roots is wrong', () => {
    expect(() => requireStock({ ...bare, rootDepthMm: 20 })).toThrow('rootDepthMm must be within 80–1000 mm, got 20');
  });

  it('tells a machine the same', () => {
    try {
      requireStock({ ...ball, caliperMm: 900 });
      throw new Error('taken');
    } catch (error) {
      expect(error).toMatchObject({
        code: 'invalid_input',
        path: 'caliperMm',
        details: { received: 900, min: 8, max: 400, unit: 'mm' },
      });
    }
  });
});
