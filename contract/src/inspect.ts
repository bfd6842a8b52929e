import { cohortMeasures, instrumentKinds, stockKinds } from '@sombra/core';
import * as z from 'zod';

/** How the trees of a season of planting come along; a season goes from July of its year to June. */
export const establishingSeasonSchema = z.object({
  season: z.int(),
  planted: z.int(),
  established: z.int(),
  /** All that is known says so: somebody has to sign them off. */
  ready: z.int(),
  /** Asks for something now, or was not looked at for a month after its time. */
  hangs: z.int(),
  onTheWay: z.int(),
});
export type EstablishingSeason = z.infer<typeof establishingSeasonSchema>;
export const establishingSchema = z.array(establishingSeasonSchema);

/** A tree beside the others of its species, season of planting and stock. */
export const cohortSchema = z.object({
  species: z.string().nullable(),
  season: z.int(),
  stockKind: z.enum(stockKinds).nullable(),
  others: z.int(),
  /** Of the others, how many ask for something. */
  troubled: z.int(),
  measures: z.array(
    z.object({
      measure: z.enum(cohortMeasures),
      /** Its own at its last look, or today by its balance. */
      own: z.number(),
      values: z.array(z.number()),
    }),
  ),
  /** What instruments gave at last, beside what the same ones gave at the others. */
  instruments: z.array(
    z.object({
      kind: z.enum(instrumentKinds),
      device: z.string(),
      own: z.number(),
      values: z.array(z.number()),
    }),
  ),
});
export type Cohort = z.infer<typeof cohortSchema>;
