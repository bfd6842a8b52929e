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
