import { establishingStates, probeClasses, stages } from '@sombra/core';
import * as z from 'zod';
import { entityId, isoDate, positionSchema } from './measures';
import { remedyCodes } from './remedy-codes';

const levels = ['good', 'watch', 'act', 'urgent'] as const;
export const levelSchema = z.enum(levels);
export const stageSchema = z.enum(stages);

/** `a,b,c` in an address, or a list. */
export const several = <S extends z.ZodType>(schema: S) =>
  z.preprocess(
    (value) => (typeof value === 'string' ? value.split(',').filter((part) => part !== '') : value),
    z.array(schema).min(1).max(200),
  );

/** `lng,lat;lng,lat;…`: the corners of a ring, not closed. */
const areaSchema = z.preprocess(
  (value) =>
    typeof value === 'string' ? value.split(';').map((corner) => corner.split(',').map((part) => Number(part))) : value,
  z.array(positionSchema).min(3, 'must have 3 corners or more').max(400),
);

/** Which spots are meant: all parts must hold. The same words stand in addresses, saved views and calls. */
export const spotFilterSchema = z.strictObject({
  /** The day to look at; today where missing. */
  on: isoDate.optional(),
  stage: several(stageSchema).optional(),
  level: several(levelSchema).optional(),
  place: several(z.string().trim().min(1).max(80)).optional(),
  species: several(z.string().trim().min(1).max(80)).optional(),
  probe: several(z.enum(probeClasses)).optional(),
  remedy: several(z.enum(remedyCodes)).optional(),
  /** Decisions whose last day has passed, or comes within seven days. */
  due: z.enum(['late', 'week']).optional(),
  planted: z.enum(['yes', 'no']).optional(),
  /** How a planted tree comes along towards standing on its own. */
  comes: z.enum(establishingStates).optional(),
  /** Planted between 1 July of this year and 30 June of the next. */
  season: z.coerce.number().int().min(1950).max(2200).optional(),
  /** Planted on these days or between them. */
  plantedFrom: isoDate.optional(),
  plantedUntil: isoDate.optional(),
  /** What a decision gives as why it waits: the code of the reason. */
  waits: z
    .string()
    .regex(/^[a-z_]{2,60}$/, 'must be the code of a reason')
    .optional(),
  recordedBy: z.string().trim().min(1).max(120).optional(),
  day: entityId.optional(),
  ref: several(z.string().trim().min(1).max(24)).optional(),
  find: z.string().trim().max(80).optional(),
  area: areaSchema.optional(),
});
export type SpotFilter = z.infer<typeof spotFilterSchema>;
