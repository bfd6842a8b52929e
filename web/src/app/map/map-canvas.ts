import type { Feature, FeatureCollection, GeoJsonProperties, Geometry } from 'geojson';
import type { Booked, MapInfo, SpotFilter } from '@sombra/contract';
import { sayIsoDay } from '@sombra/core';
import {
  Map as GlMap,
  ScaleControl,
  addProtocol,
  setWorkerUrl,
  type AddProtocolAction,
  type GeoJSONSource,
  type VectorTileSource,
} from 'maplibre-gl';
import { Protocol } from 'pmtiles';
import { keptScheme, mapStyle, markLayers, spotTiles, type KeptMap } from './map-style';
import { allMarks, markName, markPixels } from './marks';
import { geodesicLengthM, type LngLat } from './measure';
import { readPalette } from './palette';

setWorkerUrl(`${document.baseURI}map/maplibre-gl-worker.mjs`);
addProtocol('pmtiles', new Protocol().tile);

export interface Camera {
  readonly zoom: number;
  readonly center: LngLat;
}

export interface CanvasOptions {
  readonly container: HTMLElement;
  readonly info: MapInfo;
  readonly filter: SpotFilter;
  readonly camera: Camera | null;
  readonly unit: 'metric' | 'imperial';
  /** Drawn from what this device holds alone. */
  readonly kept?: KeptMap | null;
}

const usualZoom = 15.4;

/** The one place that knows the map library: what the rest of Sombra asks of a map, in its own words. */
export class MapCanvas {
  private readonly map: GlMap;
  private readonly lat: number;
  /** Kept spots as they were shown last: painted anew they are still there. */
  private kept: KeptMap | null;

  constructor(private readonly options: CanvasOptions) {
    const { container, info, filter, camera, kept = null } = options;
    this.kept = kept;
    if (kept) addProtocol(keptScheme, tileOf(kept));
    const middle = middleOf(info);
    this.lat = middle[1];
    this.map = new GlMap({
      container,
      style: mapStyle({ info, filter, colours: readPalette(), lat: this.lat, kept }),
      center: [...(camera?.center ?? middle)] as [number, number],
      zoom: camera?.zoom ?? usualZoom,
      minZoom: 9,
      maxZoom: 21,
      attributionControl: false,
      dragRotate: false,
      pitchWithRotate: false,
      fadeDuration: 0,
    });
    this.map.touchZoomRotate.disableRotation();
    this.map.addControl(new ScaleControl({ unit: options.unit, maxWidth: 120 }), 'bottom-right');
    this.map.on('styleimagemissing', () => undefined);
    this.addMarks();
  }

  private addMarks(): void {
    const colours = readPalette();
    for (const mark of allMarks()) {
      const pixels = markPixels(mark, colours);
      if (!pixels) continue;
      if (this.map.hasImage(markName(mark))) this.map.removeImage(markName(mark));
      this.map.addImage(markName(mark), pixels, { pixelRatio: 2 });
    }
  }

  /** Paints everything anew in the colours of the theme. */
  repaint(filter: SpotFilter): void {
    const { kept, lat } = this;
    this.map.setStyle(mapStyle({ info: this.options.info, filter, colours: readPalette(), lat, kept }), {
      diff: false,
    });
  }

  onceStyled(act: () => void): void {
    this.map.once('style.load', () => {
      this.addMarks();
      act();
    });
  }

  get camera(): Camera {
    const { lng, lat } = this.map.getCenter();
    return { zoom: this.map.getZoom(), center: [lng, lat] };
  }

  onMoved(act: (camera: Camera) => void): void {
    this.map.on('moveend', () => act(this.camera));
  }

  onReady(act: () => void): void {
    this.map.on('load', act);
  }

  /** Says when everything asked for stands drawn, and when more is on its way. */
  onDrawn(act: (drawn: boolean) => void): void {
    this.map.on('idle', () => act(true));
    this.map.on('dataloading', () => act(false));
    this.map.on('movestart', () => act(false));
  }

