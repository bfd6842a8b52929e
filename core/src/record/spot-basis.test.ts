import { fieldDefault, presets, withChoice, type ChoiceValue, type Practice } from '../practice';
import { defaultWorkRules, pitPlan } from '../pit';
import { mildWinterWindows } from '../season';
import { bareRoot, container, fall, openLoam } from '../../testing/checked-case';
import { judgeInspection, type Inspection } from '../inspect';
import type { RecordFacts, RecordKind } from './kinds';
import type { FieldRecord } from './record';
import { basisWith, type SpotContext } from './spot-basis';
import { wholePlan } from './whole-plan';
import { judgePlanting, lookContext, spotLife } from './spot-life';

let made = 0;
function rec<K extends RecordKind>(kind: K, facts: RecordFacts[K]): FieldRecord {
  made += 1;
  const recordedAt = new Date(1.8e12 + made * 60_000).toISOString();
  return { id: `b${String(made).padStart(4, '0')}`, kind, facts, supersedes: null, recordedAt } as FieldRecord;
}
const override = (path: string, value: ChoiceValue) =>
  rec('override', { path, value, reason: 'as told', decidedOn: '2026-01-02' });
const planting: RecordFacts['planting'] = {
  plantedOn: '2026-01-10',
  flareAboveGradeMm: [40],
  holeWidthMm: 1125,
  firstWaterL: 52,
  practiceId: 'field-default',
  practiceVersion: 1,
};
const look: Inspection = {
  inspectedOn: '2026-03-01',
  flareDepthMm: 40,
  mulchDepthMm: null,
  mulchContact: null,
  stake: null,
  probe: null,
  circlingRoots: null,
};
const ground = rec('ground', openLoam);
const stock = rec('stock', container);
const life = (records: readonly FieldRecord[], context: Partial<SpotContext> = {}) =>
  spotLife(records, { practice: fieldDefault, ...context });

