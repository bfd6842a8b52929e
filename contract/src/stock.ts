import {
  ballStates,
  crownFaces,
  foliageKinds,
  labelKinds,
  leaderStates,
  limits,
  receivingVerdicts,
  rootNatures,
  signStates,
  stockKinds,
  woundGrades,
  wrapKinds,
  type ReceivedTree,
} from '@sombra/core';
import * as z from 'zod';
import { entityId, isoDate, measure, positionSchema, recordId, rowVersion } from './measures';
import { receivingRulesSchema } from './practice';

const pct = z.number().min(0).max(100);

export const receivedTreeSchema = z
  .strictObject({
    // Not asked before: what was stored then is as ordered.
    kind: z.enum(stockKinds).nullable().default(null),
    caliperMm: measure('caliperMm').nullable(),
    heightM: measure('treeHeightM').nullable(),
    ballDiameterMm: measure('ballDiameterMm').nullable(),
    ballHeightMm: measure('ballHeightMm').nullable(),
    rootSpreadMm: measure('rootSpreadMm').nullable(),
    rootDepthMm: measure('rootDepthMm').nullable(),
    probes: z.array(z.strictObject({ depthMm: measure('topRootsDepthMm'), nature: z.enum(rootNatures) })).max(12),
    surplusLeftMm: measure('topRootsDepthMm').nullable(),
    circlingPct: pct.nullable(),
    thickestCirclingMm: pct.nullable(),
    soilShows: z.boolean().nullable(),
    kinked: z.boolean().nullable(),
    ball: z.enum(ballStates).nullable(),
    wrap: z.enum(wrapKinds).nullable(),
    ties: z.enum(wrapKinds).nullable(),
    graftHeightMm: measure('graftHeightMm').nullable(),
    leader: z.enum(leaderStates).nullable(),
    wounds: z.enum(woundGrades).nullable(),
    brokenBranches: z.boolean().nullable(),
    firstBranchM: measure('firstBranchM').nullable(),
    face: z.enum(crownFaces).nullable(),
    // Not asked before.
    label: z.enum(labelKinds).nullable().default(null),
    sign: z.enum(signStates).nullable().default(null),
    stemRoots: z.int().min(0).max(limits.rootCount.max).nullable().default(null),
    stemRootMm: measure('rootDiameterMm').nullable().default(null),
  })
  .superRefine(({ probes, ballHeightMm, surplusLeftMm }, context) => {
    if (ballHeightMm === null) return;
    const fault = (path: string, message: string) => context.addIssue({ code: 'custom', path: [path], message });
    const deepest = Math.max(0, ...probes.map(({ depthMm }) => depthMm));
    if (deepest >= ballHeightMm)
      fault('probes', `must be less than the ball height, ${ballHeightMm} mm, got ${deepest}`);
    if (surplusLeftMm !== null && surplusLeftMm > deepest) {
      fault('surplusLeftMm', `must be at most the surplus, ${deepest} mm, got ${surplusLeftMm}`);
    }
  }) satisfies z.ZodType<ReceivedTree>;

const reason = z.string().trim().max(400);

/** One tree of a lot as somebody opened and looked at it. */
export const lotTreeSchema = z.object({
  id: z.uuid(),
  tree: receivedTreeSchema,
  seenBy: z.string(),
  seenAt: z.iso.datetime({ offset: true }),
  hasPhoto: z.boolean(),
  /** Where the picture was taken, kept only where somebody wanted it kept. */
  photoAt: positionSchema.nullable(),
});
export type LotTree = z.infer<typeof lotTreeSchema>;

/** Sent by the device that looked; a correction supersedes the tree it corrects. Sent twice, it is kept once. */
export const newLotTreeSchema = z.strictObject({
  id: recordId,
  seenAt: z.iso.datetime({ offset: true }),
  supersedes: recordId.nullable(),
  tree: receivedTreeSchema,
});
export type NewLotTree = z.infer<typeof newLotTreeSchema>;

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
  /** The trees opened so far, oldest first; corrected ones left out. */
  trees: z.array(lotTreeSchema),
  verdict: z.enum(receivingVerdicts).nullable(),
  reason: z.string(),
  version: z.int(),
  /** What tells its species from those sold under the same name. */
  sign: z
    .object({
      common: z.string(),
      foliage: z.enum(foliageKinds),
      others: z.array(z.object({ botanical: z.string(), foliage: z.enum(foliageKinds) })),
    })
    .nullable()
    .default(null),
});
export type Lot = z.infer<typeof lotSchema>;

/** How a lot arrived and what is decided about it, at the version it was read. */
export const receiveLotSchema = z
  .strictObject({
    version: rowVersion.min(1),
    arrived: z.int().min(0).max(100_000),
    verdict: z.enum(receivingVerdicts).nullable(),
    reason,
  })
  .superRefine(({ verdict, reason: why }, context) => {
    if ((verdict === 'return' || verdict === 'hold') && why.length < 3) {
      context.addIssue({ code: 'custom', path: ['reason'], message: 'must say why, in 3 letters or more' });
    }
  });
export type ReceiveLot = z.infer<typeof receiveLotSchema>;

export const newDeliverySchema = z.strictObject({ id: entityId, orderId: entityId, arrivedOn: isoDate });
export type NewDelivery = z.infer<typeof newDeliverySchema>;

/** How it came and where it waits. */
export const deliveryStateSchema = z.strictObject({
  version: rowVersion.min(1),
  covered: z.boolean().nullable(),
  moist: z.boolean().nullable(),
  /** The nursery watered every so many days; `null` where nobody asked, left out by who does not know of it. */
  wateredEveryDays: measure('wateredEveryDays').nullable().optional(),
  holding: z.string().trim().max(120),
  note: z.string().trim().max(400),
});
export type DeliveryState = z.infer<typeof deliveryStateSchema>;

export const deliverySchema = deliveryStateSchema.extend({
  wateredEveryDays: measure('wateredEveryDays').nullable().default(null),
  id: z.uuid(),
  orderNumber: z.string(),
  nursery: z.string(),
  terms: z.string(),
  arrivedOn: isoDate,
  madeBy: z.string(),
  /** Days on which what waits was watered. */
  wateredOn: z.array(isoDate),
  /** Of the practice the delivery was opened under: its lots are judged by it to the end. */
  practice: z.object({ id: z.string(), version: z.int(), name: z.string() }),
  rules: receivingRulesSchema,
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
  /** Nurseries that something is claimed from, with what is. */
  claims: z.array(z.object({ nursery: z.string(), returned: z.int(), missing: z.int(), deliveries: z.int() })),
});
export type DeliveryList = z.infer<typeof deliveryListSchema>;

export const waterHeldSchema = z.strictObject({ onDay: isoDate });

/** Where a picture was taken, sent with it only where it is to be kept. */
export const photoPlaceSchema = z.strictObject({
  lng: z.coerce.number().min(-180).max(180).optional(),
  lat: z.coerce.number().min(-90).max(90).optional(),
});

export const claimQuerySchema = z.strictObject({ nursery: z.string().trim().min(1).max(120) });