  onClick(act: (at: LngLat, spotId: string | null, event: MouseEvent) => void): void {
    this.map.on('click', (event) => {
      const near = 9;
      const { x, y } = event.point;
      const box: [[number, number], [number, number]] = [
        [x - near, y - near],
        [x + near, y + near],
      ];
      const layers = markLayers.filter((name) => this.map.getLayer(name));
      const found = this.map.queryRenderedFeatures(box, { layers });
      const id: unknown = found[0]?.properties['id'];
      const zoomable = this.map.getLayer('count') ? this.map.queryRenderedFeatures(box, { layers: ['count'] }) : [];
      if (!id && zoomable.length > 0) this.map.easeTo({ center: event.lngLat, zoom: this.map.getZoom() + 2 });
      else act([event.lngLat.lng, event.lngLat.lat], typeof id === 'string' ? id : null, event.originalEvent);
    });
    this.map.on('mousemove', [...markLayers], () => (this.map.getCanvas().style.cursor = 'pointer'));
    this.map.on('mouseleave', [...markLayers], () => (this.map.getCanvas().style.cursor = ''));
  }

  /** Follows a finger or a mouse held down, instead of panning, until it is let go. */
  lasso(follow: (ring: readonly LngLat[]) => void, done: (ring: readonly LngLat[]) => void): () => void {
    const canvas = this.map.getCanvas();
    let ring: LngLat[] | null = null;
    const at = (event: PointerEvent): LngLat => {
      const { left, top } = canvas.getBoundingClientRect();
      const { lng, lat } = this.map.unproject([event.clientX - left, event.clientY - top]);
      return [lng, lat];
    };
    const down = (event: PointerEvent) => {
      ring = [at(event)];
      canvas.setPointerCapture(event.pointerId);
    };
    const move = (event: PointerEvent) => {
      if (!ring) return;
      ring.push(at(event));
      follow(ring);
    };
    const up = () => {
      if (ring && ring.length > 2) done(ring);
      ring = null;
    };
    this.map.dragPan.disable();
    canvas.addEventListener('pointerdown', down);
    canvas.addEventListener('pointermove', move);
    canvas.addEventListener('pointerup', up);
    return () => {
      this.map.dragPan.enable();
      canvas.removeEventListener('pointerdown', down);
      canvas.removeEventListener('pointermove', move);
      canvas.removeEventListener('pointerup', up);
    };
  }

  /** Shows what a filter leaves; what is shown already is not asked for again. */
  show(filter: SpotFilter): void {
    const tiles = spotTiles(filter);
    const source = this.map.getSource<VectorTileSource>('spots');
    if (source && source.tiles[0] !== tiles) source.setTiles([tiles]);
  }

  /** Reads the tiles again; the old ones stay until the new ones are here. */
  refresh(): void {
    if (this.map.getSource('spots')) this.map.refreshTiles('spots');
  }

  /** Puts other kept spots in the place of those that are drawn. */
  showKept(spots: FeatureCollection): void {
    if (this.kept) this.kept = { ...this.kept, spots };
    void this.map.getSource<GeoJSONSource>('spots')?.setData(spots);
  }

  /** Brings all of an area into view: west, south, east, north. */
  fit([west, south, east, north]: readonly [number, number, number, number], durationMs = 0): void {
    const corners: [[number, number], [number, number]] = [
      [west, south],
      [east, north],
    ];
    this.map.fitBounds(corners, { padding: 40, maxZoom: 17, duration: durationMs });
  }

  /** Where this person stands, as well as the device knows. */
  stand(at: LngLat, accuracyM: number): void {
    const ring = circleAround(at, accuracyM);
    this.draw({ ring, points: [at] });
  }

  /** Rings the open spot and the chosen ones. */
  notice(open: LngLat | null, chosen: readonly LngLat[]): void {
    const point = (at: LngLat, which: 'open' | 'chosen') => feature({ type: 'Point', coordinates: [...at] }, { which });
    this.put('noticed', [...chosen.map((at) => point(at, 'chosen')), ...(open ? [point(open, 'open')] : [])]);
  }

