import { countUpToZoom, type MapInfo, type SpotFilter } from '@sombra/contract';
import type { FeatureCollection } from 'geojson';
import type {
  ExpressionSpecification,
  LayerSpecification,
  StyleSpecification,
  SymbolLayerSpecification,
} from 'maplibre-gl';
import { filterParams } from '../ui/view-state.service';
import type { Palette } from './palette';

const text = 'Atkinson Hyperlegible Next Variable';
const heading = 'Bitter Variable';

/** Address of the tiles of spots for a filter. */
export function spotTiles(filter: SpotFilter): string {
  const params = new URLSearchParams(filterParams(filter)).toString();
  return `${location.origin}/api/map/spots/{z}/{x}/{y}${params ? `?${params}` : ''}`;
}

/** What a device holds of the map, for where no server is reached. */
export interface KeptMap {
  /** A square of the base map, `z/x/y`; `null` where it was not taken along. */
  readonly tile: (at: string) => Promise<ArrayBuffer | null>;
  readonly maxZoom: number;
  /** Spots with what their marks tell: as in the tiles of the server. */
  readonly spots: FeatureCollection;
}
/** Addresses of squares that this device kept. */
export const keptScheme = 'kept';

/** The server's own layers, or the tiles of an uploaded file. */
function baseSource(info: MapInfo, kept: KeptMap | null): StyleSpecification['sources'][string] {
  if (kept) return { type: 'vector', tiles: [`${keptScheme}://{z}/{x}/{y}`], minzoom: 12, maxzoom: kept.maxZoom };
  if (info.pmtiles) return { type: 'vector', url: `pmtiles://${location.origin}/api/map/base.pmtiles` };
  const tiles = [`${location.origin}/api/map/base/{z}/{x}/{y}?stamp=${info.stamp}`];
  return { type: 'vector', tiles, minzoom: 8, maxzoom: 17 };
}

/** Width or radius of so many metres on the ground, in pixels, at every zoom. */
function metres(value: number | ExpressionSpecification, lat: number): ExpressionSpecification {
  const perMetre = (zoom: number) => (512 * 2 ** zoom) / (40_075_016 * Math.cos((lat * Math.PI) / 180));
  const at = (zoom: number) => ['*', perMetre(zoom), value] as unknown as ExpressionSpecification;
  return ['interpolate', ['exponential', 2], ['zoom'], 12, at(12), 22, at(22)];
}

const lineOf = (id: string, layer: string, paint: object, more: object = {}): LayerSpecification => ({
  id,
  type: 'line',
  source: 'base',
  'source-layer': layer,
  paint,
  layout: { 'line-join': 'round', 'line-cap': 'round' },
  ...more,
});

function baseLayers(colours: Palette, lat: number): LayerSpecification[] {
  return [
    { id: 'land', type: 'background', paint: { 'background-color': colours.land } },
    {
      id: 'water',
      type: 'fill',
      source: 'base',
      'source-layer': 'water',
      paint: { 'fill-color': colours['water-area'] },
    },
    lineOf('shore', 'water', { 'line-color': colours.shore, 'line-width': 1.6 }),
    { id: 'park', type: 'fill', source: 'base', 'source-layer': 'park', paint: { 'fill-color': colours.park } },
    lineOf('contour', 'contour', { 'line-color': colours.contour, 'line-width': 0.8 }),
    lineOf(
      'street-edge',
      'street',
      { 'line-color': colours['street-edge'], 'line-width': metres(17, lat) },
      { minzoom: 14 },
    ),
    lineOf('street', 'street', { 'line-color': colours.street, 'line-width': metres(15, lat) }),
    {
      id: 'building',
      type: 'fill',
      source: 'base',
      'source-layer': 'building',
      paint: { 'fill-color': colours.building, 'fill-outline-color': colours['building-edge'] },
    },
    lineOf('kerb', 'kerb', { 'line-color': colours['building-edge'], 'line-width': 0.8 }, { minzoom: 16.5 }),
    {
      id: 'driveway',
      type: 'fill',
      source: 'base',
      'source-layer': 'driveway',
      minzoom: 16.5,
      paint: { 'fill-color': colours['street-edge'] },
    },
    ...(['hydrant', 'lamp', 'sign'] as const).map((layer): LayerSpecification => ({
      id: layer,
      type: 'circle',
      source: 'base',
      'source-layer': layer,
      minzoom: 17.2,
      paint: {
        'circle-radius': layer === 'hydrant' ? 3.4 : 2.4,
        'circle-color': layer === 'hydrant' ? colours.water : colours.sheet,
        'circle-stroke-color': colours.quiet,
        'circle-stroke-width': 1,
      },
    })),
    lineOf('tram', 'tram', { 'line-color': colours.tram, 'line-width': 1.2, 'line-gap-width': 2.4 }),
    lineOf('wire', 'wire', { 'line-color': colours.wire, 'line-width': 1, 'line-dasharray': [1, 3] }),
  ];
}

