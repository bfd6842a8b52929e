import {
  defaultWateringRules,
  grades,
  invoiceVerdicts,
  type NextWater,
  type Species,
  type Station,
  type WaterCheckpoint,
  type WateringRules,
  type WeatherDay,
} from '@sombra/core';
import * as z from 'zod';
import { speciesSchema } from './match';
import { isoDate, positionSchema } from './measures';

const orUnmeasured = z.number().nullable();
export const weatherDaySchema = z.object({
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
const restrictionSchema = z.custom<WateringRules>((value) => typeof value === 'object' && value !== null);

export const waterBasisSchema = z.object({
  /** When watering is allowed; what was taken along before there were any restrictions has none. */
  watering: restrictionSchema.default(defaultWateringRules),
  station: z.object({ latDeg: z.number(), elevationM: z.number() }) satisfies z.ZodType<Station>,
  recorded: z.array(weatherDaySchema),
  forecast: z.array(weatherDaySchema),
  species: z.array(speciesSchema),
});
export interface WaterBasis {
  readonly watering?: WateringRules | undefined;
  readonly station: Station;
  readonly recorded: readonly WeatherDay[];
  readonly forecast: readonly WeatherDay[];
  readonly species: readonly Species[];
}

/** From where a tree's water can be followed on. */
export const waterCheckpointSchema = z.object({
  day: isoDate,
  ballL: z.number(),
  soilL: z.number(),
  variance: z.number(),
  degreeDays: z.number(),
  stressDays: z.int(),
  waterloggedDays: z.int(),
  drownedSince: isoDate.nullable(),
  askingSince: isoDate.nullable(),
}) satisfies z.ZodType<WaterCheckpoint>;

export const nextWaterSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('water'), on: isoDate, litres: z.number(), afterForecast: z.boolean() }),
  z.object({ kind: z.literal('never_dries'), withinDays: z.int() }),
  z.object({ kind: z.literal('not_forecast') }),
  z.object({ kind: z.literal('drowned'), since: isoDate }),
]) satisfies z.ZodType<NextWater>;

/** By when trees ask for water: today or before, within a week, later than that; those that drown stand apart. */
export const waterGroups = ['now', 'week', 'later', 'drowned'] as const;
export type WaterGroup = (typeof waterGroups)[number];
export const waterGroupNames: Readonly<Record<WaterGroup, string>> = {
  now: 'Water now',
  week: 'Within a week',
  later: 'Later',
  drowned: 'Drowning',
};

const waterFilter = {
  group: z.enum(waterGroups).optional(),
  place: z.string().max(80).optional(),
  /** Only those whose ball was to be felt by now, in their first growing season. */
  unread: z.literal('yes').optional(),
};
export const waterListQuerySchema = z.strictObject({
  ...waterFilter,
  offset: z.coerce.number().int().min(0).max(1_000_000).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
});
export type WaterListQuery = z.infer<typeof waterListQuerySchema>;
export const waterCsvQuerySchema = z.strictObject(waterFilter);
export type WaterFilter = z.infer<typeof waterCsvQuerySchema>;

export const waterLineSchema = z.object({
  spotId: z.uuid(),
  treeId: z.uuid().nullable(),
  ref: z.string(),
  place: z.string(),
  species: z.string().nullable(),
  position: positionSchema,
  plantedOn: isoDate,
  /** Of what its ball holds; over 1 where it is wetter. */
  share: z.number(),
  errorShare: z.number(),
  next: nextWaterSchema,
  /** When anybody last felt its ball; `null` where nobody did. */
  readOn: isoDate.nullable(),
  stressDays: z.int(),
  waterloggedDays: z.int(),
});
export type WaterLine = z.infer<typeof waterLineSchema>;

export const waterListSchema = z.object({
  /** The last day of weather it is followed to; `null` before the first night. */
  day: isoDate.nullable(),
  forecastUntil: isoDate.nullable(),
  workedAt: z.string().nullable(),
  /** Trees whose records changed since, and are being followed anew. */
  waiting: z.int(),
  counts: z.record(z.enum(waterGroups), z.int()),
  /** Of them, whose ball was to be felt by now. */
  unread: z.int(),
  /** What the trees of the group ask for together, L. */
  litres: z.number(),
  total: z.int(),
  places: z.array(z.object({ name: z.string(), count: z.int() })),
  /** Who asks by when, within what is followed ahead. */
  days: z.array(z.object({ day: isoDate, trees: z.int(), litres: z.number() })),
  lines: z.array(waterLineSchema),
});
export type WaterList = z.infer<typeof waterListSchema>;

/** What a weather file did. Anything wrong, or asked and not answered, and nothing of it is stored. */
export const weatherReportSchema = z.object({
  stored: z.boolean(),
  written: z.int(),
  same: z.int(),
  issues: z.array(z.object({ row: z.int(), column: z.string(), message: z.string() })),
  /** What hardly ever happens: it is stored once somebody says that it did. */
  questions: z.array(z.object({ row: z.int(), column: z.string(), message: z.string() })),
  gaps: z.array(z.object({ from: isoDate, to: isoDate, days: z.int() })),
});
export type WeatherReport = z.infer<typeof weatherReportSchema>;
export const weatherImportQuerySchema = z.strictObject({ confirmed: z.enum(['yes', 'no']).default('no') });

/** Read off a gauge: the rain of a day that is on record, or of today. */
export const rainGaugeSchema = z.strictObject({ day: isoDate, rainMm: z.number().min(0).max(1500) });
export type RainGauge = z.infer<typeof rainGaugeSchema>;

const lineSchema = { ref: z.string(), wateredOn: isoDate, litres: z.number() };
const provenSchema = z.object({ ...lineSchema, by: z.string(), photos: z.int(), unseen: z.boolean() });
/** An invoice for watering held against what is on record. */
export const invoiceReportSchema = z.object({
  issues: z.array(z.object({ row: z.int(), column: z.string(), message: z.string() })),
  lines: z.array(
    z.object({
      row: z.int(),
      line: z.object(lineSchema),
      verdict: z.enum(invoiceVerdicts),
      proof: provenSchema.nullable(),
    }),
  ),
  uncharged: z.array(provenSchema),
});
export type InvoiceReport = z.infer<typeof invoiceReportSchema>;

/** Established trees, by how thirsty their species is: a coarse watch by weather alone. */
export const droughtSchema = z.object({
  day: isoDate.nullable(),
  grades: z.array(
    z.object({
      use: z.enum(grades),
      deficitMm: z.number(),
      share: z.number(),
      level: z.enum(['none', 'watch', 'water']),
      since: isoDate.nullable(),
      trees: z.int(),
    }),
  ),
});
export type DroughtWatch = z.infer<typeof droughtSchema>;
