import {
  decisionKinds,
  probeClasses,
  stockKinds,
  type Decision,
  type PlantingWindow,
  type Practice,
  type Reason,
  type Stage,
  type StockOffer,
  type WaterCheckpoint,
} from '@sombra/core';
import * as z from 'zod';
import { entityId, isoDate, positionSchema } from './measures';
import { practiceSchema } from './practice';
import { plantingWindowSchema } from './season';
import { leaveSchema, spotPhotoSchema, uncoveredSchema, type Leave, type SpotPhoto, type Uncovered } from './ground';
import { rulesSchema, type Rules } from './rules';
import { keptRecordSchema, type KeptRecord } from './records';
import { remedyCodes } from './remedy-codes';
import { levelSchema, several, spotFilterSchema, stageSchema } from './spot-filter';
import { waterCheckpointSchema } from './water';

/** Reasons are made by the core on either side; here only their envelope is checked. */
const reasonSchema = z.object({ code: z.string(), facts: z.record(z.string(), z.unknown()) });

export const spotLineSchema = z.object({
  spotId: z.uuid(),
  treeId: z.uuid().nullable(),
  ref: z.string(),
  place: z.string(),
  species: z.string().nullable(),
  stage: stageSchema,
  level: levelSchema,
  plantedOn: z.iso.date().nullable(),
  probe: z.enum(probeClasses).nullable(),
  nextLookOn: z.iso.date().nullable(),
  /** Decisions that are open on the day asked for, due or not. */
  decisions: z.int(),
  /** The earliest of their last days. */
  dueOn: z.iso.date().nullable(),
  position: positionSchema,
});
export type SpotLine = z.infer<typeof spotLineSchema>;

export const spotSorts = [
  'ref',
  'place',
  'species',
  'stage',
  'level',
  'plantedOn',
  'probe',
  'nextLookOn',
  'dueOn',
  'decisions',
] as const;
export type SpotSort = (typeof spotSorts)[number];

const order = {
  sort: z.enum(spotSorts).default('ref'),
  down: z.preprocess((value) => value === true || value === 'true', z.boolean()).default(false),
};

export const spotListQuerySchema = spotFilterSchema.extend({
  ...order,
  offset: z.coerce.number().int().min(0).max(1_000_000).default(0),
  limit: z.coerce.number().int().min(1).max(5000).default(200),
});
export type SpotListQuery = z.infer<typeof spotListQuerySchema>;

export const spotCsvQuerySchema = spotFilterSchema.extend({ ...order, columns: several(z.enum(spotSorts)) });
export type SpotCsvQuery = z.infer<typeof spotCsvQuerySchema>;

export const rankQuerySchema = spotFilterSchema.extend({ ...order, spotId: entityId });
export type RankQuery = z.infer<typeof rankQuerySchema>;
export const rankSchema = z.object({ index: z.int().nullable() });

export const spotListSchema = z.object({ lines: z.array(spotLineSchema), total: z.int() });
export type SpotList = z.infer<typeof spotListSchema>;

const counted = z.array(z.object({ name: z.string(), count: z.int() }));
/** What there is to choose from in a filter, most frequent first. */
export const facetsSchema = z.object({
  places: counted,
  species: counted,
  stages: counted,
  levels: counted,
  /**
   * Where one stage is looked at, what its spots wait for, most frequent first: of what is prepared each reason by itself,
   * with one of them as an example; of planted trees each remedy, whose reasons differ.
   */
  waits: z.array(
    z.object({
      kind: z.enum(decisionKinds),
      remedy: z.enum(remedyCodes).nullable(),
      because: reasonSchema.nullable(),
      count: z.int(),
    }),
  ),
});
type ReadFacets = z.infer<typeof facetsSchema>;
export interface Facets extends Omit<ReadFacets, 'waits'> {
  readonly waits: readonly (Omit<ReadFacets['waits'][number], 'because'> & { readonly because: Reason | null })[];
}

const stockOfferSchema = z.object({
  nursery: z.string(),
  species: z.string(),
  kind: z.enum(stockKinds),
  caliperMm: z.number(),
  available: z.int(),
}) satisfies z.ZodType<StockOffer>;

