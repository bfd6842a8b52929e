import { skills } from '@sombra/core';
import * as z from 'zod';
import { arrangementsSchema, dayHoursSchema, dayStates } from './day-basics';
import { entityId, instant, isoDate, filledText, shortText } from './measures';

export const personStates = ['held', 'confirmed', 'waiting', 'cancelled'] as const;

export const dayPersonSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  state: z.enum(personStates),
  heldUntil: instant.nullable(),
  skill: z.enum(skills),
  minor: z.boolean(),
  guardianId: z.uuid().nullable(),
  together: z.string().nullable(),
  noLifting: z.boolean(),
  photos: z.boolean(),
  waiver: z.boolean(),
  waiverSignedBy: z.string().nullable(),
  userId: z.uuid().nullable(),
  source: z.enum(['link', 'desk', 'walk_in']),
  cameAt: instant.nullable(),
  leftAt: instant.nullable(),
});
export type DayPerson = z.infer<typeof dayPersonSchema>;

const about = {
  name: filledText(80),
  skill: z.enum(skills),
  minor: z.boolean(),
  together: shortText(40).nullable(),
  noLifting: z.boolean(),
  photos: z.boolean(),
};
/** Kept under the season's key, for leads alone. */
export const privateSchema = z.strictObject({
  email: z.union([z.literal(''), z.email('must be an e-mail address').max(120)]).default(''),
  phone: shortText(40).default(''),
  emergencyContact: shortText(120).default(''),
  allergies: shortText(400).default(''),
});
export type PrivateFacts = z.infer<typeof privateSchema>;

/** Somebody added at the desk, or who walks in; `signedBy` where the waiver was signed on paper. */
export const addHelperSchema = z.strictObject({
  id: entityId,
  ...about,
  guardianId: entityId.nullable(),
  userId: entityId.nullable(),
  signedBy: shortText(80).nullable(),
  walkIn: z.boolean(),
  private: privateSchema,
});
export type AddHelper = z.infer<typeof addHelperSchema>;

export const changeHelperSchema = z.strictObject({
  ...about,
  guardianId: entityId.nullable(),
  state: z.enum(['confirmed', 'waiting', 'cancelled']),
  signedBy: shortText(80).nullable(),
});
export type ChangeHelper = z.infer<typeof changeHelperSchema>;

/** What the open page of a day shows to anybody who has its link. */
export const openDaySchema = z.object({
  programme: z.string(),
  title: z.string(),
  onDay: isoDate,
  hours: dayHoursSchema,
  arrangements: arrangementsSchema,
  placesLeft: z.int(),
  state: z.enum(dayStates),
  waiver: z.object({ version: z.int(), text: z.string() }),
});
export type OpenDay = z.infer<typeof openDaySchema>;

/** One who registers by the link, with the minors they are guardian of. `website` is left empty by people. */
export const registerSchema = z.strictObject({
  id: entityId,
  ...about,
  minor: z.literal(false),
  skill: z.enum(['has_planted', 'first_time']),
  private: privateSchema.extend({ email: z.email('must be an e-mail address').max(120) }),
  waiverVersion: z.int().min(1),
  signedBy: filledText(80),
  minors: z.array(z.strictObject({ id: entityId, name: filledText(80), allergies: shortText(400) })).max(6),
  website: z.string().max(200),
});
export type Register = z.infer<typeof registerSchema>;

export const openRegistrationSchema = z.object({
  programme: z.string(),
  title: z.string(),
  onDay: isoDate,
  name: z.string(),
  with: z.array(z.string()),
  state: z.enum([...personStates, 'over']),
  gathering: z.string(),
  hours: dayHoursSchema,
});
export type OpenRegistration = z.infer<typeof openRegistrationSchema>;
export const answerRegistrationSchema = z.strictObject({ answer: z.enum(['confirm', 'cancel']) });

export const waiverSchema = z.strictObject({ version: z.int().min(1), text: shortText(8000).min(20) });
export type Waiver = z.infer<typeof waiverSchema>;
