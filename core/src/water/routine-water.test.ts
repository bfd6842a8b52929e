import { fieldDefault, presets, withChoice, type ChoiceValue, type RoutineRule } from '../practice';
import type { Stock } from '../stock';
import { routineWater, type RoutineInput } from './routine-water';

const stock: Stock = {
  kind: 'container',
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  topRootsDepthMm: 0,
};
const weekly = (
  rule: RoutineRule,
  made: Readonly<Record<string, ChoiceValue>> = {},
  percolation: 'good' | 'slow' = 'good',
) => {
  const practice = Object.entries({ 'routine.rule': rule, ...made }).reduce(
    (one, [path, value]) => withChoice(one, path, value),
    fieldDefault,
  );
  return routineWater({ stock, percolation, ringM2: (Math.PI / 4) * 1.2 ** 2, practice });
};

const asked = (rule: RoutineRule): RoutineInput => ({
  stock,
  percolation: 'good',
  ringM2: 1,
  practice: withChoice(fieldDefault, 'routine.rule', rule),
});

describe('water by the schools, for one tree of 50 mm caliper', () => {
  it('a small dose by caliper, half as often in slow soil', () => {
    // 8 L for each 25 mm: 16 L a visit.
    expect(weekly('small_by_caliper', { 'routine.visitsPerWeek': 2 })).toMatchObject({ perVisitL: 16, weeklyL: 32 });
    expect(weekly('small_by_caliper', { 'routine.visitsPerWeek': 2 }, 'slow')).toMatchObject({ weeklyL: 16 });
  });
  it('a large dose by caliper once a week, whatever the soil', () => {
    expect(weekly('large_by_caliper', { 'routine.lPer25Mm': 40 }, 'slow')).toMatchObject({
      perVisitL: 80,
      weeklyL: 80,
    });
  });
  it('25 mm of rain over the ring, or over the ball: the area makes it seven times as much', () => {
    // π/4·1.2² m² × 25 mm, and π/4·0.45² m² × 25 mm.
    expect(weekly('rain_equal').weeklyL).toBeCloseTo(28.27, 2);
    expect(weekly('rain_equal_ball').weeklyL).toBeCloseTo(3.976, 3);
  });
  it('a fixed volume, and more of it in summer', () => {
    const { weeklyL, because } = weekly('weekly_volume');
    expect(weeklyL).toBe(40);
    expect(because.find(({ code }) => code === 'routine_summer')?.facts).toEqual({ weeklyL: 60 });
  });
  it('daily, then every other day, then weekly: 63 visits in 26 weeks', () => {
    // 2 × 7 + 10 × 3.5 + 14 × 1 = 63.
    expect(weekly('tapering').visitsPerWeek).toBeCloseTo(63 / 26, 9);
  });
  it('no rule where balance or probe decide', () => {
    expect(weekly('balance').weeklyL).toBeNull();
    expect(weekly('probe_only').weeklyL).toBeNull();
  });
  it('gives a dose by caliper once growth begins, none before', () => {
    // 8 L for each 25 mm, once a week.
    const { weeklyL, because } = weekly('until_growth');
    expect(weeklyL).toBe(16);
    expect(because.find(({ code }) => code === 'routine_from_growth')?.facts).toEqual({ perVisitL: 16 });
  });
  it('takes the share of visits in slow soil from the practice', () => {
    const asked = { 'routine.visitsPerWeek': 2, 'routine.slowVisitsShare': 1 };
    expect(weekly('small_by_caliper', asked, 'slow')).toMatchObject({ visitsPerWeek: 2, weeklyL: 32 });
    expect(weekly('small_by_caliper', { ...asked, 'routine.slowVisitsShare': 0.25 }, 'slow').visitsPerWeek).toBe(0.5);
  });
  it('comes to Heavy clay once a week in the slow soil it is made for', () => {
    const practice = presets.find(({ id }) => id === 'heavy-clay') ?? fieldDefault;
    expect(routineWater({ stock, percolation: 'slow', ringM2: 1, practice }).visitsPerWeek).toBe(1);
  });
  it.each(['none', 'until_freeze', 'growing_months', 'dry_spells'])(
    'says what is given while the tree sleeps: %s',
    (watering) => {
      expect(weekly('weekly_volume', { 'routine.dormant': watering }).because).toContainEqual({
        code: 'routine_dormant',
        facts: { watering },
      });
    },
  );
  it('visits fast soil more often, not only slow soil less, by rules that go by soil', () => {
    const visits = (percolation: RoutineInput['percolation'], rule: RoutineRule = 'small_by_caliper') =>
      routineWater({ ...asked(rule), percolation }).visitsPerWeek ?? 0;
    expect(visits('fast') / visits('good')).toBeCloseTo(1.5, 9);
    expect(visits('slow') / visits('good')).toBeCloseTo(0.5, 9);
    expect(visits('fast', 'large_by_caliper')).toBe(visits('good', 'large_by_caliper'));
  });
  it('visits more often where a neighbour drinks in the pit, and names it', () => {
    const neighbourRoots = { species: 'Tilia tomentosa', distanceM: 5, thickestMm: 30 };
    const alone = routineWater(asked('small_by_caliper'));
    const beside = routineWater({ ...asked('small_by_caliper'), neighbourRoots });
    expect((beside.visitsPerWeek ?? 0) / (alone.visitsPerWeek ?? 1)).toBeCloseTo(1.25, 9);
    expect(beside.because).toContainEqual({
      code: 'routine_competition',
      facts: { times: 1.25, distanceM: 5, species: 'Tilia tomentosa' },
    });
  });
  it('goes on from the nursery’s rhythm: daily, and twice the gap each week until it is the rule’s', () => {
    const arrival = { covered: true, moist: true, wateredEveryDays: 1 };
    const weaned = routineWater({ ...asked('small_by_caliper'), stock: { ...stock, arrival } });
    // One, two, four, then seven days: three weeks.
    expect(weaned.firstWeeks).toEqual({ everyDays: 1, weeks: 3 });
    expect(weaned.because.at(-1)).toEqual({ code: 'routine_wean', facts: { everyDays: 1, weeks: 3, gapDays: 7 } });
    const rarely = { ...arrival, wateredEveryDays: 10 };
    expect(routineWater({ ...asked('small_by_caliper'), stock: { ...stock, arrival: rarely } }).firstWeeks).toBeNull();
    expect(weekly('small_by_caliper').firstWeeks).toBeNull();
  });
  it('weans to once a week where the practice gives nothing by its rule', () => {
    const arrival = { covered: true, moist: true, wateredEveryDays: 1 };
    const practice = withChoice(asked('small_by_caliper').practice, 'routine.visitsPerWeek', 0);
    const weaned = routineWater({ ...asked('small_by_caliper'), practice, stock: { ...stock, arrival } });
    expect(weaned).toMatchObject({ visitsPerWeek: 0, firstWeeks: { everyDays: 1, weeks: 3 } });
  });
  it('begins closer where a tree came dry or uncovered, whatever it was used to', () => {
    for (const arrival of [
      { covered: true, moist: false, wateredEveryDays: 3 },
      { covered: false, moist: null, wateredEveryDays: null },
    ]) {
      expect(routineWater({ ...asked('small_by_caliper'), stock: { ...stock, arrival } }).firstWeeks).toEqual({
        everyDays: 2,
        weeks: 3,
      });
    }
  });
  it('takes a week of rain as deep as the practice says', () => {
    const litres = (rainMm: number) => weekly('rain_equal', { 'routine.rainMm': rainMm }).weeklyL ?? 0;
    expect(litres(50)).toBeCloseTo(2 * litres(25), 9);
  });
  it('asks the probe at its interval where the probe alone decides', () => {
    expect(weekly('probe_only', { 'routine.probeEveryDays': 5 }).because).toContainEqual({
      code: 'routine_probe',
      facts: { everyDays: 5 },
    });
    expect(weekly('balance').because.map(({ code }) => code)).not.toContain('routine_probe');
  });
});
