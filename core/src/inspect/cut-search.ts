/** A piece of the rim that is free once all roots over it are gone: bits are of the roots that may be cut. */
export interface Piece {
  readonly roots: number;
  readonly deg: number;
}

export interface CutTask {
  /** Cross-section of each root that may be cut; all in one unit. */
  readonly areas: readonly number[];
  /** All that holds the tree, around the compass: the bit of a root that may be cut, or −1 for one that stays. */
  readonly ring: readonly number[];
  readonly pieces: readonly Piece[];
  /** Of the cross-section, what one season may take. */
  readonly cap: number;
  readonly seasons: number;
}

/** Degrees are counted in whole parts of this size, so that sums are exact. */
const partsOfDegree = 100;
const slack = 1e-9;
/** Areas of sets are told apart so finely where it is asked what an area can free at most. Bits */
const [leastBits, mostBits] = [4, 10];
/** In so many seasons a row of any length is gone. */
const mostLevels = 6;
/** With more ways to begin than this two seasons are asked for at once. */
const fewWays = 12;

const partsOf = (deg: number): number => Math.round(deg * partsOfDegree);

/** Degrees of the rim that are free without a set of roots. */
export const freeDeg = (pieces: readonly Piece[], gone: number): number =>
  pieces.reduce((sum, { roots, deg }) => (roots & ~gone ? sum : sum + partsOf(deg)), 0) / partsOfDegree;

/**
 * The set of roots for each season whose sum over the seasons of the degrees free by then is the greatest there is, without
 * empty seasons at the end. Branch and bound: what is left after a season is the same question with fewer roots. Where many
 * first seasons look good, the best are told by what is gone after two.
 */
export function bestSeasons({ areas, ring, pieces, cap, seasons }: CutTask): number[] {
  const parts = pieces.map(({ roots, deg }) => ({ roots, parts: partsOf(deg) }));
  const all = { names: areas.map((_, i) => i), areas, ring, pieces: parts };
  const sets = [...(solve(standing(all, { cap, seasons, freed: 0 }), -1)?.sets ?? [])];
  while (sets.length > 0 && sets.at(-1) === 0) sets.pop();
  return sets;
}

/** Roots that stand, as sets of them are told by bits: those that hold the tree as they follow around it, then the others. */
interface Standing {
  /** Their bits in the task. */
  readonly names: readonly number[];
  readonly areas: readonly number[];
  readonly ring: readonly number[];
  /** For each that holds the tree, whether the one before it stands next to it. */
  readonly besideBefore: readonly boolean[];
  /** For each, which others that hold the tree stand next to it. */
  readonly beside: readonly number[];
  readonly pieces: readonly { readonly roots: number; readonly parts: number }[];
  readonly cap: number;
  readonly seasons: number;
  /** Parts that are free already. */
  readonly freed: number;
}

interface Plan {
  readonly sum: number;
  /** By bits of the task. */
  readonly sets: readonly number[];
}

type Roots = Pick<Standing, 'names' | 'areas' | 'ring' | 'pieces'>;

function standing({ names, areas, ring, pieces }: Roots, known: Pick<Standing, 'cap' | 'seasons' | 'freed'>): Standing {
  const stays = ring.findIndex((bit) => bit < 0);
  const turned = [...ring.slice(stays + 1), ...ring.slice(0, stays + 1)];
  const holding = turned.filter((bit) => bit >= 0);
  const order = [...holding, ...areas.map((_, bit) => bit).filter((bit) => !holding.includes(bit))];
  const place = new Map(order.map((bit, at) => [bit, at]));
  const setOf = (roots: number) => order.reduce((set, bit, at) => (roots & (1 << bit) ? set | (1 << at) : set), 0);
  const placed = turned.map((bit) => place.get(bit) ?? -1);
  return {
    ...known,
    names: order.map((bit) => names[bit] ?? 0),
    areas: order.map((bit) => areas[bit] ?? 0),
    ring: placed,
    besideBefore: holding.map((bit) => (turned[turned.indexOf(bit) - 1] ?? -1) >= 0),
    beside: neighbours(placed, order.length),
    pieces: pieces.map(({ roots, parts }) => ({ roots: setOf(roots), parts })),
  };
}

/** For each root that holds the tree, which others do that stand next to it: they may not go together. */
function neighbours(ring: readonly number[], count: number): number[] {
  const beside = new Array<number>(count).fill(0);
  ring.forEach((bit, k) => {
    const next = ring[(k + 1) % ring.length] ?? -1;
    if (bit < 0 || next < 0 || bit === next) return;
    beside[bit] = (beside[bit] ?? 0) | (1 << next);
    beside[next] = (beside[next] ?? 0) | (1 << bit);
  });
  return beside;
}

