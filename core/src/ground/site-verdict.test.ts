import fc from 'fast-check';
import {
  clearAssessment as assessment,
  clearances as clear,
  clearGround as ground,
  judgeClear as judge,
} from '../../testing/clear-place';
import { rootingVolumeM3, soilNeededM3 } from './assessment';
import { unknownGround } from './ground-facts';
import { defaultGroundRules as rules, siteThings, sizeClasses } from './ground-rules';
import { defaultPercolationLimits as drainage } from './percolation';
import { judgeSite } from './site-verdict';

const near = (thing: (typeof siteThings)[number], distanceM: number) => ({
  assessment: { clearances: clear.map((one) => (one.thing === thing ? { ...one, distanceM } : one)) },
});
const codes = (limits: readonly { because: { code: string } }[]) => limits.map(({ because }) => because.code);

describe('a wire beside the place', () => {
  const wire = (distanceM: number | null, wireHeightM = 6, leastSmallM = 0) =>
    judgeSite({
      ground: { ...ground, wireHeightM },
      assessment: {
        ...assessment,
        clearances: clear.flatMap((one) =>
          one.thing !== 'wire' ? [one] : distanceM === null ? [] : [{ ...one, distanceM }],
        ),
      },
      rules: { ...rules, leastM: { ...rules.leastM, wire: { ...rules.leastM.wire, small: leastSmallM } } },
      drainage,
    });

  // The rules: 4.5 m for a medium tree, 9 m for a large one; 1.5 m of headroom under it.
  it.each([
    [null, 4.5, 'small'],
    [0.5, 4.5, 'small'],
    [4.4, 4.5, 'small'],
    [4.5, 15, 'medium'],
    [5, 15, 'medium'],
    [8.9, 15, 'medium'],
    [9, null, 'large'],
  ] as const)('6 m high at %d m allows %d m', (distanceM, tallestM, allows) => {
    const judged = wire(distanceM);
    expect([judged.tallestM, judged.allows]).toEqual([tallestM, allows]);
    // A crown that reaches under it is held by the wire wherever the stem stands.
    expect(judged.underWireM).toBe(tallestM === null ? null : 4.5);
  });
  it('gives a small tree its height too where the rules ask a distance of it', () => {
    expect(wire(2.5, 6, 2)).toMatchObject({ tallestM: 8, allows: 'small' });
    expect(wire(2.5, 6, 3)).toMatchObject({ tallestM: 4.5 });
  });
  it('that is high leaves more under it than beside it', () => {
    expect(wire(5, 25)).toMatchObject({ tallestM: 23.5, allows: 'large' });
  });
  it('that is low asks for another place, unless the tree passes beside it', () => {
    expect(wire(1, 3).verdict).toBe('move');
    expect(wire(5, 3)).toMatchObject({ verdict: 'plant', tallestM: 15 });
  });
});

