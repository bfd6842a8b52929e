import { soilClasses, stockKinds, type Practice, type RemedyCode } from '@sombra/core';
import * as z from 'zod';
import { remedyCodes } from './records';

const mm = z.number().min(0).max(3000);
const share = z.number().min(0).max(1);
const pct = z.number().min(0).max(100);
const days = z.int().min(0).max(3650);
const months = z.int().min(0).max(120);
const daysByRemedy = z.partialRecord(z.enum(remedyCodes), days) satisfies z.ZodType<
  Partial<Record<RemedyCode, number>>
>;

/** A practice as it is stored and sent: one version of a programme's choices. */
export const practiceSchema = z.strictObject({
  id: z.string().min(1).max(60),
  version: z.int().min(1),
  name: z.string().min(1).max(80),
  appliesTo: z.array(z.enum(stockKinds)).min(1),
  flareAboveGrade: z.strictObject({
    baseMm: mm,
    heavySoilExtraMm: mm,
    heavySoils: z.array(z.enum(soilClasses)),
    stonyExtraMm: mm,
    slowSoilExtraMm: mm,
    allowances: z.enum(['largest', 'sum']),
    settlementFirmed: share,
    settlementLoose: share,
  }),
  pitWidth: z.strictObject({
    ballFactor: z.number().min(1).max(6),
    ballFactorCompacted: z.number().min(1).max(6),
    bareRootMarginMm: mm,
    baseMarginMm: mm,
  }),
  leastDownhillDepthMm: mm,
  backfill: z.strictObject({ material: z.literal('site_soil'), spoilBulking: z.number().min(1).max(2) }),
  mulch: z.strictObject({
    thicknessMm: mm,
    gapMm: mm,
    leastRingDiameterMm: z.number().min(0).max(10000),
    acceptedDepthMm: z.strictObject({ min: mm, max: mm }),
  }),
  berm: z.strictObject({ where: z.enum(['ball_edge', 'none']), heightMm: mm, notInSlowSoil: z.boolean() }),
  firstSoak: z.strictObject({ doses: z.int().min(0).max(10), skipBareRootInSlowSoil: z.boolean() }),
  staking: z.strictObject({ offAfterMonths: months }),
  asBuilt: z.strictObject({ flareToleranceMm: mm, flareSpreadMm: mm, leastWidthShare: share, leastWaterShare: share }),
  inspection: z.strictObject({
    looksAfterMonths: z.array(months),
    flare: z.strictObject({ clearFromMm: mm, examineFromMm: mm, liftOverMm: mm }),
    replantWithinMonths: months,
    exposedMm: mm,
    roots: z.strictObject({ stagedFromPct: pct, referOverPct: pct, referRootOverMm: mm }),
    remedyDays: z.strictObject({ urgent: days, act: days, watch: days }),
    remedyDaysOf: daysByRemedy,
    followUpDays: daysByRemedy,
  }),
}) satisfies z.ZodType<Practice>;
