import { unitSystems } from '@sombra/core';
import * as z from 'zod';
import { entityId, instant, rowVersion } from './measures';
import { passwordMost } from './password-limits';

export const roles = ['administrator', 'coordinator', 'crew_lead', 'inspector', 'waterer', 'viewer'] as const;
export type Role = (typeof roles)[number];
export const roleNames: Readonly<Record<Role, string>> = {
  administrator: 'Administrator',
  coordinator: 'Coordinator',
  crew_lead: 'Crew lead',
  inspector: 'Inspector',
  waterer: 'Waterer',
  viewer: 'Viewer',
};

export const userSchema = z.object({
  id: z.uuid(),
  signIn: z.string(),
  name: z.string(),
  role: z.enum(roles),
  units: z.enum(unitSystems),
});
export type User = z.infer<typeof userSchema>;

export const sessionSchema = z.object({
  user: userSchema.nullable(),
  csrfToken: z.string(),
  /** Today in the programme's time zone; `null` while signed out. */
  today: z.iso.date().nullable(),
  /** The programme of this database; `null` until somebody has set it up. */
  programme: z.object({ name: z.string(), demo: z.boolean(), timeZone: z.string().optional() }).nullable(),
  /** Somebody asked that this device keep nothing any more: it is lost, or goes to somebody else. */
  wipe: z.boolean().optional(),
  /** The server's clock as it answered, ISO 8601. */
  now: instant.optional(),
});
export type Session = z.infer<typeof sessionSchema>;

export const signInSchema = z.strictObject({
  signIn: z.string().trim().min(1, 'must not be empty').max(120),
  password: z.string().min(1, 'must not be empty').max(200),
});
export type SignIn = z.infer<typeof signInSchema>;

const personName = z.string().trim().min(1, 'must not be empty').max(120);

/** What everybody changes about themselves. */
export const preferencesSchema = z.strictObject({
  units: z.enum(unitSystems).optional(),
  name: personName.optional(),
});
export type Preferences = z.infer<typeof preferencesSchema>;

const newPassword = z.string().max(passwordMost, `must have at most ${passwordMost} characters`);
export const changePasswordSchema = z.strictObject({ current: z.string().max(passwordMost), password: newPassword });
export type ChangePassword = z.infer<typeof changePasswordSchema>;

// People

const signInName = z
  .string()
  .trim()
  .toLowerCase()
  .regex(
    /^[a-z0-9][a-z0-9._@-]{1,59}$/,
    'must be 2 to 60 letters, digits and . _ @ -, beginning with a letter or digit',
  );

/** Asked of an id that others may guess nothing from: made by the page, so that adding twice adds once. */
export const addPersonSchema = z.strictObject({
  id: entityId,
  signIn: signInName,
  name: personName,
  role: z.enum(roles),
  units: z.enum(unitSystems),
});
export type AddPerson = z.infer<typeof addPersonSchema>;

export const changePersonSchema = z.strictObject({
  name: personName,
  role: z.enum(roles),
  disabled: z.boolean(),
  version: rowVersion.min(1),
});
export type ChangePerson = z.infer<typeof changePersonSchema>;

export const personSchema = userSchema.extend({
  version: z.int(),
  /** Whether they have set a password. */
  joined: z.boolean(),
  disabledAt: instant.nullable(),
  lastSignInAt: instant.nullable(),
  addedBy: z.string().nullable(),
  addedAt: instant,
  /** Sessions that are open, on any device. */
  sessions: z.int(),
  /** When a link that was made for them and not used ends. */
  linkUntil: instant.nullable(),
});
export type Person = z.infer<typeof personSchema>;
export const peopleSchema = z.array(personSchema);

/** The people, and the one-time link that was just made; it is shown once and kept nowhere. */
export const peopleWithLinkSchema = z.object({ people: peopleSchema, link: z.string().nullable() });
export type PeopleWithLink = z.infer<typeof peopleWithLinkSchema>;

/** What a one-time link opens: whose it is. */
export const invitationSchema = z.object({ signIn: z.string(), name: z.string(), programme: z.string() });
export type Invitation = z.infer<typeof invitationSchema>;
export const acceptInvitationSchema = z.strictObject({ password: newPassword });
