import { fingerClasses } from '@sombra/core';
import * as z from 'zod';
import { entityId, filledText, instant, isoDate, measure, recordId, shortText } from './measures';
import { nextWaterSchema } from './water';

const address = z.email('must be an e-mail address').max(120);
const bucketL = measure('bucketL');

/** Gives a planted tree to somebody who lives by it: they get a link, and reminders where there is an address. */
export const giveCareSchema = z.strictObject({
  id: entityId,
  name: filledText(80),
  email: z.union([z.literal(''), address]).default(''),
  bucketL: bucketL.default(10),
});
export type GiveCare = z.infer<typeof giveCareSchema>;

export const careWordKinds = ['watered', 'complaint', 'help'] as const;
export type CareWordKind = (typeof careWordKinds)[number];

export const careWordSchema = z.object({
  id: z.uuid(),
  kind: z.enum(careWordKinds),
  saidAt: instant,
  words: z.string(),
  litres: z.number().nullable(),
  answeredBy: z.string().nullable(),
  answer: z.string(),
});
export type CareWord = z.infer<typeof careWordSchema>;

export const keeperStates = ['silent', 'due', 'fine'] as const;

/** A keeper as the programme sees them: no address, only whether there is one. */
export const keeperSchema = z.object({
  id: z.uuid(),
  spotId: z.uuid(),
  treeId: z.uuid(),
  ref: z.string(),
  place: z.string(),
  species: z.string().nullable(),
  name: z.string(),
  hasAddress: z.boolean(),
  wantsLetters: z.boolean(),
  bucketL: z.number(),
  since: isoDate,
  /** Of whom they are the deputy, and for which days. */
  deputyOf: z.string().nullable(),
  fromDay: isoDate.nullable(),
  untilDay: isoDate.nullable(),
  over: z.boolean(),
  heardOn: isoDate.nullable(),
  remindedOn: isoDate.nullable(),
  next: nextWaterSchema.nullable(),
  state: z.enum(keeperStates),
  /** What waits for an answer. */
  open: z.array(careWordSchema),
});
export type Keeper = z.infer<typeof keeperSchema>;
export const keepersSchema = z.array(keeperSchema);

/** What of keepers needs somebody, for the desk. */
export const careWaitingSchema = z.object({ help: z.int(), complaints: z.int(), silent: z.int() });
export type CareWaiting = z.infer<typeof careWaitingSchema>;

export const carePathSchema = z.object({ path: z.string() });

/** What a care link shows: this one tree, and what its keeper told. */
export const openCareSchema = z.object({
  programme: z.string(),
  ref: z.string(),
  place: z.string(),
  species: z.string().nullable(),
  keeper: z.string(),
  today: isoDate,
  plantedOn: isoDate.nullable(),
  /** `over` once the link was taken back, its time is over, or the tree is gone. */
  state: z.enum(['open', 'over']),
  next: nextWaterSchema.nullable(),
  /** Signed off: it needs nobody to water it any more. */
  establishedOn: isoDate.nullable(),
  /** What is told of one watering at most, L. */
  mostL: z.number(),
  bucketL: z.number(),
  slowSoil: z.boolean(),
  /** What restrictions on watering say of today, in words; empty where they allow it. */
  restriction: z.string(),
  wantsLetters: z.boolean(),
  hasAddress: z.boolean(),
  isDeputy: z.boolean(),
  deputies: z.array(z.object({ id: z.uuid(), name: z.string(), fromDay: isoDate, untilDay: isoDate })),
  said: z.array(careWordSchema),
});
export type OpenCare = z.infer<typeof openCareSchema>;

/** It becomes a record under this id. */
export const tellWateredSchema = z.strictObject({
  id: recordId,
  wateredOn: isoDate,
  litres: measure('wateringL'),
  finger: z.enum(fingerClasses).optional(),
});
export type TellWatered = z.infer<typeof tellWateredSchema>;

export const tellWordSchema = z.strictObject({
  id: entityId,
  kind: z.enum(['complaint', 'help']),
  words: filledText(400),
});
export type TellWord = z.infer<typeof tellWordSchema>;

export const nameDeputySchema = z.strictObject({
  id: entityId,
  name: filledText(80),
  email: z.union([z.literal(''), address]).default(''),
  fromDay: isoDate,
  untilDay: isoDate,
});
export type NameDeputy = z.infer<typeof nameDeputySchema>;

export const careWishesSchema = z.strictObject({ letters: z.boolean().optional(), bucketL: bucketL.optional() });
export type CareWishes = z.infer<typeof careWishesSchema>;

export const answerCareSchema = z.strictObject({ answer: shortText(400) });
