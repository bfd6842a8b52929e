import fc from 'fast-check';
import { fieldDefault, withChoice } from '../practice';
import { isLook, type Inspection } from './look';
import { compressedSharePct } from './root-arcs';
import { cutByCrew, judgeInspection, scheduledLook } from './verdict';

const clean: Inspection = {
  inspectedOn: '2026-06-01',
  flareDepthMm: 0,
  mulchDepthMm: 70,
  mulchContact: 'clear',
  stake: 'none',
  probe: 'moist',
  circlingRoots: [],
};
const context = { practice: fieldDefault, plantedOn: '2025-12-01', percolation: 'good' as const };
const judge = (change: Partial<Inspection>, plantedOn = context.plantedOn) =>
  judgeInspection({ ...clean, ...change }, { ...context, plantedOn });
const root = (fromDeg: number, toDeg: number, diameterMm = 18) => ({ arc: { fromDeg, toDeg }, diameterMm });

describe('flare at points round the trunk', () => {
  it('is judged by the deepest, which the look must name', () => {
    const uneven = judge({ flareDepthMm: 60, flareRoundMm: [10, 60, 0] });
    expect(uneven.remedies.map(({ remedy }) => remedy)).toEqual(
      judge({ flareDepthMm: 60 }).remedies.map((r) => r.remedy),
    );
    expect(() => judge({ flareDepthMm: 10, flareRoundMm: [10, 60] })).toThrow('flareDepthMm must be the deepest');
    expect(() => judge({ flareDepthMm: null, flareRoundMm: [10, 60] })).toThrow('flareDepthMm must be the deepest');
    expect(() => judge({ flareDepthMm: 10, flareRoundMm: [-900, 10] })).toThrow('flareRoundMm[0] must be within');
  });
});

describe('wood felt at heights', () => {
  it('is told with the worst of them, or refused', () => {
    expect(() => judge({ alive: 'green', aliveAt: { top: 'dry', base: 'green' } })).toThrow(
      'alive must be the worst of the heights',
    );
    expect(() => judge({ aliveAt: { top: 'green' } })).toThrow('alive must be the worst');
  });
});

describe('a fence round roots in danger', () => {
  const fenced = (caliperMm?: number) =>
    judgeInspection({ ...clean, signs: ['works_nearby'] }, { ...context, plantedOn: '2024-06-01', caliperMm })
      .findings[0];
  it('stands twelve times the trunk off, as thick as it is by now', () => {
    // 50 mm as planted and 10 mm a year for two years: 12 × 70 mm.
    expect(fenced(50)).toMatchObject({
      remedy: 'fence_roots',
      because: { code: 'roots_in_danger', facts: { sign: 'works_nearby', radiusM: expect.closeTo(0.84, 9) } },
    });
  });
  it('is asked for without a number where nobody measured the trunk', () => {
    expect(fenced()).toMatchObject({ remedy: 'fence_roots', because: { code: 'sign_seen' } });
  });
});

describe('share of the trunk pressed', () => {
  it('counts overlapping arcs once and crosses north', () => {
    const arcs = [
      { fromDeg: 350, toDeg: 40 },
      { fromDeg: 30, toDeg: 95 },
      { fromDeg: 200, toDeg: 230 },
    ];
    expect(compressedSharePct(arcs)).toBeCloseTo(37.5, 9);
  });

  it('does not depend on order, and more roots never press on less', () => {
    const arc = fc.record({ fromDeg: fc.integer({ min: 0, max: 360 }), toDeg: fc.integer({ min: 0, max: 360 }) });
    fc.assert(
      fc.property(fc.array(arc, { maxLength: 8 }), arc, (arcs, extra) => {
        const share = compressedSharePct(arcs);
        expect(compressedSharePct([...arcs].reverse())).toBeCloseTo(share, 9);
        expect(compressedSharePct([...arcs, extra])).toBeGreaterThanOrEqual(share - 1e-9);
        expect(share).toBeLessThanOrEqual(100);
      }),
    );
  });
});

describe('one arc', () => {
  it.each([
    [90, 90, 0],
    [350, 350, 0],
    [0, 360, 100],
    [360, 0, 0],
    [350, 40, 13.888_889],
    [40, 350, 86.111_111],
  ])('%d→%d covers %d %%', (fromDeg, toDeg, pct) => {
    expect(compressedSharePct([{ fromDeg, toDeg }])).toBeCloseTo(pct, 5);
  });
  it.each([-1, 361, NaN])('refuses a bearing of %d°', (fromDeg) => {
    expect(() => compressedSharePct([{ fromDeg, toDeg: 10 }])).toThrow('fromDeg must be within 0–360 °');
  });
});

