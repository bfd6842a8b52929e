import {
  materialCodes,
  materials,
  sayAmount,
  skills,
  toolCodes,
  type DayHelper,
  type DayHours,
  type DayTree,
  type Finding,
  type HourOfWeather,
  type KeptDay,
  type PlannedTeam,
  type ToolCode,
  type ToolCounts,
  type UnitSystem,
  type WorkedDay,
} from '@sombra/core';
import * as z from 'zod';
import { entityId, instant, isoDate, positionSchema, rowVersion } from './measures';

const text = (max: number) => z.string().trim().max(max, `must be at most ${max} characters`);
const named = (max: number) => text(max).min(1, 'must not be empty');

export const dayKinds = ['volunteers', 'contractor', 'hand_out'] as const;
export const dayStates = ['planned', 'called_off', 'closed'] as const;

const minute = z.int().min(0).max(1440);
export const dayHoursSchema = z.strictObject({
  gatherMin: minute,
  beginMin: minute,
  endMin: minute,
  demonstrationMin: minute,
  breakMin: minute,
  cleanUpMin: minute,
}) satisfies z.ZodType<DayHours>;

/** What is arranged for a day, in words; the first six are asked for before it is ready. */
export const arrangementNames = {
  gathering: 'Gathering place',
  firstAid: 'First aid',
  emergency: 'Nearest emergency department',
  toilets: 'Toilets',
  water: 'Water on site',
  traffic: 'Street works and traffic',
  parking: 'Parking',
  access: 'Access',
  bring: 'What to bring',
  partners: 'Partners',
} as const;
export type ArrangementName = keyof typeof arrangementNames;
export const arrangementsAsked: readonly ArrangementName[] = [
  'gathering',
  'firstAid',
  'emergency',
  'toilets',
  'water',
  'traffic',
];
const words = text(400).default('');
export const arrangementsSchema = z.strictObject({
  gathering: words,
  firstAid: words,
  emergency: words,
  toilets: words,
  water: words,
  traffic: words,
  parking: words,
  access: words,
  bring: words,
  partners: words,
});
export type Arrangements = z.infer<typeof arrangementsSchema>;

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
  title: named(80),
  onDay: isoDate,
  kind: z.enum(dayKinds),
  capacity,
  spotIds: z.array(entityId).max(mostDaySpots),
  /** A day whose hours and arrangements are taken over. */
  copyOf: entityId.nullable(),
});
export type NewDay = z.infer<typeof newDaySchema>;

export const changeDaySchema = z.strictObject({
  title: named(80),
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

export const personStates = ['held', 'confirmed', 'waiting', 'cancelled'] as const;

export const dayPersonSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  state: z.enum(personStates),
  heldUntil: instant.nullable(),
  skill: z.enum(skills),
  minor: z.boolean(),
  guardianId: z.uuid().nullable(),
  together: z.string().nullable(),
  noLifting: z.boolean(),
  photos: z.boolean(),
  waiver: z.boolean(),
  waiverSignedBy: z.string().nullable(),
  userId: z.uuid().nullable(),
  source: z.enum(['link', 'desk', 'walk_in']),
  cameAt: instant.nullable(),
  leftAt: instant.nullable(),
});
export type DayPerson = z.infer<typeof dayPersonSchema>;

const about = {
  name: named(80),
  skill: z.enum(skills),
  minor: z.boolean(),
  together: text(40).nullable(),
  noLifting: z.boolean(),
  photos: z.boolean(),
};
/** Kept under the season's key, for leads alone. */
export const privateSchema = z.strictObject({
  email: z.union([z.literal(''), z.email('must be an e-mail address').max(120)]).default(''),
  phone: text(40).default(''),
  emergencyContact: text(120).default(''),
  allergies: text(400).default(''),
});
export type PrivateFacts = z.infer<typeof privateSchema>;

/** Somebody added at the desk, or who walks in; `signedBy` where the waiver was signed on paper. */
export const addHelperSchema = z.strictObject({
  id: entityId,
  ...about,
  guardianId: entityId.nullable(),
  userId: entityId.nullable(),
  signedBy: text(80).nullable(),
  walkIn: z.boolean(),
  private: privateSchema,
});
export type AddHelper = z.infer<typeof addHelperSchema>;

export const changeHelperSchema = z.strictObject({
  ...about,
  guardianId: entityId.nullable(),
  state: z.enum(['confirmed', 'waiting', 'cancelled']),
  signedBy: text(80).nullable(),
});
export type ChangeHelper = z.infer<typeof changeHelperSchema>;

