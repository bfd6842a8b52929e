import {
  ballStates,
  leaderStates,
  receivingVerdicts,
  stockKinds,
  woundGrades,
  wrapKinds,
  type ReceivedTree,
} from '@sombra/core';
import * as z from 'zod';
import { entityId, isoDate, measure } from './measures';

export const receivedTreeSchema = z.strictObject({
  caliperMm: measure('caliperMm').nullable(),
  heightM: measure('treeHeightM').nullable(),
  ballDiameterMm: measure('ballDiameterMm').nullable(),
  ballHeightMm: measure('ballHeightMm').nullable(),
  rootSpreadMm: measure('rootSpreadMm').nullable(),
  rootDepthMm: measure('rootDepthMm').nullable(),
  topRootsDepthMm: z.array(measure('topRootsDepthMm')).max(12),
  circlingPct: z.number().min(0).max(100).nullable(),
  thickestCirclingMm: z.number().min(0).max(100).nullable(),
  kinked: z.boolean().nullable(),
  ball: z.enum(ballStates).nullable(),
  wrap: z.enum(wrapKinds).nullable(),
  graftHeightMm: z.number().min(0).max(3000).nullable(),
  leader: z.enum(leaderStates).nullable(),
  wounds: z.enum(woundGrades).nullable(),
  brokenBranches: z.boolean().nullable(),
  firstBranchM: z.number().min(0).max(10).nullable(),
  bestFaceDeg: measure('bearingDeg').nullable(),
}) satisfies z.ZodType<ReceivedTree>;

const reason = z.string().trim().max(400);

export const lotSchema = z.object({
  id: z.uuid(),
  species: z.string(),
  stockKind: z.enum(stockKinds),
  caliperMm: z.number(),
  price: z.number(),
  /** Numbers of the places its trees are for. */
  spots: z.array(z.string()),
  expected: z.int(),
  arrived: z.int().nullable(),
  opened: z.int(),
  bad: z.int(),
  tree: receivedTreeSchema.nullable(),
  verdict: z.enum(receivingVerdicts).nullable(),
  reason: z.string(),
  hasPhoto: z.boolean(),
  version: z.int(),
});
export type Lot = z.infer<typeof lotSchema>;

/** How a lot arrived and what is decided about it, at the version it was read. */
export const receiveLotSchema = z
  .strictObject({
    version: z.int().min(1),
    arrived: z.int().min(0).max(100_000),
    opened: z.int().min(0).max(100_000),
    bad: z.int().min(0).max(100_000),
    tree: receivedTreeSchema,
    verdict: z.enum(receivingVerdicts).nullable(),
    reason,
  })
  .superRefine(({ arrived, opened, bad, verdict, reason: why }, context) => {
    const fault = (path: string, message: string) => context.addIssue({ code: 'custom', path: [path], message });
    if (opened > arrived) fault('opened', `must be at most what arrived, ${arrived}, got ${opened}`);
    if (bad > opened) fault('bad', `must be at most what was opened, ${opened}, got ${bad}`);
    if ((verdict === 'return' || verdict === 'hold') && why.length < 3)
      fault('reason', 'must say why, in 3 letters or more');
  });
export type ReceiveLot = z.infer<typeof receiveLotSchema>;

export const newDeliverySchema = z.strictObject({ id: entityId, orderId: entityId, arrivedOn: isoDate });
export type NewDelivery = z.infer<typeof newDeliverySchema>;

/** How it came and where it waits. */
export const deliveryStateSchema = z.strictObject({
  version: z.int().min(1),
  covered: z.boolean().nullable(),
  moist: z.boolean().nullable(),
  holding: z.string().trim().max(120),
  note: z.string().trim().max(400),
});
export type DeliveryState = z.infer<typeof deliveryStateSchema>;

export const deliverySchema = deliveryStateSchema.extend({
  id: z.uuid(),
  orderNumber: z.string(),
  nursery: z.string(),
  terms: z.string(),
  arrivedOn: isoDate,
  madeBy: z.string(),
  /** Days on which what waits was watered. */
  wateredOn: z.array(isoDate),
  lots: z.array(lotSchema),
});
export type Delivery = z.infer<typeof deliverySchema>;

export const deliveryListSchema = z.object({
  deliveries: z.array(
    z.object({
      id: z.uuid(),
      orderNumber: z.string(),
      nursery: z.string(),
      arrivedOn: isoDate,
      expected: z.int(),
      arrived: z.int(),
      undecided: z.int(),
      returned: z.int(),
    }),
  ),
  /** Orders nothing has come of yet. */
  awaited: z.array(
    z.object({ id: z.uuid(), number: z.string(), nursery: z.string(), trees: z.int(), plantOn: isoDate }),
  ),
});
export type DeliveryList = z.infer<typeof deliveryListSchema>;

export const waterHeldSchema = z.strictObject({ onDay: isoDate });
