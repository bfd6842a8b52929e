import { dayParts, type DayKind } from './day-kinds';
import { heatIndexC } from './heat-index';
import { defaultTeamRules, strengthOf, type Helper, type TeamRules } from './helpers';
import { learnPace, shapeOfWork, type LabourPace, type WorkedDay } from './labour-pace';
import { judgeReadiness, type Readiness, type ReadySpot } from './readiness';
import type { PlannedTeam, TeamTask } from './team-plan';
import { plantingMin, runOfDay, type DayHours, type HoursRange, type Stop, type TeamRun } from './timetable';
import { sumTools, toolCodes, tools, toolsOfTeam, type ToolCounts, type ToolTree } from './tools';
import { watchWeather, type HourOfWeather, type WeatherRules, type WeatherWatch } from './weather-watch';

/** A tree of the day, with what its plan asks for. */
export interface DayTree extends ReadySpot {
  readonly spotId: string;
  /** [longitude, latitude], degrees. */
  readonly position: readonly [number, number];
  /** Person-hours by the rules of work; 0 where there is no plan. */
  readonly ruledH: number;
  readonly heavySoil: boolean;
  readonly heavyStock: boolean;
  readonly lifters: number;
  readonly waterL: number;
  readonly tool: ToolTree | null;
  /** Planted on the day itself at, minutes since midnight. */
  readonly doneMin: number | null;
}

/** Somebody of the day, as it is kept. */
export interface DayHelper extends Helper {
  readonly name: string;
  readonly confirmed: boolean;
  readonly came: boolean;
  readonly gone: boolean;
}

/** A planting day as it is kept: everything that is computed of it follows from this. */
export interface KeptDay {
  readonly kind: DayKind;
  /** When weather stops or slows work here. */
  readonly weather: WeatherRules;
  readonly hours: DayHours;
  readonly capacity: number;
  readonly trees: readonly DayTree[];
  readonly helpers: readonly DayHelper[];
  readonly teams: readonly PlannedTeam[];
  /** Metres on foot between the trees, in their order, and from the gathering place, the last row. */
  readonly walkM: readonly (readonly number[])[];
  readonly worked: readonly WorkedDay[];
  readonly forecast: readonly HourOfWeather[];
  readonly toolsThere: ToolCounts;
  readonly materialsMissing: readonly { readonly name: string; readonly missing: string }[];
  readonly arrangementsMissing: readonly string[];
}

/** On foot with tools. m/min, an estimate. */
export const walkMPerMin = 70;
/** Teams wait for each other, for water, for a word: so much of the time is not planting. An estimate. */
const slackShare = 0.1;
/** How long past the planned end people stay, h. An estimate. */
const laterH = 2;

/** Rests in the heat, at the end of each hour of the day that asks for one. */
export function heatBreaks({ hours, forecast, weather }: Pick<KeptDay, 'hours' | 'forecast' | 'weather'>): Stop[] {
  const lengthMin = Math.min(60, weather.heatBreakMin);
  if (lengthMin <= 0) return [];
  const [from, to] = [hours.beginMin + hours.demonstrationMin, hours.endMin - hours.cleanUpMin];
  return forecast
    .filter(({ temperatureC, humidityPct }) => heatIndexC(temperatureC, humidityPct) >= weather.heatBreaksC)
    .map(({ hour }) => ({ fromMin: (hour + 1) * 60 - lengthMin, lengthMin, kind: 'break' as const }))
    .filter(({ fromMin }) => fromMin >= from && fromMin < to);
}

/** Minutes of planting, less the rests that the heat asks for. */
const workMin = (day: Pick<KeptDay, 'hours' | 'forecast' | 'weather'>): number =>
  Math.max(0, plantingMin(day.hours) - heatBreaks(day).reduce((sum, { lengthMin }) => sum + lengthMin, 0));

/** What one tree takes at the programme's own pace. Person-hours. */
export function treeHours(tree: DayTree, pace: LabourPace): HoursRange {
  const shape = { heavySoilShare: tree.heavySoil ? 1 : 0, heavyStockShare: tree.heavyStock ? 1 : 0 };
  const { factor, low, high } = pace.of(shape);
  return { likely: tree.ruledH * factor, low: tree.ruledH * low, high: tree.ruledH * high };
}

const isOpen = ({ planted, ruledH }: DayTree): boolean => !planted && ruledH > 0;

