import { requireWithin } from '../errors';
import { arcLengthDeg, isPressing, requireRoots, type Anchor, type CirclingRoot } from './root-arcs';

export interface StagedCutsInput {
  readonly roots: readonly CirclingRoot[];
  /** Roots that run away from the trunk and hold it. */
  readonly anchors: readonly Anchor[];
  /** Of the cross-section of all roots exposed, what one season may take. % */
  readonly seasonCapPct: number;
  /** A thicker root is for a qualified arborist. mm */
  readonly referRootOverMm: number;
  /** How far ahead is planned. */
  readonly seasons?: number;
}

export const cutTools = ['hand_pruner', 'lopper', 'saw'] as const;
export type CutTool = (typeof cutTools)[number];

export interface StagedCut {
  /** Index among the roots. */
  readonly root: number;
  readonly tool: CutTool;
  /** Where it is cut: by the trunk's rim where it begins to press, and where it ends; the piece beyond may stay. */
  readonly atDeg: readonly [number, number];
}

export interface StagedSeason {
  readonly cuts: readonly StagedCut[];
  /** Of the cross-section of all roots exposed, what goes. % */
  readonly removedPct: number;
  /** Of the rim, what is free at the season's end that was pressed before anything was cut. Degrees */
  readonly relievedDeg: number;
}

export const referWhys = ['grown_in', 'too_thick', 'over_cap'] as const;
export type ReferWhy = (typeof referWhys)[number];

export interface StagedPlan {
  /** Each with cuts; none where nothing may be cut by the crew. */
  readonly seasons: readonly StagedSeason[];
  /** Roots that press and are not for the crew, with why. */
  readonly referred: readonly { readonly root: number; readonly why: ReferWhy }[];
  /** Roots that are still to be cut when the plan ends. */
  readonly later: readonly number[];
  /** Pressed before anything is cut. Degrees */
  readonly pressedDeg: number;
  /** Nothing relieves more, sooner; else there were too many roots, and some wait in `later`. */
  readonly exact: boolean;
}

const usualSeasons = 4;
/** With more roots those that press on the least for their thickness wait for the next look. */
const exactRoots = 20;
const prunerMm = 20;
const lopperMm = 40;

/** What cuts a root of a thickness. Hand tools; estimates */
export const cutToolFor = (diameterMm: number): CutTool =>
  diameterMm <= prunerMm ? 'hand_pruner' : diameterMm <= lopperMm ? 'lopper' : 'saw';

/**
 * The plan over seasons that relieves the most of the trunk's rim soonest: the sum over its seasons of the degrees that are
 * free by then is the greatest there is. In no season goes more of the cross-section than the cap, nor two roots that hold
 * the tree and stand next to each other around the compass. Roots grown into the trunk, too thick, or over the cap by
 * themselves are for an arborist. Exact up to 20 roots; of more the 20 that press on most for their thickness are planned,
 * and it says so.
 * @throws InvalidInputError for a root outside its limits, or a cap outside 1–100 %
 */
export function stagedCuts(input: StagedCutsInput): StagedPlan {
  requireRoots(input.roots, input.anchors);
  requireWithin('seasonCapPct', input.seasonCapPct, { min: 1, max: 100, unit: '%' });
  const total = [...input.roots, ...input.anchors].reduce((sum, { diameterMm }) => sum + diameterMm ** 2, 0);
  const cap = (total * input.seasonCapPct) / 100;
  const pressing = input.roots.flatMap((root, i) => (isPressing(root) ? [i] : []));
  const referred = pressing.flatMap((i) => {
    const why = whyReferred(rootAt(input.roots, i), { cap, limitMm: input.referRootOverMm });
    return why ? [{ root: i, why }] : [];
  });
  const out = new Set(referred.map(({ root }) => root));
  const [cuttable, left] = foremost(
    input.roots,
    pressing.filter((i) => !out.has(i)),
  );
  const rim = rimOf(input.roots, pressing, cuttable);
  const search = new Search({
    areas: cuttable.map((i) => rootAt(input.roots, i).diameterMm ** 2),
    holds: cuttable.map((i) => rootAt(input.roots, i).nature === 'structural'),
    ring: ringOf(input, cuttable),
    pieces: rim.pieces,
    cap,
    seasons: Math.min(input.seasons ?? usualSeasons, Math.max(1, cuttable.length)),
  });
  const sets = search.best();
  let gone = 0;
  const seasons = sets.map((set): StagedSeason => {
    gone |= set;
    const cuts = cuttable.filter((_, k) => set & (1 << k));
    const area = cuts.reduce((sum, i) => sum + rootAt(input.roots, i).diameterMm ** 2, 0);
    return {
      cuts: cuts.map((root) => cutOf(root, rootAt(input.roots, root))),
      removedPct: total > 0 ? (area / total) * 100 : 0,
      relievedDeg: search.freeDeg(gone),
    };
  });
  const later = [...cuttable.filter((_, k) => !(gone & (1 << k))), ...left].sort((a, b) => a - b);
  return { seasons, referred, later, pressedDeg: rim.pressedDeg, exact: left.length === 0 };
}

