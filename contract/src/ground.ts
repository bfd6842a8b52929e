import { replyStates, siteThings, type LawfulClearance, type SiteThing } from '@sombra/core';
import * as z from 'zod';
import { entityId, isoDate, positionSchema } from './measures';

/** A distance read off the base map, to be corrected by tape. */
export const mapDistanceSchema = z.object({
  thing: z.enum(siteThings),
  distanceM: z.number(),
  /** Which way it lies, degrees from north; `null` where it is all around. */
  towardsDeg: z.number().nullable(),
  /** Of a wire or building, where the map knows it. m */
  heightM: z.number().nullable(),
});
export interface MapDistance {
  readonly thing: SiteThing;
  readonly distanceM: number;
  readonly towardsDeg: number | null;
  readonly heightM: number | null;
}

/** A tree nearby: its crown now, and when grown by the library. */
export const neighbourSchema = z.object({
  spotId: z.uuid(),
  ref: z.string(),
  species: z.string().nullable(),
  distanceM: z.number(),
  crownNowM: z.number(),
  crownMatureM: z.number(),
});
export type Neighbour = z.infer<typeof neighbourSchema>;

export const surroundingsSchema = z.object({
  distances: z.array(mapDistanceSchema),
  neighbours: z.array(neighbourSchema),
  /** Way to the nearest street's middle, degrees from north: the pavement lies the other way. */
  streetDeg: z.number().nullable(),
  /** Layers the map holds nothing of: their absence says nothing. */
  layersMissing: z.array(z.string()),
});
export interface Surroundings {
  readonly distances: readonly MapDistance[];
  readonly neighbours: readonly Neighbour[];
  readonly streetDeg: number | null;
  readonly layersMissing: readonly string[];
}

export const utilityReplySchema = z.object({
  utility: z.string().min(1).max(80),
  state: z.enum(replyStates),
  repliedOn: isoDate.nullable(),
  toleranceMm: z.number().min(0).max(5000).nullable(),
  note: z.string().max(400),
});

/** A ticket as the cover of a spot needs it. */
export const coverTicketSchema = z.object({
  id: z.uuid(),
  number: z.string(),
  validFrom: isoDate.nullable(),
  validUntil: isoDate.nullable(),
  withdrawn: z.boolean(),
  /** How far the spot may be moved, whichever way, and still lie in the ticket's area. */
  roomM: z.number(),
  replies: z.array(utilityReplySchema),
});
export type CoverTicket = z.infer<typeof coverTicketSchema>;

const text = (most: number) => z.string().trim().min(2, 'must not be empty').max(most);

export const clearanceQuerySchema = z
  .strictObject({
    id: entityId,
    document: text(120),
    clearedBy: text(120),
    validFrom: isoDate,
    validUntil: isoDate,
  })
  .refine(({ validFrom, validUntil }) => validFrom <= validUntil, {
    error: 'must not be before the first day',
    path: ['validUntil'],
  });
export type NewClearance = z.infer<typeof clearanceQuerySchema>;

export const keptClearanceSchema = z.object({
  id: z.uuid(),
  document: z.string(),
  clearedBy: z.string(),
  validFrom: isoDate,
  validUntil: isoDate,
  addedBy: z.string(),
}) satisfies z.ZodType<LawfulClearance>;
export type KeptClearance = z.infer<typeof keptClearanceSchema>;

export const permitSchema = z
  .strictObject({
    id: entityId,
    number: text(60),
    authority: text(120),
    validFrom: isoDate,
    validUntil: isoDate,
    spotIds: z.array(entityId).min(1).max(500),
  })
  .refine(({ validFrom, validUntil }) => validFrom <= validUntil, {
    error: 'must not be before the first day',
    path: ['validUntil'],
  });
export type NewPermit = z.infer<typeof permitSchema>;

export const spotPermitSchema = z.object({
  id: z.uuid(),
  number: z.string(),
  authority: z.string(),
  validFrom: isoDate,
  validUntil: isoDate,
});
export type SpotPermit = z.infer<typeof spotPermitSchema>;

export const consentStates = ['asked', 'given', 'refused', 'expired', 'revoked'] as const;
export const askConsentSchema = z.strictObject({ id: entityId, owner: text(120) });
export type AskConsent = z.infer<typeof askConsentSchema>;

