import { InvalidInputError } from '../errors';
import { formUnits, strengthOf, type Helper, type HelperUnit, type LeftWhy, type TeamRules } from './helpers';

/** A tree to plant. */
export interface TreeJob {
  readonly spotId: string;
  /** Person-hours, most likely. */
  readonly hours: number;
  /** People the lifting of it takes. */
  readonly lifters: number;
}

export interface PlannedTeam {
  readonly leadId: string;
  readonly helperIds: readonly string[];
  /** In the order they are planted. */
  readonly spotIds: readonly string[];
}

export interface TeamPlan {
  readonly teams: readonly PlannedTeam[];
  readonly left: {
    readonly helpers: readonly { readonly id: string; readonly why: LeftWhy }[];
    readonly spots: readonly { readonly id: string; readonly why: LeftWhy }[];
  };
  readonly cost: number;
}

export interface TeamTask {
  readonly helpers: readonly Helper[];
  readonly jobs: readonly TreeJob[];
  /** Minutes on foot between jobs, and from the gathering place, which is the last row. */
  readonly walkMin: readonly (readonly number[])[];
  /** For walking, planting and watering. */
  readonly minutes: number;
  readonly rules: TeamRules;
}

/** What stays as it is while the rest is planned anew. */
export interface TeamLocks {
  readonly teams: readonly PlannedTeam[];
  readonly helperIds: ReadonlySet<string>;
  readonly spotIds: ReadonlySet<string>;
}

export interface TeamScore {
  readonly walkMin: number;
  readonly workMin: number;
  /** To its last tree, from leaving the gathering place. */
  readonly minutes: number;
  readonly overMin: number;
  readonly strength: number;
}

/** A plan's pieces by number, for the search: jobs and units of helpers. */
export interface Draft {
  readonly units: readonly (readonly number[])[];
  readonly routes: readonly (readonly number[])[];
}

interface JudgedTeam extends TeamScore {
  /** What makes it no team: people too many or too few, no lead, trees nobody can lift. */
  readonly broken: number;
}
const none: readonly number[] = [];

/** All that does not change while teams are sought. */
export class TeamBoard {
  readonly units: readonly HelperUnit[];
  readonly left: TeamPlan['left']['helpers'];
  readonly jobOf: ReadonlyMap<string, number>;
  readonly unitOf: ReadonlyMap<string, number>;
  private readonly known = new WeakMap<readonly number[], WeakMap<readonly number[], JudgedTeam>>();
  private readonly strengths = new Map<string, number>();
  private readonly gathering: number;

  /** @throws InvalidInputError where the matrix does not fit the jobs, or an id stands twice */
  constructor(readonly task: TeamTask) {
    const n = task.jobs.length;
    if (task.walkMin.length !== n + 1 || task.walkMin.some((row) => row.length !== n + 1)) {
      throw new InvalidInputError(`walkMin must be ${n + 1} × ${n + 1}`, 'walkMin');
    }
    this.gathering = n;
    const { units, left } = formUnits(task.helpers, task.rules);
    this.units = units;
    this.left = left;
    this.jobOf = new Map(task.jobs.map(({ spotId }, i) => [spotId, i]));
    if (this.jobOf.size !== n) throw new InvalidInputError('a spot must be planted once', 'jobs');
    this.unitOf = new Map(units.flatMap(({ helpers }, i) => helpers.map(({ id }) => [id, i] as const)));
  }

  walk(route: readonly number[]): number {
    let at = this.gathering;
    let sum = 0;
    for (const job of route) {
      sum += this.task.walkMin[at]?.[job] ?? 0;
      at = job;
    }
    return sum;
  }

  strength(units: readonly number[]): number {
    const key = units.length < 2 ? String(units[0]) : [...units].sort((a, b) => a - b).join(' ');
    const known = this.strengths.get(key);
    if (known !== undefined) return known;
    const strength = strengthOf(this.helpersOf(units), this.task.rules);
    this.strengths.set(key, strength);
    return strength;
  }

  helpersOf(units: readonly number[]): Helper[] {
    return units.flatMap((unit) => this.units[unit]?.helpers ?? []);
  }