function rootAt(roots: readonly CirclingRoot[], i: number): CirclingRoot {
  const root = roots[i];
  if (!root) throw new RangeError(`no root ${i}`);
  return root;
}

/** The roots that press on most for their thickness, as many as are planned at once, and the others. */
function foremost(roots: readonly CirclingRoot[], cuttable: readonly number[]): readonly [number[], number[]] {
  const per = (i: number) => arcLengthDeg(rootAt(roots, i).arc) / rootAt(roots, i).diameterMm ** 2;
  const sorted = [...cuttable].sort((a, b) => per(b) - per(a) || a - b);
  return [sorted.slice(0, exactRoots).sort((a, b) => a - b), sorted.slice(exactRoots)];
}

const cutOf = (root: number, { diameterMm, arc }: CirclingRoot): StagedCut => ({
  root,
  tool: cutToolFor(diameterMm),
  atDeg: [arc.fromDeg, arc.toDeg],
});

function whyReferred(
  { touch, diameterMm }: CirclingRoot,
  { cap, limitMm }: { readonly cap: number; readonly limitMm: number },
): ReferWhy | null {
  if (touch === 'grown_in') return 'grown_in';
  if (diameterMm > limitMm) return 'too_thick';
  return diameterMm ** 2 > cap ? 'over_cap' : null;
}

/** A piece of the rim that is free once all roots over it are gone: bits are of the roots that may be cut. */
interface Piece {
  readonly roots: number;
  readonly deg: number;
}

/** Cuts the rim at every end of an arc. A piece under a root that stays is never freed, and left out. */
function rimOf(
  roots: readonly CirclingRoot[],
  pressing: readonly number[],
  cuttable: readonly number[],
): { readonly pieces: Piece[]; readonly pressedDeg: number } {
  const spans = pressing.map((i) => {
    const { arc } = rootAt(roots, i);
    return { from: arc.fromDeg % 360, length: arcLengthDeg(arc), bit: cuttable.indexOf(i) };
  });
  const ends = [...new Set(spans.flatMap(({ from, length }) => [from, (from + length) % 360]))].sort((a, b) => a - b);
  let pressedDeg = 0;
  const pieces = new Map<number, number>();
  ends.forEach((from, k) => {
    const next = ends[k + 1];
    const deg = next === undefined ? 360 - from + (ends[0] ?? 0) : next - from;
    const middle = (from + deg / 2) % 360;
    const over = spans.filter((span) => (((middle - span.from) % 360) + 360) % 360 < span.length);
    if (over.length === 0) return;
    pressedDeg += deg;
    if (over.some(({ bit }) => bit < 0)) return;
    const mask = over.reduce((bits, { bit }) => bits | (1 << bit), 0);
    pieces.set(mask, (pieces.get(mask) ?? 0) + deg);
  });
  return { pieces: [...pieces].map(([mask, deg]) => ({ roots: mask, deg })), pressedDeg };
}

/** All that holds the tree, around the compass: the bit of a root that may be cut, or −1 for one that stays. */
function ringOf({ roots, anchors }: StagedCutsInput, cuttable: readonly number[]): number[] {
  const holding = roots.flatMap(({ nature, arc }, i) =>
    nature === 'structural' ? [{ deg: arc.fromDeg % 360, bit: cuttable.indexOf(i) }] : [],
  );
  return [...holding, ...anchors.map(({ bearingDeg }) => ({ deg: bearingDeg % 360, bit: -1 }))]
    .sort((a, b) => a.deg - b.deg || a.bit - b.bit)
    .map(({ bit }) => bit);
}

interface Task {
  readonly areas: readonly number[];
  readonly holds: readonly boolean[];
  readonly ring: readonly number[];
  readonly pieces: readonly Piece[];
  readonly cap: number;
  readonly seasons: number;
}

/** Degrees are counted in whole parts of this size, so that sums are exact. */
const partsOfDegree = 100;
const slack = 1e-9;
/** Areas of sets are told apart so finely where it is asked what an area can free at most. */
const areaSteps = 4096;

/**
 * The sets of roots for each season. What every set of roots frees is worked out once (sums over subsets), and with it the
 * most that any set of an area frees: no plan from here on frees more than that, season by season.
 */
class Search {
  private readonly frees: Int32Array;
  private readonly areaOf: Float64Array;
  private readonly mostBy: Int32Array;
  private bestSum = -1;
  private bestSets: readonly number[] = [];
  private readonly seen: readonly Map<number, number>[];
  private readonly step: number;

