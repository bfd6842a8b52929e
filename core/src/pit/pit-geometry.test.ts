import fc from 'fast-check';
import { bermStoreL, collarBowlL, mulchVolumeL, pitShape, pitVolumeL } from './pit-geometry';

describe('pit geometry', () => {
  it('keeps the area at grade when a narrow strip stretches the pit', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 300, max: 1500, noNaN: true }),
        fc.double({ min: 1.2, max: 3.5, noNaN: true }),
        fc.double({ min: 0.4, max: 1, noNaN: true }),
        (ballMm, factor, share) => {
          const full = ballMm * factor;
          const strip = full * share;
          const shape = pitShape({ ballMm, fullWidthMm: full, baseMarginMm: 300, stripMm: strip });
          const area = shape.widthMm * (shape.lengthMm - shape.widthMm) + (Math.PI / 4) * shape.widthMm ** 2;
          expect(area / ((Math.PI / 4) * full ** 2)).toBeCloseTo(1, 9);
        },
      ),
    );
  });

  it('is exact for a cylinder and a cone frustum', () => {
    const cylinder = { widthMm: 800, lengthMm: 800, bottomWidthMm: 800, bottomLengthMm: 800, insetMm: 0 };
    expect(pitVolumeL(cylinder, 300)).toBeCloseTo((Math.PI / 4) * 0.8 ** 2 * 300, 9);
    const frustum = { widthMm: 1200, lengthMm: 1200, bottomWidthMm: 600, bottomLengthMm: 600, insetMm: 300 };
    expect(pitVolumeL(frustum, 500)).toBeCloseTo(((Math.PI * 500) / 3) * (0.6 ** 2 + 0.6 * 0.3 + 0.3 ** 2), 9);
  });

  // Independently computed: ring 1,500, trunk 50, gap 75, 75 thick.
  it('computes mulch in an open ring', () => {
    expect(
      mulchVolumeL({ ringDiameterMm: 1500, trunkMm: 50, gapMm: 75, thicknessMm: 75, stripMm: 'open' }),
    ).toBeCloseTo(130.18, 2);
  });

  it('needs less mulch where a strip cuts the ring, and all of it where the strip is as wide', () => {
    const ring = { ringDiameterMm: 1500, trunkMm: 50, gapMm: 75, thicknessMm: 75 };
    const open = mulchVolumeL({ ...ring, stripMm: 'open' });
    expect(mulchVolumeL({ ...ring, stripMm: 900 })).toBeLessThan(open);
    expect(mulchVolumeL({ ...ring, stripMm: 1500 })).toBeCloseTo(open, 9);
  });

  it('computes berm store and collar bowl', () => {
    expect(bermStoreL(700, 90)).toBeCloseTo(34.6, 1);
    expect(collarBowlL({ depthMm: 100, innerRadiusMm: 130, outerRadiusMm: 430, trunkMm: 60 })).toBeCloseTo(26.7, 1);
  });
});
