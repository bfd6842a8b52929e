import { InvalidInputError, requireWithin } from '../errors';
import { limits } from '../limits';

/** A tree that is to be watered on a round. */
export interface RoundStop {
  readonly id: string;
  readonly litres: number;
  /** How much it matters that it is reached: a stop of twice the weight is served before two of the weight. > 0 */
  readonly weight: number;
  /** Getting out, finding it, reading the probe; pouring comes on top. */
  readonly minutes: number;
}

export interface RoundTruck {
  readonly id: string;
  /** Full when it leaves. L */
  readonly tankL: number;
  readonly pourLPerMin: number;
  /** On streets, or on foot. km/h */
  readonly kmPerH: number;
  /** From leaving its depot to being back. */
  readonly shiftMinutes: number;
}

export interface FillPoint {
  readonly id: string;
  readonly flowLPerMin: number;
  /** Connecting and disconnecting. */
  readonly minutes: number;
}

export interface RoundTask {
  readonly stops: readonly RoundStop[];
  readonly fills: readonly FillPoint[];
  readonly trucks: readonly RoundTruck[];
  /** Along streets, from each to each: stops, then fill points, then the depot of each truck; Infinity where no way leads. m */
  readonly metres: readonly (readonly number[])[];
}

export type RoundStep =
  | { readonly kind: 'stop'; readonly stop: number }
  | { readonly kind: 'fill'; readonly fill: number; readonly litres: number };

export interface TruckRound {
  readonly truckId: string;
  readonly steps: readonly RoundStep[];
  readonly minutes: number;
  readonly driveM: number;
  readonly litres: number;
}

export type LeftStop = 'no_time' | 'tank_too_small' | 'no_way';

export interface RoundPlan {
  readonly rounds: readonly TruckRound[];
  readonly left: readonly { readonly stop: number; readonly why: LeftStop }[];
  /** Minutes of all trucks, and for each stop that is left its weight in days. */
  readonly cost: number;
}

/** A stop left out costs so many minutes for each unit of its weight: any stop that fits is served before time is saved. */
const leftMinutes = 1440;

/** Where no way leads it takes longer than any shift: a number, so that sums stay numbers. Minutes */
const noWay = 1e7;

/** Stops of one truck in order, with the refills that take it least time. */
interface Timed {
  readonly minutes: number;
  /** Before which of its stops it fills, and where. */
  readonly fillsBefore: readonly { readonly at: number; readonly fill: number }[];
}

/** A task made ready to be asked many times: minutes from each place to each for each truck. */
export class RoundBoard {
  readonly stops: number;
  private readonly minutes: Float64Array[];
  private readonly size: number;
  /** What it takes at a stop by each truck. */
  private readonly service: Float64Array[];
  /** The way by each fill point between each two stops, its connecting included; by stop, stop and fill point. */
  private readonly detours: Float64Array[];
  private readonly minutesPerL: Float64Array;
  private readonly litres: Float64Array;

  /** @throws InvalidInputError for a matrix that does not fit, an empty task, a truck without a tank or a speed */
  constructor(readonly task: RoundTask) {
    const { stops, fills, trucks, metres } = task;
    this.stops = stops.length;
    this.size = stops.length + fills.length + trucks.length;
    if (metres.length !== this.size || metres.some((row) => row.length !== this.size)) {
      throw new InvalidInputError(`metres must be ${this.size} by ${this.size}, got ${metres.length}`, 'metres');
    }
    if (new Set(stops.map(({ id }) => id)).size !== stops.length) {
      throw new InvalidInputError('stops must not hold one twice', 'stops');
    }
    if (trucks.length === 0) throw new InvalidInputError('trucks must hold one at least, got 0', 'trucks');
    for (const { litres, weight, minutes } of stops) {
      requireWithin('litres', litres, { min: 0, max: 5000, unit: 'L' });
      requireWithin('weight', weight, { min: 1e-6, max: 1e6, unit: '' });
      requireWithin('minutes', minutes, { min: 0, max: 600, unit: 'min' });
    }
    for (const truck of trucks) {
      requireWithin('tankL', truck.tankL, limits.tankL);
      requireWithin('pourLPerMin', truck.pourLPerMin, limits.pourLPerMin);
      requireWithin('kmPerH', truck.kmPerH, limits.truckKmPerH);
      requireWithin('shiftMinutes', truck.shiftMinutes, { min: 1, max: 1440, unit: 'min' });
    }
    for (const { flowLPerMin } of fills) {
      requireWithin('flowLPerMin', flowLPerMin, limits.fillLPerMin);
    }
    this.litres = Float64Array.from(stops, ({ litres }) => litres);
    this.minutes = trucks.map(({ kmPerH }) =>
      Float64Array.from(metres.flatMap((row) => row.map((m) => Math.min(noWay, m / ((kmPerH * 1000) / 60))))),
    );
    this.minutesPerL = Float64Array.from(fills, ({ flowLPerMin }) => 1 / flowLPerMin);
    this.detours = trucks.map((_truck, t) => this.detoursOf(t));
    this.service = trucks.map(({ pourLPerMin }) =>
      Float64Array.from(stops, ({ minutes, litres }) => minutes + litres / pourLPerMin),
    );
  }

