import { addDaysTo } from '../calendar';
import type { WeatherDay } from '../weather';
import { mondayOf, seasonWeeks } from './weeks';

const day = (on: string, rainMm: number): WeatherDay => ({
  day: on,
  rainMm,
  tMinC: 12,
  tMaxC: 22,
  humidityMinPct: null,
  humidityMaxPct: null,
  windMs: null,
  radiationMj: null,
});
const days = (from: string, count: number, rainMm: number) =>
  Array.from({ length: count }, (_, i) => day(addDaysTo(from, i), rainMm));
const station = { latDeg: 36.9, elevationM: 40 };

describe('season weeks', () => {
  it.each([
    ['2026-11-23', '2026-11-23'],
    ['2026-11-29', '2026-11-23'],
    ['2027-01-01', '2026-12-28'],
    ['1969-12-31', '1969-12-29'],
  ])('the Monday of %s is %s', (on, monday) => {
    expect(mondayOf(on)).toBe(monday);
  });

  it('sum what was recorded, exactly', () => {
    const [week] = seasonWeeks(
      { recorded: days('2026-11-16', 7, 3), forecast: [], station },
      { from: '2026-11-18', weeks: 1 },
    );
    expect(week).toMatchObject({ monday: '2026-11-16', source: 'recorded' });
    expect(week?.rain).toEqual({ mm: 21, lowMm: 21, highMm: 21 });
    expect(week?.demand.mm).toBeGreaterThan(0);
  });

  it('fill the days no forecast reaches by what earlier years brought', () => {
    // Two days recorded at 1 mm, one forecast at 5 mm; the same week brought 14 and 28 mm in earlier years.
    const recorded = [...days('2025-11-20', 10, 2), ...days('2024-11-20', 10, 4), ...days('2026-11-23', 2, 1)];
    const [week] = seasonWeeks(
      { recorded, forecast: [day('2026-11-25', 5)], station },
      { from: '2026-11-23', weeks: 1 },
    );
    expect(week?.source).toBe('forecast');
    expect(week?.rain.mm).toBeCloseTo(2 + 5 + (4 / 7) * 21, 9);
    expect(week?.rain.lowMm).toBeCloseTo(2 + (5 / 7) * 14, 9);
    expect(week?.rain.highMm).toBeCloseTo(2 + (5 / 7) * 28, 9);
  });

  it('say so when nothing is known at all', () => {
    const [week] = seasonWeeks({ recorded: [], forecast: [], station }, { from: '2026-11-23', weeks: 1 });
    expect(week).toMatchObject({ source: 'unknown', rain: { mm: 0 } });
  });
});
