import { requireWithin } from '../errors';

/** An hour of weather at one place, one after another. */
export interface IcyHour {
  readonly rainMm: number;
  readonly temperatureC: number;
  readonly gustMs: number;
}

/** Rain at or under this freezes where it lands; under the lower one it falls as dry snow, which does not hold. °C */
const freezing = { from: -4, to: 0 } as const;
/** Above this what lies on a crown thaws. °C */
const thawC = 1;
/** Of a gust, the mean wind of its hour. An estimate */
const meanOfGust = 0.6;
/** g/cm³ */
const [iceDensity, waterDensity] = [0.9, 1] as const;
/** Of water in the air under rain of so many mm an hour, by Best (1949). g/m³ */
const waterInAir = (mmPerHour: number): number => 0.067 * mmPerHour ** 0.846;

export const isIcing = ({ rainMm, temperatureC }: IcyHour): boolean =>
  rainMm > 0 && temperatureC >= freezing.from && temperatureC <= freezing.to;

/**
 * How thick ice lies round a twig, hour after hour: what rain adds while it freezes, whatever falls and what the wind
 * drives, until it thaws. Jones, K. F. (1998): A simple model for freezing rain ice loads. Atmospheric Research 46.
 * Example: 2 mm in an hour at −1 °C without wind, 2 ÷ (0.9 π) = 0.71 mm.
 * @returns mm of ice at the end of each hour
 * @throws InvalidInputError for rain or wind under 0
 */
export function iceThickness(hours: readonly IcyHour[]): number[] {
  let mm = 0;
  return hours.map((hour) => {
    requireWithin('rainMm', hour.rainMm, { min: 0, max: 500, unit: 'mm' });
    requireWithin('gustMs', hour.gustMs, { min: 0, max: 120, unit: 'm/s' });
    if (hour.temperatureC > thawC) mm = 0;
    if (isIcing(hour)) {
      const driven = 3.6 * hour.gustMs * meanOfGust * waterInAir(hour.rainMm);
      mm += Math.hypot(hour.rainMm * waterDensity, driven) / (iceDensity * Math.PI);
    }
    return mm;
  });
}