export const consentSchema = z.object({
  id: z.uuid(),
  owner: z.string(),
  askedBy: z.string(),
  askedOn: isoDate,
  expiresOn: isoDate,
  state: z.enum(consentStates),
  answeredAt: z.string().nullable(),
  signedBy: z.string().nullable(),
  remark: z.string(),
});
export type Consent = z.infer<typeof consentSchema>;

/** Told once, when the link is made: only its fingerprint is kept. */
export const consentLinkSchema = z.object({ consent: consentSchema, path: z.string() });
export type ConsentLink = z.infer<typeof consentLinkSchema>;

/** What the owner sees by the link, without signing in. */
export const openConsentSchema = z.object({
  programme: z.string(),
  owner: z.string(),
  place: z.string(),
  ref: z.string(),
  species: z.string().nullable(),
  state: z.enum(consentStates),
  expiresOn: isoDate,
});
export type OpenConsent = z.infer<typeof openConsentSchema>;

export const answerConsentSchema = z.strictObject({
  agrees: z.boolean(),
  signedBy: text(120),
  remark: z.string().trim().max(400),
});
export type AnswerConsent = z.infer<typeof answerConsentSchema>;

/** All that has to be there before anybody digs at a spot. */
export const leaveSchema = z.object({
  tickets: z.array(coverTicketSchema),
  clearances: z.array(keptClearanceSchema),
  permits: z.array(spotPermitSchema),
  consents: z.array(consentSchema),
});
export type Leave = z.infer<typeof leaveSchema>;

// Tickets

const ringSchema = z.array(positionSchema).min(3, 'must have 3 corners or more').max(400);

export const raiseTicketSchema = z
  .strictObject({
    id: entityId,
    purpose: text(120),
    /** The dig area as drawn; or the spots, around which Sombra draws it. */
    ring: ringSchema.optional(),
    spotIds: z.array(entityId).min(1).max(500).optional(),
    /** The ticket this one goes on from: its area may be overlapped. */
    renews: entityId.nullable(),
  })
  .refine(({ ring, spotIds }) => (ring === undefined) !== (spotIds === undefined), {
    error: 'must be given as an area or as spots',
    path: ['ring'],
  });
export type RaiseTicket = z.infer<typeof raiseTicketSchema>;

export const ticketSchema = z.object({
  id: z.uuid(),
  number: z.string().nullable(),
  purpose: z.string(),
  state: z.enum(['unsent', 'open', 'withdrawn']),
  raisedBy: z.string(),
  raisedAt: z.string(),
  validFrom: isoDate.nullable(),
  validUntil: isoDate.nullable(),
  renews: z.uuid().nullable(),
  /** Tries to reach the centre since it last answered, and what went wrong. */
  tries: z.int(),
  problem: z.string().nullable(),
  replies: z.array(utilityReplySchema),
  area: z.array(z.array(positionSchema)),
  areaM2: z.number(),
  /** Spots not yet planted in the area; of these, those on a planting day, with the first such day. */
  spots: z.int(),
  booked: z.int(),
  firstDay: isoDate.nullable(),
});
export type Ticket = z.infer<typeof ticketSchema>;

/** Spots of a planting day to come that no ticket or clearance covers on that day. */
export const uncoveredSchema = z.object({
  dayId: z.uuid(),
  title: z.string(),
  onDay: isoDate,
  spots: z.array(z.object({ spotId: z.uuid(), ref: z.string(), place: z.string(), why: z.string() })),
});
export type Uncovered = z.infer<typeof uncoveredSchema>;

export const ticketListSchema = z.object({ tickets: z.array(ticketSchema), uncovered: z.array(uncoveredSchema) });
export type TicketList = z.infer<typeof ticketListSchema>;

/** A photo whole, or at most so many pixels wide and high. */
export const photoQuerySchema = z.object({ px: z.coerce.number().int().min(40).max(1600).optional() });

/** The step of a work at which a photo was taken: `inspection.stake`. */
export const photoStepSchema = z.strictObject({
  step: z
    .string()
    .regex(/^[a-z_]+(\.[A-Za-z]+)?$/, 'must name a work and a step')
    .max(60)
    .optional(),
});
export const spotPhotoSchema = z.object({ id: z.uuid(), step: z.string().nullable(), addedAt: z.iso.datetime() });
export type SpotPhoto = z.infer<typeof spotPhotoSchema>;
