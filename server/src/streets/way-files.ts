/** A way through named places, in their order. */
export interface Way {
  readonly name: string;
  readonly stops: readonly { readonly ref: string; readonly position: readonly [number, number] }[];
}

const escape = (text: string): string =>
  text.replace(/[&<>"']/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&apos;' })[c] ?? c);

/** GPX 1.1: a route for each way. */
export function gpxOf(ways: readonly Way[]): string {
  const routes = ways.map(
    ({ name, stops }) =>
      `  <rte>\n    <name>${escape(name)}</name>\n${stops
        .map(
          ({ ref, position: [lng, lat] }) => `    <rtept lat="${lat}" lon="${lng}"><name>${escape(ref)}</name></rtept>`,
        )
        .join('\n')}\n  </rte>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>\n<gpx version="1.1" creator="Sombra" xmlns="http://www.topografix.com/GPX/1/1">\n${routes.join('\n')}\n</gpx>\n`;
}

/** GeoJSON (RFC 7946): a line and its points for each way. @param whose what a way's name is called in its properties */
export function geojsonOf(ways: readonly Way[], whose: string): object {
  const features = ways.flatMap(({ name, stops }) => [
    ...(stops.length > 1
      ? [
          {
            type: 'Feature',
            properties: { [whose]: name },
            geometry: { type: 'LineString', coordinates: stops.map(({ position }) => position) },
          },
        ]
      : []),
    ...stops.map(({ ref, position }, i) => ({
      type: 'Feature',
      properties: { [whose]: name, order: i + 1, ref },
      geometry: { type: 'Point', coordinates: position },
    })),
  ]);
  return { type: 'FeatureCollection', features };
}
