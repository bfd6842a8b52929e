import {
  causes,
  checks,
  defaultCauseRules,
  defaultGroundRules,
  defaultLookRules,
  defaultMatchRules,
  defaultPestRules,
  defaultWateringRules,
  defaultWeatherRules,
  defaultWorkRules,
  evidences,
  fitParts,
  handsKinds,
  type Hands,
  materialCodes,
  siteThings,
  soilClasses,
  lastFoundKinds,
  likelyPctRange,
  overfullCheck,
  partsRange,
  windExposures,
  type CauseRules,
  type GroundRules,
  type MaterialCode,
  type LookRules,
  type PestRules,
  readPest,
  type MatchRules,
  weekdays,
  type WateringRules,
  type WeatherRules,
  type WorkRules,
} from '@sombra/core';
import * as z from 'zod';
import { rowVersion } from './measures';
import { currencySchema, holidaysSchema } from './programme';

const metres = z.number().min(0).max(100);
const mm = z.number().min(0).max(10_000);
const pct = z.number().min(0).max(100);
const bySize = z.strictObject({ small: metres, medium: metres, large: metres });
const rising = (sizes: { small: number; medium: number; large: number }) =>
  sizes.small <= sizes.medium && sizes.medium <= sizes.large;
const risingBySize = bySize.refine(rising, { error: 'must not ask less of a larger tree' });

export const groundRulesSchema = z
  .strictObject({
    version: rowVersion.min(1),
    smallToM: z.number().min(2).max(30),
    mediumToM: z.number().min(2).max(60),
    leastM: z.strictObject(
      Object.fromEntries(siteThings.map((thing) => [thing, risingBySize])) as Record<
        (typeof siteThings)[number],
        typeof risingBySize
      >,
    ),
    wireHeadroomM: metres,
    leastStripMm: z
      .strictObject({ small: mm, medium: mm, large: mm })
      .refine(rising, { error: 'must not ask less of a larger tree' }),
    soilM3PerCrownM2: z.number().min(0.05).max(3),
    soilDepthMm: z.strictObject({ assumed: z.number().min(100).max(3000), most: z.number().min(100).max(3000) }),
    probeStopsMm: mm,
    rockLeastMm: mm.default(defaultGroundRules.rockLeastMm),
    saltMostDsM: z.number().min(0).max(60),
    sunLeastH: z.number().min(0).max(24),
    presoakMin: z.number().min(0).max(2880),
    ticket: z.strictObject({
      leadWorkingDays: z.int().min(0).max(30),
      validDays: z.int().min(1).max(365),
      renewWorkingDays: z.int().min(0).max(30),
      toleranceMm: mm,
      digRadiusM: z.number().min(0.5).max(20),
    }),
    holidays: holidaysSchema,
  })
  .refine(({ smallToM, mediumToM }) => smallToM < mediumToM, {
    error: 'must be more than where small trees end',
    path: ['mediumToM'],
  }) satisfies z.ZodType<GroundRules>;

const weight = z.number().min(0).max(10);
export const matchRulesSchema = z.strictObject({
  weights: z.strictObject(
    Object.fromEntries(fitParts.map((part) => [part, weight])) as Record<(typeof fitParts)[number], typeof weight>,
  ),
  climate: z.strictObject({ lowestC: z.number().min(-50).max(20), hotSummers: z.boolean(), drySummers: z.boolean() }),
  nativeWords: z.array(z.string().trim().min(2).max(40)).max(20),
  diversity: z.strictObject({ speciesPct: pct, genusPct: pct, familyPct: pct }),
  leastSoilShare: z.number().min(0).max(1),
  leastFit: z.number().min(0).max(1),
  currency: currencySchema,
}) satisfies z.ZodType<MatchRules>;

const keyed = <K extends string, S extends z.ZodType>(keys: readonly K[], schema: S) =>
  z.strictObject(Object.fromEntries(keys.map((key) => [key, schema])) as Record<K, S>);
