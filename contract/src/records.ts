import {
  aliveClasses,
  arboristAdvices,
  assignmentKinds,
  barkStates,
  choices,
  clockStates,
  crownFaces,
  cutAwayThings,
  fingerClasses,
  groundOwners,
  guardStates,
  instrumentKinds,
  hazardKinds,
  leftOnThings,
  mostInstruments,
  mostRoots,
  mulchContacts,
  plumbStates,
  probeClasses,
  recordKinds,
  removalWhys,
  stumpStates,
  requireChoiceValue,
  rockingClasses,
  rootNatures,
  rootTouches,
  rootWorks,
  rubbings,
  sensorFlags,
  lookSigns,
  siteThings,
  siteVerdicts,
  soilClasses,
  stakeStates,
  stockKinds,
  windExposures,
  wishes,
  type ArboristAnswerFacts,
  type Assessment,
  type BothStandFacts,
  type ChoiceFacts,
  type ClaimFacts,
  type ClockState,
  type DeclinedFacts,
  type DeviceFacts,
  type FieldRecord,
  type GroundFacts,
  type HazardClosedFacts,
  type HazardFacts,
  type Inspection,
  type Move,
  type NotDoneFacts,
  type OverrideFacts,
  type PercolationTest,
  type PestToldFacts,
  type ResidentToldFacts,
  type PlantingFacts,
  type RecordFacts,
  type RecordKind,
  type RemedyDone,
  type RemovalFacts,
  type Retraction,
  type SensorFacts,
  type SignedOffFacts,
  type SiteWaterFacts,
  type Stock,
  type VerdictFacts,
  type Watering,
  twigHeights,
  worstWood,
} from '@sombra/core';
import * as z from 'zod';
import { remedyCodes } from './remedy-codes';
import { filledText, instant, isoDate, measure, positionSchema, recordId, rowVersion, shortText } from './measures';

const horizonSchema = z.strictObject({
  soil: z.enum(soilClasses),
  toMm: measure('horizonMm'),
  fill: z.boolean(),
  rateMmPerH: measure('percolationMmPerH').nullable(),
});

/** Layers follow each other downward. */
function goesDown(layers: readonly { readonly toMm: number }[], context: z.RefinementCtx): void {
  layers.forEach(({ toMm }, i) => {
    const above = layers[i - 1]?.toMm ?? 0;
    if (toMm > above) return;
    const message = `must be deeper than the layer above it, ${above} mm, got ${toMm}`;
    context.addIssue({ code: 'custom', path: [i, 'toMm'], input: toMm, message });
  });
}

export const groundFactsSchema = z.strictObject({
  soil: z.enum(soilClasses).nullable(),
  stony: z.boolean().nullable(),
  compacted: z.boolean().nullable(),
  percolation: z
    .array(z.strictObject({ minute: measure('percolationMinute'), levelMm: measure('waterLevelMm') }))
    .max(60),
  slopePct: measure('slopePct').nullable(),
  fallsTowardsDeg: measure('bearingDeg').nullable(),
  stripWidthMm: z.union([z.literal('open'), measure('stripWidthMm')]).nullable(),
  wireHeightM: z.union([z.literal('none'), measure('wireHeightM')]).nullable(),
  horizons: z.array(horizonSchema).max(6).superRefine(goesDown).optional(),
}) satisfies z.ZodType<GroundFacts>;

const clearanceSchema = z.strictObject({
  thing: z.enum(siteThings),
  distanceM: measure('clearanceM'),
  by: z.enum(['map', 'tape']),
  towardsDeg: measure('bearingDeg').optional(),
});

