import { addDaysTo } from '../calendar';
import { diagnose, type Inspection } from '../inspect';
import { fieldDefault } from '../practice';
import { ground, planting, rec, stock } from '../../testing/water-cases';
import type { RecordFacts } from './kinds';
import { spotLife } from './spot-life';
import { asksForDiagnosis, treeEvidence } from './tree-evidence';

const look = (change: Partial<Inspection> = {}): Inspection => ({
  inspectedOn: '2026-07-01',
  flareDepthMm: null,
  mulchDepthMm: null,
  mulchContact: null,
  stake: null,
  probe: null,
  circlingRoots: null,
  ...change,
});
const days = (stressed: number, waterlogged = 0) =>
  Array.from({ length: 60 }, (_, i) => ({
    day: addDaysTo('2026-07-01', -i),
    stressed: i < stressed,
    waterlogged: i < waterlogged,
  }));
const of = (
  change: Partial<Inspection>,
  followed: ReturnType<typeof days> = [],
  records = [ground(), stock(), planting()],
) =>
  treeEvidence({ look: look(change), records, basis: spotLife(records, { practice: fieldDefault }), days: followed });

describe('what a tree says of its trouble', () => {
  it('is nothing where nobody looked, but that it is in its first year', () => {
    expect(of({})).toEqual({ seen: ['first_year'], absent: [] });
  });
  it('tells what was seen from what was looked for and not found', () => {
    const { seen, absent = [] } = of({ signs: ['wilting', 'leans'] });
    expect(seen).toEqual(expect.arrayContaining(['wilting']));
    expect(seen).not.toContain('leans');
    expect(absent).toEqual(expect.arrayContaining(['pests', 'trunk_wound', 'pale_leaves']));
  });
  it.each([
    [{ probe: 'slightly_dry' }, 'probe_dry'],
    [{ probe: 'saturated' }, 'probe_wet'],
    [{ flareDepthMm: 24 }, 'flare_visible'],
    [{ flareDepthMm: 75 }, 'flare_deep'],
    [{ circlingRoots: [] }, 'roots_clear'],
    [{ circlingRoots: [{ arc: { fromDeg: 0, toDeg: 90 }, diameterMm: 20 }] }, 'roots_pressing'],
    [{ diebackPct: 10 }, 'dieback'],
    [{ alive: 'dry', aliveAt: { top: 'dry', middle: 'green' } }, 'dieback'],
    [{ signs: ['early_colour'] }, 'early_colour'],
    [{ shootMm: 100, shootBeforeMm: 201 }, 'short_shoots'],
  ] as const)('%j is %s', (change, evidence) => {
    expect(of(change).seen).toContain(evidence);
  });
  it('by the lines of the practice that goes for the tree', () => {
    const deep = rec('override', {
      decidedOn: '2026-06-01',
      path: 'inspection.flare.examineFromMm',
      value: 120,
      reason: 'sand',
    });
    const known = [ground(), stock(), planting()];
    expect(of({ flareDepthMm: 90 }, [], known).seen).toContain('flare_deep');
    expect(of({ flareDepthMm: 90 }, [], [...known, deep]).seen).not.toContain('flare_deep');
    expect(of({ flareDepthMm: 120 }, [], [...known, deep]).seen).toContain('flare_deep');
  });
  it.each([
    [20, undefined, 'seen'],
    [20, 'left', 'seen'],
    // Ten of a hundred are put right by the practice; up to them it is as it should be.
    [10, undefined, 'absent'],
    [undefined, 'left', 'seen'],
    [undefined, 'none_needed', 'absent'],
    [20, 'corrected', 'neither'],
    [undefined, undefined, 'neither'],
  ] as const)(
    'roots that circled over %s %% of the ball, at planting %s: pot-bound is %s',
    (circlingPct, roots, said) => {
      const came = rec('stock', { ...stock().facts, circlingPct } as RecordFacts['stock']);
      const { facts: built } = planting();
      const { seen, absent = [] } = of(
        {},
        [],
        [ground(), came, rec('planting', { ...built, roots } as RecordFacts['planting'])],
      );
      expect([seen.includes('pot_bound'), absent.includes('pot_bound')]).toEqual([said === 'seen', said === 'absent']);
    },
  );
  it('says neither of a flare between, nor of roots that press a little', () => {
    const { seen } = of({ flareDepthMm: 50, circlingRoots: [{ arc: { fromDeg: 0, toDeg: 30 }, diameterMm: 20 }] });
    expect(seen.filter((one) => /flare|roots/.test(one))).toEqual([]);
  });
  it('counts its balance: five days of sixty, up to the day of the look', () => {
    expect(of({}, days(5)).seen).toContain('stress_days');
    expect(of({}, days(4)).absent).toContain('stress_days');
    expect(of({}, days(0, 5)).seen).toContain('waterlogged_days');
    const later = days(20).map((day) => ({ ...day, day: addDaysTo(day.day, 90) }));
    expect(of({}, later)).toEqual({ seen: ['first_year'], absent: [] });
  });
  it('knows slow soil', () => {
    const slow = ground({ percolation: [0, 1, 2, 3].map((i) => ({ minute: i * 60, levelMm: 300 - 3 * i })) });
    expect(of({}, [], [slow, stock(), planting()]).seen).toContain('slow_soil');
  });
  it('together: leaves hang, weeks of drought on record, probed dry', () => {
    const evidence = of({ signs: ['wilting'], probe: 'dry' }, days(20));
    expect(diagnose(evidence).causes[0]?.cause).toBe('too_dry');
  });
});

it.each([
  [{ signs: [] }, false],
  [{ signs: ['leans'] }, false],
  [{ signs: ['wilting'] }, true],
  [{ diebackPct: 9 }, false],
  [{ diebackPct: 10 }, true],
  [{ shootMm: 100, shootBeforeMm: 300 }, true],
] as const)('%j asks for a diagnosis: %s', (change, asks) => {
  expect(asksForDiagnosis(look(change))).toBe(asks);
});
