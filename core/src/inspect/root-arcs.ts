import { requireWithin } from '../errors';
import { limits } from '../limits';

/** Part of the trunk's rim, clockwise from `fromDeg` to `toDeg`, degrees from north; 350→40 crosses north. */
export interface Arc {
  readonly fromDeg: number;
  readonly toDeg: number;
}

export interface CirclingRoot {
  readonly arc: Arc;
  readonly diameterMm: number;
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
  const pieces = arcs.flatMap(unrolled).sort((a, b) => a[0] - b[0]);
  let covered = 0;
  let reach = 0;
  for (const [from, to] of pieces) {
    covered += Math.max(0, to - Math.max(from, reach));
    reach = Math.max(reach, to);
  }
  return (covered / 360) * 100;
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
