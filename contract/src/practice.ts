import {
  aftercareTimes,
  allowanceRules,
  bermPlaces,
  choices,
  deepTreeRules,
  dormantWaterings,
  feedPlaces,
  fertilisers,
  fieldDefault,
  fillMaterials,
  fillPlaces,
  girdlingRules,
  guardRules,
  gypsumUses,
  herbicideUses,
  levelRules,
  materialCodes,
  mulchMaterials,
  mulchProfiles,
  nurseryTies,
  pitBases,
  pitSides,
  plantingPrunings,
  ringRules,
  rootCorrections,
  routineRules,
  settlings,
  shoulders,
  soakRules,
  soakTimes,
  soilClasses,
  stakeLayouts,
  stakeOrders,
  stakeRules,
  stockKinds,
  stoneUses,
  structuralPrunings,
  stubUses,
  tieMaterials,
  washedOutRules,
  wrapRemovals,
  fedWhere,
  type FeedPlace,
  type Practice,
  type ReceivingRules,
  type RemedyCode,
} from '@sombra/core';
import * as z from 'zod';
import { rowVersion } from './measures';
import { remedyCodes } from './remedy-codes';
import { workRulesSchema } from './rules';

const share = z.number().min(0).max(1);
const days = z.int().min(0).max(3650);
const months = z.number().min(0).max(120);
const daysByRemedy = z.partialRecord(z.enum(remedyCodes), days) satisfies z.ZodType<
  Partial<Record<RemedyCode, number>>
>;

/** A number that is a choice: its limits stand in the table of choices, and nowhere else. */
function chosen(path: string): z.ZodNumber {
  const choice = choices.find((one) => one.path === path);
  if (choice?.kind !== 'number') throw new TypeError(`${path} is no number of the table of choices`);
  const error = `must be within ${choice.min}–${choice.max} ${choice.unit}`;
  return z.number().min(choice.min, { error }).max(choice.max, { error });
}
/** The numbers of a group, each at its path in the table. */
const numbers = <K extends string>(group: string, ...keys: readonly K[]): Record<K, z.ZodNumber> =>
  Object.fromEntries(keys.map((key) => [key, chosen(`${group}.${key}`)])) as Record<K, z.ZodNumber>;
/** The keys of a record of options: an option added there is taken here. */
const oneOf = <T extends Record<string, unknown>>(options: T) =>
  z.enum(Object.keys(options) as [keyof T & string, ...(keyof T & string)[]]);
/** What an older version, stored before a choice was known, is read as. */
const now = fieldDefault;

export const receivingRulesSchema = z.strictObject({
  ...numbers(
    'receiving',
    'circlingCorrectPct',
    'circlingReturnPct',
    'circlingRootReturnMm',
    'deepRootsMm',
    'deepRootsReturnShare',
    'ballPerCaliper',
    'ballHeightLeastShare',
    'caliperShortShare',
    'lotBadPct',
    'lotSurePct',
  ),
  washedOut: oneOf(washedOutRules).default(now.receiving.washedOut),
}) satisfies z.ZodType<ReceivingRules>;

/** One thing mixed in, at its path in the table. */
const mixedIn = (path: 'backfill' | 'backfill.second' | 'backfill.third') =>
  z.strictObject({
    material: oneOf(fillMaterials),
    share: chosen(`${path}.share`).default(now.backfill.share),
    bags: chosen(`${path}.bags`).default(now.backfill.bags),
    place: oneOf(fillPlaces).default(now.backfill.place),
  });
const fedIn = Object.fromEntries(
  Object.keys(feedPlaces).map((place) => [place, oneOf(fertilisers).default('none')]),
) as Record<FeedPlace, z.ZodDefault<ReturnType<typeof oneOf<typeof fertilisers>>>>;

/** A practice stored when it had one feed and one place for it: where that feed is usually put. */
function withFeeds(kept: unknown): unknown {
  if (typeof kept !== 'object' || kept === null || !('fertiliser' in kept)) return kept;
  const { fertiliser, ...rest } = kept;
  const usual = typeof fertiliser === 'string' ? fedWhere(fertiliser) : null;
  return usual === null ? rest : { ...rest, feeds: { [usual]: fertiliser } };
}

