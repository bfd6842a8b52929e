import { addDaysTo, addMonthsTo, type IsoDate } from '../calendar';
import { referenceEtMm, type Station, type WeatherDay } from './reference-et';

/** Of fewer years of a month nobody says what is typical. */
export const fewestYears = 3;

export interface TypicalYear {
  /** So many whole years were there to choose from, of the month that has fewest. */
  readonly years: number;
  /** The year each month was taken from, January first. */
  readonly takenFrom: readonly number[];
  /** A day each from 1 January to 29 February to 31 December, as they were; called by the days of 2000. */
  readonly days: readonly WeatherDay[];
}

const leapYear = '2000';
/** Years that differ by less than this share of their mean are alike: a leap year moves the sun by a day. */
const leastSpread = 0.01;

interface Month {
  readonly year: number;
  readonly days: readonly WeatherDay[];
  /** Of a day on average: rain and demand, mm; temperature, °C. */
  readonly means: readonly number[];
}

/**
 * A year of real months, each the one that lies nearest to the mean of all years in rain, demand and warmth: distances
 * over their standard deviations, the newer of alike ones. `null` where any month was measured whole in fewer than
 * `fewestYears` years. The way is that of typical meteorological years (Hall, Prairie, Anderson and Boes, Generation of
 * a typical meteorological year, SAND78-1096C, 1978), by means instead of whole distributions.
 * @param recorded measured days, in order
 */
export function typicalYear(recorded: readonly WeatherDay[], station: Station): TypicalYear | null {
  const byMonth = new Map<string, WeatherDay[]>();
  for (const day of recorded) {
    const key = day.day.slice(0, 7);
    byMonth.set(key, [...(byMonth.get(key) ?? []), day]);
  }
  const taken: Month[] = [];
  let years = Infinity;
  for (let number = 1; number <= 12; number++) {
    const mm = String(number).padStart(2, '0');
    const whole = [...byMonth]
      .filter(([key, days]) => key.slice(5) === mm && days.length === lengthOf(key))
      .map(([key, days]): Month => ({ year: Number(key.slice(0, 4)), days, means: meansOf(days, station) }));
    const [nearest] = nearestFirst(whole);
    if (!nearest || whole.length < fewestYears) return null;
    years = Math.min(years, whole.length);
    taken.push(nearest);
  }
  return { years, takenFrom: taken.map(({ year }) => year), days: taken.flatMap(asOfLeapYear) };
}

const lengthOf = (month: string): number => Number(addDaysTo(addMonthsTo(`${month}-01`, 1), -1).slice(8));

function meansOf(days: readonly WeatherDay[], station: Station): readonly number[] {
  let [rain, demand, warmth] = [0, 0, 0];
  for (const day of days) {
    rain += day.rainMm;
    demand += referenceEtMm(day, station);
    warmth += (day.tMinC + day.tMaxC) / 2;
  }
  return [rain, demand, warmth].map((sum) => sum / days.length);
}

function nearestFirst(months: readonly Month[]): Month[] {
  const count = months.length;
  const mean = [0, 1, 2].map((i) => months.reduce((sum, { means }) => sum + (means[i] ?? 0), 0) / count);
  const spread = mean.map((of, i) =>
    Math.sqrt(months.reduce((sum, { means }) => sum + ((means[i] ?? 0) - of) ** 2, 0) / count),
  );
  const off = ({ means }: Month): number =>
    mean.reduce((sum, of, i) => {
      const one = spread[i] ?? 0;
      return one > leastSpread * Math.abs(of) ? sum + Math.abs((means[i] ?? 0) - of) / one : sum;
    }, 0);
  return [...months].sort((a, b) => off(a) - off(b) || b.year - a.year);
}

/** February has its 29th, as the 28th was where that year had none. */
function asOfLeapYear({ days }: Month): WeatherDay[] {
  const named = days.map((day) => ({ ...day, day: `${leapYear}${day.day.slice(4)}` }));
  const last = named.at(-1);
  return last?.day === `${leapYear}-02-28` ? [...named, { ...last, day: `${leapYear}-02-29` }] : named;
}

/** The typical year laid over the calendar from a day on. */
export function typicalDays({ days }: TypicalYear, from: IsoDate, count: number): WeatherDay[] {
  const byDay = new Map(days.map((day) => [day.day.slice(5), day]));
  return Array.from({ length: count }, (_, i) => addDaysTo(from, i)).flatMap((day) => {
    const weather = byDay.get(day.slice(5));
    return weather ? [{ ...weather, day }] : [];
  });
}