describe('the verdict on a place', () => {
  it('waits for a percolation test that has not settled between two classes', () => {
    const levels = [300, 296, 293, 291, 289, 288, 288];
    const percolation = levels.map((levelMm, i) => ({ minute: 10 * i, levelMm }));
    const judged = judge({ ground: { percolation } });
    expect(judged.verdict).toBe('plant_if');
    expect(codes(judged.limits)).toContain('percolation_unsettled');
  });

  it('goes by where the practice of the spot draws the lines of drainage', () => {
    const made = { ...drainage, slowFromMmPerH: 45, goodFromMmPerH: 60 };
    const judged = judgeSite({ ground, assessment, rules, drainage: made });
    // 40 mm/h drain well by the usual lines, and stand by these.
    expect(codes(judged.limits)).toContain('percolation_stands');
  });

  it('is to plant where everything is measured and clear', () => {
    const { verdict, allows, tallestM } = judge();
    expect({ verdict, allows, tallestM }).toEqual({ verdict: 'plant', allows: 'large', tallestM: null });
  });

  it.each([
    ['a building 3 m away', near('building', 3), 'plant', 'small'],
    ['a building 5 m away', near('building', 5), 'plant', 'medium'],
    ['a hydrant at 1 m', near('hydrant', 1), 'move', null],
    ['a corner at 5 m', near('junction', 5), 'move', null],
    ['a strip of 700 mm', { ground: { stripWidthMm: 700 } }, 'not_here', null],
    ['a strip of 1 m', { ground: { stripWidthMm: 1000 } }, 'plant', 'small'],
    ['rock at 300 mm', { assessment: { rockAtMm: 300 } }, 'move', 'large'],
    ['a building planned', { assessment: { plannedBuilding: true } }, 'not_here', 'large'],
    ['ground a probe cannot enter', { assessment: { probeStopsMm: 120 } }, 'plant_if', 'large'],
    ['little soil', { assessment: { openSoilM2: 3 } }, 'plant_if', 'large'],
    ['salt', { assessment: { saltDsM: 12 } }, 'plant_if', 'large'],
    [
      'private lines nobody showed',
      { assessment: { privateLines: 'found', clearances: clear.filter(({ thing }) => thing !== 'private_line') } },
      'plant_if',
      'large',
    ],
    ['nobody looked up', { ground: { wireHeightM: null } }, 'plant_if', 'large'],
  ] as const)('with %s', (_name, change, verdict, allows) => {
    expect(judge(change as Parameters<typeof judge>[0])).toMatchObject({ verdict, allows });
  });

  it('keeps a tree under the wire, and lets it grow beside', () => {
    const under = { ground: { wireHeightM: 7.5 }, ...near('wire', 0.5) };
    expect(judge(under)).toMatchObject({ tallestM: 6, allows: 'small' });
    expect(judge({ ground: { wireHeightM: 7.5 }, ...near('wire', 12) })).toMatchObject({
      tallestM: null,
      allows: 'large',
    });
    expect(judge({ ground: { wireHeightM: 3 }, ...near('wire', 0.5) }).verdict).toBe('move');
  });

  it('names what nobody measured, and never calls that good', () => {
    const blank = judgeSite({ ground: unknownGround, assessment: null, rules, drainage });
    expect(blank.verdict).toBe('plant_if');
    expect(codes(blank.limits)).toEqual(
      expect.arrayContaining(['wire_unmeasured', 'strip_unmeasured', 'soil_volume_unknown', 'percolation_missing']),
    );
  });

  it('calls standing water something to change first', () => {
    const standing = [0, 1, 2, 3].map((i) => ({ minute: i * 60, levelMm: 300 - i }));
    const { verdict, limits } = judge({ ground: { percolation: standing } });
    expect(verdict).toBe('plant_if');
    expect(codes(limits)[0]).toBe('percolation_stands');
  });

  it('never allows a larger tree for standing nearer', () => {
    const distance = fc.double({ min: 0.1, max: 20, noNaN: true });
    fc.assert(
      fc.property(fc.constantFrom(...siteThings), distance, distance, (thing, a, b) => {
        const size = (d: number) => sizeClasses.indexOf(judge(near(thing, d)).allows ?? ('none' as never));
        return size(Math.min(a, b)) <= size(Math.max(a, b));
      }),
    );
  });

  it.each([
    [
      { clearances: [{ thing: 'kerb', distanceM: -1, by: 'tape' }] },
      'clearances[0].distanceM must be within 0.1–100 m, got -1',
    ],
    [{ clearances: [...clear, ...clear] }, 'clearances hold building twice'],
    [{ soilPh: 14 }, 'soilPh must be within 2–11 pH, got 14'],
    [{ wishes: ['evergreen', 'deciduous'] }, 'wishes must not hold both evergreen and deciduous'],
  ] as const)('refuses %j', (change, message) => {
    expect(() => judge({ assessment: change })).toThrow(message);
  });

  it('refuses a wire lower than the ground', () => {
    expect(() => judge({ ground: { wireHeightM: -3 } })).toThrow('wireHeightM must be within 2–60 m, got -3');
  });
});

describe('soil for roots', () => {
  it('counts open soil to its depth, no deeper than counts, and what was built under paving', () => {
    expect(rootingVolumeM3({ ...assessment, openSoilM2: 10, soilDepthMm: 500, underPavingM3: 4 }, rules)).toBeCloseTo(
      9,
      9,
    );
    expect(
      rootingVolumeM3({ ...assessment, openSoilM2: 10, soilDepthMm: 2000, underPavingM3: null }, rules),
    ).toBeCloseTo(9, 9);
    expect(rootingVolumeM3({ ...assessment, openSoilM2: 10, soilDepthMm: 2000, rockAtMm: 300 }, rules)).toBeCloseTo(
      3,
      9,
    );
    expect(rootingVolumeM3({ ...assessment, openSoilM2: null }, rules)).toBeNull();
  });

  // Lindsey and Bassuk 1991: 2 ft³ of soil for each ft² of crown projection; 20 ft of crown, 628 ft³, 17.8 m³.
  it('asks 17.8 m³ for a crown of 20 feet', () => {
    expect(soilNeededM3(20 * 0.3048, rules)).toBeCloseTo(17.8, 1);
  });
});
