import { getPosition } from 'suncalc';
import { InvalidInputError, requireWithin } from '../errors';
import { limits } from '../limits';
import type { TreeSize } from './growth';

export interface SunAt {
  /** Degrees above the horizon, refraction included. */
  readonly altitudeDeg: number;
  /** Degrees clockwise from north. */
  readonly azimuthDeg: number;
}

/**
 * Where the sun stands at an instant, by the suncalc library (Meeus' formulas, good to about 0.01°).
 * @throws InvalidInputError for an instant that is none, or a position outside `limits`
 */
export function sunAt(instant: string, [lng, lat]: readonly [number, number]): SunAt {
  requireWithin('lng', lng, limits.lng);
  requireWithin('lat', lat, limits.lat);
  const ms = Date.parse(instant);
  if (Number.isNaN(ms)) throw new InvalidInputError('instant must be an ISO 8601 instant', 'instant');
  const { altitude, azimuth } = getPosition(new Date(ms), lat, lng);
  return { altitudeDeg: altitude, azimuthDeg: azimuth };
}

/** A pavement beside the tree: a straight strip; the way to it, to its near edge, and its width. */
export interface Pavement {
  readonly towardsDeg: number;
  readonly distanceM: number;
  readonly widthM: number;
}

const rad = (deg: number): number => (deg * Math.PI) / 180;

/**
 * Area of pavement in the shadow of a crown on level ground, m²; 0 with the sun under 3°. The crown is an
 * ellipsoid between its underside and the top; its shadow is the ellipse that its outline throws.
 * The strip is long: only how deep the shadow reaches across it counts.
 */
export function shadedPavementM2(tree: TreeSize, sun: SunAt, pavement: Pavement): number {
  if (sun.altitudeDeg < 3) return 0;
  const radiusM = tree.crownM / 2;
  const halfM = (tree.heightM - tree.clearM) / 2;
  const middleM = tree.clearM + halfM;
  const cot = 1 / Math.tan(rad(sun.altitudeDeg));
  // Shadow of an ellipsoid: half-axis along the sun's way √(r² + (h·cot α)²), across it r.
  const alongM = Math.hypot(radiusM, halfM * cot);
  const awayM = middleM * cot;
  const angle = rad(sun.azimuthDeg + 180 - pavement.towardsDeg);
  // Across the strip: the ellipse's middle and half width measured towards the pavement.
  const centreM = awayM * Math.cos(angle);
  const reachM = Math.hypot(alongM * Math.cos(angle), radiusM * Math.sin(angle));
  const areaM2 = Math.PI * alongM * radiusM;
  const share = (edgeM: number) => ellipseShareBelow((edgeM - centreM) / reachM);
  return areaM2 * (share(pavement.distanceM + pavement.widthM) - share(pavement.distanceM));
}

/** Share of an ellipse's area on one side of a chord at `t` half widths from its middle. */
function ellipseShareBelow(t: number): number {
  if (t <= -1) return 0;
  if (t >= 1) return 1;
  return 0.5 + (t * Math.sqrt(1 - t * t) + Math.asin(t)) / Math.PI;
}
