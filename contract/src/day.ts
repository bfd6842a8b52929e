import {
  dayKinds,
  materialCodes,
  materials,
  sayAmount,
  type DayHelper,
  type DayTree,
  type Finding,
  type HourOfWeather,
  type KeptDay,
  type PlannedTeam,
  type UnitSystem,
  type WorkedDay,
} from '@sombra/core';
import * as z from 'zod';
import { arrangementNames, arrangementsAsked, arrangementsSchema, dayHoursSchema, dayStates } from './day-basics';
import { dayEventSchema, toolCode, toolCountsSchema } from './day-events';
import { dayPersonSchema, type DayPerson } from './day-people';
import { entityId, isoDate, filledText, positionSchema, rowVersion } from './measures';
import { weatherRulesSchema } from './rules';

export const plannedTeamSchema = z.strictObject({
  leadId: entityId,
  helperIds: z.array(entityId).max(12),
  spotIds: z.array(entityId).max(60),
}) satisfies z.ZodType<PlannedTeam>;
export const locksSchema = z.strictObject({
  helperIds: z.array(entityId).max(500),
  spotIds: z.array(entityId).max(300),
});

/** Planting days, the next first and those gone by after them. */
export const plantingDaysSchema = z.array(
  z.object({
    id: z.uuid(),
    title: z.string(),
    onDay: isoDate,
    spots: z.int(),
    kind: z.enum(dayKinds),
    state: z.enum(dayStates),
    capacity: z.int(),
    confirmed: z.int(),
    planted: z.int(),
  }),
);
export type PlantingDays = z.infer<typeof plantingDaysSchema>;

export const mostDaySpots = 200;
const capacity = z.int().min(0).max(500);

/** A day in three acts: which spots, when, how many people; sent twice, it is made once. */
export const newDaySchema = z.strictObject({
  id: entityId,
  title: filledText(80),
  onDay: isoDate,
  kind: z.enum(dayKinds),
  capacity,
  spotIds: z.array(entityId).max(mostDaySpots),
  /** A day whose hours and arrangements are taken over. */
  copyOf: entityId.nullable(),
});
export type NewDay = z.infer<typeof newDaySchema>;

export const changeDaySchema = z.strictObject({
  title: filledText(80),
  onDay: isoDate,
  kind: z.enum(dayKinds),
  capacity,
  hours: dayHoursSchema,
  arrangements: arrangementsSchema,
  gathering: positionSchema.nullable(),
  spotIds: z.array(entityId).max(mostDaySpots),
  version: rowVersion.min(1),
});
export type ChangeDay = z.infer<typeof changeDaySchema>;

export const keepTeamsSchema = z.strictObject({
  teams: z.array(plannedTeamSchema).max(60),
  locks: locksSchema,
  version: rowVersion.min(1),
});
export type KeepTeams = z.infer<typeof keepTeamsSchema>;

export const seekTeamsSchema = z.strictObject({
  seed: z.int().min(0).max(2_000_000_000),
  /** Whether what is locked stays, and the rest is planned around it. */
  keepLocked: z.boolean(),
});
export const seekProgressSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('running'), done: z.number(), cost: z.number() }),
  z.object({
    kind: z.literal('found'),
    teams: z.array(plannedTeamSchema),
    left: z.object({
      helpers: z.array(z.object({ id: z.string(), why: z.string() })),
      spots: z.array(z.object({ id: z.string(), why: z.string() })),
    }),
  }),
  z.object({ kind: z.literal('failed'), title: z.string(), reference: z.string().optional() }),
]);
export type SeekProgress = z.infer<typeof seekProgressSchema>;

export const dayTreeSchema = z.object({
  ref: z.string(),
  cover: z.enum(['ticket', 'clearance', 'none']),
  leaveMissing: z.boolean(),
  stock: z.enum(['accepted', 'not_here', 'refused', 'unmeasured']),
  heldDryDays: z.int().nullable(),
  wateredEveryDays: z.number().nullable(),
  planned: z.boolean(),
  planted: z.boolean(),
  cardChanged: z.boolean(),
  carded: z.boolean(),
  spotId: z.uuid(),
  position: positionSchema,
  ruledH: z.number(),
  heavySoil: z.boolean(),
  heavyStock: z.boolean(),
  lifters: z.int(),
  waterL: z.number(),
  tool: z.custom<NonNullable<DayTree['tool']>>().nullable(),
  doneMin: z.number().nullable(),
}) satisfies z.ZodType<DayTree>;

