/** Squares of the base map at these zooms are taken along: the first shows the town, the last is as near as they go. */
export const firstTileZoom = 12;
export const lastTileZoom = 17;

/** The square a place lies in, as fractions of the world (spherical Mercator, as all web maps cut it). */
function squareAt([lng, lat]: readonly [number, number], zoom: number): { x: number; y: number } {
  const most = 2 ** zoom - 1;
  const sin = Math.sin((lat * Math.PI) / 180);
  const x = Math.floor(((lng + 180) / 360) * 2 ** zoom);
  const y = Math.floor((0.5 - Math.log((1 + sin) / (1 - sin)) / (4 * Math.PI)) * 2 ** zoom);
  return { x: Math.min(most, Math.max(0, x)), y: Math.min(most, Math.max(0, y)) };
}

const mPerDegree = 111_195;

/**
 * The squares of the base map, `z/x/y`, that show places and so much around each; the far ones first, each once.
 * @param positions [longitude, latitude] in degrees
 * @param maxZoom as near as the map goes
 */
export function tilesAround(
  positions: readonly (readonly [number, number])[],
  marginM: number,
  maxZoom = lastTileZoom,
): string[] {
  const all = new Set<string>();
  for (let zoom = firstTileZoom; zoom <= Math.min(maxZoom, lastTileZoom); zoom++) {
    for (const [lng, lat] of positions) {
      const up = marginM / mPerDegree;
      const side = up / Math.max(0.05, Math.cos((lat * Math.PI) / 180));
      const from = squareAt([lng - side, lat + up], zoom);
      const to = squareAt([lng + side, lat - up], zoom);
      for (let x = from.x; x <= to.x; x++) for (let y = from.y; y <= to.y; y++) all.add(`${zoom}/${x}/${y}`);
    }
  }
  return [...all];
}