export const assessmentSchema = z
  .strictObject({
    assessedOn: isoDate,
    owner: z.enum(groundOwners).nullable(),
    clearances: z.array(clearanceSchema).max(siteThings.length),
    privateLines: z.enum(['none', 'found']).nullable(),
    plannedBuilding: z.boolean(),
    sunHours: measure('sunHours').nullable(),
    wind: z.enum(windExposures).nullable(),
    winterWindDeg: measure('bearingDeg').nullable(),
    summerWindDeg: measure('bearingDeg').nullable(),
    openSoilM2: measure('openSoilM2').nullable(),
    soilDepthMm: measure('soilDepthMm').nullable(),
    underPavingM3: measure('underPavingM3').nullable(),
    probeStopsMm: measure('probeStopsMm').nullable(),
    rubble: z.boolean(),
    rockAtMm: measure('rockAtMm').nullable(),
    soilPh: measure('soilPh').nullable(),
    saltDsM: measure('saltDsM').nullable(),
    sodiumSar: measure('sodiumSar').nullable().optional(),
    soilTestedOn: isoDate.nullable(),
    pavementM: measure('clearanceM').nullable(),
    pavementWidthM: measure('pavementWidthM').nullable(),
    pavementDeg: measure('bearingDeg').nullable(),
    rubbedBy: z.array(z.enum(rubbings)).max(rubbings.length).optional(),
    irrigation: z
      .strictObject({ saltDsM: measure('saltDsM').nullable(), sodiumSar: measure('sodiumSar').nullable() })
      .optional(),
    neighbourRoots: z
      .strictObject({
        species: z.string().trim().max(80),
        distanceM: measure('clearanceM'),
        thickestMm: measure('rootDiameterMm'),
      })
      .optional(),
    wishes: z.array(z.enum(wishes)).max(wishes.length),
    photoId: z.uuid().nullable(),
    note: z.string().trim().max(600),
  })
  .superRefine(({ clearances, wishes: asked, soilPh, saltDsM, sodiumSar = null, soilTestedOn }, context) => {
    const fault = (path: string, message: string) => context.addIssue({ code: 'custom', path: [path], message });
    if (new Set(clearances.map(({ thing }) => thing)).size < clearances.length) {
      fault('clearances', 'must not hold the same thing twice');
    }
    if (asked.includes('evergreen') && asked.includes('deciduous')) {
      fault('wishes', 'must not hold both evergreen and deciduous');
    }
    if ((soilPh !== null || saltDsM !== null || sodiumSar !== null) && soilTestedOn === null) {
      fault('soilTestedOn', 'must be given where pH, salt or sodium is given');
    }
  }) satisfies z.ZodType<Assessment>;

/** The series is kept as it was tapped: an odd one is questioned, never refused. */
export const percolationTestSchema = z.strictObject({
  testedOn: isoDate,
  holeDepthMm: measure('testHoleMm'),
  soakedAt: instant.nullable(),
  filledAt: instant,
  readings: z.array(z.strictObject({ at: instant, levelMm: measure('waterLevelMm') })).max(60),
}) satisfies z.ZodType<PercolationTest>;

const top = {
  caliperMm: measure('caliperMm'),
  heightM: measure('treeHeightM'),
  firstBranchM: measure('firstBranchM').optional(),
  graftHeightMm: measure('graftHeightMm').optional(),
  face: z.enum(crownFaces).optional(),
  arrival: z
    .strictObject({
      covered: z.boolean().nullable(),
      moist: z.boolean().nullable(),
      wateredEveryDays: measure('wateredEveryDays').nullable(),
    })
    .optional(),
};

const ballSchema = <K extends 'container' | 'balled'>(kind: K) =>
  z.strictObject({
    kind: z.literal(kind),
    ...top,
    ballDiameterMm: measure('ballDiameterMm'),
    ballHeightMm: measure('ballHeightMm'),
    topRootsDepthMm: measure('topRootsDepthMm'),
    surplusLeftMm: measure('topRootsDepthMm').optional(),
    circlingPct: measure('sharePct').optional(),
    adventitious: z.strictObject({ count: measure('rootCount'), thickestMm: measure('rootDiameterMm') }).optional(),
  });

