import type { Species, Station, WeatherDay } from '@sombra/core';
import * as z from 'zod';
import { speciesSchema } from './match';
import { isoDate } from './measures';

const orUnmeasured = z.number().nullable();
const weatherDaySchema = z.object({
  day: isoDate,
  rainMm: z.number(),
  tMinC: z.number(),
  tMaxC: z.number(),
  humidityMinPct: orUnmeasured,
  humidityMaxPct: orUnmeasured,
  windMs: orUnmeasured,
  radiationMj: orUnmeasured,
}) satisfies z.ZodType<WeatherDay>;

/** What the water of every tree is worked out from besides its own records: the weather of over a year, and the library. */
export const waterBasisSchema = z.object({
  station: z.object({ latDeg: z.number(), elevationM: z.number() }) satisfies z.ZodType<Station>,
  recorded: z.array(weatherDaySchema),
  forecast: z.array(weatherDaySchema),
  species: z.array(speciesSchema),
});
export interface WaterBasis {
  readonly station: Station;
  readonly recorded: readonly WeatherDay[];
  readonly forecast: readonly WeatherDay[];
  readonly species: readonly Species[];
}