/** A practice as it is stored and sent: one version of a programme's choices. */
export const practiceSchema = z.strictObject({
  id: z.string().min(1).max(60),
  version: rowVersion.min(1),
  name: z.string().min(1).max(80),
  appliesTo: z.array(z.enum(stockKinds)).min(1),
  percolation: z
    .strictObject(numbers('percolation', 'slowFromMmPerH', 'goodFromMmPerH', 'fastOverMmPerH'))
    .default(now.percolation),
  flareAboveGrade: z.strictObject({
    ...numbers('flareAboveGrade', 'baseMm', 'heavySoilExtraMm', 'stonyExtraMm', 'slowSoilExtraMm'),
    ...numbers('flareAboveGrade', 'settlementFirmed', 'settlementLoose'),
    ballShare: chosen('flareAboveGrade.ballShare').default(now.flareAboveGrade.ballShare),
    ballShareHeavy: chosen('flareAboveGrade.ballShareHeavy').default(now.flareAboveGrade.ballShareHeavy),
    heavySoils: z.array(z.enum(soilClasses)),
    allowances: oneOf(allowanceRules),
    graftLeastMm: chosen('flareAboveGrade.graftLeastMm').default(now.flareAboveGrade.graftLeastMm),
    laterExtraMm: chosen('flareAboveGrade.laterExtraMm').default(now.flareAboveGrade.laterExtraMm),
    shoulder: oneOf(shoulders).default(now.flareAboveGrade.shoulder),
    measuredFrom: oneOf(levelRules).default(now.flareAboveGrade.measuredFrom),
    surfaceMostMm: chosen('flareAboveGrade.surfaceMostMm').default(now.flareAboveGrade.surfaceMostMm),
  }),
  pitWidth: z.strictObject({
    ...numbers('pitWidth', 'ballFactor', 'ballFactorCompacted', 'bareRootMarginMm', 'baseMarginMm'),
    sides: oneOf(pitSides).default(now.pitWidth.sides),
    base: oneOf(pitBases).default(now.pitWidth.base),
  }),
  leastDownhillDepthMm: chosen('leastDownhillDepthMm'),
  backfill: z.preprocess(
    withFeeds,
    z.strictObject({
      ...mixedIn('backfill').shape,
      second: mixedIn('backfill.second').default(now.backfill.second),
      third: mixedIn('backfill.third').default(now.backfill.third),
      areaDepthMm: chosen('backfill.areaDepthMm').default(now.backfill.areaDepthMm),
      settling: oneOf(settlings).default(now.backfill.settling),
      stones: oneOf(stoneUses).default(now.backfill.stones),
      feeds: z.strictObject(fedIn).default(now.backfill.feeds),
      gypsum: oneOf(gypsumUses).default(now.backfill.gypsum),
      spoilBulking: chosen('backfill.spoilBulking'),
    }),
  ),
  roots: z
    .strictObject({
      correction: oneOf(rootCorrections),
      shaveOverPct: chosen('roots.shaveOverPct'),
      cuts: chosen('roots.cuts').default(now.roots.cuts),
      cutDepthMm: chosen('roots.cutDepthMm').default(now.roots.cutDepthMm),
      adventitiousCutMm: chosen('roots.adventitiousCutMm').default(now.roots.adventitiousCutMm),
      adventitiousMany: chosen('roots.adventitiousMany').default(now.roots.adventitiousMany),
      wrap: oneOf(wrapRemovals),
      ties: oneOf(nurseryTies).default(now.roots.ties),
      clearMostMm: chosen('roots.clearMostMm').default(now.roots.clearMostMm),
      clearLaterMonths: chosen('roots.clearLaterMonths').default(now.roots.clearLaterMonths),
    })
    .default(now.roots),
  mulch: z.strictObject({
    ...numbers('mulch', 'thicknessMm', 'gapMm', 'leastRingDiameterMm'),
    material: oneOf(mulchMaterials).default(now.mulch.material),
    ring: oneOf(ringRules).default(now.mulch.ring),
    profile: oneOf(mulchProfiles).default(now.mulch.profile),
    overBallMm: chosen('mulch.overBallMm').default(now.mulch.overBallMm),
    acceptedDepthMm: z.strictObject(numbers('mulch.acceptedDepthMm', 'min', 'max')),
  }),
  berm: z.strictObject({ where: oneOf(bermPlaces), heightMm: chosen('berm.heightMm'), notInSlowSoil: z.boolean() }),
  firstSoak: z.strictObject({
    rule: oneOf(soakRules).default(now.firstSoak.rule),
    when: oneOf(soakTimes).default(now.firstSoak.when),
    doses: chosen('firstSoak.doses'),
    depthMm: chosen('firstSoak.depthMm').default(now.firstSoak.depthMm),
    fixedL: chosen('firstSoak.fixedL').default(now.firstSoak.fixedL),
    lPer25Mm: chosen('firstSoak.lPer25Mm').default(now.firstSoak.lPer25Mm),
    skipBareRootInSlowSoil: z.boolean(),
  }),
  routine: z
    .strictObject({
      ...numbers('routine', 'lPer25Mm', 'visitsPerWeek', 'weeklyL', 'months'),
      rule: oneOf(routineRules),
      slowVisitsShare: chosen('routine.slowVisitsShare').default(now.routine.slowVisitsShare),
      summerFactor: chosen('routine.summerFactor').default(now.routine.summerFactor),
      fastVisitsTimes: chosen('routine.fastVisitsTimes').default(now.routine.fastVisitsTimes),
      competitionTimes: chosen('routine.competitionTimes').default(now.routine.competitionTimes),
      rainMm: chosen('routine.rainMm').default(now.routine.rainMm),
      probeEveryDays: chosen('routine.probeEveryDays').default(now.routine.probeEveryDays),
      // Stored as yes or no before there was more than one way to water a resting tree.
      dormant: z
        .preprocess(
          (kept) => (typeof kept === 'boolean' ? (kept ? 'until_freeze' : 'none') : kept),
          oneOf(dormantWaterings),
        )
        .default(now.routine.dormant),
      time: oneOf(aftercareTimes),
    })
    .default(now.routine),
  staking: z.strictObject({
    rule: oneOf(stakeRules).default(now.staking.rule),
    layout: oneOf(stakeLayouts).default(now.staking.layout),
    order: oneOf(stakeOrders).default(now.staking.order),
    unstakedUnderM: chosen('staking.unstakedUnderM').default(now.staking.unstakedUnderM),
    offAfterMonths: chosen('staking.offAfterMonths'),
    tie: oneOf(tieMaterials).default(now.staking.tie),
  }),
  guard: oneOf(guardRules).default(now.guard),
  guardUntilMm: chosen('guardUntilMm').default(now.guardUntilMm),
  pruning: z
    .strictObject({
      atPlanting: oneOf(plantingPrunings),
      stubs: oneOf(stubUses).default(now.pruning.stubs),
      structural: oneOf(structuralPrunings),
    })
    .default(now.pruning),
  herbicide: oneOf(herbicideUses).default(now.herbicide),
  receiving: receivingRulesSchema.default(now.receiving),
  lifting: z
    .strictObject(
      numbers('lifting', 'onePersonKg', 'twoPeopleKg', 'threePeopleKg', 'trolleyMostKg', 'trolleySteepestPct'),
    )
    .default(now.lifting),
  asBuilt: z.strictObject(
    numbers('asBuilt', 'flareToleranceMm', 'flareSpreadMm', 'leastWidthShare', 'leastWaterShare'),
  ),
  inspection: z.strictObject({
    looksAfterMonths: z.array(months),
    moistureEveryDays: z.number().min(0).max(30).default(now.inspection.moistureEveryDays),
    rootsEveryYears: z.number().min(0).max(15).default(now.inspection.rootsEveryYears),
    springFlareYears: z.number().min(0).max(15).default(now.inspection.springFlareYears),
    firstLooks: z
      .strictObject(numbers('inspection.firstLooks', 'everyDays', 'weeks'))
      .default(now.inspection.firstLooks),
    flare: z.strictObject(numbers('inspection.flare', 'clearFromMm', 'examineFromMm', 'liftOverMm')),
    deepTree: oneOf(deepTreeRules).default(now.inspection.deepTree),
    replantWithinMonths: chosen('inspection.replantWithinMonths'),
    warrantyMonths: chosen('inspection.warrantyMonths').default(now.inspection.warrantyMonths),
    establishMonthsPer25Mm: chosen('inspection.establishMonthsPer25Mm').default(now.inspection.establishMonthsPer25Mm),
    exposedMm: chosen('inspection.exposedMm'),
    roots: z.strictObject({
      ...numbers('inspection.roots', 'stagedFromPct', 'referOverPct', 'referRootOverMm'),
      rule: oneOf(girdlingRules).default(now.inspection.roots.rule),
      seasonCapPct: chosen('inspection.roots.seasonCapPct').default(now.inspection.roots.seasonCapPct),
    }),
    remedyDays: z.strictObject({ urgent: days, act: days, watch: days }),
    remedyDaysOf: daysByRemedy,
    followUpDays: daysByRemedy,
  }),
}) satisfies z.ZodType<Practice>;

