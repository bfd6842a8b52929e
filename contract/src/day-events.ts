import { closeDownTasks, toolCodes, type ToolCode, type ToolCounts } from '@sombra/core';
import * as z from 'zod';
import { minuteOfDay } from './day-basics';
import { entityId, instant, filledText, shortText } from './measures';
import { aheadMsSchema } from './sent-records';

export const toolCode = z.enum(toolCodes as readonly [ToolCode, ...ToolCode[]]);
export const toolCountsSchema = z.partialRecord(toolCode, z.int().min(0).max(10_000)) satisfies z.ZodType<ToolCounts>;

const team = z.int().min(0).max(60);
/** What happened on a day, written once: the facts of each kind. */
const dayEventFacts = {
  weather_decided: z.strictObject({
    advice: z.enum(['go', 'delay', 'call_off']),
    beginMin: minuteOfDay.nullable(),
    why: filledText(300),
  }),
  checked_in: z.strictObject({ personId: entityId }),
  went_home: z.strictObject({ personId: entityId }),
  briefed: z.strictObject({ team, points: z.array(filledText(80)).min(1).max(20) }),
  tools_out: z.strictObject({ team, counts: toolCountsSchema, own: shortText(200) }),
  tools_back: z.strictObject({ team, counts: toolCountsSchema, note: shortText(200) }),
  incident: z.strictObject({ what: filledText(400), nearMiss: z.boolean(), called: shortText(200) }),
  message: z.strictObject({ team: team.nullable(), words: filledText(300) }),
  close_down: z.strictObject({ task: z.enum(closeDownTasks), spotId: entityId.nullable() }),
  handed_out: z.strictObject({ spotId: entityId, to: filledText(80) }),
  thunder: z.strictObject({ note: shortText(200) }),
  closed: z.strictObject({ hours: z.number().min(0).max(5000), note: shortText(1000) }),
} as const;
export type DayEventKind = keyof typeof dayEventFacts;

/** Each kind with its own facts, beside what all of them have. */
type OfEachKind<Head> = {
  [K in DayEventKind]: Head & { readonly kind: K; readonly facts: z.infer<(typeof dayEventFacts)[K]> };
}[DayEventKind];
function ofEachKind<Head extends z.ZodRawShape>(head: Head) {
  const kinds = Object.keys(dayEventFacts) as DayEventKind[];
  const each = kinds.map((kind) => z.strictObject({ ...head, kind: z.literal(kind), facts: dayEventFacts[kind] }));
  // The pairs of kind and facts are those of the table; TypeScript cannot build a tuple of a map.
  return z.discriminatedUnion('kind', each as never) as unknown as z.ZodType<
    OfEachKind<z.output<z.ZodObject<Head>>>,
    OfEachKind<z.input<z.ZodObject<Head>>>
  >;
}

const head = { id: entityId, at: instant, device: filledText(80) };
/** As a device sends it: by its own clock, and with how far it knew that to be ahead. */
export const newDayEventSchema = ofEachKind({ ...head, aheadMs: aheadMsSchema });
export type NewDayEvent = z.output<typeof newDayEventSchema>;
/** As it is kept: `at` by the server's clock. */
export const dayEventSchema = ofEachKind({ ...head, byName: z.string() });
export type DayEvent = z.output<typeof dayEventSchema>;