describe('inspection verdict', () => {
  it('of a look at nothing is none, never good', () => {
    const nothing: Inspection = {
      inspectedOn: '2026-06-01',
      flareDepthMm: null,
      mulchDepthMm: null,
      mulchContact: null,
      stake: null,
      probe: null,
      circlingRoots: null,
    };
    expect(isLook(nothing)).toBe(false);
    expect(judgeInspection(nothing, context)).toMatchObject({ level: null, findings: [], remedies: [] });
    expect(isLook({ ...nothing, circlingRoots: [] })).toBe(true);
    expect(judgeInspection({ ...nothing, circlingRoots: [] }, context).level).toBe('good');
  });

  it('refuses a look from before the planting', () => {
    expect(() => judge({ inspectedOn: '2025-11-30' })).toThrow(
      'inspectedOn must not be before the planting on 2025-12-01, got 2025-11-30',
    );
    expect(judge({ inspectedOn: '2025-12-01' }).level).toBe('good');
  });

  // Planted on 1 December, looked at on 1 June: six months. Lines of the field default.
  it.each([
    [{ flareDepthMm: -101 }, 'act', 'flare_exposed', { aboveMm: 101 }],
    [{ flareDepthMm: -100 }, 'good', 'flare_visible', { depthMm: -100, limitMm: 25 }],
    [{ flareDepthMm: 0 }, 'good', 'flare_visible', { depthMm: 0, limitMm: 25 }],
    [{ flareDepthMm: 1 }, 'watch', 'flare_visible', { depthMm: 1, limitMm: 25 }],
    [{ flareDepthMm: 25 }, 'act', 'flare_covered', { depthMm: 25, limitMm: 25 }],
    [{ flareDepthMm: 75 }, 'act', 'flare_buried', { depthMm: 75, limitMm: 75 }],
    [{ flareDepthMm: 150 }, 'act', 'flare_buried', { depthMm: 150, limitMm: 75 }],
    [
      { flareDepthMm: 151 },
      'urgent',
      'flare_deep',
      { depthMm: 151, limitMm: 150, monthsSincePlanting: 6, replantMonths: 24 },
    ],
    [{ mulchDepthMm: 101 }, 'act', 'mulch_thick', { depthMm: 101, maxMm: 100 }],
    [{ mulchDepthMm: 100 }, 'good', 'mulch_in_range', { depthMm: 100, minMm: 25, maxMm: 100 }],
    [{ mulchDepthMm: 25 }, 'good', 'mulch_in_range', { depthMm: 25, minMm: 25, maxMm: 100 }],
    [{ mulchDepthMm: 24 }, 'watch', 'mulch_thin', { depthMm: 24, minMm: 25 }],
    [{ stake: 'in_place' }, 'good', 'stake_in_place', { monthsSincePlanting: 6, offAfterMonths: 12 }],
    [{ probe: 'slightly_dry' }, 'watch', 'probe_slightly_dry', {}],
    [{ probe: 'wet' }, 'watch', 'probe_wet', {}],
    [{ probe: 'saturated' }, 'urgent', 'probe_saturated', { percolation: 'good' }],
    [{ circlingRoots: [root(0, 36)] }, 'act', 'roots_pressing', { sharePct: 10, thickestMm: 18, limitPct: 25 }],
    [
      { circlingRoots: [root(0, 90, 30), root(0, 20, 12)] },
      'act',
      'roots_staged',
      { sharePct: 25, thickestMm: 30, limitPct: 25, toPct: 50, capPct: 25 },
    ],
    [{ circlingRoots: [root(0, 36, 50)] }, 'act', 'roots_pressing', { sharePct: 10, thickestMm: 50, limitPct: 25 }],
    [{ circlingRoots: [root(0, 36, 51)] }, 'act', 'roots_thick', { thickestMm: 51, limitMm: 50 }],
    [
      { circlingRoots: [root(0, 216)] },
      'urgent',
      'roots_past_correction',
      { sharePct: 60, thickestMm: 18, limitPct: 50 },
    ],
  ] as const)('of %j is %s: %s', (change, level, code, facts) => {
    const { findings } = judge(change);
    const found = findings.find(({ because }) => because.code === code);
    expect(found).toMatchObject({ level, because: { code, facts } });
  });

  it('says nothing of the depth of mulch that lies at the trunk in range', () => {
    const { findings } = judge({ mulchContact: 'touching' });
    expect(findings.filter(({ aspect }) => aspect === 'mulch').map(({ because }) => because.code)).toEqual([
      'mulch_touching',
    ]);
  });

  it('of a saturated probe where nobody tested the drainage says so', () => {
    const { findings } = judgeInspection({ ...clean, probe: 'saturated' }, { ...context, percolation: undefined });
    expect(findings[0]?.because.facts).toEqual({ percolation: 'unknown' });
  });

  it.each([
    [{ flareDepthMm: 5000 }, 'flareDepthMm must be within'],
    [{ mulchDepthMm: 5000 }, 'mulchDepthMm must be within'],
    [{ circlingRoots: [root(0, 10), root(0, 10, 5000)] }, 'circlingRoots[1].diameterMm must be within'],
  ] as const)('refuses %j', (change, message) => {
    expect(() => judge(change as unknown as Partial<Inspection>)).toThrow(message);
  });

  it('asks once for mulch that is heaped at the trunk and thin beside it', () => {
    const both = judge({ mulchDepthMm: 0, mulchContact: 'heaped' });
    expect(both.remedies.map(({ remedy }) => remedy)).toEqual(['pull_back_mulch']);
    expect(both.findings.map(({ because }) => because.code)).toEqual(
      expect.arrayContaining(['mulch_heaped', 'mulch_thin']),
    );
    expect(judge({ mulchDepthMm: 0 }).remedies.map(({ remedy }) => remedy)).toEqual(['top_up_mulch']);
    expect(judge({ mulchDepthMm: 200, mulchContact: 'touching' }).remedies).toHaveLength(2);
  });

  it('looks again on schedule where that comes before what a remedy asks for', () => {
    // Planted on 1 December, looked at on 25 May: the look of six months is on 1 June, after a loose stake in 30 days.
    expect(judge({ inspectedOn: '2026-05-25', stake: 'broken' }).nextLook).toMatchObject({
      on: '2026-06-01',
      because: { code: 'look_scheduled', facts: { monthAfterPlanting: 6 } },
    });
    expect(judge({ inspectedOn: '2026-04-25', stake: 'broken' }).nextLook).toMatchObject({
      on: '2026-05-25',
      because: { code: 'look_follow_up', facts: { inDays: 30, remedy: 'mend_stake' } },
    });
    // On the very day the schedule rules.
    expect(judge({ inspectedOn: '2026-05-02', stake: 'broken' }).nextLook.because.code).toBe('look_scheduled');
  });

  it('finds a sound tree good and looks again on schedule', () => {
    const verdict = judge({});
    expect(verdict.level).toBe('good');
    expect(verdict.remedies).toEqual([]);
    expect(verdict.nextLook.on).toBe('2026-12-01');
  });

  it.each([
    [24, 'watch', 'watch_yearly_clear'],
    [25, 'act', 'clear_to_flare'],
    [74, 'act', 'clear_to_flare'],
    [75, 'act', 'examine_roots'],
    [150, 'act', 'examine_roots'],
    [151, 'urgent', 'lift_and_replant'],
    [-101, 'act', 'cover_roots'],
  ])('flare %d mm deep: %s, %s', (flareDepthMm, level, remedy) => {
    const look = { flareDepthMm, circlingRoots: null };
    expect(judge(look).findings[0]).toMatchObject({ aspect: 'flare', level, remedy });
  });

  it.each([
    [{ circlingRoots: [root(0, 60)] }, true],
    [{ circlingRoots: [root(0, 120)] }, true],
    [{ circlingRoots: [root(0, 200)] }, false],
    [{ circlingRoots: [root(0, 30, 51)] }, false],
    [{ circlingRoots: [root(0, 60)], anchors: [] }, false],
    [{ circlingRoots: [] }, false],
    [{ flareDepthMm: 60 }, false],
  ])('of %j a crew cuts roots: %s', (change, crew) => {
    expect(cutByCrew(judge(change))).toBe(crew);
  });

  it('no longer lifts a deep tree after two years', () => {
    expect(judge({ flareDepthMm: 160 }, '2024-06-02').remedies[0]?.remedy).toBe('lift_and_replant');
    expect(judge({ flareDepthMm: 160 }, '2024-06-01').remedies[0]?.remedy).toBe('collar_excavation');
  });

  it.each([
    ['by_depth', '2025-12-01', 'lift_and_replant'],
    ['clear', '2025-12-01', 'clear_to_flare'],
    ['excavate', '2025-12-01', 'collar_excavation'],
    ['replace', '2020-12-01', 'replace_tree'],
  ])('a tree planted far too deep is treated as the practice says: %s', (rule, plantedOn, remedy) => {
    const practice = withChoice(fieldDefault, 'inspection.deepTree', rule);
    const verdict = judgeInspection({ ...clean, flareDepthMm: 160 }, { ...context, plantedOn, practice });
    expect(verdict.remedies[0]?.remedy).toBe(remedy);
  });

  it.each([
    ['in_stages', 'stage_root_cuts'],
    ['at_once', 'cut_root'],
    ['leave', 'refer_arborist'],
  ])('a root that presses on a third of the girth is treated as the practice says: %s', (rule, remedy) => {
    const practice = withChoice(fieldDefault, 'inspection.roots.rule', rule);
    const verdict = judgeInspection({ ...clean, circlingRoots: [root(0, 120)] }, { ...context, practice });
    expect(verdict.remedies[0]?.remedy).toBe(remedy);
  });

  it.each([
    [[root(0, 89)], 'cut_root'],
    [[root(0, 90)], 'stage_root_cuts'],
    [[root(0, 180)], 'stage_root_cuts'],
    [[root(0, 181)], 'refer_arborist'],
    [[root(0, 40, 51)], 'refer_arborist'],
  ])('roots %j: %s', (circlingRoots, remedy) => {
    expect(judge({ circlingRoots }).remedies[0]?.remedy).toBe(remedy);
  });

  it('leaves a stake for a year and wants it off after', () => {
    expect(judge({ stake: 'in_place' }, '2025-06-02').remedies).toEqual([]);
    expect(judge({ stake: 'in_place' }, '2025-06-01').remedies[0]).toMatchObject({
      remedy: 'remove_stake',
      dueOn: '2026-06-15',
    });
  });

  it('comes back sooner for what cannot wait', () => {
    const verdict = judge({ probe: 'dry', mulchContact: 'heaped' });
    expect(verdict.level).toBe('urgent');
    expect(verdict.findings[0]?.remedy).toBe('water_now');
    expect(verdict.remedies.map((r) => [r.remedy, r.dueOn])).toEqual([
      ['water_now', '2026-06-03'],
      ['pull_back_mulch', '2026-06-15'],
    ]);
    expect(verdict.nextLook).toMatchObject({ on: '2026-06-04', because: { code: 'look_follow_up' } });
  });

  it('judges only what was looked at', () => {
    const nothing: Inspection = {
      inspectedOn: '2026-06-01',
      flareDepthMm: null,
      mulchDepthMm: null,
      mulchContact: null,
      stake: null,
      probe: null,
      circlingRoots: null,
    };
    expect(judgeInspection(nothing, context).findings).toEqual([]);
  });

  it('reads its limits from the practice', () => {
    const strict = {
      ...fieldDefault,
      inspection: { ...fieldDefault.inspection, flare: { clearFromMm: 10, examineFromMm: 20, liftOverMm: 30 } },
    };
    const verdict = judgeInspection(
      { ...clean, circlingRoots: null, flareDepthMm: 25 },
      { ...context, practice: strict },
    );
    expect(verdict.remedies[0]?.remedy).toBe('examine_roots');
  });
});

