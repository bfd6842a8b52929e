import { booleanPointInPolygon } from '@turf/boolean-point-in-polygon';
import { Geodesic } from 'geographiclib-geodesic';

export type LngLat = readonly [lng: number, lat: number];

/** Length of a line on the WGS 84 ellipsoid, m, by Karney's geodesics (2013), good to nanometres. */
export function geodesicLengthM(points: readonly LngLat[]): number {
  return points.slice(1).reduce((sum, [lng, lat], i) => {
    const [fromLng, fromLat] = points[i] ?? [lng, lat];
    return sum + (Geodesic.WGS84.Inverse(fromLat, fromLng, lat, lng, Geodesic.DISTANCE).s12 ?? 0);
  }, 0);
}

/** The direction of a place at the start of the shortest way there, degrees from true north; 0 where one stands. */
export function geodesicBearingDeg([fromLng, fromLat]: LngLat, [lng, lat]: LngLat): number {
  const way = Geodesic.WGS84.Inverse(fromLat, fromLng, lat, lng, Geodesic.DISTANCE | Geodesic.AZIMUTH);
  return way.s12 === 0 ? 0 : ((way.azi1 ?? 0) + 360) % 360;
}

/** The place that lies so far away in a direction, metres and degrees from true north. */
export function geodesicFrom([lng, lat]: LngLat, bearingDeg: number, lengthM: number): LngLat {
  const { lat2 = lat, lon2 = lng } = Geodesic.WGS84.Direct(lat, lng, bearingDeg, lengthM);
  return [lon2, lat2];
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

/** Whether a place lies within a ring, its edge included; by even and odd where it crosses itself. */
export function isInside(place: LngLat, ring: readonly LngLat[]): boolean {
  const [first] = ring;
  if (!first || ring.length < 3) return false;
  const closed = [...ring, first].map(([lng, lat]) => [lng, lat]);
  return booleanPointInPolygon([...place], { type: 'Polygon', coordinates: [closed] });
}
