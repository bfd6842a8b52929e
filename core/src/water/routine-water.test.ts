import { fieldDefault, presets, withChoice, type ChoiceValue, type RoutineRule } from '../practice';
import type { Stock } from '../stock';
import { routineWater } from './routine-water';

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
  it('says that nothing is given while the tree sleeps, unless the practice waters then too', () => {
    const codes = (dormant: boolean) =>
      weekly('weekly_volume', { 'routine.dormant': dormant }).because.map(({ code }) => code);
    expect([codes(false).includes('routine_dormant'), codes(true).includes('routine_dormant')]).toEqual([true, false]);
  });
});
