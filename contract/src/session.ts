import { unitSystems } from '@sombra/core';
import * as z from 'zod';

export const roles = ['administrator', 'coordinator', 'crew_lead', 'inspector', 'waterer', 'viewer'] as const;
export type Role = (typeof roles)[number];

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
});
export type Session = z.infer<typeof sessionSchema>;

export const signInSchema = z.strictObject({
  signIn: z.string().trim().min(1, 'must not be empty').max(120),
  password: z.string().min(1, 'must not be empty').max(200),
});
export type SignIn = z.infer<typeof signInSchema>;

export const preferencesSchema = z.strictObject({ units: z.enum(unitSystems) });
export type Preferences = z.infer<typeof preferencesSchema>;
