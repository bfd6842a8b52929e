import {
  botanicalPattern,
  crownForms,
  foliageKinds,
  grades,
  growthClasses,
  plantingTimes,
  pollinations,
  ranks,
  speciesRanges,
  stockKinds,
  sunNeeds,
  transplantGrades,
  wetGrades,
  type ListLimit,
  type Species,
} from '@sombra/core';
import * as z from 'zod';
import { entityId, isoDate, measure, rowVersion } from './measures';

const within = (name: keyof typeof speciesRanges) =>
  z.number().min(speciesRanges[name].min).max(speciesRanges[name].max);
const range = (name: 'heightM' | 'spreadM' | 'ph') =>
  z
    .strictObject({ min: within(name), max: within(name) })
    .refine(({ min, max }) => min <= max, { error: 'must not end before it begins', path: ['max'] });
const grade = z.enum(grades);
const months = z.array(within('month').int()).max(12);
const words = (most: number) => z.string().trim().max(most);

export const speciesSchema = z.strictObject({
  botanical: z.string().trim().max(80).regex(botanicalPattern, 'must be genus and epithet, such as Quercus suber'),
  common: words(80).min(1, 'must not be empty'),
  family: z
    .string()
    .trim()
    .regex(/^[A-Z][a-z]+ae$/, 'must be a family, such as Fagaceae'),
  heightM: range('heightM'),
  spreadM: range('spreadM'),
  growth: z.enum(growthClasses),
  form: z.enum(crownForms),
  foliage: z.enum(foliageKinds),
  waterUse: grade,
  wet: z.enum(wetGrades),
  drought: grade,
  salt: grade,
  ph: range('ph'),
  sun: z.enum(sunNeeds),
  frostC: within('frostC'),
  heat: grade,
  windFirm: grade,
  rootAggression: grade,
  litter: grade,
  thorns: z.boolean(),
  pollen: grade,
  toxic: grade,
  pests: words(200),
  native: words(200),
  pollinators: grade,
  birds: grade,
  flower: months,
  fruit: months,
  autumnColour: months,
  pollination: z.enum(pollinations),
  transplant: z.strictObject({
    container: z.enum(transplantGrades),
    balled: z.enum(transplantGrades),
    bare_root: z.enum(transplantGrades),
  }),
  planting: z.enum(plantingTimes),
  notes: words(600),
  source: words(300),
}) satisfies z.ZodType<Species>;

export const keptSpeciesSchema = z.object({
  species: speciesSchema,
  version: z.int(),
  /** Trees that stand of it, and spots it is chosen for. */
  standing: z.int(),
  chosen: z.int(),
});
export interface KeptSpecies {
  readonly species: Species;
  readonly version: number;
  readonly standing: number;
  readonly chosen: number;
}
export const speciesListSchema = z.array(keptSpeciesSchema);

/** `version` 0 for a new species. */
export const saveSpeciesSchema = z.strictObject({ species: speciesSchema, version: rowVersion.min(0) });
export interface SaveSpecies {
  readonly species: Species;
  readonly version: number;
}

/** What a file of rows would do, or did: each bad row named. */
export const rowReportSchema = z.object({
  written: z.int(),
  same: z.int(),
  issues: z.array(z.object({ row: z.int(), column: z.string(), message: z.string() })),
});
export type RowReport = z.infer<typeof rowReportSchema>;

export const offerSchema = z.object({
  id: z.uuid(),
  nursery: z.string(),
  species: z.string(),
  stockKind: z.enum(stockKinds),
  caliperMm: z.number(),
  heightM: z.number().nullable(),
  price: z.number(),
  available: z.int(),
  listDay: isoDate,
});
export type Offer = z.infer<typeof offerSchema>;

export const offerRowSchema = z.strictObject({
  species: z.string().trim().max(80).regex(botanicalPattern, 'must be genus and epithet, such as Quercus suber'),
  stock_kind: z.enum(stockKinds),
  caliper_mm: measure('caliperMm'),
  height_m: measure('treeHeightM').nullable(),
  price: z.number().min(0).max(100_000),
  available: z.number().int().min(0).max(100_000),
});
export type OfferRow = z.infer<typeof offerRowSchema>;

