import { addDaysTo } from '../calendar';
import { sensorDay, type SensorDay, type SensorValue } from '.';

const day = '2026-07-20';
/** A value an hour, falling through the day by so much. */
const hours = (share: number, { fall = 0.05, count = 24 } = {}): SensorValue[] =>
  Array.from({ length: count }, (_, i) => ({
    at: `${day}T${String(i).padStart(2, '0')}:00:00Z`,
    share: share - (fall * i) / 23,
  }));
const flagOf = (
  values: readonly SensorValue[],
  before: readonly SensorDay[] = [],
  expected?: ReadonlyMap<string, number>,
) => sensorDay(day, values, before, expected).flag;
const days = (count: number, shareOf: (i: number) => number): SensorDay[] =>
  Array.from({ length: count }, (_, i) => ({
    day: addDaysTo(day, i - count),
    share: shareOf(i),
    values: 24,
    flag: null,
  }));

it('a sound day is the middle of its values', () => {
  expect(
    sensorDay(
      day,
      hours(0.7, { fall: 0 }),
      days(3, () => 0.75),
    ),
  ).toEqual({ day, share: 0.7, values: 24, flag: null });
  const values = [0.1, 0.2, 0.3, 0.4, 0.5, 0.6].map((share, i) => ({ at: `${day}T0${i}:00:00Z`, share }));
  expect(sensorDay(day, values).share).toBeCloseTo(0.35, 9);
});
it.each([
  ['nothing', [], 'silent'],
  ['five values of a day', hours(0.7, { count: 5 }), 'silent'],
  ['a value under nothing', [...hours(0.7), { at: `${day}T23:30:00Z`, share: -3 }], 'out_of_range'],
  ['a fall no ball makes', [...hours(0.9), { at: `${day}T23:30:00Z`, share: 0.2 }], 'jumps'],
] as const)('%s is not believed: %s', (_words, values, flag) => {
  expect(flagOf(values)).toBe(flag);
});
it('a rise is a watering, not a jump', () => {
  expect(flagOf([...hours(0.3), { at: `${day}T23:30:00Z`, share: 1.1 }])).toBeNull();
});
it('one value for three days hangs, for two it may be a quiet winter', () => {
  const still = hours(0.5, { fall: 0 });
  expect(
    flagOf(
      still,
      days(2, () => 0.5),
    ),
  ).toBe('stuck');
  expect(
    flagOf(
      still,
      days(1, () => 0.5),
    ),
  ).toBeNull();
  expect(
    flagOf(
      hours(0.5),
      days(2, () => 0.5),
    ),
  ).toBeNull();
});
it('a slow run away from the balance is a drift, a tree that is always wetter is not', () => {
  const expected = new Map(Array.from({ length: 15 }, (_, i) => [addDaysTo(day, i - 14), 0.5]));
  expect(
    flagOf(
      hours(1.1),
      days(14, (i) => 0.5 + i * 0.045),
      expected,
    ),
  ).toBe('drifts');
  expect(
    flagOf(
      hours(0.72),
      days(14, () => 0.7),
      expected,
    ),
  ).toBeNull();
  expect(
    flagOf(
      hours(1.1),
      days(14, (i) => 0.5 + i * 0.045),
    ),
  ).toBeNull();
});
