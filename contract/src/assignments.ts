import { assignmentKinds } from '@sombra/core';
import * as z from 'zod';
import { entityId, instant, isoDate, rowVersion } from './measures';
import { roles } from './session';

const title = z.string().trim().min(1, 'must not be empty').max(80);

/** What somebody is sent out to do, until when; its spots in the order they are walked. */
export const assignmentSchema = z.object({
  id: z.uuid(),
  kind: z.enum(assignmentKinds),
  title: z.string(),
  /** Whose it is. */
  userId: z.uuid(),
  userName: z.string(),
  until: z.iso.date(),
  spotIds: z.array(z.uuid()),
  deliveryId: z.uuid().nullable(),
  madeBy: z.string(),
  madeAt: instant,
  /** Of a watering round: what each tree is to get, and where the tank is filled before which. */
  water: z
    .object({ doses: z.record(z.string(), z.number()), fills: z.record(z.string(), z.string()) })
    .nullable()
    .default(null),
  version: z.int(),
});
export type Assignment = z.infer<typeof assignmentSchema>;
export const assignmentsSchema = z.array(assignmentSchema);

export const mostAssignedSpots = 400;

/** Sent twice, it is made once. */
export const assignSchema = z
  .strictObject({
    id: entityId,
    kind: z.enum(assignmentKinds),
    title,
    userId: entityId,
    until: isoDate,
    spotIds: z.array(entityId).max(mostAssignedSpots),
    deliveryId: entityId.nullable(),
  })
  .superRefine(({ kind, spotIds, deliveryId }, context) => {
    const fault = (path: string, message: string) => context.addIssue({ code: 'custom', path: [path], message });
    if (kind === 'delivery' && deliveryId === null) fault('deliveryId', 'must name the delivery');
    if (kind !== 'delivery' && deliveryId !== null) fault('deliveryId', 'must be left out where spots are assigned');
    if (kind !== 'delivery' && spotIds.length === 0) fault('spotIds', 'must name one spot or more');
    if (new Set(spotIds).size < spotIds.length) fault('spotIds', 'must not name a spot twice');
  });
export type Assign = z.infer<typeof assignSchema>;

export const endAssignmentSchema = z.strictObject({ version: rowVersion.min(1) });

/** The code that gives an assignment to whoever types it, for a while. */
export const handOverSchema = z.object({ code: z.string(), until: instant });
export type HandOver = z.infer<typeof handOverSchema>;
export const takeOverSchema = z.strictObject({
  code: z
    .string()
    .trim()
    .regex(/^\d{3} ?\d{3}$/, 'must be six digits'),
});

/** Who may be sent out. */
export const fieldPeopleSchema = z.array(z.object({ id: z.uuid(), name: z.string(), role: z.enum(roles) }));
export type FieldPeople = z.infer<typeof fieldPeopleSchema>;
