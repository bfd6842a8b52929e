import type { DayDetail } from '@sombra/contract';
import { nameOfTeam } from '@sombra/core';

interface Way {
  readonly name: string;
  readonly stops: readonly { readonly ref: string; readonly position: readonly [number, number] }[];
}

/** Each team's trees in their order, from the gathering place where one is known. */
export function waysOf({ teams, people, trees, gathering, arrangements }: DayDetail): Way[] {
  const byId = new Map(trees.map((tree) => [tree.spotId, tree]));
  return teams.map(({ leadId, spotIds }, i) => ({
    name: `Team ${nameOfTeam(people.find(({ id }) => id === leadId)?.name, i)}`,
    stops: [
      ...(gathering ? [{ ref: arrangements.gathering || 'Gathering place', position: gathering }] : []),
      ...spotIds.flatMap((id) => byId.get(id) ?? []),
    ],
  }));
}

const escape = (text: string): string =>
  text.replace(/[&<>"']/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&apos;' })[c] ?? c);

/** GPX 1.1: a route for each team. */
export function gpxOf(detail: DayDetail): string {
  const routes = waysOf(detail).map(
    ({ name, stops }) =>
      `  <rte>\n    <name>${escape(name)}</name>\n${stops
        .map(
          ({ ref, position: [lng, lat] }) => `    <rtept lat="${lat}" lon="${lng}"><name>${escape(ref)}</name></rtept>`,
        )
        .join('\n')}\n  </rte>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>\n<gpx version="1.1" creator="Sombra" xmlns="http://www.topografix.com/GPX/1/1">\n${routes.join('\n')}\n</gpx>\n`;
}

/** GeoJSON (RFC 7946): a line and its points for each team. */
export function geojsonOf(detail: DayDetail): object {
  const features = waysOf(detail).flatMap(({ name, stops }) => [
    ...(stops.length > 1
      ? [
          {
            type: 'Feature',
            properties: { team: name },
            geometry: { type: 'LineString', coordinates: stops.map(({ position }) => position) },
          },
        ]
      : []),
    ...stops.map(({ ref, position }, i) => ({
      type: 'Feature',
      properties: { team: name, order: i + 1, ref },
      geometry: { type: 'Point', coordinates: position },
    })),
  ]);
  return { type: 'FeatureCollection', features };
}
