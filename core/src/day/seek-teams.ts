import { dice } from '../dice';
import type { LeftWhy } from './helpers';
import { TeamBoard, draftOf, type Draft, type TeamLocks, type TeamPlan, type TeamTask } from './team-plan';

export interface SeekOptions {
  /** The same seed gives the same plan. */
  readonly seed: number;
  /** Changes tried; a tenth of a second of a desk's processor for about 40,000. */
  readonly tries: number;
  readonly locks?: TeamLocks | null;
  /** Told now and then; false ends the search with the best found so far. */
  readonly goOn?: (done: number, cost: number) => boolean;
}

/**
 * Teams of two to five with a lead each, and each team's trees in order: no team over its time, walking short, finishes
 * even. A plan built by nearest neighbours is bettered by simulated annealing (Kirkpatrick, Gelatt and Vecchi 1983);
 * it is never worse than that first plan. What does not fit is left with why, never squeezed in.
 * @throws InvalidInputError for a matrix that does not fit, a spot given twice, or locks of what is not there
 */
export function seekTeams(task: TeamTask, options: SeekOptions): TeamPlan {
  const board = new TeamBoard(task);
  const locks = options.locks ?? null;
  if (locks && locks.teams.length > 0) return bettered(board, withTheRest(board, draftOf(board, locks.teams)), options);
  const counts = countsOf(board);
  const tries = Math.floor(options.tries / counts.length);
  return counts
    .map((count, i) => {
      const goOn = (done: number, cost: number) => options.goOn?.(done + i * tries, cost) ?? true;
      return bettered(board, firstPlan(board, count), { ...options, tries, goOn });
    })
    .reduce((best, one) => (isBetter(best, one) ? best : one));
}

function bettered(board: TeamBoard, start: Draft, options: SeekOptions): TeamPlan {
  const locks = options.locks ?? null;
  const sought = settle(board, anneal(board, start, options), locks);
  const unsought = settle(board, start, locks);
  return isBetter(sought, unsought) ? sought : unsought;
}

/** More trees planted, then more people in a team, then the lower cost. */
function isBetter(one: TeamPlan, other: TeamPlan): boolean {
  const trees = one.left.spots.length - other.left.spots.length;
  const people = one.left.helpers.length - other.left.helpers.length;
  return trees !== 0 ? trees < 0 : people !== 0 ? people < 0 : one.cost <= other.cost;
}

/** A plan without any search: what the search starts from, and is never worse than. */
export function simplePlan(task: TeamTask): TeamPlan {
  const board = new TeamBoard(task);
  return countsOf(board)
    .map((count) => settle(board, firstPlan(board, count), null))
    .reduce((best, one) => (isBetter(best, one) ? best : one));
}

/** Numbers of teams worth trying: near the usual size, as far as leads and hands allow. */
function countsOf(board: TeamBoard): number[] {
  const { rules, jobs } = board.task;
  const people = board.units.reduce((sum, { helpers }) => sum + helpers.length, 0);
  const leads = board.units.filter((unit) => unit.leads).length;
  const usual = Math.round(people / rules.usual);
  const most = Math.min(leads, Math.floor(people / rules.least), Math.max(1, jobs.length));
  const counts = [usual - 1, usual, usual + 1].map((count) =>
    Math.min(most, Math.max(1, Math.ceil(people / rules.most), count)),
  );
  return most < 1 ? [0] : [...new Set(counts)];
}

/** Units dealt by strength, each tree to the team that is free first and by nearness. */
function firstPlan(board: TeamBoard, count: number): Draft {
  const { rules } = board.task;
  if (count < 1) return { units: [], routes: [] };
  const leading = board.units.flatMap(({ leads }, i) => (leads ? [i] : [])).slice(0, count);
  const units = leading.map((unit) => [unit]);
  const rest = board.units.flatMap(({ helpers }, i) => (leading.includes(i) ? [] : [{ i, n: helpers.length }]));
  for (const { i, n } of rest.sort((a, b) => b.n - a.n || a.i - b.i)) {
    const fits = units.filter((own) => board.sizeOf(own) + n <= rules.most);
    leastOf(fits, (own) => board.strength(own))?.push(i);
  }
  return withTheRest(board, { units, routes: units.map(() => []) });
}

