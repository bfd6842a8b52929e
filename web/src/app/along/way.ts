/** Metres for a degree of latitude; of longitude at the equator. */
const mPerDegree = 111_195;
const rad = (deg: number): number => (deg * Math.PI) / 180;

/**
 * How far and in which direction a place lies, on a sphere made flat: good to a thousandth within a town. Positions are
 * [longitude, latitude] in degrees; the bearing is in degrees from north.
 */
export function wayTo(
  from: readonly [number, number],
  to: readonly [number, number],
): { readonly distanceM: number; readonly bearingDeg: number } {
  const eastM = (to[0] - from[0]) * mPerDegree * Math.cos(rad((from[1] + to[1]) / 2));
  const northM = (to[1] - from[1]) * mPerDegree;
  const bearing = (Math.atan2(eastM, northM) * 180) / Math.PI;
  return { distanceM: Math.hypot(eastM, northM), bearingDeg: (bearing + 360) % 360 };
}
