import { requireWithin } from '../errors';

/** The programme of a planting day; minutes since midnight, and lengths in minutes. */
export interface DayHours {
  readonly gatherMin: number;
  /** Who is there is checked in until then; the safety talk begins. */
  readonly beginMin: number;
  readonly endMin: number;
  /** Safety talk and one tree planted for all to see. */
  readonly demonstrationMin: number;
  readonly breakMin: number;
  /** Tools counted back, containers returned, holes looked at: begins well before the end. */
  readonly cleanUpMin: number;
}
export const usualDayHours: DayHours = {
  gatherMin: 8 * 60 + 30,
  beginMin: 9 * 60,
  endMin: 13 * 60,
  demonstrationMin: 25,
  breakMin: 15,
  cleanUpMin: 30,
};

/** Minutes teams have for walking and planting. Never negative. */
export const plantingMin = ({ beginMin, endMin, demonstrationMin, breakMin, cleanUpMin }: DayHours): number =>
  Math.max(0, endMin - beginMin - demonstrationMin - breakMin - cleanUpMin);

/** Person-hours: likely, and the range that holds four days out of five. */
export interface HoursRange {
  readonly likely: number;
  readonly low: number;
  readonly high: number;
}

/** A tree of a team's, in its order. */
export interface RunTree {
  readonly spotId: string;
  readonly ref: string;
  readonly hours: HoursRange;
  readonly walkMin: number;
  /** Planted at, minutes since midnight; `null` while it is not. */
  readonly doneMin: number | null;
}

export interface RunTeam {
  readonly name: string;
  readonly strength: number;
  readonly trees: readonly RunTree[];
  /** What a tree takes longer for want of a tool: 0.15 where one pick is shared. */
  readonly slowerShare?: number;
}

export type BlockKind = 'check_in' | 'demonstration' | 'walk' | 'tree' | 'break' | 'stopped' | 'clean_up' | 'spare';

export interface RunBlock {
  readonly kind: BlockKind;
  readonly fromMin: number;
  readonly toMin: number;
  readonly spotId?: string;
  readonly ref?: string;
  readonly done?: boolean;
  /** Of a tree: when it ends at the earliest and the latest, all before it taken so too. */
  readonly lowToMin?: number;
  readonly highToMin?: number;
}

export type LateCause = 'too_much' | 'behind' | 'stopped' | 'tool';

export interface TeamRun {
  readonly name: string;
  readonly blocks: readonly RunBlock[];
  /** Last tree planted. */
  readonly finishMin: number;
  readonly highFinishMin: number;
  /** Past the beginning of clean-up; 0 where it is in time. */
  readonly lateMin: number;
  readonly cause: LateCause | null;
}

/** Work that stops for everybody: rain, thunder, a rest in the heat. */
export interface Stop {
  readonly fromMin: number;
  readonly lengthMin: number;
  /** A rest is drawn as the break it is; left out, work was stopped. */
  readonly kind?: 'stopped' | 'break';
}

export interface RunAsked {
  readonly hours: DayHours;
  readonly teams: readonly RunTeam[];
  readonly stops?: readonly Stop[];
  /** Now, while the day is under way: nothing open ends before it. */
  readonly nowMin?: number | null;
}

/**
 * The run of a day, team by team: check-in, demonstration, the way, each tree by its computed length, the break once
 * half the planting time is over, and clean-up. What was planted stands as it was; what is open follows it.
 * @throws InvalidInputError for hours that do not follow each other
 */
export function runOfDay({ hours, teams, stops = [], nowMin = null }: RunAsked): TeamRun[] {
  requireDayHours(hours);
  return teams.map((team) => runTeam(team, hours, stops, nowMin));
}

/** @throws InvalidInputError naming what does not follow */
export function requireDayHours(hours: DayHours): void {
  const { gatherMin, beginMin, endMin } = hours;
  requireWithin('gatherMin', gatherMin, { min: 0, max: 24 * 60 - 2, unit: 'min' });
  requireWithin('beginMin', beginMin, { min: gatherMin, max: 24 * 60 - 1, unit: 'min' });
  requireWithin('endMin', endMin, { min: beginMin + 1, max: 24 * 60, unit: 'min' });
  const room = endMin - beginMin;
  const taken = hours.demonstrationMin + hours.breakMin + hours.cleanUpMin;
  requireWithin('demonstrationMin', hours.demonstrationMin, { min: 0, max: room, unit: 'min' });
  requireWithin('breakMin', hours.breakMin, { min: 0, max: room, unit: 'min' });
  requireWithin('cleanUpMin', hours.cleanUpMin, {
    min: 0,
    max: Math.max(0, room - (taken - hours.cleanUpMin)),
    unit: 'min',
  });
}