/** Puts what no team has where it costs least. */
function withTheRest(board: TeamBoard, draft: Draft): Draft {
  const routes = draft.routes.map((route) => [...route]);
  const units = draft.units.map((own) => [...own]);
  if (units.length === 0) return draft;
  const placed = new Set(units.flat());
  board.units.forEach((unit, i) => {
    if (placed.has(i)) return;
    const fits = units.filter((own) => board.sizeOf(own) + unit.helpers.length <= board.task.rules.most);
    leastOf(fits, (own) => board.strength(own))?.push(i);
  });
  const taken = new Set(routes.flat());
  const open = board.task.jobs.map((_, i) => i).filter((job) => !taken.has(job));
  while (open.length > 0) {
    const team = leastIndex(routes, (route, i) => board.score(units[i] ?? [], route).minutes);
    const route = routes[team] ?? [];
    const from = route.at(-1) ?? board.task.jobs.length;
    const next = leastOf(open, (job) => board.task.walkMin[from]?.[job] ?? 0) ?? 0;
    route.push(next);
    open.splice(open.indexOf(next), 1);
  }
  return { units, routes };
}

function anneal(board: TeamBoard, start: Draft, { seed, tries, locks, goOn }: SeekOptions): Draft {
  const roll = dice(seed);
  const whole = (n: number) => Math.floor(roll() * n);
  let now = start;
  let cost = board.cost(now);
  let best = { draft: now, cost };
  const hot = Math.max(1, cost / 10);
  const held = heldOf(board, locks ?? null);
  if (start.routes.length === 0) return start;
  for (let i = 0; i < tries; i++) {
    if (i % 4000 === 0 && goOn && !goOn(i, best.cost)) break;
    const changed = change(now, whole, held);
    if (!changed) continue;
    const next = board.cost(changed);
    const heat = hot * (1 - i / tries) ** 2 + 1e-9;
    if (next > cost && roll() >= Math.exp((cost - next) / heat)) continue;
    [now, cost] = [changed, next];
    if (cost < best.cost - 1e-9) best = { draft: now, cost };
  }
  return best.draft;
}

interface Held {
  readonly jobs: ReadonlySet<number>;
  readonly units: ReadonlySet<number>;
}
const heldOf = (board: TeamBoard, locks: TeamLocks | null): Held => ({
  jobs: new Set([...(locks?.spotIds ?? [])].map((id) => board.jobOf.get(id) ?? -1)),
  units: new Set([...(locks?.helperIds ?? [])].map((id) => board.unitOf.get(id) ?? -1)),
});

/** One change: a tree elsewhere, two trees for each other, a stretch turned round, people elsewhere or for each other. */
function change({ units, routes }: Draft, whole: (n: number) => number, held: Held): Draft | null {
  const kind = whole(routes.length > 1 ? 10 : 2);
  const [a, b] = [whole(routes.length), whole(routes.length)];
  if (kind >= 8) {
    const moved = a === b ? null : between(units, [a, b], whole, held.units, kind === 9);
    return moved && { units: moved, routes };
  }
  if (kind === 0) {
    const turned = turn(routes[a] ?? [], whole);
    return turned && { units, routes: routes.map((route, i) => (i === a ? turned : route)) };
  }
  const moved = a === b ? shift(routes, a, whole) : between(routes, [a, b], whole, held.jobs, kind >= 6);
  return moved && { units, routes: moved };
}

function turn(route: readonly number[], whole: (n: number) => number): number[] | null {
  if (route.length < 2) return null;
  const [i, j] = [whole(route.length), whole(route.length)].sort((x, y) => x - y) as [number, number];
  return [...route.slice(0, i), ...route.slice(i, j + 1).reverse(), ...route.slice(j + 1)];
}

function shift(routes: Draft['routes'], team: number, whole: (n: number) => number): Draft['routes'] | null {
  const route = [...(routes[team] ?? [])];
  if (route.length < 2) return null;
  const [one] = route.splice(whole(route.length), 1);
  route.splice(whole(route.length + 1), 0, one ?? 0);
  return routes.map((old, i) => (i === team ? route : old));
}

/** One thing of the first list into the second, or two for each other; what is held stays. */
function between(
  lists: readonly (readonly number[])[],
  [a, b]: readonly [number, number],
  whole: (n: number) => number,
  held: ReadonlySet<number>,
  swap: boolean,
): Draft['routes'] | null {
  const [from, to] = [[...(lists[a] ?? [])], [...(lists[b] ?? [])]];
  if (from.length === 0 || (swap && to.length === 0)) return null;
  const at = whole(from.length);
  const one = from[at] ?? 0;
  const into = whole(to.length + (swap ? 0 : 1));
  const other = to[into] ?? 0;
  if (held.has(one) || (swap && held.has(other))) return null;
  from.splice(at, 1, ...(swap ? [other] : []));
  to.splice(into, swap ? 1 : 0, one);
  return lists.map((old, i) => (i === a ? from : i === b ? to : old));
}

