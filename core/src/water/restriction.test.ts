import { defaultWateringRules, isRestricted, wateringLeave, type WateringRules } from '.';

/** Monday, Wednesday and Friday, from six in the evening to eight in the morning. */
const strict: WateringRules = {
  days: { mon: true, tue: false, wed: true, thu: false, fri: true, sat: false, sun: false },
  fromHour: 18,
  untilHour: 8,
  handFree: true,
};
const codes = (rules: WateringRules, day: string, by: 'hand' | 'truck' | 'valve') =>
  wateringLeave(rules, day, by).because.map(({ code }) => code);

it.each([
  ['Monday', '2026-06-01', true, '2026-06-01'],
  ['Tuesday', '2026-06-02', false, '2026-06-03'],
  ['Saturday', '2026-06-06', false, '2026-06-08'],
])('a truck on a %s', (_name, day, may, nextOn) => {
  expect(wateringLeave(strict, day, 'truck')).toMatchObject({ may, nextOn });
});
it('what is poured by hand may be free of it', () => {
  expect(wateringLeave(strict, '2026-06-02', 'hand')).toEqual({ may: true, nextOn: '2026-06-02', because: [] });
  expect(wateringLeave({ ...strict, handFree: false }, '2026-06-02', 'hand').may).toBe(false);
});
it('says the day and the hours', () => {
  expect(codes(strict, '2026-06-02', 'valve')).toEqual(['restricted_day', 'restricted_hours']);
  expect(codes(strict, '2026-06-01', 'truck')).toEqual(['restricted_hours']);
});
it('a week without a day allows nothing', () => {
  const none = { ...strict, days: { ...strict.days, mon: false, wed: false, fri: false } };
  expect(wateringLeave(none, '2026-06-01', 'truck')).toMatchObject({ may: false, nextOn: null });
});
it('nothing is restricted before somebody says so', () => {
  expect(isRestricted(defaultWateringRules)).toBe(false);
  expect(isRestricted(strict)).toBe(true);
  expect(wateringLeave(defaultWateringRules, '2026-06-02', 'truck')).toMatchObject({ may: true, because: [] });
});