export const hourOfWeatherSchema = z.object({
  hour: z.int(),
  rainMm: z.number(),
  temperatureC: z.number(),
  humidityPct: z.number(),
  gustMs: z.number(),
  thunderKm: z.number().nullable(),
  soilC: z.number().nullable(),
}) satisfies z.ZodType<HourOfWeather>;

export const workedDaySchema = z.object({
  ruledH: z.number().positive(),
  workedH: z.number().positive(),
  heavySoilShare: z.number().min(0).max(1),
  heavyStockShare: z.number().min(0).max(1),
}) satisfies z.ZodType<WorkedDay>;

/** How a tree was planted against its plan. */
const builtSchema = z.object({
  level: z.enum(['good', 'watch', 'act', 'urgent']),
  findings: z.array(z.custom<Finding>()),
  firstWaterL: z.number(),
  departure: z.string().nullable(),
  by: z.string(),
});

export const dayDetailSchema = z.object({
  id: z.uuid(),
  title: z.string(),
  onDay: isoDate,
  kind: z.enum(dayKinds),
  state: z.enum(dayStates),
  capacity: z.int(),
  hours: dayHoursSchema,
  arrangements: arrangementsSchema,
  gathering: positionSchema.nullable(),
  teams: z.array(plannedTeamSchema),
  locks: locksSchema,
  linkOpen: z.boolean(),
  version: z.int(),
  trees: z.array(
    dayTreeSchema.extend({
      place: z.string(),
      species: z.string().nullable(),
      why: z.string(),
      built: builtSchema.nullable(),
    }),
  ),
  people: z.array(dayPersonSchema),
  walkM: z.array(z.array(z.number())),
  /** Of the ways between trees, how many follow streets rather than a straight line. */
  routed: z.boolean(),
  worked: z.array(workedDaySchema),
  forecast: z.array(hourOfWeatherSchema),
  station: z.object({ name: z.string(), simulated: z.boolean() }).nullable(),
  toolsThere: toolCountsSchema,
  /** In the material's own unit. */
  materialsMissing: z.array(z.object({ code: z.enum(materialCodes), missing: z.number() })),
  /** Of the trees that were planted on the day, by their plans. */
  materialsUsed: z.array(z.object({ code: z.enum(materialCodes), amount: z.number() })),
  weatherRules: weatherRulesSchema,
  events: z.array(dayEventSchema),
  waiver: z.object({ version: z.int(), text: z.string() }).nullable(),
  mails: z.object({ waiting: z.int(), sent: z.int(), refused: z.int(), page: z.string().nullable() }),
});
export type DayDetail = z.infer<typeof dayDetailSchema>;

/** A day as the core judges it; what materials are missing is said in the reader's units. */
export function keptDayOf(detail: DayDetail, units: UnitSystem = 'metric'): KeptDay {
  return {
    kind: detail.kind,
    weather: detail.weatherRules,
    hours: detail.hours,
    capacity: detail.capacity,
    trees: detail.trees,
    helpers: detail.people.map(helperOf),
    teams: detail.teams,
    walkM: detail.walkM,
    worked: detail.worked,
    forecast: detail.forecast,
    toolsThere: detail.toolsThere,
    materialsMissing: detail.materialsMissing.map(({ code, missing }) => ({
      name: materials[code].name,
      missing: sayAmount(code, missing, units),
    })),
    arrangementsMissing: arrangementsAsked[detail.kind]
      .filter((name) => detail.arrangements[name] === '')
      .map((name) => arrangementNames[name].toLowerCase()),
  };
}

const helperOf = (person: DayPerson): DayHelper => ({
  id: person.id,
  name: person.name,
  skill: person.skill,
  minor: person.minor,
  guardianId: person.guardianId,
  together: person.together,
  noLifting: person.noLifting,
  waiver: person.waiver,
  confirmed: person.state === 'confirmed',
  came: person.cameAt !== null,
  gone: person.leftAt !== null,
});

export const dayLinkSchema = z.object({ path: z.string() });
export const countToolSchema = z.strictObject({ tool: toolCode, count: z.int().min(0).max(10_000) });
