import { daysBetween, type IsoDate } from '../calendar';
import { InvalidInputError, requireWithin } from '../errors';

/** One day at a weather station; what the station does not measure is `null`. */
export interface WeatherDay {
  readonly day: IsoDate;
  readonly rainMm: number;
  readonly tMinC: number;
  readonly tMaxC: number;
  readonly humidityMinPct: number | null;
  readonly humidityMaxPct: number | null;
  /** Mean wind at 2 m, m/s. */
  readonly windMs: number | null;
  /** Solar radiation at the ground, MJ/m² a day. */
  readonly radiationMj: number | null;
}

export interface Station {
  readonly latDeg: number;
  readonly elevationM: number;
}

/** What a station may report; radiation above the air is under 46 MJ/m² anywhere on any day. */
const measured = {
  humidityMinPct: { min: 0, max: 100, unit: '%' },
  humidityMaxPct: { min: 0, max: 100, unit: '%' },
  windMs: { min: 0, max: 80, unit: 'm/s' },
  radiationMj: { min: 0, max: 46, unit: 'MJ/m²' },
};

/** MJ/m² of energy to millimetres of water (FAO-56, equation 20). */
const mmPerMj = 0.408;

/**
 * Reference evapotranspiration of a day, mm: FAO-56 Penman–Monteith (equation 6) where humidity, wind and
 * radiation are there, else Hargreaves–Samani (equation 52), which errs by some 15–20 % on a day and less
 * over a week. Never negative. Source: Allen, Pereira, Raes and Smith, FAO Irrigation and Drainage Paper
 * 56, 1998.
 * @throws InvalidInputError for temperatures outside −60–60 °C, a minimum over the maximum, a latitude outside −66–66°
 *   (polar days and nights have no sunset hour angle), and for any other value that is no number or no weather
 */
export function referenceEtMm(weather: WeatherDay, station: Station): number {
  requireWithin('tMinC', weather.tMinC, { min: -60, max: 60, unit: '°C' });
  requireWithin('tMaxC', weather.tMaxC, { min: -60, max: 60, unit: '°C' });
  requireWithin('latDeg', station.latDeg, { min: -66, max: 66, unit: '°' });
  requireWithin('elevationM', station.elevationM, { min: -500, max: 6000, unit: 'm' });
  for (const key of ['humidityMinPct', 'humidityMaxPct', 'windMs', 'radiationMj'] as const) {
    const value = weather[key];
    if (value !== null) requireWithin(key, value, measured[key]);
  }
  if (weather.tMinC > weather.tMaxC) {
    throw new InvalidInputError(`tMinC must not be above tMaxC ${weather.tMaxC}, got ${weather.tMinC}`, 'tMinC');
  }
  const skyMj = extraterrestrialMj(dayOfYear(weather.day), station.latDeg);
  const { humidityMinPct, humidityMaxPct, windMs, radiationMj } = weather;
  if (humidityMinPct === null || humidityMaxPct === null || windMs === null || radiationMj === null) {
    return hargreaves(weather, skyMj);
  }
  return penmanMonteith({ ...weather, humidityMinPct, humidityMaxPct, windMs, radiationMj }, station, skyMj);
}

function hargreaves({ tMinC, tMaxC }: WeatherDay, skyMj: number): number {
  const mean = (tMinC + tMaxC) / 2;
  return Math.max(0, 0.0023 * (mean + 17.8) * Math.sqrt(tMaxC - tMinC) * skyMj * mmPerMj);
}

type FullDay = WeatherDay & Record<'humidityMinPct' | 'humidityMaxPct' | 'windMs' | 'radiationMj', number>;

function penmanMonteith(day: FullDay, station: Station, skyMj: number): number {
  const mean = (day.tMinC + day.tMaxC) / 2;
  const pressureKpa = 101.3 * ((293 - 0.0065 * station.elevationM) / 293) ** 5.26;
  const psychrometric = 0.000665 * pressureKpa;
  const slope = (4098 * saturationKpa(mean)) / (mean + 237.3) ** 2;
  const saturated = (saturationKpa(day.tMinC) + saturationKpa(day.tMaxC)) / 2;
  const actual = (saturationKpa(day.tMinC) * day.humidityMaxPct + saturationKpa(day.tMaxC) * day.humidityMinPct) / 200;
  const netMj = netRadiationMj(day, actual, (0.75 + 0.00002 * station.elevationM) * skyMj);
  const wind = (900 / (mean + 273)) * day.windMs * (saturated - actual);
  const et = (mmPerMj * slope * netMj + psychrometric * wind) / (slope + psychrometric * (1 + 0.34 * day.windMs));
  return Math.max(0, et);
}

/** Saturation vapour pressure, kPa (equation 11). */
const saturationKpa = (celsius: number): number => 0.6108 * Math.exp((17.27 * celsius) / (celsius + 237.3));

/** Net short wave at albedo 0.23 less net long wave (equations 38–40). */
function netRadiationMj(day: FullDay, actualKpa: number, clearSkyMj: number): number {
  const kelvin4 = ((day.tMaxC + 273.16) ** 4 + (day.tMinC + 273.16) ** 4) / 2;
  const clearness = Math.min(1, day.radiationMj / clearSkyMj);
  const longWave = 4.903e-9 * kelvin4 * (0.34 - 0.14 * Math.sqrt(actualKpa)) * (1.35 * clearness - 0.35);
  return 0.77 * day.radiationMj - longWave;
}

const dayOfYear = (day: IsoDate): number => daysBetween(`${day.slice(0, 4)}-01-01`, day) + 1;

/** Radiation above the air on a day, MJ/m² (equations 21–25). */
export function extraterrestrialMj(dayOfTheYear: number, latDeg: number): number {
  const season = (2 * Math.PI * dayOfTheYear) / 365;
  const latitude = (latDeg * Math.PI) / 180;
  const declination = 0.409 * Math.sin(season - 1.39);
  const sunset = Math.acos(-Math.tan(latitude) * Math.tan(declination));
  const height =
    sunset * Math.sin(latitude) * Math.sin(declination) + Math.cos(latitude) * Math.cos(declination) * Math.sin(sunset);
  return ((24 * 60) / Math.PI) * 0.082 * (1 + 0.033 * Math.cos(season)) * height;
}
