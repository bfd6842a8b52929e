import { lastFoundKinds } from '@sombra/core';
import * as z from 'zod';
import { entityId, isoDate, positionSchema } from './measures';

const place = z.string().trim().min(1).max(80).nullable();
const aheadDays = z.coerce.number().int().min(0).max(120);

/** Looks that are due by so many days from today, or that something speaks for. */
export const worthQuerySchema = z.strictObject({
  place: z.string().trim().min(1).max(80).optional(),
  aheadDays: aheadDays.default(7),
});
export type WorthQuery = z.infer<typeof worthQuerySchema>;

/** Reasons are made by the core on either side; here only their envelope is checked. */
const reasonSchema = z.object({ code: z.string(), facts: z.record(z.string(), z.unknown()) });

export const lookLineSchema = z.object({
  spotId: z.uuid(),
  treeId: z.uuid(),
  ref: z.string(),
  place: z.string(),
  species: z.string().nullable(),
  position: positionSchema,
  found: z.enum(lastFoundKinds),
  dueOn: isoDate.nullable(),
  /** Expected loss that it avoids, in the programme's currency. */
  value: z.number(),
  because: z.array(reasonSchema),
});
export type LookLine = z.infer<typeof lookLineSchema>;

/** The most valuable first; how many there are, and what all of them are worth. */
export const worthListSchema = z.object({
  lines: z.array(lookLineSchema),
  total: z.int(),
  /** There are more: those found worst, and longest past their time, were weighed. */
  more: z.boolean(),
  value: z.number(),
  currency: z.string(),
});
export type WorthList = z.infer<typeof worthListSchema>;

export const mostInspectors = 8;
export const mostLooks = 400;

/** Who goes out for how long; each begins where their first tree stands. */
export const seekLooksSchema = z.strictObject({
  place,
  aheadDays,
  inspectors: z
    .array(z.strictObject({ userId: entityId, minutes: z.int().min(10).max(720) }))
    .min(1, 'must name one person or more')
    .max(mostInspectors)
    .refine((all) => new Set(all.map(({ userId }) => userId)).size === all.length, {
      error: 'must not name a person twice',
    }),
  seed: z.int().min(1).max(1_000_000_000),
});
export type SeekLooks = z.infer<typeof seekLooksSchema>;

export const lookRoundSchema = z.object({
  userId: z.uuid(),
  name: z.string(),
  minutes: z.number(),
  walkM: z.number(),
  value: z.number(),
  stops: z.array(lookLineSchema),
});
export type LookRound = z.infer<typeof lookRoundSchema>;

export const lookPlanSchema = z.object({
  rounds: z.array(lookRoundSchema),
  /** For want of time. */
  left: z.object({ count: z.int(), value: z.number() }),
  routed: z.boolean(),
  currency: z.string(),
});
export type LookPlan = z.infer<typeof lookPlanSchema>;

export const seekLooksProgressSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('running'), done: z.number(), cost: z.number() }),
  z.object({ kind: z.literal('found'), plan: lookPlanSchema }),
  z.object({ kind: z.literal('failed'), title: z.string(), reference: z.string().optional() }),
]);
export type SeekLooksProgress = z.infer<typeof seekLooksProgressSchema>;

/** Sends each inspector out to theirs, all or none. Sent twice, it is made once. */
export const giveLooksSchema = z.strictObject({
  title: z.string().trim().min(1, 'must not be empty').max(60),
  until: isoDate,
  rounds: z
    .array(z.strictObject({ id: entityId, userId: entityId, spotIds: z.array(entityId).min(1).max(mostLooks) }))
    .min(1)
    .max(mostInspectors),
});
export type GiveLooks = z.infer<typeof giveLooksSchema>;