export const keptPracticeSchema = z.object({
  practice: practiceSchema,
  madeBy: z.string(),
  /** A shipped one: never edited, only copied. */
  shipped: z.boolean(),
  /** Trees planted under any of its versions. */
  planted: z.int(),
});
export type KeptPractice = z.infer<typeof keptPracticeSchema>;

export const practicesSchema = z.object({
  /** The one the programme works by. */
  current: z.object({ id: z.string(), version: z.int() }),
  /** A change to another one that has not ended: so many spots go by it already. */
  adoption: z
    .object({
      id: z.string(),
      version: z.int(),
      done: z.int(),
      of: z.int(),
      /** Somebody is at it just now; else it stands, to be gone on with or taken back. */
      running: z.boolean(),
      askedBy: z.string(),
    })
    .nullable(),
  /** The newest version of each. */
  practices: z.array(keptPracticeSchema),
  /** What numbers of a comparison are worked out with beside a practice. */
  work: workRulesSchema,
});
export type Practices = z.infer<typeof practicesSchema>;

/** A practice's next version; version 0 for a new copy. */
export const savePracticeSchema = z.strictObject({
  practice: practiceSchema.extend({ version: rowVersion.min(0), id: z.string().regex(/^[a-z0-9-]{3,60}$/) }),
});