export const stockSchema = z
  .discriminatedUnion('kind', [
    ballSchema('container'),
    ballSchema('balled'),
    z.strictObject({
      kind: z.literal('bare_root'),
      ...top,
      rootSpreadMm: measure('rootSpreadMm'),
      rootDepthMm: measure('rootDepthMm'),
    }),
  ])
  .superRefine((stock, context) => {
    if (stock.kind !== 'bare_root' && stock.topRootsDepthMm >= stock.ballHeightMm) {
      context.addIssue({
        code: 'custom',
        path: ['topRootsDepthMm'],
        input: stock.topRootsDepthMm,
        message: `must be less than the ball height ${stock.ballHeightMm} mm, got ${stock.topRootsDepthMm}`,
      });
    }
    if (stock.kind !== 'bare_root' && (stock.surplusLeftMm ?? 0) > stock.topRootsDepthMm) {
      context.addIssue({
        code: 'custom',
        path: ['surplusLeftMm'],
        input: stock.surplusLeftMm,
        message: `must be at most the surplus, ${stock.topRootsDepthMm} mm, got ${stock.surplusLeftMm}`,
      });
    }
  }) satisfies z.ZodType<Stock>;

export const plantingSchema = z
  .strictObject({
    plantedOn: isoDate,
    takenOver: z.strictObject({ on: isoDate, from: filledText(80) }).optional(),
    flareAboveGradeMm: z.array(measure('flareAboveGradeMm')).max(4),
    holeWidthMm: measure('holeWidthMm').optional(),
    firstWaterL: measure('firstWaterL').optional(),
    stakes: z.int().min(0).max(6).optional(),
    putBackMm: measure('putBackMm').optional(),
    bestFaceDeg: measure('bearingDeg').optional(),
    flareBeforeSoakMm: z.array(measure('flareAboveGradeMm')).min(1).max(4).optional(),
    toppedUpMm: measure('putBackMm').optional(),
    roots: z.enum(rootWorks).optional(),
    cutAway: z.array(z.enum(cutAwayThings)).max(cutAwayThings.length).optional(),
    metRoot: z.strictObject({ thickestMm: measure('rootDiameterMm'), cut: z.boolean().optional() }).optional(),
    plumb: z.enum(plumbStates).optional(),
    mulchDepthMm: measure('mulchDepthMm').optional(),
    departure: filledText(300).optional(),
    practiceId: z.string().max(60),
    practiceVersion: rowVersion.min(1),
  })
  .superRefine((built, context) => {
    const fault = (path: string, message: string): void =>
      context.addIssue({ code: 'custom', path: path.split('.'), message });
    if (built.takenOver) {
      const { on } = built.takenOver;
      if (on < built.plantedOn) fault('takenOver.on', `must not be before the planting, ${built.plantedOn}, got ${on}`);
      return;
    }
    if (built.flareAboveGradeMm.length === 0) fault('flareAboveGradeMm', 'must have one point at least');
    if (built.holeWidthMm === undefined) fault('holeWidthMm', 'must be given');
    if (built.firstWaterL === undefined) fault('firstWaterL', 'must be given');
  }) satisfies z.ZodType<PlantingFacts>;

const circlingRootSchema = z.strictObject({
  arc: z.strictObject({ fromDeg: measure('bearingDeg'), toDeg: measure('bearingDeg') }),
  diameterMm: measure('rootDiameterMm'),
  touch: z.enum(rootTouches).optional(),
  nature: z.enum(rootNatures).optional(),
  woody: z.boolean().optional(),
  grows: z.enum(['away', 'towards']).optional(),
  depthMm: measure('rootDepthAtTrunkMm').optional(),
});

