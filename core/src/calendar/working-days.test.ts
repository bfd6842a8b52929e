import fc from 'fast-check';
import { addDaysTo } from './calendar';
import { addWorkingDays, isWorkingDay, workingDaysBetween } from './working-days';

const closed = ['01-01', '12-25', '12-26', '2026-04-03', '2026-04-06'];

describe('working days', () => {
  it.each([
    // Calendar of 2026: 2 April is the Thursday before Easter, 24 December a Thursday.
    ['over a weekend', '2026-11-19', 3, '2026-11-24'],
    ['over Easter', '2026-04-02', 1, '2026-04-07'],
    ['over Christmas and the year end', '2026-12-23', 4, '2026-12-30'],
    ['over the new year', '2026-12-31', 1, '2027-01-04'],
    ['backwards over the new year', '2027-01-04', -1, '2026-12-31'],
    ['from a Saturday', '2026-11-21', 1, '2026-11-23'],
    ['none at all', '2026-11-21', 0, '2026-11-21'],
  ])('are counted %s', (_name, from, count, to) => {
    expect(addWorkingDays(from, count, closed)).toBe(to);
  });

  const day = fc.integer({ min: 0, max: 4000 }).map((days) => addDaysTo('2020-01-01', days));
  const count = fc.integer({ min: 1, max: 40 });

  it('land on a working day, and counting them again gives the number asked for', () => {
    fc.assert(
      fc.property(day, count, (from, n) => {
        const to = addWorkingDays(from, n, closed);
        return isWorkingDay(to, closed) && workingDaysBetween(from, to, closed) === n;
      }),
    );
  });

  it('go back the way they came, from a working day', () => {
    fc.assert(
      fc.property(day, count, (from, n) => {
        fc.pre(isWorkingDay(from, closed));
        return addWorkingDays(addWorkingDays(from, n, closed), -n, closed) === from;
      }),
    );
  });

  it('never come sooner for one more holiday', () => {
    fc.assert(
      fc.property(day, count, day, (from, n, extra) => {
        return addWorkingDays(from, n, [...closed, extra]) >= addWorkingDays(from, n, closed);
      }),
    );
  });

  it('refuse a calendar that never opens, and what is no date', () => {
    const everyDay = Array.from({ length: 90 }, (_, i) => addDaysTo('2026-01-01', i));
    expect(() => addWorkingDays('2026-01-01', 1, everyDay)).toThrow('no working day within 60 days');
    expect(() => isWorkingDay('2026-01-01', ['32-01'])).toThrow('holidays[0] must be YYYY-MM-DD or MM-DD');
    expect(() => addWorkingDays('2026-01-01', 1.5, [])).toThrow('count must be a whole number, got 1.5');
  });
});
