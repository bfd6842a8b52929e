import { comingDays } from './coming-days';
import { dayIn, keepDays } from './zone-days';

const key = 'sombra.days';
beforeEach(() => localStorage.clear());

describe('the days of a zone', () => {
  it('begin at midnight there, over a change of the clocks too', () => {
    // Lisbon left summer time at 01:00 UTC on 25 October 2026: that day has 25 hours.
    const begins = comingDays('Europe/Lisbon', Date.UTC(2026, 9, 24, 12));
    expect(begins.slice(0, 4)).toEqual([
      [Date.UTC(2026, 9, 22, 23), '2026-10-23'],
      [Date.UTC(2026, 9, 23, 23), '2026-10-24'],
      [Date.UTC(2026, 9, 24, 23), '2026-10-25'],
      [Date.UTC(2026, 9, 26, 0), '2026-10-26'],
    ]);
    expect(begins).toHaveLength(10);
    expect(() => comingDays('Nowhere/At_all')).toThrow(RangeError);
  });
  it('are looked up where they are kept, and asked of the calendar before, after, and for another zone', () => {
    const noon = Date.UTC(2026, 10, 30, 12);
    // A list no calendar would give shows which of the two was asked.
    const begins = [
      [noon - 1000, '1999-01-01'],
      [noon + 1000, '1999-01-02'],
    ];
    localStorage.setItem(key, JSON.stringify({ timeZone: 'Europe/Lisbon', begins }));
    expect(dayIn('Europe/Lisbon', noon)).toBe('1999-01-01');
    expect(dayIn('Europe/Lisbon', noon - 2000)).toBe('2026-11-30');
    expect(dayIn('Europe/Lisbon', noon + 1000)).toBe('2026-11-30');
    expect(dayIn('Pacific/Kiritimati', noon)).toBe('2026-12-01');
    expect(dayIn('Nowhere/At_all', noon)).toBeNull();
    localStorage.setItem(key, 'not json');
    expect(dayIn('Europe/Lisbon', noon)).toBe('2026-11-30');
  });
  it('are kept once for a week, in the zone asked for last', async () => {
    const kept = () => localStorage.getItem(key);
    const until = async (zone: string) => {
      for (let n = 0; n < 400 && !kept()?.includes(zone); n++) await new Promise((resolve) => setTimeout(resolve, 10));
      expect(kept()).toContain(zone);
    };
    keepDays('Europe/Lisbon');
    await until('Europe/Lisbon');
    const before = kept();
    keepDays('Europe/Lisbon');
    keepDays(undefined);
    await new Promise((resolve) => setTimeout(resolve, 1300));
    expect(kept()).toBe(before);
    keepDays('Pacific/Kiritimati');
    await until('Pacific/Kiritimati');
    expect(dayIn('Pacific/Kiritimati')).toBe(new Date(Date.now() + 14 * 3_600_000).toISOString().slice(0, 10));
  });
});