const litresAnHour = z.number().min(10).max(20_000);
const minutes = z.number().min(0).max(600);
const ofUsual = z.number().min(0.1).max(1);
const packSizes = z.partialRecord(z.enum(materialCodes), z.number().min(0.01).max(100_000));

/** Rates of one sort of hands; what came after they were kept is as it usually is. */
const labourRatesSchema = (hands: Hands) => {
  const usual = defaultWorkRules.labour[hands];
  return z.strictObject({
    digLPerH: keyed(soilClasses, litresAnHour),
    stonyShare: ofUsual,
    compactedShare: ofUsual,
    caveShare: ofUsual.default(usual.caveShare),
    turnShare: ofUsual.default(usual.turnShare),
    feedMin: minutes.default(usual.feedMin),
    fillLPerH: litresAnHour,
    mulchLPerH: litresAnHour,
    waterLPerH: litresAnHour,
    placeMin: minutes,
    placeMinPer10Kg: z.number().min(0).max(30),
    stakeMin: minutes,
    bermMin: minutes,
    guardMin: minutes,
    drainMin: minutes,
    markMin: minutes.default(usual.markMin),
    turfMinPerM2: minutes.default(usual.turfMinPerM2),
    openMin: minutes.default(usual.openMin),
    pruneMin: minutes.default(usual.pruneMin),
    carryMinPer10M: minutes.default(usual.carryMinPer10M),
    carryGearMin: minutes.default(usual.carryGearMin),
    labelMin: minutes.default(usual.labelMin),
    lookOnShare: z.number().min(0).max(0.8).default(usual.lookOnShare),
  });
};

/** Rules kept when there was one pace: it goes for both. */
const withHands = (kept: unknown): unknown =>
  typeof kept === 'object' && kept !== null && 'digLPerH' in kept
    ? { hands: defaultWorkRules.labour.hands, volunteers: kept, crews: kept }
    : kept;

export const weatherRulesSchema = z
  .strictObject({
    thunderKm: z.number().min(0).max(50),
    afterThunderMin: z.number().min(0).max(240),
    heatBreaksC: z.number().min(20).max(60),
    heatBreakMin: z.number().min(0).max(60).default(defaultWeatherRules.heatBreakMin),
    heatStopC: z.number().min(20).max(60),
    gustStopMs: z.number().min(3).max(40),
    lightRainMm: z.number().min(0).max(50),
    rainStopMm: z.number().min(0).max(100),
    frozenSoilC: z.number().min(-10).max(5),
  })
  .refine(({ heatBreaksC, heatStopC }) => heatBreaksC < heatStopC, {
    error: 'must be more than where rests in the heat begin',
    path: ['heatStopC'],
  })
  .refine(({ lightRainMm, rainStopMm }) => lightRainMm < rainStopMm, {
    error: 'must be more than what goes on all the same',
    path: ['rainStopMm'],
  }) satisfies z.ZodType<WeatherRules>;

const hour = z.number().min(0).max(24);
export const wateringRulesSchema = z.strictObject({
  days: keyed(weekdays, z.boolean()),
  fromHour: hour,
  untilHour: hour,
  handFree: z.boolean(),
}) satisfies z.ZodType<WateringRules>;

const times = z.number().min(1).max(20);
export const lookRulesSchema = z.strictObject({
  lossPct: keyed(lastFoundKinds, pct),
  savedPct: pct,
  replacementCost: z.number().min(0).max(1_000_000),
  balanceTimes: times,
  cohortTimes: times,
  stormTimes: times,
  stormGustMs: z.number().min(5).max(70),
  stormIceMm: z.number().min(1).max(100).default(defaultLookRules.stormIceMm),
  cohortPct: pct,
  cohortLeast: z.int().min(2).max(1000),
  minutesPerLook: z.number().min(0.5).max(120),
  walkKmPerH: z.number().min(0.5).max(30),
}) satisfies z.ZodType<LookRules>;

