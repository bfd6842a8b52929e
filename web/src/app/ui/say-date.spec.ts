import { localMoment, sayAbout, sayDate, sayDay, sayHours, sayLateness, sayMoment, saySeason } from './say-date';

it.each([
  [0, '0 h 00'],
  [65, '1 h 05'],
  [119.4, '1 h 59'],
  [179.6, '3 h 00'],
])('%d minutes are %s', (minutes, said) => {
  expect(sayHours(minutes)).toBe(said);
});
it.each([
  [0, 'today'],
  [1, '1 day late'],
  [-3, 'in 3 days'],
])('%d days late is %s', (days, said) => {
  expect(sayLateness(days)).toBe(said);
});
it.each([
  [2025, '2025/26'],
  [2099, '2099/00'],
])('the season of %d is %s', (season, said) => {
  expect(saySeason(season)).toBe(said);
});
it('days and moments are said in one way', () => {
  expect([sayDate('2026-11-27'), sayDay('2026-09-01'), sayDay('')]).toEqual(['Fri 27 Nov 2026', '1 Sep 2026', '']);
  const at = new Date(2026, 10, 7, 6, 5);
  expect([localMoment(at.getTime()), sayMoment(at.toISOString())]).toEqual(['2026-11-07T06:05', '7 Nov 2026, 06:05']);
});
it.each([
  [60_000, '1 minute'],
  [-45 * 60_000, '45 minutes'],
  [3 * 3_600_000, '3 hours'],
  [26 * 86_400_000, '26 days'],
])('%d ms are about %s', (ms, said) => {
  expect(sayAbout(ms)).toBe(said);
});
