import * as z from 'zod';
import { isoDate } from './measures';

/** Planting days, the next first and those gone by after them. */
export const plantingDaysSchema = z.array(
  z.object({ id: z.uuid(), title: z.string(), onDay: isoDate, spots: z.int() }),
);
export type PlantingDays = z.infer<typeof plantingDaysSchema>;
