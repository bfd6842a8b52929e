import fc from 'fast-check';
import { soilClasses } from '../ground';
import { fieldDefault, presets, withChoice, type Practice } from '../practice';
import { bareRoot as bare, container } from '../../testing/checked-case';
import { ballStoreL, firstSoakL, leachingShare, type SoakInput } from './soak';

const balled = { ...container, kind: 'balled', ballDiameterMm: 700, ballHeightMm: 500, topRootsDepthMm: 50 } as const;
const soak = (change: Partial<SoakInput> = {}): number => soaked(change).value;
const soaked = (change: Partial<SoakInput> = {}) =>
  firstSoakL({
    stock: container,
    soil: 'clay',
    percolation: 'good',
    pitVolumeL: 150.8,
    pitM2: 0.8,
    bermStoreL: 14,
    dormant: true,
    practice: fieldDefault,
    ...change,
  });
const preset = (id: string): Practice => presets.find((one) => one.id === id) ?? fieldDefault;

describe('first soak', () => {
  it('gives two doses, each from wilting to saturation of the ball', () => {
    // π/4 · 0.45² · 0.34 m · 0.85 = 45.96 L of container mix, of which 0.70 − 0.15 takes water.
    expect(soak()).toBeCloseTo(2 * 45.96 * 0.55, 1);
  });

  it('takes balled stock as the nursery soil it was dug from, in any ground', () => {
    // π/4 · 0.7² · 0.45 m · 0.70 = 121.23 L of loam, of which 0.45 − 0.13 takes water.
    expect(ballStoreL(balled)).toBeCloseTo(121.23 * 0.32, 1);
    for (const soil of soilClasses) expect(soak({ stock: balled, soil })).toBeCloseTo(2 * 121.23 * 0.32, 0);
  });

  it('fills the air of the pit around bare roots, as often as the practice says', () => {
    const once = 150.8 * (0.45 - 0.28);
    expect(soak({ stock: bare, soil: 'loam' })).toBeCloseTo(2 * once, 6);
    const practice = withChoice(fieldDefault, 'firstSoak.doses', 3);
    expect(soak({ stock: bare, soil: 'loam', practice })).toBeCloseTo(3 * once, 6);
  });

  it('gives bare roots none in slow soil while they rest, and soaks them once they do not', () => {
    const inSlow = { stock: bare, soil: 'loam', percolation: 'slow' } as const;
    expect(soak({ ...inSlow, dormant: true })).toBe(0);
    expect(soak({ ...inSlow, dormant: false })).toBeCloseTo(2 * 150.8 * 0.17, 6);
    const always = withChoice(fieldDefault, 'firstSoak.skipBareRootInSlowSoil', false);
    expect(soak({ ...inSlow, practice: always })).toBeCloseTo(2 * 150.8 * 0.17, 6);
  });

  it('fills the berm where there is one, else gives doses of the store and says why', () => {
    const practice = preset('many-hands');
    expect(soak({ practice })).toBe(28);
    const without = soaked({ practice, bermStoreL: null, percolation: 'slow' });
    expect(without.value).toBeCloseTo(2 * 45.96 * 0.55, 1);
    expect(without.because.map(({ code }) => code)).toEqual(['soak_no_berm', 'soak_by_ball_store']);
  });

  it('gives a fixed volume, or litres by caliper, where the practice says so', () => {
    expect(soak({ practice: withChoice(fieldDefault, 'firstSoak.rule', 'fixed') })).toBe(40);
    // 40 L for each 25 mm of 50.
    expect(soak({ practice: withChoice(fieldDefault, 'firstSoak.rule', 'by_caliper') })).toBe(80);
    expect(soak({ practice: withChoice(fieldDefault, 'firstSoak.rule', 'none') })).toBe(0);
  });

  it('never gives less for a larger ball', () => {
    fc.assert(
      fc.property(fc.integer({ min: 200, max: 1500 }), fc.constantFrom('container', 'balled'), (ball, kind) => {
        const of = (ballDiameterMm: number) => soak({ stock: { ...balled, kind, ballDiameterMm } });
        expect(of(ball + 10)).toBeGreaterThan(of(ball));
      }),
    );
  });

  it('is a depth of water over the pit where the practice reckons so', () => {
    const by = withChoice(withChoice(fieldDefault, 'firstSoak.rule', 'depth'), 'firstSoak.depthMm', 100);
    // 100 mm on 0.8 m².
    expect(soak({ practice: by })).toBeCloseTo(80, 9);
  });

  it('takes salt down with it: by FAO 29 a share of the water runs through', () => {
    // 2 dS/m: 2 / (5 · 4 − 2) = 1/9 runs through, an eighth more is given.
    expect(soak({ waterDsM: 2 }) / soak()).toBeCloseTo(9 / 8, 9);
    expect(soaked({ waterDsM: 2 }).because.at(-1)?.code).toBe('soak_leaches');
    expect([soak({ waterDsM: 0.6 }), soak({ waterDsM: null })]).toEqual([soak(), soak()]);
    expect(leachingShare(12)).toBe(0.4);
    expect(leachingShare(25)).toBe(0.4);
  });
});
