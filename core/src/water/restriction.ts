import { addDaysTo, type IsoDate } from '../calendar';
import { because, type WaterReason } from './reasons';

export const weekdays = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;
export type Weekday = (typeof weekdays)[number];

/** When the town allows watering; what stands here goes before every date and dose. */
export interface WateringRules {
  readonly days: Readonly<Record<Weekday, boolean>>;
  /** Of the day, 0–24; where it ends before it begins, it goes over midnight. From 0 to 24 is all day. */
  readonly fromHour: number;
  readonly untilHour: number;
  /** What is carried and poured by hand is free of it. */
  readonly handFree: boolean;
}

export const defaultWateringRules: WateringRules = {
  days: { mon: true, tue: true, wed: true, thu: true, fri: true, sat: true, sun: true },
  fromHour: 0,
  untilHour: 24,
  handFree: true,
};

/** By hand from a vessel, from a truck, or by a valve. */
export type WateredBy = 'hand' | 'truck' | 'valve';

const weekdayOf = (day: IsoDate): Weekday => weekdays[(new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7] ?? 'mon';

const allDay = ({ fromHour, untilHour }: WateringRules): boolean => fromHour === 0 && untilHour === 24;
/** Whether anything is restricted at all. */
export const isRestricted = (rules: WateringRules): boolean =>
  !allDay(rules) || weekdays.some((day) => !rules.days[day]);

export interface WateringLeave {
  readonly may: boolean;
  /** The first day from this one on that allows it; `null` where none of the week does. */
  readonly nextOn: IsoDate | null;
  readonly because: readonly WaterReason[];
}

/** Whether watering is allowed on a day, the first day that is, and between which hours. */
export function wateringLeave(rules: WateringRules, day: IsoDate, by: WateredBy): WateringLeave {
  if (by === 'hand' && rules.handFree) return { may: true, nextOn: day, because: [] };
  const week = Array.from({ length: 7 }, (_, i) => addDaysTo(day, i));
  const nextOn = week.find((one) => rules.days[weekdayOf(one)]) ?? null;
  const may = nextOn === day;
  const { fromHour, untilHour } = rules;
  return {
    may,
    nextOn,
    because: [
      ...(may ? [] : [because('restricted_day', { nextOn: nextOn ?? '' })]),
      ...(allDay(rules) ? [] : [because('restricted_hours', { fromHour, untilHour })]),
    ],
  };
}