export const workRulesSchema = z.strictObject({
  labour: z.preprocess(
    withHands,
    z.strictObject({
      hands: z.enum(handsKinds),
      volunteers: labourRatesSchema('volunteers'),
      crews: labourRatesSchema('crews'),
    }),
  ),
  wind: z.strictObject({
    gustMs: keyed(windExposures, z.number().min(5).max(70)),
    crownDrag: z.number().min(0.05).max(1.2),
    fillHelps: z.number().min(1).max(3),
  }),
  soilTest: z.strictObject({
    sodicFromSar: z.number().min(1).max(100),
    saltyFromDsM: z.number().min(0.5).max(60),
    limeUnderPh: z.number().min(3).max(8).default(defaultWorkRules.soilTest.limeUnderPh),
  }),
  // A material that came after the rules were kept is bought as it usually is.
  packs: packSizes.transform((kept): Record<MaterialCode, number> => ({ ...defaultWorkRules.packs, ...kept })),
}) satisfies z.ZodType<WorkRules>;

const causeRulesSchema = z
  .strictObject({
    parts: z.partialRecord(z.enum(causes), z.number().min(partsRange.min).max(partsRange.max)),
    likelyPct: z.partialRecord(
      z.enum(evidences),
      z.partialRecord(z.enum(causes), z.number().min(likelyPctRange.min).max(likelyPctRange.max)),
    ),
  })
  .superRefine((rules, context) => {
    const over = overfullCheck(rules);
    if (!over) return;
    const message = `answers of ${over.check} must be 100 % at most together for ${over.cause}, got ${over.pct}`;
    context.addIssue({ code: 'custom', path: ['likelyPct', checks[over.check].answers[0], over.cause], message });
  }) satisfies z.ZodType<CauseRules>;

const pestRulesSchema = z.strictObject({
  list: z
    .array(
      z
        .string()
        .trim()
        .refine((line) => readPest(line) !== null, { error: 'must be a pest, a colon, and whom to tell' }),
    )
    .max(60),
}) satisfies z.ZodType<PestRules>;

/** The programme's rules, one version after another. */
export const rulesSchema = z.strictObject({
  ground: groundRulesSchema,
  match: matchRulesSchema,
  work: workRulesSchema.default(defaultWorkRules),
  weather: weatherRulesSchema.default(defaultWeatherRules),
  watering: wateringRulesSchema.default(defaultWateringRules),
  looks: lookRulesSchema.default(defaultLookRules),
  pests: pestRulesSchema.default(() => ({ list: [...defaultPestRules.list] })),
  causes: causeRulesSchema.default(() => ({ parts: {}, likelyPct: {} })),
});
/** What is stored is stored whole: rules that somebody's page does not know of are not set back by leaving them out. */
export const saveRulesSchema = rulesSchema.extend({
  work: workRulesSchema,
  weather: weatherRulesSchema,
  watering: wateringRulesSchema,
  looks: lookRulesSchema,
  pests: pestRulesSchema,
  causes: causeRulesSchema,
});
export interface Rules {
  readonly ground: GroundRules;
  readonly match: MatchRules;
  readonly work: WorkRules;
  readonly weather: WeatherRules;
  readonly watering: WateringRules;
  readonly looks: LookRules;
  readonly pests: PestRules;
  readonly causes: CauseRules;
}

/** Those that ship, before anybody kept any. */
export const shippedRules: Rules = {
  ground: defaultGroundRules,
  match: defaultMatchRules,
  work: defaultWorkRules,
  weather: defaultWeatherRules,
  watering: defaultWateringRules,
  looks: defaultLookRules,
  pests: defaultPestRules,
  causes: defaultCauseRules,
};

export const keptRulesSchema = z.object({ rules: rulesSchema, madeBy: z.string(), madeAt: z.string() });
export interface KeptRules {
  readonly rules: Rules;
  readonly madeBy: string;
  readonly madeAt: string;
}