/** A spot with its tree and all its records: enough for the core to work everything else out. */
export const spotDetailSchema = z.object({
  spot: z.object({
    id: z.uuid(),
    ref: z.string(),
    place: z.string(),
    position: positionSchema,
    version: z.int(),
    /** Since when it is out of the programme. */
    withdrawnOn: z.iso.date().nullable(),
  }),
  tree: z.object({ id: z.uuid(), species: z.string().nullable() }).nullable(),
  practice: practiceSchema,
  /** The version its tree was planted under; `null` before planting, or where that version is not on record. */
  plantedUnder: practiceSchema.nullable(),
  /** When each kind of stock may be planted. */
  windows: z.array(plantingWindowSchema),
  /** Of the programme; `null` until it was set up, and in what a device kept before it was sent. */
  latDeg: z.number().nullable().default(null),
  /** The planting day it is booked for. */
  plantOn: z.iso.date().nullable(),
  /** What nurseries have of its species. */
  offers: z.array(stockOfferSchema),
  rules: rulesSchema,
  leave: leaveSchema,
  /** Since when a planting asks for a ticket or a clearance; earlier ones are history. */
  ticketsSince: z.iso.date(),
  /** The newest photos of the place, newest first. */
  photos: z.array(spotPhotoSchema).default([]),
  /** From where its water is followed on; `null` where it is followed from its planting. */
  waterFrom: waterCheckpointSchema.nullable().default(null),
  records: z.array(keptRecordSchema),
});
export interface SpotDetail {
  spot: {
    id: string;
    ref: string;
    place: string;
    position: [number, number];
    version: number;
    withdrawnOn: string | null;
  };
  tree: { id: string; species: string | null } | null;
  practice: Practice;
  plantedUnder: Practice | null;
  windows: PlantingWindow[];
  latDeg: number | null;
  plantOn: string | null;
  offers: StockOffer[];
  rules: Rules;
  leave: Leave;
  ticketsSince: string;
  photos?: SpotPhoto[];
  waterFrom?: WaterCheckpoint | null;
  records: KeptRecord[];
}

export const addSpotSchema = z.strictObject({
  id: entityId,
  treeId: entityId,
  ref: z.string().trim().min(1, 'must not be empty').max(24),
  place: z.string().trim().min(1, 'must not be empty').max(80),
  position: positionSchema,
  species: z.string().trim().min(1).max(80).nullable(),
});
export type AddSpot = z.infer<typeof addSpotSchema>;

export const nearQuerySchema = z.strictObject({ lng: z.coerce.number(), lat: z.coerce.number() });
/** What a new spot at a position would be called. */
export const nearSchema = z.object({ place: z.string().nullable(), distanceM: z.number().nullable(), ref: z.string() });
export type Near = z.infer<typeof nearSchema>;

export const withdrawSchema = z.strictObject({
  spotIds: z.array(entityId).min(1).max(500),
  /** False brings them back. */
  withdrawn: z.boolean(),
});
export type Withdraw = z.infer<typeof withdrawSchema>;

/** Alike decisions at one place; the spot named is the one whose last day comes first. */
export const deskLineSchema = z.object({
  count: z.int(),
  place: z.string(),
  spotId: z.uuid(),
  treeId: z.uuid().nullable(),
  ref: z.string(),
  species: z.string().nullable(),
  kind: z.enum(decisionKinds),
  stage: stageSchema,
  level: levelSchema,
  dueOn: z.iso.date().nullable(),
  remedy: z.string().nullable(),
  because: z.array(reasonSchema),
  points: z.number(),
  daysLate: z.number().nullable(),
});
export interface DeskLine extends Decision {
  readonly count: number;
  readonly place: string;
  readonly spotId: string;
  readonly treeId: string | null;
  readonly ref: string;
  readonly species: string | null;
  readonly points: number;
  readonly daysLate: number | null;
}

/** Names one line of the desk. */
export const deskGroupQuerySchema = z.strictObject({
  on: isoDate.optional(),
  place: z.string().trim().min(1).max(80),
  kind: z.enum(decisionKinds),
  level: levelSchema,
  remedy: z.enum(remedyCodes).optional(),
});
export type DeskGroupQuery = z.infer<typeof deskGroupQuerySchema>;

export const deskMembersSchema = z.array(
  z.object({
    spotId: z.uuid(),
    treeId: z.uuid().nullable(),
    ref: z.string(),
    species: z.string().nullable(),
    dueOn: z.iso.date().nullable(),
    because: z.array(reasonSchema),
  }),
);
/** One of the trees a line stands for, with its own reason. */
export interface DeskMember {
  readonly spotId: string;
  readonly treeId: string | null;
  readonly ref: string;
  readonly species: string | null;
  readonly dueOn: string | null;
  readonly because: readonly Reason[];
}

export const openRemediesSchema = z.strictObject({ spotIds: z.array(entityId).min(1).max(500) });
export const openRemedyListSchema = z.array(z.object({ remedy: z.enum(remedyCodes), spotIds: z.array(z.uuid()) }));
export type OpenRemedy = z.infer<typeof openRemedyListSchema>[number];

export const deskQuerySchema = z.strictObject({ on: isoDate.optional() });

export const deskSchema = z.object({
  today: z.iso.date(),
  /** The day the list is for; today unless another was asked for. */
  on: z.iso.date(),
  lines: z.array(deskLineSchema),
  /** Lines there are, shown or not, and the decisions in them. */
  groups: z.int(),
  total: z.int(),
  /** Decisions waiting in each stage on that day. */
  waiting: z.partialRecord(stageSchema, z.int()),
  /** Planting days to come with spots that nobody may dig at that day. */
  uncovered: z.array(uncoveredSchema),
});
export interface Desk {
  today: string;
  on: string;
  lines: DeskLine[];
  groups: number;
  total: number;
  waiting: Partial<Record<Stage, number>>;
  uncovered: Uncovered[];
}
