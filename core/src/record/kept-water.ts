import { addMonthsTo, earliest, type IsoDate } from '../calendar';
import { aftercareTimes, type Practice } from '../practice';
import type { Stock } from '../stock';
import {
  endsMonth,
  followWater,
  waterAt,
  type BalancedDay,
  type ClimateDay,
  type WaterCheckpoint,
  type WaterClimate,
  type WaterNow,
} from '../water';
import { daysAfter, nextWater, presentDays, type NextWater, type TreeInputs } from './tree-water';

/** What is kept of a tree's water for every list of it: where it stands, and when it next asks for water. */
export interface KeptWater extends Pick<WaterNow, 'share' | 'errorShare' | 'supply'> {
  readonly checkpoint: WaterCheckpoint;
  readonly next: NextWater;
}

export interface WaterAdvance {
  readonly kept: KeptWater;
  /** The last day of each month it was followed over. */
  readonly monthEnds: readonly WaterCheckpoint[];
}

/** Days ahead are followed in pieces of so many, until water is asked for. */
const pieceDays = 10;

/**
 * Follows a tree from a checkpoint to the last day of weather, and on until it asks for water. Followed night by night, or
 * at once from its planting, it comes to the same.
 */
export function advanceWater(inputs: TreeInputs, from: WaterCheckpoint, climate: WaterClimate): WaterAdvance {
  const { subject, given } = inputs;
  const monthEnds: WaterCheckpoint[] = [];
  let at = from;
  for (const month of byMonth(daysAfter(climate, from.day))) {
    at = followWater(subject, at, month, given).to;
    if (endsMonth(at.day)) monthEnds.push(at);
  }
  const today = untilToday(inputs, at, climate);
  const { share, errorShare, supply } = waterAt(subject, today);
  return { kept: { share, errorShare, supply, checkpoint: at, next: nextOf(inputs, today, climate) }, monthEnds };
}

/** Days that are over, or are today's, and not yet measured count by their forecast: with what was poured on them. */
function untilToday({ subject, given }: TreeInputs, at: WaterCheckpoint, climate: WaterClimate): WaterCheckpoint {
  const present = presentDays(climate, at.day);
  return present.length > 0 ? followWater(subject, at, present, given).to : at;
}

function nextOf({ subject }: TreeInputs, today: WaterCheckpoint, climate: WaterClimate): NextWater {
  const now = waterAt(subject, today);
  const coming = climate.ahead.filter(({ day }) => day > today.day);
  const ahead: BalancedDay[] = [];
  let to = today;
  const asks = (): boolean => today.drownedSince !== null || [now, ...ahead].some(({ asks }) => asks);
  for (let i = 0; i < coming.length && !asks(); i += pieceDays) {
    const piece = followWater(subject, to, coming.slice(i, i + pieceDays));
    ahead.push(...piece.days);
    to = piece.to;
  }
  return nextWater({ subject, now, ahead, forecastUntil: climate.forecastUntil }, today);
}

function byMonth(days: readonly ClimateDay[]): ClimateDay[][] {
  const months: ClimateDay[][] = [];
  for (const day of days) {
    const last = months.at(-1);
    if (last?.[0]?.monthSerial === day.monthSerial) last.push(day);
    else months.push([day]);
  }
  return months;
}

/** Roots regain what they lost in about a year for each 25 mm of caliper; nobody stops watching before the second summer. */
const monthsPer25Mm = 12;
export const leastFollowedMonths = 24;

/** Until when a planted tree's water is followed: by its practice's time, or by caliper. A floor, never a proof. */
export function followedUntil(
  plantedOn: IsoDate,
  { caliperMm }: Pick<Stock, 'caliperMm'>,
  practice: Practice,
): IsoDate {
  const { time, months } = practice.routine;
  const wanted = aftercareTimes[time].fixed ? months : (caliperMm / 25) * monthsPer25Mm;
  return addMonthsTo(plantedOn, Math.round(Math.max(leastFollowedMonths, wanted)));
}

const sameDay = (one: ClimateDay | undefined, other: ClimateDay | undefined): boolean =>
  one !== undefined &&
  other !== undefined &&
  one.etMm === other.etMm &&
  one.rainMm === other.rainMm &&
  one.degrees === other.degrees &&
  one.resting === other.resting;

/** The first day on which two climates differ, up to the last day of the one before; `null` where none does. */
export function climateDiffersFrom(before: readonly ClimateDay[], now: readonly ClimateDay[]): IsoDate | null {
  const last = before.at(-1)?.day ?? '';
  const [was, is] = [before, now].map((days) => new Map(days.map((day) => [day.day, day])));
  // Days that came before the first one known, or between, count as well: a file of an older year changes all after it.
  const days = [...before, ...now].map(({ day }) => day).filter((day) => day <= last);
  return earliest(days.filter((day) => !sameDay(was?.get(day), is?.get(day)))) ?? null;
}

/** The newest of these checkpoints from before a day. */
export const checkpointBefore = (checkpoints: readonly WaterCheckpoint[], day: IsoDate): WaterCheckpoint | null =>
  checkpoints.reduce<WaterCheckpoint | null>(
    (best, one) => (one.day < day && (best === null || one.day > best.day) ? one : best),
    null,
  );
