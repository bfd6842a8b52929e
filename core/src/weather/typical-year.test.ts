import { addDaysTo, type IsoDate } from '../calendar';
import { typicalDays, typicalYear, type WeatherDay } from '.';

const station = { latDeg: 36.9, elevationM: 40 };
/** Days from one to another, with rain and a maximum told by the day. */
function weather(from: IsoDate, to: IsoDate, of: (day: IsoDate) => Partial<WeatherDay> = () => ({})): WeatherDay[] {
  const days: WeatherDay[] = [];
  for (let day = from; day <= to; day = addDaysTo(day, 1)) {
    const dry = { humidityMinPct: null, humidityMaxPct: null, windMs: null, radiationMj: null };
    days.push({ day, rainMm: 1, tMinC: 10, tMaxC: 20, ...dry, ...of(day) });
  }
  return days;
}
const yearOf = (day: IsoDate): number => Number(day.slice(0, 4));

describe('a typical year', () => {
  it('takes each month from the year nearest to the mean of all', () => {
    // January rain of 1, 2 and 6 mm a day: the mean is 3, and 2 is nearest. July is 18, 24 and 30 °C at most: 24.
    const rain: Readonly<Record<number, number>> = { 2022: 1, 2023: 2, 2024: 6 };
    const hot: Readonly<Record<number, number>> = { 2022: 24, 2023: 18, 2024: 30 };
    const all = weather('2022-01-01', '2024-12-31', (day) => {
      if (day.slice(5, 7) === '01') return { rainMm: rain[yearOf(day)] ?? 0 };
      return day.slice(5, 7) === '07' ? { tMaxC: hot[yearOf(day)] ?? 0 } : {};
    });
    const found = typicalYear(all, station);
    expect(found?.years).toBe(3);
    expect(found?.takenFrom[0]).toBe(2023);
    expect(found?.takenFrom[6]).toBe(2022);
    // Of alike ones the newest.
    expect(found?.takenFrom[10]).toBe(2024);
    expect(found?.days).toHaveLength(366);
    expect(found?.days[0]).toMatchObject({ day: '2000-01-01', rainMm: 2 });
  });

  it('weighs rain against warmth by how much each differs from year to year', () => {
    // Year 2022 is the mean in rain and far off in warmth; 2023 a little off in both.
    const of: Readonly<Record<number, Partial<WeatherDay>>> = {
      2021: { rainMm: 0, tMaxC: 20 },
      2022: { rainMm: 5, tMaxC: 34 },
      2023: { rainMm: 6, tMaxC: 24 },
      2024: { rainMm: 9, tMaxC: 22 },
    };
    const all = weather('2021-01-01', '2024-12-31', (day) => of[yearOf(day)] ?? {});
    expect(new Set(typicalYear(all, station)?.takenFrom)).toEqual(new Set([2023]));
  });

  it('counts whole months alone, and says nothing of fewer than three years', () => {
    const all = weather('2022-01-01', '2024-12-31');
    expect(typicalYear(all, station)?.years).toBe(3);
    expect(typicalYear(weather('2022-01-01', '2023-12-31'), station)).toBeNull();
    expect(
      typicalYear(
        all.filter(({ day }) => day !== '2023-05-17'),
        station,
      ),
    ).toBeNull();
    expect(
      typicalYear(
        weather('2021-12-01', '2024-12-31').filter(({ day }) => day !== '2023-12-17'),
        station,
      )?.years,
    ).toBe(3);
    expect(typicalYear([], station)).toBeNull();
  });

  it('is laid over the calendar from any day, over the turn of the year and a leap day', () => {
    const all = weather('2021-01-01', '2023-12-31', (day) => ({ rainMm: Number(day.slice(8)) }));
    const found = typicalYear(all, station);
    if (!found) throw new Error('no typical year');
    const days = typicalDays(found, '2027-12-30', 64);
    expect(days.map(({ day }) => day).slice(0, 3)).toEqual(['2027-12-30', '2027-12-31', '2028-01-01']);
    expect(days.slice(0, 3).map(({ rainMm }) => rainMm)).toEqual([30, 31, 1]);
    // No such day in 2021 to 2023: the 28th stands in.
    expect(days.find(({ day }) => day === '2028-02-29')?.rainMm).toBe(28);
    expect(typicalDays(found, '2027-02-27', 3).map(({ day }) => day)).toEqual([
      '2027-02-27',
      '2027-02-28',
      '2027-03-01',
    ]);
  });
});
