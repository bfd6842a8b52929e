import * as z from 'zod';
import { entityId, isoDate, measure, positionSchema, rowVersion } from './measures';
import { waterGroups } from './water';

const name = z.string().trim().min(1, 'must not be empty').max(60);

/** What water is brought by: a truck with its tank, or people on foot with what they carry or find there. */
export const waterTruckSchema = z.strictObject({
  id: entityId,
  name,
  onFoot: z.boolean(),
  tankL: measure('tankL'),
  pourLPerMin: measure('pourLPerMin'),
  kmPerH: measure('truckKmPerH'),
  depot: positionSchema,
  retired: z.boolean(),
  version: rowVersion,
});
export type WaterTruck = z.infer<typeof waterTruckSchema>;

export const fillPointSchema = z.strictObject({
  id: entityId,
  name,
  position: positionSchema,
  flowLPerMin: measure('fillLPerMin'),
  connectMinutes: measure('connectMinutes'),
  /** Whose leave is needed, its number, until when. */
  permit: z.string().trim().max(200),
  retired: z.boolean(),
  version: rowVersion,
});
export type WaterFillPoint = z.infer<typeof fillPointSchema>;

export const fleetSchema = z.object({
  trucks: z.array(waterTruckSchema),
  fills: z.array(fillPointSchema.extend({ fromStreetM: z.number().nullable() })),
});
export type Fleet = z.infer<typeof fleetSchema>;

export const mostRoundStops = 400;

/** Which trees, by which trucks, for how long. */
export const seekRoundsSchema = z.strictObject({
  id: entityId,
  title: z.string().trim().min(1, 'must not be empty').max(80),
  onDay: isoDate,
  /** `drought`: established trees that a long dry spell brings back. */
  groups: z.array(z.enum([...waterGroups, 'drought'])).max(waterGroups.length + 1),
  place: z.string().max(80).nullable(),
  trucks: z
    .array(z.strictObject({ truckId: entityId, shiftMinutes: z.int().min(10).max(1440) }))
    .min(1, 'must name one truck or more')
    .max(20),
  seed: z.int().min(1).max(1_000_000_000),
});
export type SeekRounds = z.infer<typeof seekRoundsSchema>;

const stepSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('stop'),
    spotId: z.uuid(),
    ref: z.string(),
    place: z.string(),
    position: positionSchema,
    litres: z.number(),
  }),
  z.object({
    kind: z.literal('fill'),
    fillId: z.uuid(),
    name: z.string(),
    position: positionSchema,
    litres: z.number(),
  }),
]);
export type RoundStepLine = z.infer<typeof stepSchema>;

export const leftWhys = ['no_time', 'tank_too_small', 'no_way'] as const;
export const roundPlanSchema = z.object({
  trucks: z.array(
    z.object({
      truckId: z.uuid(),
      name: z.string(),
      onFoot: z.boolean(),
      depot: positionSchema,
      shiftMinutes: z.number(),
      minutes: z.number(),
      driveM: z.number(),
      litres: z.number(),
      steps: z.array(stepSchema),
    }),
  ),
  left: z.array(z.object({ spotId: z.uuid(), ref: z.string(), litres: z.number(), why: z.enum(leftWhys) })),
  /** Whether ways follow streets; else straight lines, made longer. */
  routed: z.boolean(),
  /** No way of serving all of it takes less. */
  leastMinutes: z.number(),
});
export type KeptRoundPlan = z.infer<typeof roundPlanSchema>;

export const seekRoundsProgressSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('running'), done: z.number(), cost: z.number() }),
  z.object({ kind: z.literal('found'), id: z.uuid() }),
  z.object({ kind: z.literal('failed'), title: z.string(), reference: z.string().optional() }),
]);
export type SeekRoundsProgress = z.infer<typeof seekRoundsProgressSchema>;

export const roundStates = ['draft', 'given'] as const;
const headFields = {
  id: z.uuid(),
  title: z.string(),
  onDay: z.iso.date(),
  state: z.enum(roundStates),
  madeBy: z.string(),
  madeAt: z.string(),
  version: z.int(),
};
export const roundHeadSchema = z.object({ ...headFields, stops: z.int(), trucks: z.int(), litres: z.number() });
export type RoundHead = z.infer<typeof roundHeadSchema>;

/** What became of a stop: from its records, and from what its balance says by now. */
export const stopStates = ['open', 'watered', 'could_not', 'not_needed'] as const;
export type StopState = (typeof stopStates)[number];
export const waterRoundSchema = z.object({
  ...headFields,
  plan: roundPlanSchema,
  /** By spot. */
  stops: z.record(
    z.string(),
    z.object({ state: z.enum(stopStates), litres: z.number().nullable(), why: z.string().nullable() }),
  ),
  /** Who goes with which truck. */
  given: z.array(z.object({ truckId: z.uuid(), userName: z.string() })),
});
export type WaterRound = z.infer<typeof waterRoundSchema>;

/** Sends somebody out with each truck. */
export const giveRoundSchema = z.strictObject({
  version: rowVersion.min(1),
  people: z.array(z.strictObject({ truckId: entityId, userId: entityId })).max(20),
});
export type GiveRound = z.infer<typeof giveRoundSchema>;
