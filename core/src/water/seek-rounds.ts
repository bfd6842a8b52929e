import { dice } from '../dice';
import { RoundBoard, type RoundPlan, type RoundTask } from './rounds';

export interface RoundSeek {
  /** The same seed gives the same plan. */
  readonly seed: number;
  /** Changes tried. */
  readonly tries: number;
  /** Told now and then; false ends the search with the best found so far. */
  readonly goOn?: (done: number, cost: number) => boolean;
}

/** Stops near another that a move looks at. */
const neighbours = 14;
const tellEvery = 256;
/** Few stops are soon searched: several short searches find more than one long one. */
const [fewStops, fewRuns] = [40, 5] as const;

/**
 * Rounds for trucks that serve the stops that matter most within their shifts and drive little: built by cheapest
 * insertion of the weightiest first, bettered by simulated annealing (Kirkpatrick, Gelatt and Vecchi 1983) that moves,
 * swaps and turns pieces of routes; refills are placed at their best in every route it looks at. Never worse than what it
 * was built with.
 * @throws InvalidInputError for a task that does not hold together
 */
export function seekRounds(task: RoundTask, options: RoundSeek): RoundPlan {
  const board = new RoundBoard(task);
  const start = insertAll(board, emptyRoutes(board), pool(board));
  const runs = board.stops <= fewStops ? fewRuns : 1;
  const tries = Math.floor(options.tries / runs);
  let best = board.plan(start);
  let stopped = false;
  for (let run = 0; run < runs && !stopped; run++) {
    const goOn = (done: number, cost: number): boolean => {
      stopped = options.goOn?.(done + run * tries, cost) === false;
      return !stopped;
    };
    const found = board.plan(anneal(board, start, { seed: options.seed + run, tries, goOn }));
    if (found.cost < best.cost) best = found;
  }
  return best;
}

/** Rounds without any search: what a search begins with. */
export function simpleRounds(task: RoundTask): RoundPlan {
  const board = new RoundBoard(task);
  return board.plan(insertAll(board, emptyRoutes(board), pool(board)));
}

type Routes = readonly (readonly number[])[];

const emptyRoutes = (board: RoundBoard): Routes => board.task.trucks.map(() => []);

/** Stops that can be served at all, those that matter most first. */
const pool = (board: RoundBoard): number[] =>
  [...board.task.stops.keys()]
    .filter((stop) => board.never(stop) === null)
    .sort((a, b) => board.weight(b) - board.weight(a) || a - b);

const shiftOf = (board: RoundBoard, truck: number): number => board.task.trucks[truck]?.shiftMinutes ?? 0;

function insertAll(board: RoundBoard, routes: Routes, stops: readonly number[]): Routes {
  let now = routes.map((route) => [...route]);
  const times = now.map((route, t) => board.time(t, route));
  for (const stop of stops) {
    const place = cheapest(board, now, times, stop);
    if (!place) continue;
    now = now.map((route, t) => (t === place.truck ? inserted(route, place.at, stop) : route));
    times[place.truck] = place.minutes;
  }
  return now;
}

const inserted = (route: readonly number[], at: number, stop: number): number[] => [
  ...route.slice(0, at),
  stop,
  ...route.slice(at),
];

/** By the way it adds; only the best few are timed with their refills. */
function cheapest(
  board: RoundBoard,
  routes: Routes,
  times: readonly number[],
  stop: number,
): { truck: number; at: number; minutes: number } | null {
  const places = routes.flatMap((route, truck) =>
    Array.from({ length: route.length + 1 }, (_, at) => {
      const [before, after] = [route[at - 1] ?? board.depot(truck), route[at] ?? board.depot(truck)];
      const adds =
        board.between(truck, before, stop) +
        board.between(truck, stop, after) -
        (route.length === 0 ? 0 : board.between(truck, before, after));
      return { truck, at, adds };
    }),
  );
  places.sort((a, b) => a.adds - b.adds);
  let best: { truck: number; at: number; minutes: number; more: number } | null = null;
  for (const { truck, at } of places.slice(0, 6)) {
    const minutes = board.time(truck, inserted(routes[truck] ?? [], at, stop));
    const more = minutes - (times[truck] ?? 0);
    if (minutes <= shiftOf(board, truck) && (best === null || more < best.more)) best = { truck, at, minutes, more };
  }
  return best;
}

function nearOf(board: RoundBoard): number[][] {
  const stops = [...board.task.stops.keys()];
  return stops.map((one) =>
    stops
      .filter((other) => other !== one)
      .sort((a, b) => board.between(0, one, a) - board.between(0, one, b))
      .slice(0, neighbours),
  );
}