/** Names stand over the marks, wide of them by a halo: where they meet, the name is read and the mark still seen. */
function nameLayers(colours: Palette): LayerSpecification[] {
  const haloed = { 'text-halo-color': colours.land, 'text-halo-width': 2.2 };
  return [
    {
      id: 'street-name',
      type: 'symbol',
      source: 'base',
      'source-layer': 'street',
      minzoom: 14.5,
      layout: {
        'symbol-placement': 'line',
        'symbol-spacing': 320,
        'text-field': ['get', 'name'],
        'text-font': [text],
        'text-size': ['interpolate', ['linear'], ['zoom'], 14, 11, 18, 15],
        'text-letter-spacing': 0.04,
      },
      paint: { 'text-color': colours.ink, ...haloed },
    },
    {
      id: 'park-name',
      type: 'symbol',
      source: 'base',
      'source-layer': 'park',
      minzoom: 15,
      layout: { 'text-field': ['get', 'name'], 'text-font': [heading], 'text-size': 13 },
      paint: { 'text-color': colours.ink, ...haloed },
    },
    {
      id: 'ticket-name',
      type: 'symbol',
      source: 'tickets',
      minzoom: 14.5,
      filter: ['==', ['geometry-type'], 'Point'],
      layout: {
        'text-field': ['get', 'name'],
        'text-font': [text],
        'text-size': 11,
        'text-anchor': 'bottom',
        'text-max-width': 14,
      },
      paint: { 'text-color': colours.act, ...haloed },
    },
  ];
}

const markIcon: ExpressionSpecification = [
  'case',
  ['boolean', ['get', 'planted'], false],
  ['concat', 'tree-', ['get', 'level'], '-', ['get', 'probe']],
  ['concat', 'spot-', ['get', 'stage']],
];

/** From here on there is room for every mark; further out what is well is a dot, and what needs somebody stands out. */
const nearZoom = 16.4;
const isCalm: ExpressionSpecification = [
  'all',
  ['boolean', ['get', 'planted'], false],
  ['match', ['get', 'level'], ['act', 'urgent'], false, true],
];

const markLayout: SymbolLayerSpecification['layout'] = {
  'icon-image': markIcon,
  'icon-allow-overlap': true,
  'icon-ignore-placement': true,
  'icon-size': ['interpolate', ['linear'], ['zoom'], 15, 0.5, 16.2, 0.66, 17.5, 1, 20, 1.25],
  'symbol-sort-key': ['match', ['get', 'level'], 'urgent', 3, 'act', 2, 'watch', 1, 0],
};

/** Layers a tap finds a spot in. */
export const markLayers = ['mark', 'mark-far', 'mark-dot'] as const;

