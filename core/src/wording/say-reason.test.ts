import { limits } from '../limits';
import { because } from '../record';
import { displays } from '../units';
import { isMeasured, measuredFacts } from './measured';
import { factNames } from './names';
import { sayFacts } from './say-facts';
import { sayReason } from './say-reason';

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
      'Inspected on: 1 Jun 2026',
      'Flare below the surface: 30 mm',
      'Mulch at the trunk: heaped on the trunk',
      'Circling roots: 18 mm over 350–40°',
    ]);
  });

  it('says every measured fact in its unit: what is named as a length is no bare number', () => {
    const numbers = Object.keys(factNames).filter((name) => /(Mm|M|L|Pct|Deg|Hours|Ph|DsM|Sar|M2|M3)$/.test(name));
    expect(numbers.length).toBeGreaterThan(30);
    expect(numbers.filter((name) => !isMeasured(name))).toEqual([]);
    for (const { measure, quantity } of Object.values(measuredFacts)) {
      expect([measure, displays[quantity].metric.unit]).toEqual([measure, limits[measure].unit]);
    }
  });
});
