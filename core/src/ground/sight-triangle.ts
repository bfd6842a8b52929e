/** Kerbs closer to parallel than this make no corner to look around. ° */
const leastAngleDeg = 15;

/**
 * Leg of the smallest sight triangle that holds a point: the triangle has its corner where two kerbs cross and runs
 * equally far along both. In the skew axes of the kerbs the legs are where |a| + |b| is the same. m
 *
 * `eastM` and `northM` lead from the corner to the point; kerbs by bearing, either way along them.
 */
export function sightTriangleLegM(
  at: { readonly eastM: number; readonly northM: number },
  kerbsDeg: readonly [number, number],
): number {
  const [first, second] = kerbsDeg.map((deg) => {
    const turn = (deg * Math.PI) / 180;
    return { east: Math.sin(turn), north: Math.cos(turn) };
  }) as [{ east: number; north: number }, { east: number; north: number }];
  const cross = first.east * second.north - first.north * second.east;
  if (Math.abs(cross) < Math.sin((leastAngleDeg * Math.PI) / 180)) return Math.hypot(at.eastM, at.northM);
  const along = (at.eastM * second.north - at.northM * second.east) / cross;
  const beside = (first.east * at.northM - first.north * at.eastM) / cross;
  return Math.abs(along) + Math.abs(beside);
}