/** What measured drops say of the settlement of firmed fill; `null` while nobody measured one. */
export const settlementSchema = z
  .object({ share: share, measuredShare: share, standardError: z.number(), drops: z.int() })
  .nullable();
export type MeasuredSettlement = z.infer<typeof settlementSchema>;

export const adoptPracticeSchema = z.strictObject({ id: z.string().max(60), version: rowVersion.min(1) });
/** What is told while every spot is worked out by the practice that is adopted. */
export const adoptProgressSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('progress'), done: z.int(), of: z.int() }),
  z.object({ kind: z.literal('done'), practices: practicesSchema }),
  z.object({ kind: z.literal('failed'), title: z.string(), reference: z.string().optional() }),
]);
export type AdoptProgress = z.infer<typeof adoptProgressSchema>;

export type AdoptPractice = z.infer<typeof adoptPracticeSchema>;

const amountsSchema = z.partialRecord(z.enum(materialCodes), z.number());

/** Which spots are counted, and by which practice; the programme's where none is named. */
export const materialsQuerySchema = z.strictObject({
  day: z.uuid().optional(),
  /** A season's list: its trees are not here yet, so their balls are expected, not measured. */
  list: z.uuid().optional(),
  practice: z.string().max(60).optional(),
  version: z.coerce.number().pipe(rowVersion.min(1)).optional(),
  teams: z.coerce.number().int().min(1).max(50).default(1),
});
export type MaterialsQuery = z.infer<typeof materialsQuerySchema>;

/** What the spots that are ready to plant take together: materials, hours, water, and those without a plan. */
export const seasonMaterialsSchema = z.object({
  title: z.string(),
  /** Trees whose ball is taken from what was ordered, since none was measured. */
  expected: z.int(),
  /** Remedies due within the month whose stakes, ties, guards and mulch are counted with it. */
  remedies: z.int(),
  practice: z.object({ id: z.string(), version: z.int(), name: z.string() }),
  spots: z.array(
    z.object({
      spotId: z.string(),
      ref: z.string(),
      place: z.string(),
      species: z.string().nullable(),
      hours: z.number(),
      weeklyL: z.number().nullable(),
      amounts: amountsSchema,
    }),
  ),
  without: z.array(z.object({ spotId: z.string(), ref: z.string(), why: z.string() })),
  hours: z.number(),
  weeklyL: z.number().nullable(),
  lines: z.array(
    z.object({
      code: z.enum(materialCodes),
      needed: z.number(),
      inStore: z.number(),
      packs: z.number(),
      packSize: z.number(),
      bought: z.number(),
      version: z.int(),
    }),
  ),
});
export type SeasonMaterials = z.infer<typeof seasonMaterialsSchema>;

/** What lies in store of one material, at the version it was read. */
export const storeSchema = z.strictObject({
  material: z.enum(materialCodes),
  amount: z.number().min(0).max(1_000_000),
  version: rowVersion.min(0),
});
export type StoreAmount = z.infer<typeof storeSchema>;

/** Which spots get a card, and how many stand on a sheet. */
export const cardsQuerySchema = z.strictObject({
  spots: z.array(z.uuid()).min(1).max(500).optional(),
  day: z.uuid().optional(),
  layout: z.enum(['a5', 'four']).default('a5'),
});
export type CardsQuery = z.infer<typeof cardsQuerySchema>;