/** The plan as it is told: what goes over a team's time, or cannot be lifted, is left out with why. */
function settle(board: TeamBoard, draft: Draft, locks: TeamLocks | null): TeamPlan {
  const whole = draft.units.map((own) => isTeam(board, own));
  const kept = draft.routes.flatMap((_, team) => (whole[team] ? [team] : []));
  const units = kept.map((team) => draft.units[team] ?? []);
  const placed = new Set(kept.flatMap((team) => draft.routes[team] ?? []));
  const alone = board.task.jobs.map((_, job) => job).filter((job) => !placed.has(job));
  const { routes, dropped } = withinTime(
    board,
    units,
    kept.map((team) => [...(draft.routes[team] ?? [])]),
    locks,
  );
  const left = [...dropped, ...placeAgain(board, units, routes, alone)];
  // Too few for a team, or none who leads: its people are told of rather than sent out.
  const assigned = new Set(units.flat());
  const unassigned = board.units.flatMap(({ helpers }, i) => (assigned.has(i) ? [] : helpers));
  const why = units.length > 0 ? ('no_room' as const) : ('no_lead' as const);
  return {
    teams: units.map((own, team) => toldOf(board, own, routes[team] ?? [])),
    left: {
      helpers: [...board.left, ...unassigned.map(({ id }) => ({ id, why }))],
      spots: left.map(({ job, why: reason }) => ({ id: board.task.jobs[job]?.spotId ?? '', why: reason })),
    },
    cost: units.length > 0 ? board.cost({ units, routes }) : 0,
  };
}

interface Left {
  readonly job: number;
  readonly why: LeftWhy;
}

function isTeam(board: TeamBoard, own: readonly number[]): boolean {
  const size = board.sizeOf(own);
  const { least, most } = board.task.rules;
  return size >= least && size <= most && own.some((unit) => board.units[unit]?.leads);
}

/** Routes cut to their team's time and strength, and what finds room in another team put there. */
function withinTime(
  board: TeamBoard,
  units: Draft['units'],
  routes: number[][],
  locks: TeamLocks | null,
): { routes: number[][]; dropped: Left[] } {
  const isFixed = (job: number) => locks?.spotIds.has(board.task.jobs[job]?.spotId ?? '') ?? false;
  const over: number[] = [];
  units.forEach((own, team) => {
    const route = routes[team] ?? [];
    const take = (job: number) => over.push(...route.splice(route.indexOf(job), 1));
    for (const job of [...route]) if (!isFixed(job) && board.tooHeavy(own, [job]) > 0) take(job);
    for (;;) {
      const last = route.filter((job) => !isFixed(job)).at(-1);
      if (last === undefined || board.score(own, route).overMin <= 1e-9) break;
      take(last);
    }
  });
  return { routes, dropped: placeAgain(board, units, routes, over) };
}

/** Puts each where a team still has time for it; what fits nowhere comes back with why. */
function placeAgain(board: TeamBoard, units: Draft['units'], routes: number[][], jobs: readonly number[]): Left[] {
  const left: Left[] = [];
  for (const job of jobs) {
    const able = units.flatMap((own, team) => (board.tooHeavy(own, [job]) > 0 ? [] : [team]));
    const fits = able.flatMap((team) =>
      Array.from({ length: (routes[team] ?? []).length + 1 }, (_, at) => {
        const route = (routes[team] ?? []).toSpliced(at, 0, job);
        const { overMin, minutes } = board.score(units[team] ?? [], route);
        return overMin > 1e-9 ? [] : [{ team, route, minutes }];
      }).flat(),
    );
    const best = leastOf(fits, ({ minutes }) => minutes);
    if (best) routes[best.team] = best.route;
    else left.push({ job, why: units.length === 0 ? 'no_lead' : able.length === 0 ? 'too_heavy' : 'no_time' });
  }
  return left;
}

function toldOf(board: TeamBoard, own: readonly number[], route: readonly number[]): TeamPlan['teams'][number] {
  const helpers = board.helpersOf(own);
  const lead = helpers.find(({ skill, minor }) => skill === 'leads' && !minor);
  return {
    leadId: lead?.id ?? '',
    helperIds: helpers.map(({ id }) => id),
    spotIds: route.map((job) => board.task.jobs[job]?.spotId ?? ''),
  };
}

function leastIndex<T>(list: readonly T[], of: (one: T, i: number) => number): number {
  let best = 0;
  let least = Infinity;
  list.forEach((one, i) => {
    const value = of(one, i);
    if (value < least) [best, least] = [i, value];
  });
  return best;
}
const leastOf = <T>(list: readonly T[], of: (one: T) => number): T | undefined => list[leastIndex(list, of)];