interface Change {
  /** Routes that are another, by truck. */
  readonly routes: ReadonlyMap<number, readonly number[]>;
  readonly left: readonly number[];
}

/** Routes while they are searched, with the time of each and who is left out. */
class Draft {
  readonly times: number[];
  private readonly at = new Map<number, number>();

  constructor(
    private readonly board: RoundBoard,
    readonly routes: (readonly number[])[],
    public left: readonly number[],
  ) {
    this.times = routes.map((route, t) => board.time(t, route));
    routes.forEach((route, t) => route.forEach((stop) => this.at.set(stop, t)));
  }

  truckOf = (stop: number): number | undefined => this.at.get(stop);

  cost(): number {
    return (
      this.times.reduce((sum, time) => sum + time, 0) +
      this.left.reduce((sum, stop) => sum + this.board.leftCost(stop), 0)
    );
  }

  /** What a change adds to the cost; Infinity where a truck would be out too long. */
  price({ routes, left }: Change): { readonly adds: number; readonly times: ReadonlyMap<number, number> } {
    let adds =
      left === this.left
        ? 0
        : left.reduce((sum, stop) => sum + this.board.leftCost(stop), 0) -
          this.left.reduce((sum, stop) => sum + this.board.leftCost(stop), 0);
    const times = new Map<number, number>();
    for (const [t, route] of routes) {
      const time = this.board.time(t, route);
      if (time > shiftOf(this.board, t)) return { adds: Infinity, times };
      times.set(t, time);
      adds += time - (this.times[t] ?? 0);
    }
    return { adds, times };
  }

  take({ routes, left }: Change, times: ReadonlyMap<number, number>): void {
    for (const stop of left) this.at.delete(stop);
    for (const [t, route] of routes) {
      this.routes[t] = route;
      this.times[t] = times.get(t) ?? Infinity;
      for (const stop of route) this.at.set(stop, t);
    }
    this.left = left;
  }
}

function anneal(board: RoundBoard, start: Routes, { seed, tries, goOn }: RoundSeek): Routes {
  const served = new Set(start.flat());
  const draft = new Draft(
    board,
    start.map((route) => [...route]),
    pool(board).filter((stop) => !served.has(stop)),
  );
  const near = nearOf(board);
  const next = dice(seed);
  const all = pool(board);
  if (all.length === 0) return start;
  let cost = draft.cost();
  let best = { cost, routes: draft.routes.map((route) => [...route]) };
  const hot = 4;
  const cold = 0.01;
  for (let i = 0; i < tries; i++) {
    if (i % tellEvery === 0 && goOn && !goOn(i, best.cost)) break;
    const heat = hot * (cold / hot) ** (i / tries);
    const change = changeOf(draft, near, all, next);
    if (!change) continue;
    const { adds, times } = draft.price(change);
    if (adds > 0 && !(next() < Math.exp(-adds / heat))) continue;
    draft.take(change, times);
    cost += adds;
    if (cost < best.cost - 1e-9) best = { cost, routes: draft.routes.map((route) => [...route]) };
  }
  return best.routes;
}

/** A change to try: a stop beside a near one, two stops swapped, a piece of a route turned or moved, one let go. */
function changeOf(draft: Draft, near: readonly number[][], all: readonly number[], next: () => number): Change | null {
  const stop = pick(all, next);
  const truck = draft.truckOf(stop);
  const beside = pick(near[stop] ?? [], next);
  const to = draft.truckOf(beside);
  const roll = next();
  if (beside < 0 && truck !== undefined) return null;
  if (truck === undefined && roll < 0.5) return changedPlaces(draft, stop, next);
  if (truck === undefined) return comeIn(draft, stop, { beside, to, roll, next });
  if (to === undefined) {
    // Its neighbour is left out: change places with it.
    const route = replaced(draft.routes[truck] ?? [], stop, beside);
    return { routes: new Map([[truck, route]]), left: [...draft.left.filter((one) => one !== beside), stop] };
  }
  if (roll < 0.03) return elsewhere(draft, stop, truck, next);
  if (roll < 0.35) return moved(draft, [stop], truck, { beside, to, after: next() < 0.5 });
  if (roll < 0.5) return piece(draft, { stop, truck, beside, to }, next);
  if (roll < 0.65) return swapped(draft, { stop, truck, beside, to });
  if (truck === to) return turned(draft, truck, stop, beside);
  return tails(draft, { stop, truck, beside, to });
}

