import { InvalidInputError, requireWithin } from '../errors';
import { limits } from '../limits';
import type { RootNature } from '../stock';

/** Part of the trunk's rim, clockwise from `fromDeg` to `toDeg`, degrees from north; 350→40 crosses north. */
export interface Arc {
  readonly fromDeg: number;
  readonly toDeg: number;
}

/** How near a root is to the trunk. */
export const rootTouches = ['clear', 'touching', 'pressing', 'grown_in'] as const;
export type RootTouch = (typeof rootTouches)[number];

/** A root that circles, crosses or lies against the trunk. */
export interface CirclingRoot {
  readonly arc: Arc;
  readonly diameterMm: number;
  /** Left out in older looks, which told of pressing ones alone. */
  readonly touch?: RootTouch | undefined;
  /** The rest is left out where nobody looked. */
  readonly nature?: RootNature | undefined;
  readonly woody?: boolean | undefined;
  readonly grows?: 'away' | 'towards' | undefined;
  /** Below the soil. mm */
  readonly depthMm?: number | undefined;
}

/** A root that runs away from the trunk and holds it. */
export interface Anchor {
  readonly bearingDeg: number;
  readonly diameterMm: number;
}

export const mostRoots = 40;

/** Whether it presses on the trunk or has grown into it. */
export const isPressing = ({ touch = 'pressing' }: Pick<CirclingRoot, 'touch'>): boolean =>
  touch === 'pressing' || touch === 'grown_in';

/** @throws InvalidInputError naming the root and what of it is outside its limits, or that there are too many */
export function requireRoots(roots: readonly CirclingRoot[], anchors: readonly Anchor[] = []): void {
  if (roots.length + anchors.length > mostRoots) {
    const got = roots.length + anchors.length;
    throw new InvalidInputError(
      `circlingRoots must be ${mostRoots} at most, with what anchors it, got ${got}`,
      'circlingRoots',
    );
  }
  roots.forEach(({ diameterMm, arc, depthMm }, i) => {
    requireWithin(`circlingRoots[${i}].diameterMm`, diameterMm, limits.rootDiameterMm);
    requireWithin(`circlingRoots[${i}].arc.fromDeg`, arc.fromDeg, limits.bearingDeg);
    requireWithin(`circlingRoots[${i}].arc.toDeg`, arc.toDeg, limits.bearingDeg);
    if (depthMm !== undefined) requireWithin(`circlingRoots[${i}].depthMm`, depthMm, limits.rootDepthAtTrunkMm);
  });
  anchors.forEach(({ bearingDeg, diameterMm }, i) => {
    requireWithin(`anchors[${i}].bearingDeg`, bearingDeg, limits.bearingDeg);
    requireWithin(`anchors[${i}].diameterMm`, diameterMm, limits.rootDiameterMm);
  });
}

/**
 * Degrees covered clockwise from start to end: 0 where both ends are the same bearing, 360 only from 0 to 360.
 * @throws InvalidInputError for a bearing outside 0–360°
 */
export function arcLengthDeg(arc: Arc): number {
  requireWithin('fromDeg', arc.fromDeg, limits.bearingDeg);
  requireWithin('toDeg', arc.toDeg, limits.bearingDeg);
  const turn = arc.toDeg - arc.fromDeg;
  return turn < 0 ? turn + 360 : turn;
}

/**
 * Share of the trunk's circumference under the union of the arcs, 0–100 %. Overlaps count once.
 * Example: 350→40, 30→95, 200→230 cover 135°, 37.5 %.
 */
export function compressedSharePct(arcs: readonly Arc[]): number {
  return (rimPieces(arcs).reduce((sum, [from, to]) => sum + to - from, 0) / 360) * 100;
}

/** The union of arcs as pieces of the rim that do not overlap, from north on, each within 0–360°. */
export function rimPieces(arcs: readonly Arc[]): [fromDeg: number, toDeg: number][] {
  const pieces: [number, number][] = [];
  for (const [from, to] of arcs.flatMap(unrolled).sort((a, b) => a[0] - b[0])) {
    const last = pieces.at(-1);
    if (last && from <= last[1]) last[1] = Math.max(last[1], to);
    else if (to > from) pieces.push([from, to]);
  }
  return pieces;
}

function unrolled(arc: Arc): [number, number][] {
  const from = arc.fromDeg % 360;
  const to = from + arcLengthDeg(arc);
  return to <= 360
    ? [[from, to]]
    : [
        [from, 360],
        [0, to - 360],
      ];
}

/** Of the compass, the widest gap between neighbouring anchors; 360 with one, `null` without any. Degrees */
export function widestGapDeg(anchors: readonly Anchor[]): number | null {
  const at = anchors.map(({ bearingDeg }) => bearingDeg % 360).sort((a, b) => a - b);
  const [first] = at;
  if (first === undefined) return null;
  return Math.max(...at.map((deg, i) => (at[i + 1] ?? first + 360) - deg));
}
