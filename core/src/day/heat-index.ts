import { requireWithin } from '../errors';

const toF = (celsius: number): number => (celsius * 9) / 5 + 32;
const toC = (fahrenheit: number): number => ((fahrenheit - 32) * 5) / 9;

/**
 * How hot it feels in the shade, °C, from air temperature (°C) and relative humidity (%).
 * Steadman's simple form, and Rothfusz's regression with its two adjustments where that reaches 80 °F (L. P. Rothfusz
 * 1990, The Heat Index Equation, NWS Technical Attachment SR 90-23). Good to ±0.7 °C in the regression's range; in
 * full sun up to 8 °C more.
 * @throws InvalidInputError outside −40–60 °C or 0–100 %
 */
export function heatIndexC(temperatureC: number, humidityPct: number): number {
  const t = toF(requireWithin('temperatureC', temperatureC, { min: -40, max: 60, unit: '°C' }));
  const r = requireWithin('humidityPct', humidityPct, { min: 0, max: 100, unit: '%' });
  const simple = 0.5 * (t + 61 + (t - 68) * 1.2 + r * 0.094);
  const mean = (simple + t) / 2;
  if (mean < 80) return toC(mean);
  const full =
    -42.379 +
    2.04901523 * t +
    10.14333127 * r -
    0.22475541 * t * r -
    6.83783e-3 * t * t -
    5.481717e-2 * r * r +
    1.22874e-3 * t * t * r +
    8.5282e-4 * t * r * r -
    1.99e-6 * t * t * r * r;
  if (r < 13 && t >= 80 && t <= 112) return toC(full - ((13 - r) / 4) * Math.sqrt((17 - Math.abs(t - 95)) / 17));
  if (r > 85 && t >= 80 && t <= 87) return toC(full + ((r - 85) / 10) * ((87 - t) / 5));
  return toC(full);
}
