import { fall } from '../../testing/checked-case';
import { clearances as clear, judgeClear as judge } from '../../testing/clear-place';
import { type Assessment } from './assessment';
import { defaultGroundRules as rules, siteThings, type SiteThing } from './ground-rules';

const at = (thing: SiteThing, distanceM: number) => ({
  clearances: clear.map((one) => (one.thing === thing ? { ...one, distanceM } : one)),
});
/** What a changed place says beyond the clear one, each with its effect and its numbers. */
const beyond = (change: Parameters<typeof judge>[0]) => {
  const usual = new Set(judge().limits.map(({ because }) => JSON.stringify(because)));
  return judge(change)
    .limits.filter(({ because }) => !usual.has(JSON.stringify(because)))
    .map(({ effect, because: { code, facts } }) => ({ effect, code, ...facts }));
};
const about = (value: number) => expect.closeTo(value, 2) as number;

describe('findings on a place say their numbers', () => {
  it('where all is clear', () => {
    const { limits, widestM, underWireM } = judge();
    expect(limits.map(({ effect, because }) => [effect, because.code])).toEqual([
      ...siteThings.filter((thing) => thing !== 'wire').map(() => ['fine', 'site_clear']),
      ['fine', 'wire_none'],
      ['fine', 'soil_volume'],
      ['fine', 'percolation_rate'],
    ]);
    expect(limits[0]?.because.facts).toEqual({ thing: 'building', distanceM: 30, leastM: 6 });
    // 60 m² of 0.8 m, 48 m³ at 0.61 m³ for each m² of crown; a crown of 4 m asks 7.67.
    expect(limits.find(({ because }) => because.code === 'soil_volume')?.because.facts).toEqual({
      volumeM3: about(48),
      widestM: about(10.01),
      neededM3: about(7.67),
    });
    expect(limits.at(-1)?.because.facts).toEqual({ rateMmPerH: about(40), class: 'good' });
    expect([widestM, underWireM]).toEqual([about(10.01), null]);
  });

  // The rules: 2 m from a building for a small tree, 4 for a medium, 6 for a large one.
  it.each([
    [1.9, null, [{ effect: 'move', code: 'site_too_near', thing: 'building', distanceM: 1.9, leastM: 2 }]],
    [2, 'small', [{ effect: 'smaller', code: 'site_allows', size: 'small', next: 'medium', leastM: 4 }]],
    [3.9, 'small', [{ effect: 'smaller', code: 'site_allows', size: 'small', next: 'medium', leastM: 4 }]],
    [4, 'medium', [{ effect: 'smaller', code: 'site_allows', size: 'medium', next: 'large', leastM: 6 }]],
    [6, 'large', [{ effect: 'fine', code: 'site_clear', distanceM: 6, leastM: 6 }]],
  ] as const)('%d m from a building', (distanceM, allows, expected) => {
    const change = { assessment: at('building', distanceM) };
    expect(judge(change).allows).toBe(allows);
    expect(beyond(change)).toMatchObject(expected);
  });

  it('that a thing was not measured, where one is looked for', () => {
    const none = beyond({ assessment: { clearances: [] } });
    expect(none).toEqual(
      ['building', 'kerb', 'junction', 'tree'].map((thing) => ({ effect: 'unknown', code: 'site_unmeasured', thing })),
    );
  });

  it.each([
    ['beside the wire', 6, 5, { effect: 'smaller', code: 'wire_beside', wireHeightM: 6, distanceM: 5, size: 'medium' }],
    ['beside, how tall', 6, 5, { tallestM: 15, next: 'large', leastM: 9 }],
    [
      'under it',
      6,
      1,
      { effect: 'smaller', code: 'wire_limits_height', wireHeightM: 6, headroomM: 1.5, tallestM: 4.5 },
    ],
    ['under a low one', 3.5, 1, { effect: 'smaller', code: 'wire_limits_height', tallestM: 2 }],
    ['under one too low', 3.4, 1, { effect: 'move', code: 'wire_too_low', tallestM: about(1.9) }],
    ['clear of it', 6, 9, { effect: 'fine', code: 'site_clear', thing: 'wire', distanceM: 9, leastM: 9 }],
  ] as const)('%s', (_name, wireHeightM, distanceM, expected) => {
    const said = beyond({ ground: { wireHeightM }, assessment: at('wire', distanceM) });
    expect(said).toHaveLength(1);
    expect(said[0]).toMatchObject(expected);
  });

  it('of a strip, at each line of the rules', () => {
    const { small, medium, large } = rules.leastStripMm;
    const strip = (stripWidthMm: number) => {
      const change = { ground: { stripWidthMm } };
      return [judge(change).allows, ...beyond(change)];
    };
    expect(strip(small - 1)).toEqual([
      null,
      { effect: 'refuse', code: 'strip_too_narrow', stripWidthMm: small - 1, leastMm: small },
    ]);
    const allows = (stripWidthMm: number, size: string, next: string, leastMm: number) => [
      size,
      { effect: 'smaller', code: 'strip_allows', stripWidthMm, size, next, leastMm },
    ];
    expect(strip(small)).toEqual(allows(small, 'small', 'medium', medium));
    expect(strip(medium - 1)).toEqual(allows(medium - 1, 'small', 'medium', medium));
    expect(strip(medium)).toEqual(allows(medium, 'medium', 'large', large));
    expect(strip(large - 1)).toEqual(allows(large - 1, 'medium', 'large', large));
    expect(strip(large)).toEqual([
      'large',
      { effect: 'fine', code: 'strip_wide', stripWidthMm: large, leastMm: large },
    ]);
  });

  it('of too little soil', () => {
    // 3 m² of 0.8 m carry a crown of √(2.4·4/π/0.61).
    expect(beyond({ assessment: { openSoilM2: 3 } })).toEqual([
      {
        effect: 'change',
        code: 'soil_volume_short',
        volumeM3: about(2.4),
        widestM: about(2.24),
        neededM3: about(7.67),
      },
    ]);
    expect(judge({ assessment: { openSoilM2: null } }).widestM).toBeNull();
  });

  it.each([
    ['soil', { soil: null }, { effect: 'unknown', code: 'soil_missing' }],
    ['slope', { slopePct: null }, { effect: 'unknown', code: 'slope_missing' }],
    [
      'a test of two readings',
      { percolation: fall(40).slice(0, 2) },
      { effect: 'unknown', code: 'percolation_questioned', question: 'too_few_readings' },
    ],
    [
      'water that stands',
      { percolation: fall(2) },
      { effect: 'change', code: 'percolation_stands', rateMmPerH: about(2) },
    ],
    [
      'water that is slow',
      { percolation: fall(12) },
      { effect: 'fine', code: 'percolation_rate', rateMmPerH: about(12), class: 'slow' },
    ],
    [
      'ground somebody calls compacted',
      { compacted: true },
      { effect: 'change', code: 'ground_compacted', stopsMm: null, leastMm: rules.probeStopsMm },
    ],
  ] as const)('of %s', (_name, change, expected) => {
    expect(beyond({ ground: change })).toEqual([expected]);
  });

  it.each([
    ['probeStopsMm', rules.probeStopsMm, rules.probeStopsMm - 1, 'change', 'ground_compacted'],
    ['rockAtMm', rules.rockLeastMm, rules.rockLeastMm - 1, 'move', 'rock_shallow'],
    ['sunHours', rules.sunLeastH, rules.sunLeastH - 0.5, 'smaller', 'sun_short'],
    ['saltDsM', rules.saltMostDsM, rules.saltMostDsM + 0.5, 'change', 'salt_high'],
  ] as const)('of %s only beyond its line', (field, onLine, over, effect, code) => {
    const said = (value: number | null) =>
      beyond({ assessment: { [field]: value } }).filter((one) => one.code !== 'soil_volume');
    expect(said(null)).toEqual([]);
    expect(said(onLine)).toEqual([]);
    expect(said(over)).toMatchObject([{ effect, code }]);
  });
  it('of what each of these is held to', () => {
    const said = (change: Partial<Assessment>, compacted = false) =>
      beyond({ assessment: change, ground: { compacted } }).filter(({ code }) => code !== 'soil_volume');
    expect(said({ probeStopsMm: 120 })).toMatchObject([{ stopsMm: 120, leastMm: rules.probeStopsMm }]);
    // The probe went in: it is not why the ground counts as compacted.
    expect(said({ probeStopsMm: 900 }, true)).toMatchObject([{ stopsMm: null, leastMm: rules.probeStopsMm }]);
    expect(said({ rockAtMm: 300 })).toMatchObject([{ rockAtMm: 300, leastMm: rules.rockLeastMm }]);
    expect(said({ sunHours: 1 })).toMatchObject([{ sunHours: 1, leastH: rules.sunLeastH }]);
    expect(said({ saltDsM: 12, soilTestedOn: '2026-03-01' })).toMatchObject([
      { saltDsM: 12, mostDsM: rules.saltMostDsM, testedOn: '2026-03-01' },
    ]);
    expect(said({ saltDsM: 12 })).toMatchObject([{ testedOn: '' }]);
  });

  it('of whose ground it is and what lies in it', () => {
    const said = (change: Partial<Assessment>) => beyond({ assessment: change }).map(({ code }) => code);
    expect(said({ owner: 'yard' })).toEqual(['owner_consent_needed']);
    expect(said({ owner: 'road' })).toEqual(['road_permit_needed']);
    expect(said({ owner: null })).toEqual(['owner_unknown']);
    expect(said({ privateLines: null })).toEqual(['private_lines_unasked']);
    expect(said({ privateLines: 'found' })).toEqual([]);
    const unmeasured = { clearances: clear.filter(({ thing }) => thing !== 'private_line') };
    expect(said(unmeasured)).toEqual([]);
    expect(said({ ...unmeasured, privateLines: 'found' })).toEqual(['private_lines_found']);
    expect(said({ plannedBuilding: true })).toEqual(['building_planned']);
  });
});