export const dayTreeSchema = z.object({
  ref: z.string(),
  cover: z.enum(['ticket', 'clearance', 'none']),
  leaveMissing: z.boolean(),
  stock: z.enum(['accepted', 'not_here', 'refused', 'unmeasured']),
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

const toolCode = z.enum(toolCodes as readonly [ToolCode, ...ToolCode[]]);
export const toolCountsSchema = z.partialRecord(toolCode, z.int().min(0).max(10_000)) satisfies z.ZodType<ToolCounts>;

/** What happened on a day, written once. */
export const dayEventFacts = {
  weather_decided: z.strictObject({
    advice: z.enum(['go', 'delay', 'call_off']),
    beginMin: minute.nullable(),
    why: named(300),
  }),
  checked_in: z.strictObject({ personId: entityId }),
  went_home: z.strictObject({ personId: entityId }),
  briefed: z.strictObject({ team: z.int().min(0).max(60), points: z.array(named(80)).min(1).max(20) }),
  tools_out: z.strictObject({ team: z.int().min(0).max(60), counts: toolCountsSchema, own: text(200) }),
  tools_back: z.strictObject({ team: z.int().min(0).max(60), counts: toolCountsSchema, note: text(200) }),
  incident: z.strictObject({ what: named(400), nearMiss: z.boolean(), called: text(200) }),
  message: z.strictObject({ team: z.int().min(0).max(60).nullable(), words: named(300) }),
  thunder: z.strictObject({ note: text(200) }),
  closed: z.strictObject({ hours: z.number().min(0).max(5000), note: text(1000) }),
} as const;
export type DayEventKind = keyof typeof dayEventFacts;
export const dayEventKinds = Object.keys(dayEventFacts) as [DayEventKind, ...DayEventKind[]];

const eventHead = { id: entityId, at: instant, device: named(80) };
type EventSchemas = { [K in DayEventKind]: z.ZodType<{ kind: K; facts: z.infer<(typeof dayEventFacts)[K]> }> };
export const newDayEventSchema = z.discriminatedUnion(
  'kind',
  dayEventKinds.map((kind) =>
    z.strictObject({ ...eventHead, kind: z.literal(kind), facts: dayEventFacts[kind] }),
  ) as never,
) as unknown as z.ZodType<NewDayEvent>;
export type NewDayEvent = {
  [K in DayEventKind]: {
    readonly id: string;
    readonly at: string;
    readonly device: string;
    readonly kind: K;
    readonly facts: z.infer<(typeof dayEventFacts)[K]>;
  };
}[keyof EventSchemas];
export type DayEvent = NewDayEvent & { readonly byName: string };
export const dayEventSchema = z.custom<DayEvent>();

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
  events: z.array(dayEventSchema),
  waiver: z.object({ version: z.int(), text: z.string() }).nullable(),
  mails: z.object({ waiting: z.int(), sent: z.int(), refused: z.int(), page: z.string().nullable() }),
});
export type DayDetail = z.infer<typeof dayDetailSchema>;

/** A day as the core judges it; what materials are missing is said in the reader's units. */
export function keptDayOf(detail: DayDetail, units: UnitSystem = 'metric'): KeptDay {
  return {
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
    arrangementsMissing: arrangementsAsked
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

/** What the open page of a day shows to anybody who has its link. */
export const openDaySchema = z.object({
  programme: z.string(),
  title: z.string(),
  onDay: isoDate,
  hours: dayHoursSchema,
  arrangements: arrangementsSchema,
  placesLeft: z.int(),
  state: z.enum(dayStates),
  waiver: z.object({ version: z.int(), text: z.string() }),
});
export type OpenDay = z.infer<typeof openDaySchema>;

/** One who registers by the link, with the minors they are guardian of. `website` is left empty by people. */
export const registerSchema = z.strictObject({
  id: entityId,
  ...about,
  minor: z.literal(false),
  skill: z.enum(['has_planted', 'first_time']),
  private: privateSchema.extend({ email: z.email('must be an e-mail address').max(120) }),
  waiverVersion: z.int().min(1),
  signedBy: named(80),
  minors: z.array(z.strictObject({ id: entityId, name: named(80), allergies: text(400) })).max(6),
  website: z.string().max(200),
});
export type Register = z.infer<typeof registerSchema>;

export const openRegistrationSchema = z.object({
  programme: z.string(),
  title: z.string(),
  onDay: isoDate,
  name: z.string(),
  with: z.array(z.string()),
  state: z.enum([...personStates, 'over']),
  gathering: z.string(),
  hours: dayHoursSchema,
});
export type OpenRegistration = z.infer<typeof openRegistrationSchema>;
export const answerRegistrationSchema = z.strictObject({ answer: z.enum(['confirm', 'cancel']) });

export const waiverSchema = z.strictObject({ version: z.int().min(1), text: text(8000).min(20) });
export const dayLinkSchema = z.object({ path: z.string() });
export const toolStoreSchema = z.object({ counts: toolCountsSchema });
export const countToolSchema = z.strictObject({ tool: toolCode, count: z.int().min(0).max(10_000) });
