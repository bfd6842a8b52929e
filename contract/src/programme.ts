import { stockKinds, unitSystems } from '@sombra/core';
import * as z from 'zod';
import { measure, rowVersion } from './measures';
import { passwordMost } from './password-limits';
import { addPersonSchema } from './session';

export const holidaySchema = z
  .string()
  .regex(/^(\d{4}-)?(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, 'must be YYYY-MM-DD or MM-DD');
export const holidaysSchema = z.array(holidaySchema).max(200);
export const currencySchema = z.string().regex(/^[A-Z]{3}$/, 'must be three capital letters');

const daysOf = [31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];
const dayOfYear = z
  .string()
  .regex(/^(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, 'must be MM-DD')
  .refine(
    (text) => Number(text.slice(3)) <= (daysOf[Number(text.slice(0, 2)) - 1] ?? 0),
    'must be a day of that month',
  );

/** A planting window as somebody sets it. */
export const setWindowSchema = z.strictObject({
  stock: z.enum(stockKinds),
  from: dayOfYear,
  to: dayOfYear,
  because: z.string().trim().max(200),
});

function isTimeZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

const programmeShape = {
  name: z.string().trim().min(1, 'must not be empty').max(80),
  timeZone: z.string().max(60).refine(isTimeZone, 'must be a time zone such as Atlantic/Azores'),
  latDeg: measure('latDeg'),
  lngDeg: measure('lngDeg'),
  elevationM: measure('elevationM'),
  currency: currencySchema,
  /** Those new people begin with. */
  units: z.enum(unitSystems),
  holidays: holidaysSchema,
  windows: z.array(setWindowSchema).max(12),
};

export const saveProgrammeSchema = z.strictObject({ ...programmeShape, version: rowVersion.min(1) });
export type SaveProgramme = z.infer<typeof saveProgrammeSchema>;

export const programmeSchema = z.object({
  ...saveProgrammeSchema.shape,
  demo: z.boolean(),
  /** What it plants by; changed by adopting another. */
  practice: z.object({ id: z.string(), version: z.int(), name: z.string() }),
  /** What follows from the records is being worked out again for every spot, after an update or other windows. */
  working: z.object({ done: z.int(), of: z.int() }).nullable(),
});
export type Programme = z.infer<typeof programmeSchema>;

/** All an empty programme needs to begin: its first administrator and what it goes by. */
export const setUpSchema = z.strictObject({
  code: z.string().trim().toUpperCase().max(40),
  person: addPersonSchema
    .pick({ id: true, signIn: true, name: true, units: true })
    .extend({ password: z.string().max(passwordMost) }),
  programme: z.strictObject(programmeShape),
  practice: z.strictObject({ id: z.string().max(60), version: rowVersion.min(1) }),
});
export type SetUp = z.infer<typeof setUpSchema>;