/** Looked at always in older looks: `null` where it was not. */
const oldLook = {
  flareDepthMm: measure('flareDepthMm'),
  mulchDepthMm: measure('mulchDepthMm'),
  mulchContact: z.enum(mulchContacts),
  stake: z.enum(stakeStates),
  probe: z.enum(probeClasses),
  circlingRoots: z.array(circlingRootSchema).max(mostRoots),
};
const laterLook = {
  finger: z.enum(fingerClasses).optional(),
  alive: z.enum(aliveClasses).optional(),
  aliveAt: z.partialRecord(z.enum(twigHeights), z.enum(aliveClasses)).optional(),
  signs: z.array(z.enum(lookSigns)).max(lookSigns.length).optional(),
  diebackPct: measure('sharePct').optional(),
  shootMm: measure('shootMm').optional(),
  shootBeforeMm: measure('shootMm').optional(),
  rocks: z.enum(rockingClasses).optional(),
  guard: z.enum(guardStates).optional(),
  leftOn: z.array(z.enum(leftOnThings)).max(leftOnThings.length).optional(),
  turf: z.enum(['clear', 'creeping']).optional(),
  flareRoundMm: z.array(measure('flareDepthMm')).min(2).max(4).optional(),
  flareBy: z.enum(['scraped', 'guessed']).optional(),
  bark: z.enum(barkStates).optional(),
  barkPct: measure('sharePct').optional(),
  anchors: z
    .array(z.strictObject({ bearingDeg: measure('bearingDeg'), diameterMm: measure('rootDiameterMm') }))
    .max(mostRoots)
    .optional(),
  instruments: z
    .array(z.strictObject({ kind: z.enum(instrumentKinds), device: filledText(60), value: measure('instrumentValue') }))
    .max(mostInstruments)
    .optional(),
};

export const inspectionSchema = z
  .strictObject({
    inspectedOn: isoDate,
    flareDepthMm: oldLook.flareDepthMm.nullable(),
    mulchDepthMm: oldLook.mulchDepthMm.nullable(),
    mulchContact: oldLook.mulchContact.nullable(),
    stake: oldLook.stake.nullable(),
    probe: oldLook.probe.nullable(),
    circlingRoots: oldLook.circlingRoots.nullable(),
    ...laterLook,
  })
  .superRefine(({ flareDepthMm, flareRoundMm, alive, aliveAt }, context) => {
    const fault = (path: string, message: string): void => context.addIssue({ code: 'custom', path: [path], message });
    if (flareRoundMm && flareDepthMm !== Math.max(...flareRoundMm))
      fault('flareDepthMm', 'must be the deepest of the points round the trunk');
    if (aliveAt && alive !== worstWood(aliveAt)) fault('alive', 'must be the worst of the heights wood was felt at');
  }) satisfies z.ZodType<Inspection>;

export const remedySchema = z.strictObject({
  remedy: z.enum(remedyCodes),
  doneOn: isoDate,
  /** What shows it: some of what a look may find; points round the trunk, and heights of the wood, belong to a look, which knows the worst. */
  seen: z
    .strictObject({ ...oldLook, ...laterLook })
    .omit({ flareRoundMm: true, aliveAt: true })
    .partial()
    .optional(),
  before: z
    .strictObject({ flareDepthMm: measure('flareDepthMm'), mulchDepthMm: measure('mulchDepthMm') })
    .partial()
    .optional(),
}) satisfies z.ZodType<RemedyDone>;

export const wateringSchema = z.strictObject({
  wateredOn: isoDate,
  litres: measure('wateringL'),
  probeBefore: z.enum(probeClasses).optional(),
  probeAfter: z.enum(probeClasses).optional(),
  fingerBefore: z.enum(fingerClasses).optional(),
  toldBy: z.enum(['keeper', 'controller']).optional(),
  ringMm: measure('ringMm').optional(),
  ringMinutes: measure('ringMinutes').optional(),
}) satisfies z.ZodType<Watering>;

export const waterDeviceId = z
  .string()
  .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'must be letters a to z, digits and hyphens')
  .max(40, 'must be 40 letters at most');