const besideWithout = ({ ring, areas }: Standing, gone: number): number[] =>
  neighbours(
    ring.filter((bit) => bit < 0 || !(gone & (1 << bit))),
    areas.length,
  );

const without = (rest: Standing, set: number, { freed, seasons }: { freed: number; seasons: number }): Standing => {
  const left = rest.areas.map((_, bit) => bit).filter((bit) => !(set & (1 << bit)));
  const at = new Map(left.map((bit, i) => [bit, i]));
  const setOf = (roots: number) => left.reduce((all, bit, i) => (roots & (1 << bit) ? all | (1 << i) : all), 0);
  return standing(
    {
      names: left.map((bit) => rest.names[bit] ?? 0),
      areas: left.map((bit) => rest.areas[bit] ?? 0),
      ring: rest.ring.filter((bit) => bit < 0 || !(set & (1 << bit))).map((bit) => at.get(bit) ?? -1),
      pieces: rest.pieces.flatMap(({ roots, parts }) => (roots & ~set ? [{ roots: setOf(roots & ~set), parts }] : [])),
    },
    { cap: rest.cap, seasons: rest.seasons - seasons, freed },
  );
};

const named = ({ names }: Standing, set: number): number =>
  names.reduce((all, name, at) => (set & (1 << at) ? all | (1 << name) : all), 0);

/** The best plan for what stands; `null` where none frees more than `enough`. */
function solve(rest: Standing, enough: number): Plan | null {
  if (rest.seasons === 0) return enough < 0 ? { sum: 0, sets: [] } : null;
  const bound = new Bound(rest);
  if (bound.most(0, 0) <= enough) return null;
  const ways: { readonly set: number; readonly freed: number; readonly most: number }[] = [];
  for (const { set, area } of waysOf(rest)) {
    const freed = bound.freedBy(set);
    const most = freed + bound.most(area, 1);
    if (most > enough) ways.push({ set, freed, most });
  }
  let best: Plan | null = null;
  const least = () => best?.sum ?? enough;
  const follow = ({ set, freed }: (typeof ways)[number]): void => {
    const after = solve(without(rest, set, { freed, seasons: 1 }), least() - freed);
    if (after) best = { sum: freed + after.sum, sets: [named(rest, set), ...after.sets] };
  };
  // The most promising one first: what it comes to spares most of the others.
  const first = ways.reduce<(typeof ways)[number] | null>(
    (top, way) => (top && top.most >= way.most ? top : way),
    null,
  );
  if (first) follow(first);
  const others = ways.filter((way) => way !== first && way.most > least());
  if (others.length > fewWays && rest.seasons > 1) return byTwo(rest, bound, { best, enough });
  for (const way of others.sort((a, b) => b.most - a.most)) if (way.most > least()) follow(way);
  return best;
}

/** As `solve`, from the sets that can be gone after two seasons: few of them can come to more than what is known. */
function byTwo(
  rest: Standing,
  bound: Bound,
  known: { readonly best: Plan | null; readonly enough: number },
): Plan | null {
  let { best } = known;
  const least = () => best?.sum ?? known.enough;
  for (const { set, most } of bound.afterTwo(least())) {
    if (most <= least()) break;
    const freed = bound.freedBy(set);
    const split = bestSplit(rest, set, { bound, enough: least() - freed - bound.most(areaOf(rest, set), 2) });
    if (!split) continue;
    const after = follows(rest, bound, { gone: set, seasons: 2, enough: least() - split.freed - freed });
    if (after) {
      const two = [split.first, set & ~split.first, ...after.sets];
      best = { sum: split.freed + freed + after.sum, sets: two.map((one) => named(rest, one)) };
    }
  }
  return best;
}

/** The best plan for the seasons after some, from what is known of all sets: few roots are left. By bits of `rest`. */
function follows(
  rest: Standing,
  bound: Bound,
  { gone, seasons, enough }: { readonly gone: number; readonly seasons: number; readonly enough: number },
): Plan | null {
  if (seasons === rest.seasons) return enough < 0 ? { sum: 0, sets: [] } : null;
  const taken = areaOf(rest, gone);
  const ways = waysOf(rest, gone).map(({ set, area }) => {
    const freed = bound.freedBy(gone | set);
    return { set, freed, most: freed + bound.most(taken + area, seasons + 1) };
  });
  let best: Plan | null = null;
  for (const { set, freed, most } of ways.sort((a, b) => b.most - a.most)) {
    const least: number = best?.sum ?? enough;
    if (most <= least) break;
    const after = follows(rest, bound, { gone: gone | set, seasons: seasons + 1, enough: least - freed });
    if (after) best = { sum: freed + after.sum, sets: [set, ...after.sets] };
  }
  return best;
}

