/** Metres east and north of the middle of the quay. */
export type Metres = readonly [x: number, y: number];

const origin = { lng: -25.4059, lat: 36.8955 };
const metresPerDegreeLat = 111_132;
const metresPerDegreeLng = 111_320 * Math.cos((origin.lat * Math.PI) / 180);

/** [longitude, latitude] of a place in the town, to about a decimetre. */
export const lngLat = ([x, y]: Metres): [number, number] => [
  Number((origin.lng + x / metresPerDegreeLng).toFixed(6)),
  Number((origin.lat + y / metresPerDegreeLat).toFixed(6)),
];

/** Half the width of the town and its depth from the quay to the hill, m. */
export const extent = { halfWidthM: 900, depthM: 1400 } as const;

/** The shore, m north of the quay's middle: a bay with a basin in its middle. */
export const shoreY = (x: number): number => -18 + 16 * Math.sin(x / 260) - 0.00004 * x * x;

/**
 * Height over the sea, m. It rises northward everywhere, so that each contour is a function of x: a plain by
 * the harbour, a gentle valley, a terrace edge and the hill.
 */
export function heightM([x, y]: Metres): number {
  const plain = 2 + 0.012 * Math.max(0, y);
  const valley = 0.032 * Math.max(0, y - 220);
  const terrace = 16 / (1 + Math.exp(-(y - 800 - 60 * Math.sin(x / 330)) / 45));
  const hill = 0.00011 * Math.max(0, y - 950) ** 2 * (1 + 0.25 * Math.cos(x / 420));
  return plain + valley + terrace + hill;
}

/** Fall of the ground: how steep, and the bearing it falls towards. */
export function fall([x, y]: Metres): { slopePct: number; towardsDeg: number } {
  const step = 2;
  const east = (heightM([x + step, y]) - heightM([x - step, y])) / (2 * step);
  const north = (heightM([x, y + step]) - heightM([x, y - step])) / (2 * step);
  const bearing = (Math.atan2(-east, -north) * 180) / Math.PI;
  return { slopePct: 100 * Math.hypot(east, north), towardsDeg: (bearing + 360) % 360 };
}

/** The line of a height across the town, west to east. */
export function contour(height: number): Metres[] {
  const points: Metres[] = [];
  for (let x = -extent.halfWidthM - 200; x <= extent.halfWidthM + 200; x += 20) {
    const y = northOfHeight(x, height);
    if (y !== null) points.push([x, y]);
  }
  return points;
}

/** Bisection: heights grow northward. */
function northOfHeight(x: number, height: number): number | null {
  let [low, high] = [0, extent.depthM + 250];
  if (heightM([x, low]) > height || heightM([x, high]) < height) return null;
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (heightM([x, middle]) < height) low = middle;
    else high = middle;
  }
  return low;
}
