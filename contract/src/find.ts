import * as z from 'zod';

export const findQuerySchema = z.strictObject({ words: z.string().trim().min(1).max(80) });

/** Something found: what it is, how it reads, and the address that shows it. */
export const findHitSchema = z.object({
  kind: z.enum(['tree', 'place', 'species', 'person', 'day']),
  name: z.string(),
  detail: z.string(),
  path: z.string(),
  query: z.record(z.string(), z.string()),
});
export type FindHit = z.infer<typeof findHitSchema>;
export const findHitsSchema = z.array(findHitSchema);