describe('schedule of looks', () => {
  it.each([
    ['2026-01-31', '2026-01-31', '2026-02-28'],
    ['2026-01-31', '2026-02-28', '2026-04-30'],
    ['2026-01-31', '2026-12-31', '2027-01-31'],
    ['2026-01-31', '2027-03-01', '2028-03-01'],
  ])('planted %s, looked at %s: next %s', (plantedOn, after, on) => {
    expect(scheduledLook(plantedOn, after, fieldDefault).on).toBe(on);
  });
});

describe('a finger where there is no probe', () => {
  const found = (change: Partial<Inspection>) => judge(change).findings.find(({ aspect }) => aspect === 'moisture');

  it('tells dry from moist, and no more', () => {
    expect(found({ probe: null, finger: 'finger_dry' })).toMatchObject({ level: 'act', remedy: 'water_soon' });
    expect(found({ probe: null, finger: 'finger_moist' })).toMatchObject({ level: 'good', remedy: 'none' });
    expect(found({ probe: null })).toBeUndefined();
  });
  it('gives way to a probe', () => {
    expect(found({ probe: 'moist', finger: 'finger_dry' })).toMatchObject({ level: 'good' });
  });
});

describe('looks in the first weeks', () => {
  const often = withChoice(
    withChoice(fieldDefault, 'inspection.firstLooks.everyDays', 5),
    'inspection.firstLooks.weeks',
    3,
  );
  const next = (after: string) => scheduledLook('2026-03-01', after, often).on;

  it('come every few days, then by the months', () => {
    expect([next('2026-03-01'), next('2026-03-06'), next('2026-03-08')]).toEqual([
      '2026-03-06',
      '2026-03-11',
      '2026-03-11',
    ]);
    // Three weeks end on the 22nd: the next would be the 26th, and the first month comes first.
    expect(next('2026-03-21')).toBe('2026-04-01');
    expect(scheduledLook('2026-03-01', '2026-03-01', fieldDefault).on).toBe('2026-04-01');
  });
});