  private detoursOf(truck: number): Float64Array {
    const { fills } = this.task;
    const all = new Float64Array(this.stops * this.stops * fills.length);
    let at = 0;
    for (let i = 0; i < this.stops; i++) {
      for (let j = 0; j < this.stops; j++) {
        for (const [f, { minutes }] of fills.entries()) {
          const place = this.stops + f;
          all[at++] = this.between(truck, i, place) + minutes + this.between(truck, place, j);
        }
      }
    }
    return all;
  }

  depot = (truck: number): number => this.stops + this.task.fills.length + truck;

  between = (truck: number, from: number, to: number): number => this.minutes[truck]?.[from * this.size + to] ?? noWay;

  weight = (stop: number): number => this.task.stops[stop]?.weight ?? 0;

  /** What keeps a stop from ever being served; `null` where nothing does. */
  never(stop: number): LeftStop | null {
    const litres = this.litres[stop] ?? 0;
    const able = this.task.trucks.map((truck, t) => ({ t, tank: truck.tankL >= litres }));
    if (able.every(({ tank }) => !tank)) return 'tank_too_small';
    return able.some(({ t, tank }) => tank && this.between(t, this.depot(t), stop) < noWay) ? null : 'no_way';
  }

  /**
   * The least time in which a truck serves these stops in this order, with refills wherever they cost least: by dynamic
   * programming over the stop before which it last filled. Longer than any shift where a tank is too small, no way leads,
   * or there is nowhere to fill.
   */
  time(truck: number, route: readonly number[]): number {
    return this.solve(truck, route, false).minutes;
  }

  timed = (truck: number, route: readonly number[]): Timed => this.solve(truck, route, true);

  private solve(truck: number, route: readonly number[], wantFills: boolean): Timed {
    const n = route.length;
    if (n === 0) return { minutes: 0, fillsBefore: [] };
    const drive = this.minutes[truck];
    const service = this.service[truck];
    const { tankL } = this.task.trucks[truck] ?? { tankL: 0 };
    const detours = this.detours[truck];
    if (!drive || !service || !detours) return { minutes: Infinity, fillsBefore: [] };
    const { size, litres, minutesPerL } = this;
    const fills = minutesPerL.length;
    const depot = this.depot(truck);
    // ways[a], poured[a]: minutes and litres from the first stop to the door of stop a, without any refill.
    const ways = new Float64Array(n + 1);
    const poured = new Float64Array(n + 1);
    for (let i = 0; i < n; i++) {
      const at = route[i] ?? 0;
      const on = i + 1 < n ? (drive[at * size + (route[i + 1] ?? 0)] ?? noWay) : 0;
      ways[i + 1] = (ways[i] ?? 0) + (service[at] ?? 0) + on;
      poured[i + 1] = (poured[i] ?? 0) + (litres[at] ?? 0);
      if ((litres[at] ?? 0) > tankL) return { minutes: Infinity, fillsBefore: [] };
    }
    // best[a]: least time until it stands, full, at the door of stop a. To fill between b and b + 1 costs the same from
    // wherever it last filled, but for what was poured since: the least of a window that only moves on (a monotone queue).
    const best = new Float64Array(n).fill(Infinity);
    const from = new Int32Array(n).fill(-1);
    const by = new Int32Array(n).fill(-1);
    best[0] = drive[depot * size + (route[0] ?? 0)] ?? noWay;
    const queues = minutesPerL.length === 0 ? 1 : minutesPerL.length;
    const queue = new Int32Array(queues * n);
    const keys = new Float64Array(queues * n);
    const heads = new Int32Array(queues);
    const ends = new Int32Array(queues);
    for (let b = 0; b < n; b++) {
      for (let f = 0; f < queues; f++) {
        const row = f * n;
        const key = (best[b] ?? 0) - (ways[b] ?? 0) - (minutesPerL[f] ?? 0) * (poured[b] ?? 0);
        let last = ends[f] ?? 0;
        while (last > (heads[f] ?? 0) && (keys[row + last - 1] ?? 0) >= key) last--;
        queue[row + last] = b;
        keys[row + last] = key;
        ends[f] = last + 1;
        let head = heads[f] ?? 0;
        while ((poured[b + 1] ?? 0) - (poured[queue[row + head] ?? 0] ?? 0) > tankL) head++;
        heads[f] = head;
        if (b === n - 1 || fills === 0) continue;
        // The way to the next stop is left out of what was driven: it goes by the fill point.
        const at = route[b] ?? 0;
        const next = route[b + 1] ?? 0;
        const driven = (ways[b + 1] ?? 0) - (drive[at * size + next] ?? noWay);
        const then =
          driven +
          (detours[(at * this.stops + next) * fills + f] ?? noWay) +
          (minutesPerL[f] ?? 0) * (poured[b + 1] ?? 0) +
          (keys[row + head] ?? 0);
        if (then < (best[b + 1] ?? Infinity)) {
          best[b + 1] = then;
          from[b + 1] = queue[row + head] ?? 0;
          by[b + 1] = f;
        }
      }
    }
    let end = Infinity;
    let endFrom = 0;
    for (let a = 0; a < n; a++) {
      if ((poured[n] ?? 0) - (poured[a] ?? 0) > tankL) continue;
      const done = (best[a] ?? Infinity) + (ways[n] ?? 0) - (ways[a] ?? 0);
      if (done < end) {
        end = done;
        endFrom = a;
      }
    }
    end += drive[(route[n - 1] ?? 0) * size + depot] ?? noWay;
    if (!wantFills || !(end < Infinity)) return { minutes: end, fillsBefore: [] };
    const fillsBefore: { at: number; fill: number }[] = [];
    for (let a = endFrom; a > 0; a = from[a] ?? 0) fillsBefore.unshift({ at: a, fill: by[a] ?? 0 });
    return { minutes: end, fillsBefore };
  }