/** Teams' task as `seekTeams` takes it, and the rows of the matrix its jobs stand in. */
export function teamTaskOf(day: KeptDay, rules: TeamRules = defaultTeamRules): TeamTask {
  const pace = learnPace(day.worked);
  const rows = day.trees.flatMap((tree, i) => (isOpen(tree) ? [i] : []));
  const last = day.trees.length;
  const walk = (from: number, to: number) => (day.walkM[from]?.[to] ?? 0) / walkMPerMin;
  return {
    helpers: day.helpers.filter(({ confirmed, gone }) => confirmed && !gone),
    jobs: rows.flatMap((i) => {
      const tree = day.trees[i];
      return tree ? [{ spotId: tree.spotId, hours: treeHours(tree, pace).likely, lifters: tree.lifters }] : [];
    }),
    walkMin: [...rows, last].map((from) => [...rows, last].map((to) => walk(from, to))),
    minutes: workMin(day),
    rules,
  };
}

export interface PeopleNeeded {
  readonly people: number;
  readonly teams: number;
  /** Person-hours of all that is open, with the range of one day. */
  readonly hours: HoursRange;
}

/** How many the open work asks for in the time there is. */
export function peopleNeeded(day: KeptDay, rules: TeamRules = defaultTeamRules): PeopleNeeded {
  const open = day.trees.filter(isOpen);
  const pace = learnPace(day.worked);
  const ruledH = open.reduce((sum, tree) => sum + tree.ruledH, 0);
  const shape = shapeOfWork(open.map(({ ruledH: hours, heavySoil, heavyStock }) => ({ hours, heavySoil, heavyStock })));
  const range = pace.of(shape);
  const likely = open.reduce((sum, tree) => sum + treeHours(tree, pace).likely, 0);
  const each = (workMin(day) / 60) * (1 - slackShare);
  const people = each > 0 ? Math.ceil(likely / each) : 0;
  const hours = { likely, low: ruledH * range.low, high: ruledH * range.high };
  return { people, teams: Math.ceil(people / rules.usual), hours };
}

/** What each team takes along, and all together; before there are teams, as the work would be shared out. */
export function toolsOf(day: KeptDay): { teams: readonly ToolCounts[]; all: ToolCounts } {
  const treesOf = (ids: readonly string[]) =>
    day.trees.flatMap(({ spotId, tool }) => (tool && ids.includes(spotId) ? [tool] : []));
  if (day.teams.length > 0) {
    const teams = day.teams.map(({ helperIds, spotIds }) =>
      toolsOfTeam({ people: helperIds.length, trees: treesOf(spotIds) }),
    );
    return { teams, all: sumTools(teams) };
  }
  const trees = day.trees.filter(isOpen).flatMap(({ tool }) => tool ?? []);
  const { teams, people } = peopleNeeded(day);
  const each = Array.from({ length: teams }, (_, i) =>
    toolsOfTeam({ people: Math.ceil(people / teams), trees: trees.filter((__, n) => n % teams === i) }),
  );
  return { teams: each, all: sumTools(each) };
}

/** The forecast against the hours of the day. */
export function watchDay({ hours, forecast, weather }: Pick<KeptDay, 'hours' | 'forecast' | 'weather'>): WeatherWatch {
  const endHour = Math.ceil(hours.endMin / 60);
  const asked = {
    beginHour: Math.floor(hours.beginMin / 60),
    endHour,
    neededH: (hours.endMin - hours.beginMin) / 60,
    latestEndHour: Math.min(24, endHour + laterH),
  };
  return watchWeather(forecast, asked, weather);
}

export function readinessOf(day: KeptDay, rules: TeamRules = defaultTeamRules): Readiness {
  const confirmed = day.helpers.filter((one) => one.confirmed && !one.gone);
  const needed = peopleNeeded(day, rules);
  const inTeam = new Set(day.teams.flatMap(({ helperIds }) => helperIds));
  const planned = new Set(day.teams.flatMap(({ spotIds }) => spotIds));
  const wanted = toolsOf(day).all;
  const facts = {
    spots: day.trees,
    people: {
      capacity: day.capacity,
      confirmed: confirmed.length,
      withoutWaiver: confirmed.filter(({ waiver }) => !waiver).length,
      leads: confirmed.filter(({ skill, minor, waiver }) => skill === 'leads' && !minor && waiver).length,
      needed: needed.people,
      leadsNeeded: needed.teams,
    },
    teams: {
      teams: day.teams.length,
      spotsLeft: day.trees.filter((tree) => isOpen(tree) && !planned.has(tree.spotId)).length,
      peopleLeft: confirmed.filter(({ id }) => !inTeam.has(id)).length,
    },
    tools: toolCodes.flatMap((code) => {
      const count = wanted[code] ?? 0;
      return count > 0 ? [{ name: tools[code], needed: count, there: day.toolsThere[code] ?? 0 }] : [];
    }),
    materials: day.materialsMissing,
    arrangementsMissing: day.arrangementsMissing,
    weather: watchDay(day).advice,
  };
  return judgeReadiness(facts, dayParts[day.kind].topics);
}

