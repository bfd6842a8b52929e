import { requireWithin } from '../errors';
import { bestSeasons, freeDeg, type Piece } from './cut-search';
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
  const sets = bestSeasons({
    areas: cuttable.map((i) => rootAt(input.roots, i).diameterMm ** 2),
    ring: ringOf(input, cuttable),
    pieces: rim.pieces,
    cap,
    seasons: Math.min(input.seasons ?? usualSeasons, Math.max(1, cuttable.length)),
  });
  let gone = 0;
  const seasons = sets.map((set): StagedSeason => {
    gone |= set;
    const cuts = cuttable.filter((_, k) => set & (1 << k));
    const area = cuts.reduce((sum, i) => sum + rootAt(input.roots, i).diameterMm ** 2, 0);
    return {
      cuts: cuts.map((root) => cutOf(root, rootAt(input.roots, root))),
      removedPct: total > 0 ? (area / total) * 100 : 0,
      relievedDeg: freeDeg(rim.pieces, gone),
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
