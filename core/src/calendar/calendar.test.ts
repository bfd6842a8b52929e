import fc from 'fast-check';
import { addDaysTo, addMonthsTo, daysBetween, earliest, monthsBetween } from './calendar';

const anyDay = fc
  .date({ min: new Date('1950-01-01T00:00:00Z'), max: new Date('2100-12-31T00:00:00Z'), noInvalidDate: true })
  .map((date) => date.toISOString().slice(0, 10));

describe('calendar', () => {
  it.each([
    ['2024-01-31', 1, '2024-02-29'],
    ['2023-01-31', 1, '2023-02-28'],
    ['2026-11-30', 3, '2027-02-28'],
    ['2026-03-15', -3, '2025-12-15'],
    ['2026-12-31', 12, '2027-12-31'],
  ])('%s and %d months is %s', (date, months, result) => {
    expect(addMonthsTo(date, months)).toBe(result);
  });

  it.each([
    ['2026-03-28', 2, '2026-03-30'],
    ['2024-02-28', 1, '2024-02-29'],
    ['2026-12-31', 1, '2027-01-01'],
    ['2026-10-24', 2, '2026-10-26'],
  ])('%s and %d days is %s, clocks changing or not', (date, days, result) => {
    expect(addDaysTo(date, days)).toBe(result);
  });

  it('counts back what it added', () => {
    fc.assert(
      fc.property(anyDay, fc.integer({ min: -4000, max: 4000 }), (date, days) => {
        expect(daysBetween(date, addDaysTo(date, days))).toBe(days);
      }),
    );
  });

  it('counts whole months, and none where time runs backwards', () => {
    expect(monthsBetween('2025-06-02', '2026-06-01')).toBe(11);
    expect(monthsBetween('2025-06-01', '2026-06-01')).toBe(12);
    expect(monthsBetween('2026-06-01', '2025-06-01')).toBe(0);
  });

  it('completes a month on its last day where it has no such day', () => {
    expect(monthsBetween('2023-01-31', '2023-02-28')).toBe(1);
    expect(monthsBetween('2022-09-29', '2024-02-28')).toBe(16);
    expect(monthsBetween('2022-09-30', '2024-02-29')).toBe(17);
    expect(monthsBetween('2024-02-29', '2024-03-28')).toBe(0);
  });

  it('counts the months that can be added without coming past the day', () => {
    fc.assert(
      fc.property(anyDay, fc.integer({ min: 0, max: 6000 }), (from, days) => {
        const to = addDaysTo(from, days);
        const months = monthsBetween(from, to);
        expect(addMonthsTo(from, months) <= to).toBe(true);
        expect(addMonthsTo(from, months + 1) > to).toBe(true);
      }),
      { numRuns: 2000 },
    );
  });

  it('finds the earliest, and none among none', () => {
    expect(earliest(['2026-06-02', '2025-12-31', '2026-01-01'])).toBe('2025-12-31');
    expect(earliest([])).toBeUndefined();
  });

  it.each(['2026-02-30', '26-01-01', '2026/01/01', '', '2026-01-01T00:00:00Z'])('refuses %p as a date', (text) => {
    expect(() => addDaysTo(text, 1)).toThrow('date must be a date YYYY-MM-DD');
  });

  it.each([NaN, Infinity, -400_000])('refuses %d days or months', (count) => {
    expect(() => addDaysTo('2026-01-01', count)).toThrow('days must be within');
    expect(() => addMonthsTo('2026-01-01', count)).toThrow('months must be within');
  });
});
