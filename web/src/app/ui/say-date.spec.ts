import { sayHours, sayLateness, saySeason } from './say-date';

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