export const deviceFactsSchema = z.strictObject({
  setOn: isoDate,
  deviceId: waterDeviceId,
  deviceName: z.string().trim().min(1, 'must not be empty').max(60, 'must be 60 letters at most'),
  joined: z.int().min(1, 'must be at least 1').max(12, 'must be at most 12'),
  offBy: isoDate.nullable(),
}) satisfies z.ZodType<DeviceFacts>;

const reasonText = z
  .string()
  .trim()
  .min(3, 'must say why, in 3 letters or more')
  .max(300, 'must be 300 letters at most');

export const siteWaterSchema = z.strictObject({
  decidedOn: isoDate,
  useTimes: measure('useTimes'),
  reason: reasonText,
}) satisfies z.ZodType<SiteWaterFacts>;

export const sensorSchema = z.strictObject({
  readOn: isoDate,
  sensor: z.string().trim().min(1, 'must not be empty').max(60, 'must be 60 letters at most'),
  share: z.number().min(-100).max(100).nullable(),
  values: z.int().min(0).max(10_000),
  flag: z.enum(sensorFlags).nullable(),
}) satisfies z.ZodType<SensorFacts>;

export const verdictSchema = z.strictObject({
  decidedOn: isoDate,
  verdict: z.enum(siteVerdicts),
  reason: reasonText,
}) satisfies z.ZodType<VerdictFacts>;

export const choiceSchema = z.strictObject({
  chosenOn: isoDate,
  species: z.string().trim().min(3).max(80),
  stockKind: z.enum(stockKinds).nullable(),
  caliperMm: measure('caliperMm').nullable(),
  reason: z.string().trim().max(300),
}) satisfies z.ZodType<ChoiceFacts>;

const overrideShape = z.strictObject({
  decidedOn: isoDate,
  path: z.string().max(60),
  value: z.union([z.string().max(40), z.number(), z.boolean()]),
  reason: reasonText,
}) satisfies z.ZodType<OverrideFacts>;

/** A choice of the practice and a value it may have: both are checked against the table of choices. */
export const overrideSchema = overrideShape.superRefine(({ path, value }, context) => {
  const choice = choices.find((one) => one.path === path);
  if (!choice) return context.addIssue({ code: 'custom', path: ['path'], message: 'is no choice of a practice' });
  try {
    requireChoiceValue(choice, value);
  } catch (error) {
    context.addIssue({ code: 'custom', path: ['value'], message: (error as Error).message });
  }
}) satisfies z.ZodType<OverrideFacts>;

export const moveSchema = z.strictObject({
  movedOn: isoDate,
  from: positionSchema,
  to: positionSchema,
  reason: reasonText,
}) satisfies z.ZodType<Move>;

export const retractionSchema = z.strictObject({ reason: reasonText }) satisfies z.ZodType<Retraction>;

export const notDoneSchema = z.strictObject({
  task: z.enum(assignmentKinds),
  triedOn: isoDate,
  reason: reasonText,
}) satisfies z.ZodType<NotDoneFacts>;

export const bothStandSchema = z
  .strictObject({ first: recordId, second: recordId, decidedOn: isoDate, reason: reasonText })
  .refine(({ first, second }) => first !== second, {
    error: 'must be another record',
    path: ['second'],
  }) satisfies z.ZodType<BothStandFacts>;

export const hazardSchema = z.strictObject({
  seenOn: isoDate,
  hazard: z.enum(hazardKinds),
  called: shortText(120),
  cordoned: z.boolean(),
  note: shortText(300),
}) satisfies z.ZodType<HazardFacts>;

export const hazardClosedSchema = z.strictObject({
  closedOn: isoDate,
  hazardId: recordId,
  reason: reasonText,
}) satisfies z.ZodType<HazardClosedFacts>;

export const signedOffSchema = z.strictObject({
  signedOn: isoDate,
  reason: shortText(300),
}) satisfies z.ZodType<SignedOffFacts>;

const name = filledText(120);
export const arboristAnswerSchema = z.strictObject({
  answeredOn: isoDate,
  arborist: name,
  advice: z.enum(arboristAdvices),
  note: shortText(600),
}) satisfies z.ZodType<ArboristAnswerFacts>;