  /** The plan these routes make, with what is left and why. */
  plan(routes: readonly (readonly number[])[]): RoundPlan {
    const served = new Set(routes.flat());
    const rounds = routes.map((route, t) => this.round(t, route));
    const left = this.task.stops.flatMap((_stop, stop) =>
      served.has(stop) ? [] : [{ stop, why: this.never(stop) ?? ('no_time' as const) }],
    );
    const minutes = rounds.reduce((sum, round) => sum + round.minutes, 0);
    return { rounds, left, cost: minutes + left.reduce((sum, { stop }) => sum + this.leftCost(stop), 0) };
  }

  leftCost = (stop: number): number => leftMinutes * this.weight(stop);

  private round(truck: number, route: readonly number[]): TruckRound {
    const { minutes, fillsBefore } = this.timed(truck, route);
    const steps: RoundStep[] = [];
    let used = 0;
    let litres = 0;
    route.forEach((stop, i) => {
      const fill = fillsBefore.find(({ at }) => at === i);
      if (fill) {
        steps.push({ kind: 'fill', fill: fill.fill, litres: used });
        used = 0;
      }
      steps.push({ kind: 'stop', stop });
      used += this.litres[stop] ?? 0;
      litres += this.litres[stop] ?? 0;
    });
    const depot = this.depot(truck);
    const places = [depot, ...steps.map((step) => (step.kind === 'stop' ? step.stop : this.stops + step.fill)), depot];
    const driveM =
      route.length === 0
        ? 0
        : places.slice(1).reduce((sum, place, i) => sum + (this.task.metres[places[i] ?? 0]?.[place] ?? 0), 0);
    return { truckId: this.task.trucks[truck]?.id ?? '', steps, minutes, driveM, litres };
  }
}

/**
 * No way of serving all of these stops takes less: what is poured and done at each, the shortest tree that joins them all
 * with the depots (every truck's way out is part of such a tree), at the speed of the fastest.
 */
export function leastMinutes({ stops, fills, trucks, metres }: RoundTask): number {
  const fastest = Math.max(...trucks.map(({ kmPerH }) => (kmPerH * 1000) / 60));
  const pour = Math.max(...trucks.map(({ pourLPerMin }) => pourLPerMin));
  const atStops = stops.reduce((sum, { minutes, litres }) => sum + minutes + litres / pour, 0);
  const depots = trucks.map((_truck, t) => stops.length + fills.length + t);
  // Prim from all depots at once: what joins two depots costs nothing.
  const away = new Float64Array(stops.length);
  for (let i = 0; i < stops.length; i++) {
    away[i] = Math.min(
      ...depots.map((depot) => Math.min(metres[depot]?.[i] ?? Infinity, metres[i]?.[depot] ?? Infinity)),
    );
  }
  const open = new Set(stops.keys());
  let tree = 0;
  while (open.size > 0) {
    let nearest = -1;
    for (const i of open) if (nearest < 0 || (away[i] ?? Infinity) < (away[nearest] ?? Infinity)) nearest = i;
    open.delete(nearest);
    tree += away[nearest] ?? 0;
    for (const i of open) {
      away[i] = Math.min(away[i] ?? Infinity, metres[nearest]?.[i] ?? Infinity, metres[i]?.[nearest] ?? Infinity);
    }
  }
  return atStops + tree / fastest;
}
