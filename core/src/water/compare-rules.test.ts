import { fieldDefault, presets } from '../practice';
import { middlingCrown } from '../match';
import { mildWinterWindows } from '../season';
import type { Stock } from '../stock';
import { addDaysTo } from '../calendar';
import {
  compareRules,
  doseL,
  daysFrom,
  rootBlock,
  triedRules,
  tryRule,
  waterClimate,
  type RuleTrialInput,
  type TriedRule,
  type WaterSubject,
} from '.';

const stock: Stock = {
  kind: 'container',
  caliperMm: 50,
  heightM: 3,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  topRootsDepthMm: 60,
};
const plantedOn = '2026-01-10';
const subject: WaterSubject = {
  block: rootBlock(stock),
  kind: 'container',
  soil: 'loam',
  percolation: 'good',
  plantedOn,
  heightAtPlantingM: 3,
  crown: middlingCrown,
  use: 0.6,
  surface: 0.12,
  came: { share: 0.9, errorShare: 0.25 },
};
/** A dry year, warm from May to September, with a shower every tenth day in winter. */
const weather = Array.from({ length: 300 }, (_, i) => {
  const day = addDaysTo(plantedOn, i);
  const warm = day.slice(5) > '05-01' && day.slice(5) < '09-30';
  return {
    day,
    rainMm: !warm && i % 10 === 0 ? 12 : 0,
    tMinC: warm ? 17 : 8,
    tMaxC: warm ? 31 : 15,
    humidityMinPct: null,
    humidityMaxPct: null,
    windMs: null,
    radiationMj: null,
  };
});
const climate = waterClimate(
  { station: { latDeg: 36.9, elevationM: 40 }, recorded: weather, forecast: [] },
  { windows: mildWinterWindows, today: '2027-01-01' },
).past;
const input: RuleTrialInput = { subject, stock, ringM2: 1.1, practice: fieldDefault, latDeg: 36.9, climate };
const trial = (rule: TriedRule, change: Partial<RuleTrialInput> = {}) => tryRule(rule, { ...input, ...change });
const litresBy = (days: { day: string; dosesL: number }[]) => days.filter(({ dosesL }) => dosesL > 0);

it('tries every rule there is, and nobody coming', () => {
  expect(compareRules(input).map(({ rule }) => rule)).toEqual([...triedRules]);
});

it('without anybody the tree suffers most, and costs nothing', () => {
  const none = trial('none');
  expect([none.litres, none.visits]).toEqual([0, 0]);
  for (const one of compareRules(input)) expect(one.stressDays).toBeLessThanOrEqual(none.stressDays);
});

it('by the balance nobody comes before half is gone, and hardly a day is one of stress', () => {
  const balance = trial('balance');
  expect(balance.visits).toBeGreaterThan(5);
  expect(balance.stressDays).toBeLessThan(trial('none').stressDays / 3);
  const [first] = litresBy([...balance.days].slice(1));
  const before = balance.days[balance.days.findIndex(({ day }) => day === first?.day) - 1];
  expect(before?.supply).toBeLessThan(0.5);
  expect(before?.asks).toBe(true);
});

it('a large dose by caliper is 40 L for 50 mm and 20 L for each 25 mm, once a week while it grows', () => {
  const practice = { ...fieldDefault, routine: { ...fieldDefault.routine, lPer25Mm: 20, visitsPerWeek: 1 } };
  const large = trial('large_by_caliper', { practice });
  expect(large.litres / large.visits).toBeCloseTo(40, 9);
  const days = litresBy([...large.days].slice(1)).map(({ day }) => day);
  const gaps = days.slice(1).map((day, i) => (Date.parse(day) - Date.parse(days[i] ?? day)) / 86_400_000);
  expect(new Set(gaps)).toEqual(new Set([7]));
});