function comeIn(
  draft: Draft,
  stop: number,
  { beside, to, roll, next }: { beside: number; to: number | undefined; roll: number; next: () => number },
): Change {
  const truck = to ?? Math.floor(next() * draft.routes.length);
  const route = draft.routes[truck] ?? [];
  const at = to === undefined ? Math.floor(next() * (route.length + 1)) : route.indexOf(beside) + (roll < 0.5 ? 0 : 1);
  return { routes: new Map([[truck, inserted(route, at, stop)]]), left: draft.left.filter((one) => one !== stop) };
}

/** A stop that is left comes into a round for another that is let go, wherever in that round it fits. */
function changedPlaces(draft: Draft, stop: number, next: () => number): Change | null {
  const truck = Math.floor(next() * draft.routes.length);
  const route = draft.routes[truck] ?? [];
  if (route.length === 0) return null;
  const gone = pick(route, next);
  const out = route.filter((one) => one !== gone);
  const filled = inserted(out, Math.floor(next() * (out.length + 1)), stop);
  return { routes: new Map([[truck, filled]]), left: [...draft.left.filter((one) => one !== stop), gone] };
}

const replaced = (route: readonly number[], one: number, by: number): number[] =>
  route.map((stop) => (stop === one ? by : stop));

/** Into any round, one that stands empty too. */
function elsewhere(draft: Draft, stop: number, truck: number, next: () => number): Change {
  const to = Math.floor(next() * draft.routes.length);
  const out = (draft.routes[truck] ?? []).filter((one) => one !== stop);
  const into = truck === to ? out : (draft.routes[to] ?? []);
  const filled = inserted(into, Math.floor(next() * (into.length + 1)), stop);
  const routes = new Map([[truck, out]]).set(to, filled);
  return { routes, left: draft.left };
}

interface Pair {
  readonly stop: number;
  readonly truck: number;
  readonly beside: number;
  readonly to: number;
}

function moved(
  draft: Draft,
  stops: readonly number[],
  truck: number,
  { beside, to, after }: { beside: number; to: number; after: boolean },
): Change | null {
  if (stops.includes(beside)) return null;
  const out = (draft.routes[truck] ?? []).filter((one) => !stops.includes(one));
  const into = truck === to ? out : (draft.routes[to] ?? []);
  const at = into.indexOf(beside) + (after ? 1 : 0);
  const filled = [...into.slice(0, at), ...stops, ...into.slice(at)];
  const routes =
    truck === to
      ? new Map([[to, filled]])
      : new Map([
          [truck, out],
          [to, filled],
        ]);
  return { routes, left: draft.left };
}

/** Two or three that follow one another, as they are or turned. */
function piece(draft: Draft, { stop, truck, beside, to }: Pair, next: () => number): Change | null {
  const route = draft.routes[truck] ?? [];
  const at = route.indexOf(stop);
  const stops = route.slice(at, at + (next() < 0.5 ? 2 : 3));
  return moved(draft, next() < 0.5 ? stops : [...stops].reverse(), truck, { beside, to, after: next() < 0.5 });
}

function swapped(draft: Draft, { stop, truck, beside, to }: Pair): Change {
  const mark = -1;
  if (truck === to) {
    const route = replaced(replaced(replaced(draft.routes[truck] ?? [], stop, mark), beside, stop), mark, beside);
    return { routes: new Map([[truck, route]]), left: draft.left };
  }
  return {
    routes: new Map([
      [truck, replaced(draft.routes[truck] ?? [], stop, beside)],
      [to, replaced(draft.routes[to] ?? [], beside, stop)],
    ]),
    left: draft.left,
  };
}

/** The way between two stops of a route the other way round, so that they come to follow each other. */
function turned(draft: Draft, truck: number, stop: number, beside: number): Change {
  const route = draft.routes[truck] ?? [];
  const [a, b] = [route.indexOf(stop), route.indexOf(beside)].sort((one, other) => one - other) as [number, number];
  const turnedRoute = [...route.slice(0, a + 1), ...route.slice(a + 1, b + 1).reverse(), ...route.slice(b + 1)];
  return { routes: new Map([[truck, turnedRoute]]), left: draft.left };
}

/** Two trucks change what is left of their rounds, so that two near stops come to follow each other. */
function tails(draft: Draft, { stop, truck, beside, to }: Pair): Change {
  const [one, other] = [draft.routes[truck] ?? [], draft.routes[to] ?? []];
  const [a, b] = [one.indexOf(stop) + 1, other.indexOf(beside)];
  return {
    routes: new Map([
      [truck, [...one.slice(0, a), ...other.slice(b)]],
      [to, [...other.slice(0, b), ...one.slice(a)]],
    ]),
    left: draft.left,
  };
}

const pick = (from: readonly number[], next: () => number): number => from[Math.floor(next() * from.length)] ?? -1;
