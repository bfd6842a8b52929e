import fc from 'fast-check';
import {
  bermStoreL,
  collarBowlL,
  mulchVolumeL,
  pitShape,
  pitVolumeL,
  ringOutsidePitArea,
  ringWithinStripArea,
} from './pit-geometry';

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

  // By hand: 2·(600²·asin 0.75 + 450·√(600² − 450²)) = 967,781 mm² of the ring lie in the strip.
  it('cuts a ring of 1,200 to a strip of 900', () => {
    expect(ringWithinStripArea(1200, 900)).toBeCloseTo(967_781.12, 1);
  });

  describe('beside the stretched pit of a ball of 700 in a strip of 900', () => {
    const pit = pitShape({ ballMm: 700, fullWidthMm: 1750, baseMarginMm: 300, stripMm: 900 });
    const ring = { ringDiameterMm: 1200, trunkMm: 50, gapMm: 75, thicknessMm: 75, stripMm: 900 };

    it('mulches the pit to both its ends', () => {
      // The pit keeps the area of the round one, π/4·1.75² m²; of that the gap of 200 mm is bare: 178.04 L.
      expect(mulchVolumeL({ ...ring, pit })).toBeCloseTo((Math.PI / 4) * (1750 ** 2 - 200 ** 2) * 75e-6, 2);
    });
    it('leaves no ring outside the pit', () => {
      expect(ringOutsidePitArea(1200, 900, pit)).toBeCloseTo(0, 6);
    });
  });

  it('adds ring and pit where neither covers the other', () => {
    // Ring 2,000 in a strip of 900 beside a round pit of 900: the whole ring in the strip, less the pit.
    const pit = pitShape({ ballMm: 400, fullWidthMm: 900, baseMarginMm: 300, stripMm: 900 });
    const within = ringWithinStripArea(2000, 900);
    expect(ringOutsidePitArea(2000, 900, pit) / (within - (Math.PI / 4) * 900 ** 2)).toBeCloseTo(1, 4);
    expect(ringOutsidePitArea(2000, 'open', pit)).toBeCloseTo((Math.PI / 4) * (2000 ** 2 - 900 ** 2), 6);
  });

  it('is no mulch, and never less than none, where the gap takes the whole ring', () => {
    const ring = { ringDiameterMm: 600, trunkMm: 60, gapMm: 300, thicknessMm: 75, stripMm: 'open' as const };
    expect(mulchVolumeL(ring)).toBe(0);
  });

  it('computes berm store and collar bowl', () => {
    expect(bermStoreL(700, 90)).toBeCloseTo(34.6, 1);
    expect(collarBowlL({ depthMm: 100, innerRadiusMm: 130, outerRadiusMm: 430, trunkMm: 60 })).toBeCloseTo(26.7, 1);
  });
});
