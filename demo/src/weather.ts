import { addDaysTo, daysBetween, extraterrestrialMj, type IsoDate, type WeatherDay } from '@sombra/core';
import { dice } from './seed';

/** Days back of the last storm, which the town still feels. */
export const stormDaysAgo = 34;
export const station = { latDeg: 36.9, elevationM: 40 } as const;
const forecastDays = 10;

export interface DemoWeather {
  readonly recorded: readonly WeatherDay[];
  readonly forecast: readonly WeatherDay[];
}

/**
 * Daily weather of an Atlantic island at 37° north: dry windy summers with a heat wave or two, mild wet
 * winters with storms. Wet days come in spells: rain today makes rain tomorrow likelier.
 */
export function demoWeather({ seed, today, years }: { seed: string; today: IsoDate; years: number }): DemoWeather {
  const first = addDaysTo(today, -Math.round(365.25 * years));
  const count = daysBetween(first, today) + 1 + forecastDays;
  const from = dice(`${seed}/weather`);
  const storms = new Set([addDaysTo(today, -stormDaysAgo)]);
  let wetYesterday = false;
  let heatLeft = 0;
  const days = Array.from({ length: count }, (_, i): WeatherDay => {
    const day = addDaysTo(first, i);
    const dayOfYear = daysBetween(`${day.slice(0, 4)}-01-01`, day) + 1;
    // 1 in mid August, −1 in mid February.
    const warmth = Math.cos((2 * Math.PI * (dayOfYear - 227)) / 365);
    const winter = (1 - warmth) / 2;
    if (heatLeft === 0 && warmth > 0.55 && from.chance(0.014)) heatLeft = from.whole(5, 8);
    const hot = heatLeft > 0;
    heatLeft = Math.max(0, heatLeft - 1);
    const stormy = storms.has(day) || (winter > 0.6 && from.chance(0.012));
    const wet = stormy || (!hot && from.chance((0.1 + 0.3 * winter) * (wetYesterday ? 1.7 : 0.75)));
    wetYesterday = wet;
    const mean = 18.2 + 4.4 * warmth + (hot ? from.between(4, 6.5) : 0) + from.around(0, 1.1);
    const halfRange = (hot ? 4.6 : 2.9) * (wet ? 0.7 : 1);
    const rainMm = !wet ? 0 : stormy ? from.between(38, 72) : -Math.log(1 - from.next()) * (2.2 + 5.5 * winter);
    const clearness = wet ? from.between(0.22, 0.42) : hot ? 0.72 : from.between(0.45, 0.68);
    return {
      day,
      rainMm: round1(rainMm),
      tMinC: round1(mean - halfRange),
      tMaxC: round1(mean + halfRange),
      humidityMinPct: Math.round(hot ? from.between(34, 45) : wet ? from.between(70, 85) : from.between(54, 68)),
      humidityMaxPct: Math.round(hot ? from.between(62, 74) : from.between(84, 97)),
      windMs: round1(stormy ? from.between(13, 21) : Math.max(0.6, from.around(3.6 + 0.6 * warmth, 1.1))),
      radiationMj: round1(extraterrestrialMj(dayOfYear, station.latDeg) * clearness),
    };
  });
  return {
    recorded: days.filter(({ day }) => day <= today),
    forecast: days.filter(({ day }) => day > today),
  };
}

const round1 = (value: number): number => Math.round(value * 10) / 10;
