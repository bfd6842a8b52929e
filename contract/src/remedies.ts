import * as z from 'zod';
import { entityId, isoDate } from './measures';
import { remedyCodes } from './remedy-codes';

const place = z.string().trim().min(1).max(80);
const aheadDays = z.coerce.number().int().min(0).max(366);

/** Remedies whose last day comes within so many days. */
export const workQuerySchema = z.strictObject({ place: place.optional(), aheadDays: aheadDays.default(30) });
export type WorkQuery = z.infer<typeof workQuerySchema>;

/** One remedy at one place: one batch of work. */
export const workBatchSchema = z.object({
  place: z.string(),
  remedy: z.enum(remedyCodes),
  count: z.int(),
  urgent: z.int(),
  /** The first of their last days. */
  dueOn: isoDate.nullable(),
  /** Litres of mulch that rings lack, by what was measured; `null` where it is not about mulch. */
  mulchL: z.number().nullable(),
});
export type WorkBatch = z.infer<typeof workBatchSchema>;

export const workListSchema = z.object({
  batches: z.array(workBatchSchema),
  /** Days of the forecast on which roots may be laid open. */
  coolDays: z.array(isoDate),
  /** Whether trees may be planted today: the season for what is lifted. */
  coolSeason: z.boolean(),
});
export type WorkList = z.infer<typeof workListSchema>;

export const mostBatches = 40;
const batchKeys = z
  .array(z.strictObject({ place, remedy: z.enum(remedyCodes) }))
  .min(1, 'must name one batch or more')
  .max(mostBatches, `must name ${mostBatches} batches at most`);

/** Batches as they stand in an address: `[{"place":…,"remedy":…}]`. */
export const workSheetQuerySchema = z.strictObject({
  aheadDays: aheadDays.default(30),
  batches: z.preprocess((value) => {
    if (typeof value !== 'string') return value;
    try {
      return JSON.parse(value) as unknown;
    } catch {
      return value;
    }
  }, batchKeys),
});
export type WorkSheetQuery = z.infer<typeof workSheetQuerySchema>;

/** Sends somebody out to the trees of some batches, in walking order. Sent twice, it is made once. */
export const giveWorkSchema = z.strictObject({
  id: entityId,
  title: z.string().trim().min(1, 'must not be empty').max(80),
  userId: entityId,
  until: isoDate,
  aheadDays,
  batches: batchKeys,
});
export type GiveWork = z.infer<typeof giveWorkSchema>;