export const nurserySchema = z.object({
  name: z.string(),
  offers: z.int(),
  listDay: isoDate.nullable(),
  terms: z.string(),
});
export type Nursery = z.infer<typeof nurserySchema>;
export const offersSchema = z.object({ nurseries: z.array(nurserySchema), offers: z.array(offerSchema) });
export type Offers = z.infer<typeof offersSchema>;

export const offersQuerySchema = z.strictObject({ nursery: z.string().trim().min(2, 'must not be empty').max(80) });

// The season's list

export const listStates = ['queued', 'solving', 'solved', 'infeasible', 'cancelled', 'failed', 'accepted'] as const;
export type ListState = (typeof listStates)[number];

export const askListSchema = z.strictObject({
  id: entityId,
  title: z.string().trim().min(2, 'must not be empty').max(80),
  spotIds: z.array(entityId).min(1).max(1000),
  budget: z.number().min(0).max(100_000_000).nullable(),
  /** The day planting is meant to begin: stock out of season then is left out. */
  plantOn: isoDate,
  stockKinds: z.array(z.enum(stockKinds)).min(1),
  locks: z
    .array(z.strictObject({ spotId: entityId, species: z.string().max(80), stockKind: z.enum(stockKinds).nullable() }))
    .max(1000),
});
export type AskList = z.infer<typeof askListSchema>;

const limitSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('budget'), most: z.number() }),
  z.object({
    kind: z.literal('share'),
    rank: z.enum(ranks),
    taxon: z.string(),
    room: z.number(),
    over: z.boolean(),
  }),
  z.object({ kind: z.literal('available'), offerId: z.string(), most: z.number() }),
  z.object({ kind: z.literal('lock'), spotId: z.string() }),
]) satisfies z.ZodType<ListLimit>;

const populationSchema = z.array(z.object({ species: z.string(), family: z.string(), count: z.number() }));

export const listResultSchema = z.object({
  picks: z.array(
    z.object({
      spotId: z.string(),
      offerId: z.string(),
      fit: z.number(),
      next: z.object({ offerId: z.string(), fitLoss: z.number(), priceMore: z.number() }).nullable(),
      better: z.object({ species: z.string(), fitMore: z.number(), blockedBy: z.array(limitSchema) }).nullable(),
    }),
  ),
  offers: z.array(offerSchema.extend({ family: z.string(), ease: z.number() })),
  binding: z.array(z.object({ limit: limitSchema, used: z.number(), most: z.number() })),
  /** Spots nothing on offer suits, with the commonest reason. */
  without: z.array(z.object({ spotId: z.string(), why: z.string() })),
  relax: z.array(z.object({ limit: limitSchema, by: z.number() })),
  /** Share of fit between this list and the proven bound; 0 is proven best. */
  gap: z.number().nullable(),
  worth: z.number(),
  cost: z.number(),
  before: populationSchema,
  after: populationSchema,
  seconds: z.number(),
});
export type ListResult = z.infer<typeof listResultSchema>;

export const seasonListSchema = z.object({
  id: z.uuid(),
  title: z.string(),
  state: z.enum(listStates),
  asked: askListSchema,
  madeBy: z.string(),
  madeAt: z.string(),
  progress: z.object({ step: z.string(), share: z.number(), gap: z.number().nullable() }).nullable(),
  problem: z.string().nullable(),
  result: listResultSchema.nullable(),
  spots: z.array(z.object({ spotId: z.uuid(), ref: z.string(), place: z.string() })),
  orders: z.array(
    z.object({ id: z.uuid(), nursery: z.string(), number: z.string(), trees: z.int(), total: z.number() }),
  ),
});
export type SeasonList = z.infer<typeof seasonListSchema>;

export const listHeadSchema = seasonListSchema
  .pick({ id: true, title: true, state: true, madeBy: true, madeAt: true })
  .extend({
    spots: z.int(),
  });
export type ListHead = z.infer<typeof listHeadSchema>;