const areaOf = ({ areas }: Standing, set: number): number =>
  areas.reduce((sum, area, bit) => (set & (1 << bit) ? sum + area : sum), 0);

/**
 * Which of a set go in the first season, so that the rest may go in the second and the first frees the most; `null` where
 * that is not more than enough.
 */
function bestSplit(
  rest: Standing,
  set: number,
  { bound, enough }: { readonly bound: Bound; readonly enough: number },
): { readonly first: number; readonly freed: number } | null {
  const { areas, beside, besideBefore, cap } = rest;
  // The thickest first: what does not fit shows early.
  const bits = areas.map((_, bit) => bit).filter((bit) => set & (1 << bit));
  bits.sort((a, b) => (areas[b] ?? 0) - (areas[a] ?? 0));
  let best: { first: number; freed: number } | null = null;
  let most = enough;
  // One that does not hold the tree and would still fit goes along: another set has it.
  const spare = areas.reduce(
    (least, area, bit) => (bit < besideBefore.length || set & (1 << bit) ? least : Math.min(least, area)),
    Infinity,
  );
  if (spare <= cap - areaOf(rest, set) / 2 + slack) return null;
  const put = (k: number, first: number, [second, now, then]: readonly [number, number, number]): void => {
    if (bound.mostOf(set & ~second) <= most) return;
    const bit = bits[k];
    if (bit === undefined) {
      if (spare <= Math.max(now, then) + slack || !mayFollow(rest, first, second)) return;
      most = bound.freedBy(first);
      best = { first, freed: most };
      return;
    }
    const [one, area] = [1 << bit, areas[bit] ?? 0];
    if (area <= now + slack && !(first & (beside[bit] ?? 0))) put(k + 1, first | one, [second, now - area, then]);
    if (area <= then + slack) put(k + 1, first, [second | one, now, then - area]);
  };
  put(0, 0, [0, cap, cap]);
  return best;
}

/** Whether no two of a set stand next to each other once others are gone. */
function mayFollow(rest: Standing, gone: number, set: number): boolean {
  return besideWithout(rest, gone).every((others, bit) => !(set & (1 << bit)) || !(set & others));
}

/**
 * The most that roots of an area can free which are gone after so many seasons. In a row of roots that hold the tree side
 * by side every other one goes at most, so that after n seasons no more than 2ⁿ − 1 of a row are gone; every set of roots
 * is asked once how long a row it holds, what it takes and what it frees.
 */
class Bound {
  /** By level and steps of area. */
  private readonly mostBy: Int32Array;
  private readonly areaBits: number;
  private readonly step: number;
  private readonly frees: Uint16Array;
  /** Of every set the level, and in the lowest bits the steps of area. */
  private readonly keys: Uint16Array;
  private inFirst: Uint16Array | null = null;

  constructor(private readonly rest: Standing) {
    const count = rest.areas.length;
    this.areaBits = Math.min(mostBits, Math.max(leastBits, count - 2));
    const all = rest.areas.reduce((sum, area) => sum + area, 0);
    this.step = all > 0 ? all / this.lastStep : 1;
    this.mostBy = new Int32Array(mostLevels << this.areaBits);
    this.frees = new Uint16Array(1 << count);
    this.keys = new Uint16Array(1 << count);
    this.frees[0] = rest.freed;
    this.mostBy[0] = rest.freed;
    this.askAll();
    this.orLess();
  }

  private get lastStep(): number {
    return (1 << this.areaBits) - 1;
  }

  private askAll(): void {
    const { frees, keys, mostBy, areaBits, lastStep } = this;
    const { areas, besideBefore, pieces } = this.rest;
    const rows = new Uint8Array(1 << besideBefore.length);
    areas.forEach((root, at) => {
      const one = 1 << at;
      const ends = pieces.filter(({ roots }) => roots >> at === 1);
      const needs = Int32Array.from(ends, ({ roots }) => roots & ~one);
      const parts = Int32Array.from(ends, (piece) => piece.parts);
      const takes = Math.floor(root / this.step);
      const holds = at < besideBefore.length;
      const beside = besideBefore[at] ? one >> 1 : one;
      for (let low = 0; low < one; low++) {
        let free = frees[low] as number;
        for (let k = 0; k < needs.length; k++) {
          const need = needs[k] as number;
          if ((low & need) === need) free += parts[k] as number;
        }
        const set = low | one;
        let key = (keys[low] as number) + takes;
        if (holds) {
          const row = low >= beside ? (rows[low] as number) + 1 : 1;
          rows[set] = row;
          const level = 32 - Math.clz32(row);
          if (level > key >> areaBits) key = (level << areaBits) | (key & lastStep);
        }
        frees[set] = free;
        keys[set] = key;
        if (free > (mostBy[key] as number)) mostBy[key] = free;
      }
    });
  }

