import { liftingTeam, topMassKg, treeMass } from './mass';
import { ballVolumeL } from './stock';

describe('mass and lifting', () => {
  it('weighs a container tree as an independent calculation does', () => {
    const { totalKg } = treeMass({
      kind: 'container',
      ballDiameterMm: 450,
      ballHeightMm: 400,
      topRootsDepthMm: 60,
      caliperMm: 50,
      heightM: 3,
    });
    expect(totalKg).toBeCloseTo(48.2, 1);
  });

  it('weighs a balled tree of 65 mm at breast height', () => {
    expect(ballVolumeL('balled', 700, 500) * 1.7 + topMassKg(65)).toBeCloseTo(245.6, 1);
  });

  it('gives bare roots no ball', () => {
    expect(treeMass({ kind: 'bare_root', rootSpreadMm: 500, rootDepthMm: 300, caliperMm: 25, heightM: 2 }).ballKg).toBe(
      0,
    );
  });

  it.each([
    [23, { kind: 'people', people: 1, limitKg: 23 }],
    [23.1, { kind: 'people', people: 2, limitKg: 30 }],
    [34, { kind: 'people', people: 3, limitKg: 34 }],
    [34.1, { kind: 'equipment', limitKg: 34 }],
  ])('%d kg: %o', (kg, team) => {
    expect(liftingTeam(kg)).toEqual(team);
  });

  it.each([NaN, -1, 30_000])('refuses a mass of %d kg', (kg) => {
    expect(() => liftingTeam(kg)).toThrow('massKg must be within 0–20000 kg');
  });
});