function runTeam(team: RunTeam, hours: DayHours, stops: readonly Stop[], nowMin: number | null): TeamRun {
  const cleanUpAt = hours.endMin - hours.cleanUpMin;
  const startMin = hours.beginMin + hours.demonstrationMin;
  const breakAt = startMin + (cleanUpAt - startMin) / 2;
  const blocks: RunBlock[] = [
    { kind: 'check_in', fromMin: hours.gatherMin, toMin: hours.beginMin },
    { kind: 'demonstration', fromMin: hours.beginMin, toMin: startMin },
  ];
  const clock = { at: startMin, low: startMin, high: startMin, rested: hours.breakMin === 0, stoppedMin: 0 };
  const pass = (minutes: { likely: number; low: number; high: number }) => {
    const from = clock.at;
    const stopped = stopsWithin(stops, from, from + minutes.likely);
    clock.stoppedMin += stopped.reduce((sum, one) => sum + one.lengthMin, 0);
    for (const one of stopped)
      blocks.push({ kind: one.kind ?? 'stopped', fromMin: one.fromMin, toMin: one.fromMin + one.lengthMin });
    const waited = stopped.reduce((sum, one) => sum + one.lengthMin, 0);
    clock.at += minutes.likely + waited;
    clock.low += minutes.low + waited;
    clock.high += minutes.high + waited;
    return from;
  };
  let behindMin = 0;
  for (const tree of team.trees) {
    if (!clock.rested && clock.at >= breakAt) {
      blocks.push({ kind: 'break', fromMin: clock.at, toMin: clock.at + hours.breakMin });
      for (const key of ['at', 'low', 'high'] as const) clock[key] += hours.breakMin;
      clock.rested = true;
    }
    const planned = { ...clock };
    if (tree.walkMin > 0) {
      const from = pass({ likely: tree.walkMin, low: tree.walkMin, high: tree.walkMin });
      blocks.push({ kind: 'walk', fromMin: from, toMin: clock.at });
    }
    const from = pass(minutesOf(tree, team));
    const open = tree.doneMin === null;
    // An open tree is not planted yet, whatever was computed.
    const until = open ? Math.max(clock.at, nowMin ?? 0) : (tree.doneMin ?? 0);
    behindMin += Math.max(0, until - clock.at);
    const moved = until - clock.at;
    blocks.push({
      kind: 'tree',
      fromMin: Math.min(from, until),
      toMin: until,
      spotId: tree.spotId,
      ref: tree.ref,
      done: !open,
      lowToMin: open ? Math.max(clock.low + Math.max(0, moved), nowMin ?? 0) : until,
      highToMin: open ? clock.high + Math.max(0, moved) : until,
    });
    clock.at = until;
    clock.low = open ? Math.max(planned.low, clock.low + Math.max(0, moved)) : until;
    clock.high = open ? clock.high + Math.max(0, moved) : until;
  }
  const finishMin = clock.at;
  const lateMin = Math.max(0, finishMin - cleanUpAt);
  if (finishMin < cleanUpAt) blocks.push({ kind: 'spare', fromMin: finishMin, toMin: cleanUpAt });
  blocks.push({
    kind: 'clean_up',
    fromMin: Math.max(cleanUpAt, finishMin),
    toMin: Math.max(cleanUpAt, finishMin) + hours.cleanUpMin,
  });
  const cause = lateMin > 0 ? causeOf(lateMin, { behindMin, stoppedMin: clock.stoppedMin, team }) : null;
  return { name: team.name, blocks, finishMin, highFinishMin: Math.max(clock.high, finishMin), lateMin, cause };
}

function minutesOf({ hours }: RunTree, { strength, slowerShare = 0 }: RunTeam) {
  const minutes = (personHours: number) =>
    strength > 0 ? ((personHours * 60) / strength) * (1 + slowerShare) : 24 * 60;
  return { likely: minutes(hours.likely), low: minutes(hours.low), high: minutes(hours.high) };
}

/** Stops that begin within a stretch of work, in order. */
const stopsWithin = (stops: readonly Stop[], fromMin: number, toMin: number): Stop[] =>
  stops.filter((stop) => stop.fromMin >= fromMin && stop.fromMin < toMin).sort((a, b) => a.fromMin - b.fromMin);

/** What alone would have been enough to be late, the hardest to mend first. */
function causeOf(
  lateMin: number,
  { behindMin, stoppedMin, team }: { behindMin: number; stoppedMin: number; team: RunTeam },
): LateCause {
  if (stoppedMin >= lateMin) return 'stopped';
  if (behindMin >= lateMin) return 'behind';
  const share = team.slowerShare ?? 0;
  const workMin = team.trees.reduce((sum, tree) => sum + minutesOf(tree, { ...team, slowerShare: 0 }).likely, 0);
  return share > 0 && share * workMin >= lateMin ? 'tool' : 'too_much';
}
