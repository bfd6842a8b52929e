import { addDaysTo } from '../calendar';
import { droughtDoseL, droughtOf, rootZoneMm, type ClimateDay } from '.';

/** Days of 5 mm of demand, with rain on each so-manieth. */
const days = (count: number, { rainMm = 0, every = 1, resting = false } = {}): ClimateDay[] =>
  Array.from({ length: count }, (_, i) => ({
    day: addDaysTo('2026-06-01', i),
    monthSerial: 0,
    etMm: 5,
    rainMm: i % every === 0 ? rainMm : 0,
    degrees: 10,
    resting,
  }));

it('a full ground lacks nothing', () => {
  expect(droughtOf([], 0.5)).toEqual({ deficitMm: 0, share: 0, level: 'none', since: null });
});
it('half of 120 mm is gone after 24 days at 2.5 mm a day', () => {
  expect(droughtOf(days(23), 0.5).level).toBe('none');
  expect(droughtOf(days(24), 0.5)).toMatchObject({ deficitMm: 60, level: 'watch', since: '2026-06-24' });
});
it('a long dry spell brings thirsty trees back into rounds, and sparing ones later', () => {
  // By hand: 0.85 of it is gone after 38 and 88 days, and two weeks later it is time.
  const summer = days(60);
  expect(droughtOf(summer, 0.7).level).toBe('water');
  expect(droughtOf(summer, 0.3).level).toBe('watch');
});
it('drizzle does not end it, a soaking does', () => {
  const dry = days(100);
  const then = (rainMm: number) => [...dry, ...days(1, { rainMm }).map((one) => ({ ...one, day: '2026-09-20' }))];
  expect(droughtOf(then(2), 0.7).level).toBe('water');
  expect(droughtOf(then(110), 0.7)).toMatchObject({ level: 'none', since: null });
});
it('more rain never makes it drier, more demand never wetter', () => {
  const deficits = [0, 3, 6, 12].map((rainMm) => droughtOf(days(60, { rainMm, every: 5 }), 0.5).deficitMm);
  expect(deficits).toEqual([...deficits].sort((a, b) => b - a));
  const asked = [0.2, 0.4, 0.6, 0.8].map((use) => droughtOf(days(60), use).deficitMm);
  expect(asked).toEqual([...asked].sort((a, b) => a - b));
});
it('never lacks more than the ground holds, and rests in winter', () => {
  expect(droughtOf(days(900), 1).deficitMm).toBeLessThanOrEqual(rootZoneMm);
  expect(droughtOf(days(40, { resting: true }), 0.7).level).toBe('none');
});
it.each([
  [25, 80],
  [60, 120],
  [300, 400],
])('a tree planted at %d mm gets %d L', (caliperMm, litres) => {
  expect(droughtDoseL(caliperMm)).toBe(litres);
});
