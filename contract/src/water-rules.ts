import { type TypicalYear, type TriedRule } from '@sombra/core';
import * as z from 'zod';
import { weatherDaySchema } from './water';

/** A year of real months, each the nearest to the mean; `null` where too few years are known. */
export const typicalYearSchema = z
  .object({ years: z.int(), takenFrom: z.array(z.int()).length(12), days: z.array(weatherDaySchema) })
  .nullable() satisfies z.ZodType<TypicalYear | null>;

/** The weather that was, from planting on or for a year; or a year as it usually is. */
export const triedWeathers = ['was', 'typical'] as const;
export type TriedWeather = (typeof triedWeathers)[number];

/** Followed trees that every rule is tried on: all, of a place, or planted in a season. */
export const tryRulesSchema = z.strictObject({
  place: z.string().trim().min(1).max(80).nullable(),
  /** Planted between 1 July of this year and 30 June of the next. */
  season: z.int().min(1950).max(2200).nullable(),
  weather: z.enum(triedWeathers),
});
export type TryRules = z.infer<typeof tryRulesSchema>;

const triedRuleSchema = z.object({
  rule: z.custom<TriedRule>((value) => typeof value === 'string'),
  /** Sums over the trees it was tried on. */
  litres: z.number(),
  visits: z.int(),
  stressDays: z.int(),
  waterloggedDays: z.int(),
});
export const rulesTriedSchema = z.object({
  /** Trees every rule was tried on, and how many there are: of very many some, evenly. */
  trees: z.int(),
  of: z.int(),
  /** Days of weather, a tree on average. */
  days: z.number(),
  /** Typical of so many years; `null` for the weather that was. */
  years: z.int().nullable(),
  rules: z.array(triedRuleSchema),
});
export type RulesTried = z.infer<typeof rulesTriedSchema>;

export const tryRulesProgressSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('running'), done: z.number() }),
  z.object({ kind: z.literal('tried'), tried: rulesTriedSchema }),
  z.object({ kind: z.literal('failed'), title: z.string(), reference: z.string().optional() }),
]);
export type TryRulesProgress = z.infer<typeof tryRulesProgressSchema>;