it('a fixed weekly volume is more in summer, and summer is half a year later in the south', () => {
  const practice = {
    ...fieldDefault,
    routine: { ...fieldDefault.routine, weeklyL: 30, visitsPerWeek: 1, summerFactor: 2 },
  };
  const given = (latDeg: number, month: string) => {
    const found = trial('weekly_volume', { practice, latDeg })
      .days.slice(1)
      .find(({ day, dosesL }) => day.slice(5, 7) === month && dosesL > 0);
    return found?.dosesL ?? 0;
  };
  expect(given(36.9, '07')).toBeCloseTo(2 * 30 * 0.9, 9);
  expect(given(36.9, '04')).toBeCloseTo(30 * 0.9, 9);
  expect(given(-36.9, '07')).toBeCloseTo(30 * 0.9, 9);
});

it('a week with the rain it asks for needs no visit', () => {
  const wet = climate.map((day) => ({ ...day, rainMm: 5 }));
  expect(trial('rain_equal_ball', { climate: wet }).visits).toBe(0);
  expect(trial('rain_equal_ball').visits).toBeGreaterThan(10);
});

it('tapers: daily, then every other day, then weekly', () => {
  // From May on, when nothing rests.
  const from = daysFrom(climate, '2026-05-02', 120);
  const days = litresBy([...trial('tapering', { climate: from }).days].slice(1)).map(({ day }) => day);
  const within = (a: number, b: number) =>
    days.filter((day) => day >= addDaysTo('2026-05-02', a) && day < addDaysTo('2026-05-02', b)).length;
  expect(within(0, 14)).toBeGreaterThanOrEqual(13);
  expect(Math.abs(within(14, 84) - 35)).toBeLessThanOrEqual(1);
  expect(Math.abs(within(84, 119) - 5)).toBeLessThanOrEqual(1);
});

it('waits for growth where the rule says so, and rests where the practice does', () => {
  const first = (rule: TriedRule, change: Partial<RuleTrialInput> = {}) =>
    litresBy([...trial(rule, change).days].slice(1))[0]?.day ?? '';
  const resting = climate.filter((day) => day.resting).map(({ day }) => day);
  expect(first('until_growth') > (resting.at(-1) ?? '')).toBe(true);
  const dry = { ...fieldDefault, routine: { ...fieldDefault.routine, dormant: 'until_freeze' as const } };
  expect(first('large_by_caliper', { practice: dry }) < (resting.at(-1) ?? '')).toBe(true);
});

it('drowns a tree in ground that takes no water, by a rule that does not ask', () => {
  const standing = { ...subject, percolation: 'stands' as const };
  const fixed = trial('weekly_volume', {
    subject: standing,
    practice: { ...fieldDefault, routine: { ...fieldDefault.routine, weeklyL: 120, visitsPerWeek: 3 } },
  });
  expect(fixed.waterloggedDays).toBeGreaterThan(20);
  expect(trial('balance', { subject: standing }).waterloggedDays).toBeLessThan(fixed.waterloggedDays);
});

it('a probe that decides is asked at its interval, whether or not it finds the ball dry', () => {
  const practice = { ...fieldDefault, routine: { ...fieldDefault.routine, probeEveryDays: 10 } };
  expect(trial('probe_only', { practice }).visits).toBe(Math.floor((climate.length - 1) / 10));
});

it.each(presets.map((practice) => [practice.name, practice] as const))('runs by %s', (_name, practice) => {
  for (const one of compareRules({ ...input, practice })) {
    expect(Number.isFinite(one.litres)).toBe(true);
    expect(one.days).toHaveLength(climate.length);
  }
});

describe('a dose', () => {
  const now = { ballL: 4, soilShortL: 500 };
  const holdsL = 0.25 * subject.block.volumeL;
  it('fills ball and soil beside it, as much again as the ball holds at most; nine tenths of it arrive', () => {
    expect(doseL(subject, now)).toBeCloseTo((holdsL - 4 + holdsL) / 0.9, 9);
    expect(doseL(subject, { ...now, soilShortL: 3 })).toBeCloseTo((holdsL - 4 + 3) / 0.9, 9);
    expect(doseL(subject, { ballL: holdsL + 5, soilShortL: 0 })).toBe(0);
  });
  it.each(['slow', 'stands'] as const)('fills the ball alone where drainage is %s', (percolation) => {
    expect(doseL({ ...subject, percolation }, now)).toBeCloseTo((holdsL - 4) / 0.9, 9);
  });
});
