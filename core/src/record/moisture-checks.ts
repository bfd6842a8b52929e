import { addDaysTo, type IsoDate } from '../calendar';
import type { Practice } from '../practice';
import { inPlantingWindow, type PlantingWindow } from '../season';

/** The ball of a young tree is felt so often, from its first day of growth to the last of its first growing season. */
export interface MoistureChecks {
  readonly everyDays: number;
  readonly from: IsoDate;
  readonly until: IsoDate;
}

/** A season that is over so soon after a planting was not one: the next is the first. Days */
const leastSeasonDays = 90;
/** Where nobody said when trees rest, they are taken to grow for half a year. Days */
const usualSeasonDays = 182;
const sightDays = 800;

/** The first growing season of a tree, by when bare roots may be planted: then trees rest. */
export function firstSeason(
  plantedOn: IsoDate,
  windows: readonly PlantingWindow[],
): { readonly from: IsoDate; readonly until: IsoDate } {
  if (windows.length === 0) return { from: plantedOn, until: addDaysTo(plantedOn, usualSeasonDays) };
  let from: IsoDate | null = null;
  let grown = 0;
  for (let i = 0; i <= sightDays; i++) {
    const day = addDaysTo(plantedOn, i);
    if (!inPlantingWindow(windows, 'bare_root', day)) {
      from ??= day;
      grown += 1;
      continue;
    }
    if (from !== null && grown >= leastSeasonDays) return { from, until: addDaysTo(day, -1) };
    // It goes on from a late planting into the year after, with the rest between.
    grown = 0;
  }
  return { from: from ?? plantedOn, until: addDaysTo(from ?? plantedOn, usualSeasonDays) };
}

/** How often the practice has a ball felt, and between which days; `null` where it asks for none. */
export function moistureChecks(
  plantedOn: IsoDate,
  practice: Practice,
  windows: readonly PlantingWindow[],
): MoistureChecks | null {
  const everyDays = Math.round(practice.inspection.moistureEveryDays);
  return everyDays === 0 ? null : { everyDays, ...firstSeason(plantedOn, windows) };
}

/** A span in which the ball was to be felt once. */
export interface MoistureSpan {
  readonly from: IsoDate;
  readonly until: IsoDate;
  readonly read: boolean;
}

/** The weeks of the season so far, whole ones alone, each with whether anybody felt the ball in it. */
export function moistureSpans(
  { everyDays, from, until }: MoistureChecks,
  readOn: readonly IsoDate[],
  today: IsoDate,
): MoistureSpan[] {
  const last = until < today ? until : addDaysTo(today, -1);
  const spans: MoistureSpan[] = [];
  for (let start = from; addDaysTo(start, everyDays - 1) <= last; start = addDaysTo(start, everyDays)) {
    const end = addDaysTo(start, everyDays - 1);
    spans.push({ from: start, until: end, read: readOn.some((day) => day >= start && day <= end) });
  }
  return spans;
}