export const declinedSchema = z.strictObject({
  decidedOn: isoDate,
  remedy: z.enum(remedyCodes),
  by: z.enum(['owner', 'programme']),
  reason: reasonText,
}) satisfies z.ZodType<DeclinedFacts>;

export const claimSchema = z.strictObject({
  claimedOn: isoDate,
  from: z.enum(['nursery', 'contractor']),
  reason: reasonText,
}) satisfies z.ZodType<ClaimFacts>;

export const residentToldSchema = z.strictObject({
  toldOn: isoDate,
  words: filledText(400),
}) satisfies z.ZodType<ResidentToldFacts>;

export const pestToldSchema = z.strictObject({
  toldOn: isoDate,
  pest: name,
  told: name,
}) satisfies z.ZodType<PestToldFacts>;

export const removalSchema = z.strictObject({
  removedOn: isoDate,
  why: z.enum(removalWhys),
  stump: z.enum(stumpStates),
  pitReusable: z.boolean(),
  note: shortText(300),
}) satisfies z.ZodType<RemovalFacts>;

const envelope = { id: recordId, recordedAt: instant, supersedes: recordId.nullable() };
const recordOf = <K extends string, F extends z.ZodType>(kind: K, facts: F) =>
  z.strictObject({ ...envelope, kind: z.literal(kind), facts });

/** What the facts of each kind of record must be at every door. */
const factsSchemas: { readonly [K in RecordKind]: z.ZodType<RecordFacts[K]> } = {
  ground: groundFactsSchema,
  assessment: assessmentSchema,
  percolation: percolationTestSchema,
  verdict: verdictSchema,
  choice: choiceSchema,
  override: overrideSchema,
  stock: stockSchema,
  planting: plantingSchema,
  inspection: inspectionSchema,
  remedy: remedySchema,
  watering: wateringSchema,
  device: deviceFactsSchema,
  site_water: siteWaterSchema,
  sensor: sensorSchema,
  move: moveSchema,
  not_done: notDoneSchema,
  both_stand: bothStandSchema,
  hazard: hazardSchema,
  hazard_closed: hazardClosedSchema,
  signed_off: signedOffSchema,
  arborist_answer: arboristAnswerSchema,
  declined: declinedSchema,
  claim: claimSchema,
  pest_told: pestToldSchema,
  resident_told: residentToldSchema,
  removal: removalSchema,
  retraction: retractionSchema,
};

const recordSchemas = recordKinds.map((kind) => recordOf(kind, factsSchemas[kind]));
type RecordSchema = (typeof recordSchemas)[number];

/** A field fact as it crosses the border, in files and over HTTP. */
export const fieldRecordSchema = z.discriminatedUnion(
  'kind',
  recordSchemas as [RecordSchema, ...RecordSchema[]],
) as unknown as z.ZodType<FieldRecord>;

/**
 * Facts as they may lie in the database: everything a door ever took. Choices come and go and their limits move, so an
 * override is read by its shape alone; `practiceAt` passes over what no practice knows any more.
 */
export const storedFactsSchemas: typeof factsSchemas = { ...factsSchemas, override: overrideShape };

/** Who made a record, on what, and when. */
const provenance = {
  recordedBy: z.string().max(120),
  device: z.string().max(80),
};

/** A record on the server; `recordedAt` is corrected there and never after `receivedAt`. */
export const keptRecordSchema = z.intersection(
  fieldRecordSchema,
  z.object({
    ...provenance,
    recordedById: z.uuid().nullable(),
    receivedAt: instant,
    /** What the clock of the device said. */
    deviceSaid: instant,
    clock: z.enum(clockStates),
  }),
);
export type KeptRecord = FieldRecord & {
  recordedBy: string;
  recordedById: string | null;
  device: string;
  receivedAt: string;
  deviceSaid: string;
  clock: ClockState;
};
