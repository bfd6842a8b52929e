import { stages, type Decision, type Practice, type Stage } from '@sombra/core';
import { z } from 'zod';
import { practiceSchema } from './practice';
import { keptRecordSchema, type KeptRecord } from './records';

export const positionSchema = z.tuple([z.number().min(-180).max(180), z.number().min(-85).max(85)]);

/** Reasons are made by the core on either side; here only their envelope is checked. */
const reasonSchema = z.object({ code: z.string(), facts: z.record(z.string(), z.unknown()) });
const levelSchema = z.enum(['good', 'watch', 'act', 'urgent']);
const stageSchema = z.enum(stages);

export const spotLineSchema = z.object({
  spotId: z.uuid(),
  treeId: z.uuid().nullable(),
  ref: z.string(),
  place: z.string(),
  species: z.string().nullable(),
  stage: stageSchema,
  level: levelSchema,
  nextLookOn: z.iso.date().nullable(),
  decisions: z.int(),
});
export type SpotLine = z.infer<typeof spotLineSchema>;

export const spotListQuerySchema = z.strictObject({
  stage: stageSchema.optional(),
  find: z.string().trim().max(80).optional(),
  limit: z.coerce.number().int().min(1).max(500).default(200),
  after: z.string().max(40).optional(),
});
export type SpotListQuery = z.infer<typeof spotListQuerySchema>;

export const spotListSchema = z.object({ lines: z.array(spotLineSchema), total: z.int() });
export type SpotList = z.infer<typeof spotListSchema>;

/** A spot with its tree and all its records: enough for the core to work everything else out. */
export const spotDetailSchema = z.object({
  spot: z.object({
    id: z.uuid(),
    ref: z.string(),
    place: z.string(),
    position: positionSchema,
    version: z.int(),
  }),
  tree: z.object({ id: z.uuid(), species: z.string().nullable() }).nullable(),
  practice: practiceSchema,
  records: z.array(keptRecordSchema),
});
export interface SpotDetail {
  spot: { id: string; ref: string; place: string; position: [number, number]; version: number };
  tree: { id: string; species: string | null } | null;
  practice: Practice;
  records: KeptRecord[];
}

export const deskLineSchema = z.object({
  spotId: z.uuid(),
  treeId: z.uuid().nullable(),
  ref: z.string(),
  place: z.string(),
  species: z.string().nullable(),
  kind: z.enum(['measure_ground', 'measure_stock', 'resolve_pit', 'record_planting', 'do_remedy', 'look']),
  stage: stageSchema,
  level: levelSchema,
  dueOn: z.iso.date().nullable(),
  remedy: z.string().nullable(),
  because: z.array(reasonSchema),
  points: z.number(),
  daysLate: z.number().nullable(),
});
export interface DeskLine extends Decision {
  readonly spotId: string;
  readonly treeId: string | null;
  readonly ref: string;
  readonly place: string;
  readonly species: string | null;
  readonly points: number;
  readonly daysLate: number | null;
}

export const deskSchema = z.object({
  today: z.iso.date(),
  lines: z.array(deskLineSchema),
  total: z.int(),
  /** Decisions waiting in each stage today. */
  waiting: z.partialRecord(stageSchema, z.int()),
});
export interface Desk {
  today: string;
  lines: DeskLine[];
  total: number;
  waiting: Partial<Record<Stage, number>>;
}
