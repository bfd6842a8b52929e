import { because } from '../record';
import { sayReason } from './say-reason';
import { sayFacts } from './say-facts';

describe('wording', () => {
  it('says a reason in the units of the reader', () => {
    const reason = because('depth_is_ball_less_proud', { effectiveMm: 340, proudMm: 40, depthMm: 300 });
    expect(sayReason(reason, 'metric')).toBe('340 mm less 40 mm proud: dig 300 mm at the uphill edge.');
    expect(sayReason(reason, 'us')).toBe('13 3/8 in less 1 5/8 in proud: dig 11 3/4 in at the uphill edge.');
  });

  it('says that sides go straight down where the base is as wide as the top', () => {
    const sides = (topMm: number, bottomMm: number) =>
      sayReason(because('pit_volume', { topMm, bottomMm, meanDepthMm: 364 }), 'metric');
    expect(sides(1350, 840)).toBe('Sides slope from 1350 mm to 840 mm, mean depth 364 mm.');
    expect(sides(640, 640)).toBe('Sides go straight down, mean depth 364 mm.');
  });

  it('names facts and leaves out what was not looked at', () => {
    const said = sayFacts<'inspection'>(
      {
        inspectedOn: '2026-06-01',
        flareDepthMm: 30,
        mulchDepthMm: null,
        mulchContact: 'heaped',
        stake: null,
        probe: null,
        circlingRoots: [{ arc: { fromDeg: 350, toDeg: 40 }, diameterMm: 18 }],
      },
      'metric',
    );
    expect(said.map(({ name, value }) => `${name}: ${value}`)).toEqual([
      'Inspected on: 2026-06-01',
      'Flare depth: 30 mm',
      'Mulch at the trunk: heaped on the trunk',
      'Circling roots: 18 mm over 350–40°',
    ]);
  });
});