function spotLayers(colours: Palette, lat: number, kept: boolean): LayerSpecification[] {
  // A few kept spots are marks at every zoom.
  const marks = kept
    ? ({ source: 'spots' } as const)
    : ({ source: 'spots', 'source-layer': 'spot', minzoom: countUpToZoom + 0.99 } as const);
  const counts = { source: 'spots', 'source-layer': 'count', maxzoom: countUpToZoom + 1 } as const;
  return [
    {
      id: 'ticket',
      type: 'fill',
      source: 'tickets',
      paint: { 'fill-color': colours.act, 'fill-opacity': 0.13 },
    },
    {
      id: 'zone',
      type: 'fill',
      source: 'zones',
      minzoom: 15,
      paint: { 'fill-color': colours.urgent, 'fill-opacity': 0.28 },
    },
    {
      id: 'zone-name',
      type: 'symbol',
      source: 'zones',
      minzoom: 17.5,
      layout: {
        'symbol-placement': 'line',
        'text-field': ['get', 'name'],
        'text-font': [text],
        'text-size': 11,
      },
      paint: { 'text-color': colours.urgent, 'text-halo-color': colours.paper, 'text-halo-width': 1.4 },
    },
    {
      id: 'ticket-edge',
      type: 'line',
      source: 'tickets',
      paint: { 'line-color': colours.act, 'line-width': 1.4, 'line-dasharray': [4, 2] },
    },
    {
      id: 'crown',
      type: 'circle',
      ...marks,
      minzoom: 16.3,
      filter: ['>', ['coalesce', ['get', 'crown'], 0], 0],
      paint: {
        'circle-radius': metres(['/', ['coalesce', ['get', 'crown'], 0], 2], lat),
        'circle-color': colours.leaf,
        'circle-opacity': 0.28,
        'circle-stroke-color': colours.leaf,
        'circle-stroke-width': 1,
        'circle-pitch-alignment': 'map',
      },
    },
    {
      id: 'day-spot',
      type: 'circle',
      source: 'days',
      minzoom: countUpToZoom + 0.99,
      paint: {
        'circle-radius': ['interpolate', ['linear'], ['zoom'], 15, 7, 17.5, 13],
        'circle-color': 'rgba(0,0,0,0)',
        'circle-stroke-color': colours.ink,
        'circle-stroke-width': 1.2,
      },
    },
    {
      id: 'chosen',
      type: 'circle',
      source: 'noticed',
      paint: {
        'circle-radius': ['interpolate', ['linear'], ['zoom'], 15, 9, 17.5, 15],
        'circle-color': colours.chosen,
        'circle-opacity': ['match', ['get', 'which'], 'open', 0.35, 0.18],
        'circle-stroke-color': colours.chosen,
        'circle-stroke-width': ['match', ['get', 'which'], 'open', 3, 2],
      },
    },
    {
      id: 'mark-dot',
      type: 'circle',
      ...marks,
      maxzoom: nearZoom,
      filter: isCalm,
      paint: {
        'circle-radius': ['interpolate', ['linear'], ['zoom'], 14, 1.8, nearZoom, 3.4],
        'circle-color': ['match', ['get', 'probe'], ['dry', 'slightly_dry', 'unknown'], colours.sheet, colours.water],
        'circle-stroke-color': colours.ink,
        'circle-stroke-width': 1,
      },
    },
    { id: 'mark-far', type: 'symbol', ...marks, maxzoom: nearZoom, filter: ['!', isCalm], layout: markLayout },
    { id: 'mark', type: 'symbol', ...marks, minzoom: nearZoom, layout: markLayout },
    {
      id: 'mark-name',
      type: 'symbol',
      ...marks,
      minzoom: 17.4,
      layout: {
        'text-field': [
          'step',
          ['zoom'],
          ['get', 'ref'],
          18.6,
          ['concat', ['get', 'ref'], '\n', ['coalesce', ['get', 'species'], '']],
        ],
        'text-font': [text],
        'text-size': 12,
        'text-offset': [0, 1.25],
        'text-anchor': 'top',
        'text-optional': true,
      },
      paint: { 'text-color': colours.ink, 'text-halo-color': colours.sheet, 'text-halo-width': 1.5 },
    },
    {
      id: 'count',
      type: 'circle',
      ...counts,
      paint: {
        'circle-radius': ['interpolate', ['linear'], ['sqrt', ['get', 'spots']], 1, 9, 12, 19, 60, 34],
        'circle-color': colours.sheet,
        'circle-stroke-color': [
          'case',
          ['>', ['get', 'urgent'], 0],
          colours.urgent,
          ['>', ['get', 'act'], 0],
          colours.act,
          colours.ink,
        ],
        'circle-stroke-width': ['case', ['>', ['get', 'urgent'], 0], 3, ['>', ['get', 'act'], 0], 2, 1.2],
      },
    },
    {
      id: 'count-name',
      type: 'symbol',
      ...counts,
      layout: {
        'text-field': [
          'concat',
          ['to-string', ['get', 'spots']],
          ['case', ['>', ['get', 'urgent'], 0], ['concat', '\n◆', ['to-string', ['get', 'urgent']]], ''],
        ],
        'text-font': [text],
        'text-size': 12,
        'text-allow-overlap': true,
      },
      paint: { 'text-color': colours.ink },
    },
  ];
}

/** What a person is drawing: a lasso, a measured line, a place picked. */
function drawnLayers(colours: Palette): LayerSpecification[] {
  const drawn = { source: 'drawn' } as const;
  return [
    {
      id: 'drawn-area',
      type: 'fill',
      ...drawn,
      filter: ['==', ['geometry-type'], 'Polygon'],
      paint: { 'fill-color': colours.chosen, 'fill-opacity': 0.12 },
    },
    {
      id: 'drawn-line',
      type: 'line',
      ...drawn,
      paint: { 'line-color': colours.chosen, 'line-width': 2.4, 'line-dasharray': [2, 1] },
    },
    {
      id: 'drawn-point',
      type: 'circle',
      ...drawn,
      filter: ['==', ['geometry-type'], 'Point'],
      paint: {
        'circle-radius': 6,
        'circle-color': colours.chosen,
        'circle-stroke-color': colours.sheet,
        'circle-stroke-width': 2,
      },
    },
  ];
}

/** Counts by area stand in tiles of the server alone. */
const hasNoCounts = ({ id }: LayerSpecification): boolean => !id.startsWith('count');

const nothing = { type: 'FeatureCollection', features: [] } as const;

export function mapStyle(given: {
  info: MapInfo;
  filter: SpotFilter;
  colours: Palette;
  lat: number;
  kept?: KeptMap | null;
}): StyleSpecification {
  const { info, filter, colours, lat, kept = null } = given;
  const spots = spotLayers(colours, lat, kept !== null);
  return {
    version: 8,
    sources: {
      base: baseSource(info, kept),
      spots: kept
        ? { type: 'geojson', data: kept.spots }
        : { type: 'vector', tiles: [spotTiles(filter)], minzoom: 6, maxzoom: 18 },
      tickets: { type: 'geojson', data: { ...nothing, features: [] } },
      zones: { type: 'geojson', data: { ...nothing, features: [] } },
      days: { type: 'geojson', data: { ...nothing, features: [] } },
      noticed: { type: 'geojson', data: { ...nothing, features: [] } },
      drawn: { type: 'geojson', data: { ...nothing, features: [] } },
    },
    layers: [
      ...baseLayers(colours, lat),
      ...(kept ? spots.filter(hasNoCounts) : spots),
      ...nameLayers(colours),
      ...drawnLayers(colours),
    ],
  };
}
