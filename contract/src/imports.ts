import * as z from 'zod';

export const importLimits = { rows: 10_000, bytes: 32 * 1024 * 1024 } as const;

export const rowIssueSchema = z.object({
  /** Row as a spreadsheet counts it: the header is row 1. For GeoJSON the first feature is row 1. */
  row: z.int(),
  column: z.string(),
  message: z.string(),
  received: z.string().optional(),
});
export type RowIssue = z.infer<typeof rowIssueSchema>;

export const rowVerdicts = ['new', 'changed', 'same', 'bad'] as const;

export const importRowSchema = z.object({
  row: z.int(),
  ref: z.string(),
  place: z.string(),
  species: z.string().nullable(),
  verdict: z.enum(rowVerdicts),
  /** What the row adds or changes, by kind of record. */
  writes: z.array(z.string()),
});
export type ImportRow = z.infer<typeof importRowSchema>;

export const importPreviewSchema = z.object({
  fileName: z.string(),
  rows: z.array(importRowSchema),
  issues: z.array(rowIssueSchema),
  counts: z.object({ new: z.int(), changed: z.int(), same: z.int(), bad: z.int() }),
  /** Columns Sombra does not know and leaves out. */
  ignoredColumns: z.array(z.string()),
});
export type ImportPreview = z.infer<typeof importPreviewSchema>;

/** One line of the answer to an import: how far it is, then how it ended. */
export const importProgressSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('progress'), done: z.int(), of: z.int() }),
  z.object({ kind: z.literal('done'), written: z.int(), same: z.int(), bad: z.int() }),
  z.object({ kind: z.literal('failed'), title: z.string(), reference: z.string().optional() }),
]);
export type ImportProgress = z.infer<typeof importProgressSchema>;

export const importQuerySchema = z.strictObject({
  id: z.uuidv7(),
  fileName: z.string().min(1).max(200),
});
