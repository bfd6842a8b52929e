import { fieldDefault } from '../practice';
import { firstSoakL } from './soak';

const container = {
  kind: 'container',
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  topRootsDepthMm: 60,
} as const;
const bare = { kind: 'bare_root', caliperMm: 25, heightM: 2, rootSpreadMm: 500, rootDepthMm: 300 } as const;

describe('first soak', () => {
  it('gives two doses, each from wilting to saturation of the ball', () => {
    // π/4 · 0.45² · 0.34 m · 0.85 = 45.96 L of container mix, of which 0.70 − 0.15 takes water.
    const soak = firstSoakL({
      stock: container,
      soil: 'clay',
      percolation: 'good',
      pitVolumeL: 200,
      bermStoreL: 14,
      practice: fieldDefault,
    });
    expect(soak.value).toBeCloseTo(2 * 45.96 * 0.55, 1);
  });

  it('gives dormant bare roots none in slow soil, and fills the air of the pit elsewhere', () => {
    const soak = (percolation: 'slow' | 'good') =>
      firstSoakL({ stock: bare, soil: 'loam', percolation, pitVolumeL: 150.8, bermStoreL: 0, practice: fieldDefault })
        .value;
    expect(soak('slow')).toBe(0);
    expect(soak('good')).toBeCloseTo(150.8 * (0.45 - 0.28), 6);
  });
});
