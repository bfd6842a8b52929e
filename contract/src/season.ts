import type { BandMark, ForecastDay, PlantingWindow, SeasonWeek, WindowSpan } from '@sombra/core';
import { stockKinds } from '@sombra/core';
import * as z from 'zod';
import { isoDate } from './measures';

export const seasonQuerySchema = z.strictObject({
  from: isoDate,
  weeks: z.coerce.number().int().min(1).max(160),
});

const depth = z.object({ mm: z.number(), lowMm: z.number(), highMm: z.number() });
export const seasonSchema = z.object({
  weeks: z.array(
    z.object({
      monday: isoDate,
      source: z.enum(['recorded', 'forecast', 'usual', 'unknown']),
      rain: depth,
      demand: depth,
    }) satisfies z.ZodType<SeasonWeek>,
  ),
  windows: z.array(
    z.object({
      stock: z.enum(stockKinds),
      from: isoDate,
      to: isoDate,
      because: z.string(),
    }) satisfies z.ZodType<WindowSpan>,
  ),
  marks: z.array(
    z.object({
      kind: z.enum(['planting_day', 'round', 'ticket']),
      from: isoDate,
      to: isoDate,
      title: z.string(),
    }) satisfies z.ZodType<BandMark>,
  ),
});
export type Season = z.infer<typeof seasonSchema>;

export const plantingWindowSchema = z.object({
  stock: z.enum(stockKinds),
  from: z.string(),
  to: z.string(),
  because: z.string(),
}) satisfies z.ZodType<PlantingWindow>;

/** What a day of planting is judged by: the windows of the climate, and the days forecast from today on. */
export const outlookSchema = z.object({
  windows: z.array(plantingWindowSchema),
  forecast: z.array(
    z.object({
      day: isoDate,
      tMinC: z.number(),
      tMaxC: z.number(),
      rainMm: z.number(),
    }) satisfies z.ZodType<ForecastDay>,
  ),
});
export type Outlook = z.infer<typeof outlookSchema>;