/** What if: fewer people in each team, work stopped for a while, a tool missing in one. */
export interface WhatIf {
  readonly fewer?: Readonly<Record<number, number>>;
  readonly stops?: readonly Stop[];
  readonly slowerTeams?: readonly number[];
}
/** What a tree takes longer where two diggers share one pick: an estimate. */
const sharedToolShare = 0.15;

/** The run of the teams that are planned, by the hands that are there once people have come. */
export function runOf(
  day: KeptDay,
  asked: WhatIf & { nowMin?: number | null } = {},
  rules: TeamRules = defaultTeamRules,
): TeamRun[] {
  const pace = learnPace(day.worked);
  const begun = day.helpers.some(({ came }) => came);
  const row = new Map(day.trees.map((tree, i) => [tree.spotId, i]));
  const byId = new Map(day.helpers.map((one) => [one.id, one]));
  const teams = day.teams.map((team, t) => {
    const helpers = team.helperIds.flatMap((id) => byId.get(id) ?? []);
    const there = begun ? helpers.filter(({ came, gone }) => came && !gone) : helpers;
    const lessened = there.slice(0, Math.max(0, there.length - (asked.fewer?.[t] ?? 0)));
    let at = day.trees.length;
    const trees = team.spotIds.flatMap((spotId) => {
      const i = row.get(spotId);
      const tree = i === undefined ? undefined : day.trees[i];
      if (!tree || i === undefined) return [];
      const walkMin = (day.walkM[at]?.[i] ?? 0) / walkMPerMin;
      at = i;
      return [{ spotId, ref: tree.ref, hours: treeHours(tree, pace), walkMin, doneMin: tree.doneMin }];
    });
    const slower = asked.slowerTeams?.includes(t) ? { slowerShare: sharedToolShare } : {};
    return {
      name: nameOfTeam(byId.get(team.leadId)?.name, t),
      strength: strengthOf(lessened, rules),
      trees,
      ...slower,
    };
  });
  return runOfDay({
    hours: day.hours,
    teams,
    stops: [...heatBreaks(day), ...(asked.stops ?? [])],
    nowMin: asked.nowMin ?? null,
  });
}

export interface NextTree {
  readonly spotId: string;
  readonly ref: string;
  /** With the way there. */
  readonly minutes: number;
  /** The late team it is taken from; `null` where it is in none. */
  readonly fromTeam: number | null;
}

/**
 * What an early team does next: the nearest tree that fits into the time it has left, of those no team has, else the
 * last one of a team that is late. `null` where none fits, or it has work still.
 */
export function nextTreeFor(
  day: KeptDay,
  team: number,
  runs: readonly TeamRun[],
  rules: TeamRules = defaultTeamRules,
): NextTree | null {
  const [own, run] = [day.teams[team], runs[team]];
  if (!own || !run) return null;
  const leftMin = day.hours.endMin - day.hours.cleanUpMin - run.finishMin;
  const here = own.helperIds.flatMap((id) => day.helpers.find((one) => one.id === id && !one.gone) ?? []);
  const strength = strengthOf(here, rules);
  const lifters = here.filter(({ minor, noLifting }) => !minor && !noLifting).length;
  if (leftMin <= 0 || strength === 0) return null;
  const pace = learnPace(day.worked);
  const taken = new Map(day.teams.flatMap(({ spotIds }, i) => spotIds.map((id) => [id, i] as const)));
  const lastOf = new Set(
    day.teams.flatMap(({ spotIds }, i) => ((runs[i]?.lateMin ?? 0) > 0 && i !== team ? (spotIds.at(-1) ?? []) : [])),
  );
  const at = day.trees.findIndex(({ spotId }) => spotId === own.spotIds.at(-1));
  const from = at < 0 ? day.trees.length : at;
  const fits = day.trees.flatMap((tree, i): NextTree[] => {
    const holder = taken.get(tree.spotId) ?? null;
    const free = isOpen(tree) && tree.cover !== 'none' && (holder === null || lastOf.has(tree.spotId));
    const walkMin = (day.walkM[from]?.[i] ?? 0) / walkMPerMin;
    const minutes = walkMin + (treeHours(tree, pace).likely * 60) / strength;
    if (!free || tree.lifters > lifters || minutes > leftMin) return [];
    return [{ spotId: tree.spotId, ref: tree.ref, minutes, fromTeam: holder }];
  });
  const order = (one: NextTree) => (one.fromTeam === null ? 0 : 10_000) + one.minutes;
  return [...fits].sort((a, b) => order(a) - order(b))[0] ?? null;
}

/** `1 Bento`: the number it is called by, and who leads it. */
export const nameOfTeam = (lead: string | undefined, i: number): string =>
  [`${i + 1}`, lead?.split(' ')[0] ?? ''].filter(Boolean).join(' ');