  book({ days, tickets, zones }: Booked): void {
    this.put(
      'zones',
      zones.flatMap(({ utility, toleranceMm, rings }) =>
        rings.map((ring) =>
          feature({ type: 'Polygon', coordinates: [ring] }, { name: `${utility}: hand-dig ${toleranceMm} mm` }),
        ),
      ),
    );
    this.put(
      'tickets',
      tickets.flatMap(({ number, validUntil, area }) => [
        ...area.map((ring) => feature({ type: 'Polygon', coordinates: [ring] })),
        // Named once, at its northern end.
        ...northmost(area).map((at) =>
          feature({ type: 'Point', coordinates: at }, { name: `${number} until ${sayIsoDay(validUntil)}` }),
        ),
      ]),
    );
    this.put(
      'days',
      days.slice(0, 1).flatMap(({ spots }) => spots.map((at) => feature({ type: 'Point', coordinates: at }))),
    );
  }

  draw(drawn: { ring?: readonly LngLat[]; line?: readonly LngLat[]; points?: readonly LngLat[] }): void {
    const { ring = [], line = [], points = [] } = drawn;
    const all: Feature[] = points.map((at) => feature({ type: 'Point', coordinates: [...at] }));
    if (line.length > 1) all.push(feature({ type: 'LineString', coordinates: line.map((at) => [...at]) }));
    if (ring.length > 2)
      all.push(feature({ type: 'Polygon', coordinates: [[...ring, ...ring.slice(0, 1)].map((at) => [...at])] }));
    this.put('drawn', all);
  }

  private put(source: string, features: Feature[]): void {
    void this.map.getSource<GeoJSONSource>(source)?.setData({ type: 'FeatureCollection', features });
  }

  flyTo(at: LngLat, zoom = Math.max(17, this.map.getZoom())): void {
    this.map.easeTo({ center: [at[0], at[1]], zoom, duration: 400 });
  }

  /** Brings a place into view only where it is out of it; on a phone above the bench that rises from below. */
  reveal(at: LngLat): void {
    const { clientHeight } = this.map.getContainer();
    if (window.innerWidth <= 720) {
      this.map.easeTo({ center: [at[0], at[1]], offset: [0, -0.36 * clientHeight], duration: 400 });
    } else if (!this.map.getBounds().contains([at[0], at[1]])) this.flyTo(at);
  }

  /** From edge to edge. */
  get widthM(): number {
    const bounds = this.map.getBounds();
    const { lat } = this.map.getCenter();
    return geodesicLengthM([
      [bounds.getWest(), lat],
      [bounds.getEast(), lat],
    ]);
  }

  zoomBy(step: number): void {
    this.map.easeTo({ zoom: this.map.getZoom() + step, duration: 200 });
  }

  /** The map as it stands, as a picture for paper. */
  picture(): Promise<string> {
    return new Promise((resolve) => {
      this.map.once('render', () => resolve(this.map.getCanvas().toDataURL('image/png')));
      this.map.triggerRepaint();
    });
  }

  destroy(): void {
    this.map.remove();
  }
}

const feature = (geometry: Geometry, properties: GeoJsonProperties = {}): Feature => ({
  type: 'Feature',
  geometry,
  properties,
});

const northmost = (rings: readonly (readonly [number, number][])[]): [number, number][] =>
  rings
    .flat()
    .sort(([, a], [, b]) => b - a)
    .slice(0, 1);

/** Squares as this device kept them; one it does not have is empty ground. */
const tileOf =
  (kept: KeptMap): AddProtocolAction =>
  async ({ url }) => ({ data: (await kept.tile(url.replace(`${keptScheme}://`, ''))) ?? new ArrayBuffer(0) });

const mPerDegree = 111_195;
function circleAround([lng, lat]: LngLat, radiusM: number): LngLat[] {
  const up = radiusM / mPerDegree;
  const side = up / Math.cos((lat * Math.PI) / 180);
  const corners = Array.from({ length: 36 }, (_, i) => (i * Math.PI) / 18);
  return corners.map((at) => [lng + side * Math.cos(at), lat + up * Math.sin(at)]);
}

function middleOf({ bounds, centre }: MapInfo): LngLat {
  if (!bounds) return centre;
  const [west, south, east, north] = bounds;
  return [(west + east) / 2, (south + north) / 2];
}