  sizeOf(units: readonly number[]): number {
    return units.reduce((sum, unit) => sum + (this.units[unit]?.helpers.length ?? 0), 0);
  }

  /** Trees of a route its people cannot lift. */
  tooHeavy(units: readonly number[], route: readonly number[]): number {
    const lifters = units.reduce((sum, unit) => sum + (this.units[unit]?.lifters ?? 0), 0);
    return route.filter((job) => (this.task.jobs[job]?.lifters ?? 0) > lifters).length;
  }

  score(units: readonly number[], route: readonly number[]): TeamScore {
    const strength = this.strength(units);
    const hours = route.reduce((sum, job) => sum + (this.task.jobs[job]?.hours ?? 0), 0);
    const workMin = strength > 0 ? (hours * 60) / strength : route.length > 0 ? Infinity : 0;
    const walkMin = this.walk(route);
    const minutes = walkMin + workMin;
    return { walkMin, workMin, minutes, overMin: Math.max(0, minutes - this.task.minutes), strength };
  }

  /** A change leaves most teams as they are: their lists are the same ones, and their scores too. */
  private judged(own: readonly number[], route: readonly number[]): JudgedTeam {
    const known = this.known.get(route)?.get(own);
    if (known) return known;
    const { rules } = this.task;
    const size = this.sizeOf(own);
    const leads = own.some((unit) => this.units[unit]?.leads ?? false);
    const off = Math.max(0, rules.least - size) + Math.max(0, size - rules.most);
    const broken = off + (leads ? 0 : 1) + this.tooHeavy(own, route);
    const judged = { ...this.score(own, route), broken };
    const ofRoute = this.known.get(route) ?? new WeakMap<readonly number[], JudgedTeam>();
    this.known.set(route, ofRoute.set(own, judged));
    return judged;
  }

  /**
   * Minutes: the last finish, twice the mean walk, since tools are carried, and how unevenly teams finish; a minute over
   * the time counts as twenty, a team of a wrong size or without a lead, or a tree nobody can lift, as ten hours.
   */
  cost({ units, routes }: Draft): number {
    const scores = routes.map((route, team) => this.judged(units[team] ?? none, route));
    const broken = scores.reduce((sum, one) => sum + one.broken, 0);
    const teams = Math.max(1, scores.length);
    const mean = scores.reduce((sum, { minutes }) => sum + minutes, 0) / teams;
    const last = Math.max(0, ...scores.map(({ minutes }) => minutes));
    const walk = scores.reduce((sum, { walkMin }) => sum + walkMin, 0) / teams;
    const uneven = scores.reduce((sum, { minutes }) => sum + Math.abs(minutes - mean), 0) / teams;
    const over = scores.reduce((sum, { overMin }) => sum + overMin, 0);
    return last + 2 * walk + uneven + 20 * over + 600 * broken;
  }
}

/**
 * What a plan made or changed by hand comes to, team by team.
 * @throws InvalidInputError naming a helper or spot that is unknown, or stands in two teams
 */
export function scoreTeams(
  task: TeamTask,
  teams: readonly PlannedTeam[],
): { readonly scores: readonly TeamScore[]; readonly cost: number } {
  const board = new TeamBoard(task);
  const draft = draftOf(board, teams);
  return {
    scores: draft.routes.map((route, i) => board.score(draft.units[i] ?? [], route)),
    cost: board.cost(draft),
  };
}

/** Teams as the search sees them. */
export function draftOf(board: TeamBoard, teams: readonly PlannedTeam[]): Draft {
  const seen = new Set<string>();
  const once = (id: string, path: string) => {
    if (seen.has(id)) throw new InvalidInputError(`${id} stands in two teams`, path);
    seen.add(id);
  };
  const find = (map: ReadonlyMap<string, number>, id: string, path: string): number => {
    once(id, path);
    const found = map.get(id);
    if (found === undefined) throw new InvalidInputError(`${id} is not of this day, or may not be assigned`, path);
    return found;
  };
  return {
    units: teams.map(({ helperIds }) => [...new Set(helperIds.map((id) => find(board.unitOf, id, 'helperIds')))]),
    routes: teams.map(({ spotIds }) => spotIds.map((id) => find(board.jobOf, id, 'spotIds'))),
  };
}
