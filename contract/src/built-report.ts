import type { AsBuilt } from '@sombra/core';
import * as z from 'zod';
import { entityId, filledText, instant, isoDate, measure, shortText } from './measures';

export const builtReportStates = ['asked', 'reported', 'verified', 'over'] as const;

/** Asks whoever takes a tree home to tell how it was planted. */
export const askReportSchema = z.strictObject({ id: entityId, owner: filledText(80) });
export type AskReport = z.infer<typeof askReportSchema>;

const builtFacts = {
  plantedOn: isoDate,
  flareAboveGradeMm: z.array(measure('flareAboveGradeMm')).min(1).max(4),
  holeWidthMm: measure('holeWidthMm'),
  firstWaterL: measure('firstWaterL'),
  mulchDepthMm: measure('mulchDepthMm').optional(),
};
const builtFactsSchema = z.strictObject(builtFacts) satisfies z.ZodType<AsBuilt>;

/** What the keeper of a tree says they did: a report, and no planting before somebody of the programme verified it. */
export const reportBuiltSchema = z.strictObject({ ...builtFacts, words: shortText(400), signedBy: filledText(80) });
export type ReportBuilt = z.infer<typeof reportBuiltSchema>;

/** What the link shows: nothing of anybody else, and the numbers of this one tree. */
export const openReportSchema = z.object({
  programme: z.string(),
  ref: z.string(),
  place: z.string(),
  species: z.string().nullable(),
  owner: z.string(),
  state: z.enum(builtReportStates),
  hasPhoto: z.boolean(),
  expiresOn: isoDate,
  /** Nobody may dig before a ticket or a clearance covers the day. */
  mayDig: z.boolean(),
  why: z.string(),
  plan: z
    .object({ digMm: z.number(), widthMm: z.number(), flareAboveGradeMm: z.number(), firstWaterL: z.number() })
    .nullable(),
});
export type OpenReport = z.infer<typeof openReportSchema>;

export const builtReportsSchema = z.array(
  z.object({
    id: z.uuid(),
    owner: z.string(),
    askedBy: z.string(),
    expiresOn: isoDate,
    state: z.enum(builtReportStates),
    reportedAt: instant.nullable(),
    facts: builtFactsSchema.nullable(),
    words: z.string(),
    signedBy: z.string().nullable(),
    photoId: z.uuid().nullable(),
  }),
);
export type BuiltReports = z.infer<typeof builtReportsSchema>;