  /** What less area and shorter rows free is free with more, too. */
  private orLess(): void {
    const { mostBy } = this;
    const width = 1 << this.areaBits;
    for (let at = 1; at < mostBy.length; at++) {
      const less = at % width === 0 ? 0 : (mostBy[at - 1] as number);
      const shorter = at < width ? 0 : (mostBy[at - width] as number);
      mostBy[at] = Math.max(mostBy[at] as number, less, shorter);
    }
  }

  private stepsOf(area: number): number {
    return Math.min(this.lastStep, Math.floor(area / this.step + slack));
  }

  freedBy(set: number): number {
    return this.frees[set] ?? 0;
  }

  /** What the seasons to come can free together, at most, where `gone` of them have taken `area`. */
  most(area: number, gone: number): number {
    let sum = 0;
    for (let season = 1; season <= this.rest.seasons - gone; season++) {
      const level = Math.min(mostLevels - 1, gone + season);
      sum += this.mostBy[(level << this.areaBits) + this.stepsOf(area + this.rest.cap * season)] ?? 0;
    }
    return sum;
  }

  /** Sets that may be gone after two seasons and can come to more than enough in all, the most promising first. */
  afterTwo(enough: number): { readonly set: number; readonly most: number }[] {
    const { frees, keys, areaBits, lastStep } = this;
    const first = (this.inFirst ??= this.mostInFirst());
    const room = this.stepsOf(this.rest.cap * 2);
    // Steps are rounded down, root by root: so much more may lie in one.
    const rounded = this.rest.areas.length;
    const later = Int32Array.from({ length: lastStep + 1 }, (_, at) => this.most((at + rounded) * this.step, 2));
    const found: { set: number; most: number }[] = [];
    for (let set = 0; set < frees.length; set++) {
      const key = keys[set] as number;
      const area = key & lastStep;
      if (area > room || key >> areaBits > 2) continue;
      const most = (first[set] as number) + (frees[set] as number) + (later[area] as number);
      if (most > enough) found.push({ set, most });
    }
    return found.sort((a, b) => b.most - a.most);
  }

  /** The most that those of a set free which may go in one season. */
  mostOf(set: number): number {
    this.inFirst ??= this.mostInFirst();
    return this.inFirst[set] ?? 0;
  }

  /** `mostOf` of every set. */
  private mostInFirst(): Uint16Array {
    const { keys, areaBits, lastStep } = this;
    const room = this.stepsOf(this.rest.cap);
    const most = this.frees.slice();
    for (let set = 0; set < most.length; set++) {
      const key = keys[set] as number;
      if ((key & lastStep) > room || key >> areaBits > 1) most[set] = 0;
    }
    for (let one = 1; one < most.length; one <<= 1) {
      for (let low = 0; low < most.length; low += one << 1) {
        for (let set = low; set < low + one; set++) {
          const less = most[set] as number;
          if (less > (most[set + one] as number)) most[set + one] = less;
        }
      }
    }
    return most;
  }
}

/**
 * Every set that one season may take once some are gone: of roots that do not hold the tree as many as fit, as more is
 * never worse.
 */
function waysOf(rest: Standing, gone = 0): { readonly set: number; readonly area: number }[] {
  const { areas, besideBefore, cap } = rest;
  const beside = gone ? besideWithout(rest, gone) : rest.beside;
  // The thickest first: whether what is skipped would still fit shows early.
  const open = areas.map((_, bit) => bit).filter((bit) => !(gone & (1 << bit)));
  open.sort((a, b) => (areas[b] ?? 0) - (areas[a] ?? 0) || a - b);
  const left = new Array<number>(open.length + 1).fill(0);
  for (let k = open.length - 1; k >= 0; k--) left[k] = (left[k + 1] ?? 0) + (areas[open[k] ?? 0] ?? 0);
  const found: { set: number; area: number }[] = [];
  const choose = (k: number, set: number, taken: number, leastSkipped: number): void => {
    // Even with all that is to come what was skipped would fit: another way takes it along.
    if (leastSkipped <= cap - taken - (left[k] ?? 0) + slack) return;
    const bit = open[k];
    if (bit === undefined) {
      found.push({ set, area: taken });
      return;
    }
    const area = areas[bit] ?? 0;
    const mayGo = area <= cap - taken + slack && !(set & (beside[bit] ?? 0));
    if (mayGo) choose(k + 1, set | (1 << bit), taken + area, leastSkipped);
    choose(k + 1, set, taken, bit < besideBefore.length ? leastSkipped : Math.min(leastSkipped, area));
  };
  choose(0, 0, 0, Infinity);
  return found;
}