describe('what a spot goes by', () => {
  it('judges a look by the programme with what was decided otherwise here, in a form as in the record', () => {
    const records = [ground, stock, override('inspection.flare.clearFromMm', 60), rec('planting', planting)];
    const basis = life(records);
    const typed = judgeInspection(look, lookContext(basis, planting.plantedOn));
    const stored = life([...records, rec('inspection', look)]).inspections[0]?.verdict;
    expect(typed).toEqual(stored);
    // 40 mm are less than the 60 from which it is cleared here; by the programme's 25 they are not.
    expect(stored?.findings[0]).toMatchObject({ level: 'watch', remedy: 'watch_yearly_clear' });
    const usual = life([ground, stock, rec('planting', planting), rec('inspection', look)]).inspections[0]?.verdict;
    expect(usual?.findings[0]).toMatchObject({ level: 'act', remedy: 'clear_to_flare' });
  });

  it('plans, draws and judges the pit with the soil that was put back', () => {
    const built = { ...planting, putBackMm: 100, flareAboveGradeMm: [50] };
    const planted = life([ground, stock, rec('planting', built)]);
    // A tenth of 100 mm still settles: 40 + 10 mm.
    expect(planted.plan).toMatchObject({ proudMm: { value: 50 }, fillUnderBallMm: 100 });
    expect(wholePlan(planted, { work: defaultWorkRules })).toMatchObject({ pit: planted.plan });
    expect(planted.planting?.judgement.findings.map(({ because }) => because.code)).toContain('flare_as_planned');
    // What is typed before it is stored is judged alike.
    const before = life([ground, stock]);
    expect(judgePlanting(built, basisWith(before, { putBackMm: 100 }))).toEqual(planted.planting?.judgement);
  });

  it('takes the lines of drainage from the override, for the place as for the pit', () => {
    const records = [ground, stock, override('percolation.goodFromMmPerH', 80)];
    const basis = life(records);
    expect([basis.drainage.goodFromMmPerH, basis.percolation]).toEqual([80, 'slow']);
    expect(basis.plan).toMatchObject({ berm: null });
  });

  it('keeps care and pit apart once it is planted: one by today, one by its planting', () => {
    const ours = { ...withChoice(fieldDefault, 'inspection.flare.clearFromMm', 30), id: 'ours' };
    const planted = life([ground, stock, rec('planting', planting)], { practice: ours, plantedUnder: fieldDefault });
    expect([planted.care.id, planted.practice.id]).toEqual(['ours', 'field-default']);
    const before = life([ground, stock], { practice: ours, plantedUnder: fieldDefault });
    expect(before.practice.id).toBe('ours');
  });

  it('plans the pit once: the whole plan is made on it', () => {
    const basis = life([ground, stock]);
    const whole = wholePlan(basis, { work: defaultWorkRules });
    expect(whole?.kind === 'plan' && whole.pit).toBe(basis.plan);
    expect(wholePlan(life([ground]), { work: defaultWorkRules })).toBeNull();
  });

  it.each(presets.map((preset): [string, Practice] => [preset.id, preset]))(
    'is the same pit as by itself under %s',
    (_id, practice) => {
      const measured = practice.appliesTo.includes('container') ? container : bareRoot;
      const basis = life([ground, rec('stock', measured)], { practice });
      const alone = pitPlan({ ground: openLoam, stock: measured, practice, dormant: true });
      expect(basis.plan).toEqual(alone);
    },
  );

  it('sets aside an override that the practice of another day contradicts', () => {
    const slow = override('percolation.slowFromMmPerH', 20);
    expect(life([ground, slow]).setAside).toEqual([]);
    const practice = withChoice(
      withChoice(fieldDefault, 'percolation.slowFromMmPerH', 5),
      'percolation.goodFromMmPerH',
      15,
    );
    const now = life([ground, slow], { practice });
    expect(now.setAside).toMatchObject([{ path: 'percolation.slowFromMmPerH', value: 20 }]);
    expect(now.drainage).toMatchObject({ slowFromMmPerH: 5, goodFromMmPerH: 15 });
  });

  it('knows whether a tree rests on its day, and gives resting bare roots no soak in slow soil', () => {
    const slow = rec('ground', { ...openLoam, percolation: fall(12) });
    const soak = (plantOn: string | null) => {
      const basis = life([slow, rec('stock', bareRoot)], { windows: mildWinterWindows, plantOn });
      return [basis.dormant, basis.plan?.kind === 'plan' && basis.plan.firstWaterL.value > 0];
    };
    expect([soak('2026-01-10'), soak('2026-05-10'), soak(null)]).toEqual([
      [true, false],
      [false, true],
      [true, false],
    ]);
  });

  it('reads a percolation test that went on too long as far as it says something', () => {
    const filledAt = '2026-01-01T08:00:00Z';
    const at = (hours: number) => new Date(Date.parse(filledAt) + hours * 3_600_000).toISOString();
    const readings = [0, 0.5, 1, 1.5, 60].map((hours, i) => ({ at: at(hours), levelMm: 300 - 20 * i }));
    const test = { testedOn: '2026-01-01', holeDepthMm: 400, soakedAt: null, filledAt, readings };
    expect(life([ground, rec('percolation', test)]).ground.percolation.map(({ minute }) => minute)).toEqual([
      0, 30, 60, 90,
    ]);
  });

  it('leaves looks from before a replanting out of what the tree is judged by', () => {
    const early = rec('inspection', { ...look, inspectedOn: '2026-02-01', flareDepthMm: 200 });
    const records = [
      ground,
      stock,
      rec('planting', planting),
      early,
      rec('planting', { ...planting, plantedOn: '2026-02-20' }),
    ];
    expect(life(records).inspections).toEqual([]);
    expect(life(records).level).toBe('good');
  });

  it('knows autumn and the noon sun by its latitude, and leaves manure out then, in a form as in the record', () => {
    const manured = withChoice(withChoice(fieldDefault, 'backfill.material', 'manure'), 'backfill.share', 0.2);
    const mixed = (plantOn: string | null, latDeg: number | undefined) => {
      const { plan, sunDeg } = life([ground, stock], { practice: manured, plantOn, latDeg });
      return [plan?.kind === 'plan' && plan.amendments.each.length, sunDeg];
    };
    expect(mixed('2026-10-10', 38)).toEqual([0, 180]);
    expect(mixed('2026-10-10', -38)).toEqual([1, 0]);
    expect(mixed('2026-04-10', -38)).toEqual([0, 0]);
    expect(mixed('2026-10-10', 5)).toEqual([1, null]);
    expect(mixed(null, 38)).toEqual([1, 180]);
    expect(mixed('2026-10-10', undefined)).toEqual([1, null]);
  });

  it('reads what was decided when a practice had one feed, and a yes or no for watering in winter', () => {
    const fed = withChoice(fieldDefault, 'backfill.feeds.edge', 'slow_pellets');
    const at = (path: string, value: string | boolean) =>
      life([ground, stock, override(path, value)], { practice: fed }).practice;
    expect(at('backfill.fertiliser', 'root_drench').backfill.feeds).toEqual({
      ...fieldDefault.backfill.feeds,
      drench: 'root_drench',
    });
    expect(at('backfill.fertiliser', 'none').backfill.feeds).toEqual(fieldDefault.backfill.feeds);
    expect(at('routine.dormant', true).routine.dormant).toBe('until_freeze');
  });
});
