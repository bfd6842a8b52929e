import { Geodesic } from 'geographiclib-geodesic';

export type LngLat = readonly [lng: number, lat: number];

/** Length of a line on the WGS 84 ellipsoid, m, by Karney's geodesics (2013), good to nanometres. */
export function geodesicLengthM(points: readonly LngLat[]): number {
  return points.slice(1).reduce((sum, [lng, lat], i) => {
    const [fromLng, fromLat] = points[i] ?? [lng, lat];
    return sum + (Geodesic.WGS84.Inverse(fromLat, fromLng, lat, lng, Geodesic.DISTANCE).s12 ?? 0);
  }, 0);
}

/** Area of a ring on the WGS 84 ellipsoid, m², whichever way round it is drawn; 0 for fewer than three corners. */
export function geodesicAreaM2(ring: readonly LngLat[]): number {
  if (ring.length < 3) return 0;
  const polygon = Geodesic.WGS84.Polygon(false);
  for (const [lng, lat] of ring) polygon.AddPoint(lat, lng);
  return Math.abs(polygon.Compute(false, true).area ?? 0);
}

/** A drawn ring with at most so many corners, as the border takes it. */
export function thinned(points: readonly LngLat[], most = 200): LngLat[] {
  const step = Math.max(1, Math.ceil(points.length / most));
  return points
    .filter((_, i) => i % step === 0)
    .map(([lng, lat]): LngLat => [Number(lng.toFixed(6)), Number(lat.toFixed(6))]);
}

/** Whether a place lies within a ring (even–odd rule). */
export function isInside([x, y]: LngLat, ring: readonly LngLat[]): boolean {
  let inside = false;
  ring.forEach(([x1, y1], i) => {
    const [x2, y2] = ring[(i + 1) % ring.length] ?? [x1, y1];
    if (y1 > y !== y2 > y && x < ((x2 - x1) * (y - y1)) / (y2 - y1) + x1) inside = !inside;
  });
  return inside;
}
