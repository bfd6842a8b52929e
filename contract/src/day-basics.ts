import type { DayHours, DayKind } from '@sombra/core';
import * as z from 'zod';
import { shortText } from './measures';

export const dayStates = ['planned', 'called_off', 'closed'] as const;

export const minuteOfDay = z.int().min(0).max(1440);
export const dayHoursSchema = z.strictObject({
  gatherMin: minuteOfDay,
  beginMin: minuteOfDay,
  endMin: minuteOfDay,
  demonstrationMin: minuteOfDay,
  breakMin: minuteOfDay,
  cleanUpMin: minuteOfDay,
}) satisfies z.ZodType<DayHours>;

/** What is arranged for a day, in words; some are asked for before it is ready, by its kind. */
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
export const arrangementsAsked: Readonly<Record<DayKind, readonly ArrangementName[]>> = {
  volunteers: ['gathering', 'firstAid', 'emergency', 'toilets', 'water', 'traffic'],
  contractor: ['gathering', 'emergency', 'water', 'traffic'],
  hand_out: ['gathering', 'firstAid'],
};
const words = shortText(400).default('');
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