  constructor(private readonly task: Task) {
    const { areas, pieces, seasons } = task;
    const sets = 1 << areas.length;
    this.seen = Array.from({ length: seasons }, () => new Map<number, number>());
    this.frees = new Int32Array(sets);
    for (const { roots, deg } of pieces) this.frees[roots] = (this.frees[roots] ?? 0) + Math.round(deg * partsOfDegree);
    for (let bit = 1; bit < sets; bit <<= 1) {
      for (let low = 0; low < sets; low += bit << 1) {
        for (let set = low; set < low + bit; set++) {
          this.frees[set + bit] = (this.frees[set + bit] ?? 0) + (this.frees[set] ?? 0);
        }
      }
    }
    this.areaOf = new Float64Array(sets);
    const all = areas.reduce((sum, area) => sum + area, 0);
    this.step = all > 0 ? all / areaSteps : 1;
    this.mostBy = new Int32Array(areaSteps + 1);
    for (let set = 1; set < sets; set++) {
      const low = set & -set;
      const area = (this.areaOf[set ^ low] ?? 0) + (areas[31 - Math.clz32(low)] ?? 0);
      this.areaOf[set] = area;
      const at = Math.min(areaSteps, Math.floor(area / this.step));
      if ((this.frees[set] ?? 0) > (this.mostBy[at] ?? 0)) this.mostBy[at] = this.frees[set] ?? 0;
    }
    for (let at = 1; at <= areaSteps; at++) this.mostBy[at] = Math.max(this.mostBy[at] ?? 0, this.mostBy[at - 1] ?? 0);
  }

  /** The sets of each season, without empty ones at the end. */
  best(): number[] {
    this.from([], 0, 0);
    const sets = [...this.bestSets];
    while (sets.length > 0 && sets.at(-1) === 0) sets.pop();
    return sets;
  }

  /** Degrees of the rim that are free without a set of roots. */
  freeDeg(gone: number): number {
    return (this.frees[gone] ?? 0) / partsOfDegree;
  }

  private from(sets: readonly number[], gone: number, sum: number): void {
    const toGo = this.task.seasons - sets.length;
    if (toGo === 0) {
      if (sum > this.bestSum) [this.bestSum, this.bestSets] = [sum, sets];
      return;
    }
    const seen = this.seen[sets.length];
    if ((seen?.get(gone) ?? -1) >= sum) return;
    seen?.set(gone, sum);
    const ways = this.ways(gone).map((set) => ({ set, most: sum + this.most(gone | set, toGo) }));
    ways.sort((a, b) => b.most - a.most || a.set - b.set);
    for (const { set, most } of ways) {
      if (most <= this.bestSum) return;
      this.from([...sets, set], gone | set, sum + (this.frees[gone | set] ?? 0));
    }
  }

  /** What the seasons from the one that ends with `gone` on can free together, at most. */
  private most(gone: number, toGo: number): number {
    let sum = this.frees[gone] ?? 0;
    for (let j = 1; j < toGo; j++) {
      const area = (this.areaOf[gone] ?? 0) + this.task.cap * j;
      sum += this.mostBy[Math.min(areaSteps, Math.floor(area / this.step + slack))] ?? 0;
    }
    return sum;
  }

  /** Every set that one season may take: of roots that do not hold the tree as many as fit, as more is never worse. */
  private ways(gone: number): number[] {
    const { areas, holds, cap } = this.task;
    // The thickest first: whether what is skipped would still fit shows early.
    const open = areas.map((_, i) => i).filter((i) => !(gone & (1 << i)));
    open.sort((a, b) => (areas[b] ?? 0) - (areas[a] ?? 0) || a - b);
    const beside = this.neighbours(gone);
    const rest = new Array<number>(open.length + 1).fill(0);
    for (let k = open.length - 1; k >= 0; k--) rest[k] = (rest[k + 1] ?? 0) + (areas[open[k] ?? 0] ?? 0);
    const found: number[] = [];
    const choose = (k: number, set: number, room: number, leastSkipped: number): void => {
      // Even with all that is to come what was skipped would fit: another way takes it along.
      if (leastSkipped <= room - (rest[k] ?? 0) + slack) return;
      const i = open[k];
      if (i === undefined) {
        found.push(set);
        return;
      }
      const area = areas[i] ?? 0;
      if (area <= room + slack && !(set & (beside[i] ?? 0))) choose(k + 1, set | (1 << i), room - area, leastSkipped);
      choose(k + 1, set, room, holds[i] ? leastSkipped : Math.min(leastSkipped, area));
    };
    choose(0, 0, cap, Infinity);
    return found;
  }

  /** For each root that holds the tree, which others do that stand next to it by then: they may not go together. */
  private neighbours(gone: number): number[] {
    const { areas, ring } = this.task;
    const standing = ring.filter((bit) => bit < 0 || !(gone & (1 << bit)));
    const beside = new Array<number>(areas.length).fill(0);
    standing.forEach((bit, k) => {
      const next = standing[(k + 1) % standing.length] ?? -1;
      if (bit < 0 || next < 0 || bit === next) return;
      beside[bit] = (beside[bit] ?? 0) | (1 << next);
      beside[next] = (beside[next] ?? 0) | (1 << bit);
    });
    return beside;
  }
}
