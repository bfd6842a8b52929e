import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { mapSchema, type MapInfo } from '@sombra/contract';
import type { Feature, FeatureCollection } from 'geojson';
import { AlongService } from '../offline/along.service';
import { lastTileZoom } from '../offline/tiles';
import { SessionService } from '../session/session.service';
import { ThemeService } from '../ui/theme.service';
import type { MapCanvas } from '../map/map-canvas';
import type { Stop } from './stop';
import type { Fix } from './where.service';

const nowhere: MapInfo = { layers: [], pmtiles: null, centre: [0, 0], bounds: null, stamp: '' };

/** The map as it was taken along: the spots that are here, and where one stands. */
@Component({
  selector: 's-along-map',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="box" #box role="region" aria-label="Map of what is here; the list below holds the same"></div>
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    .box {
      height: min(60vh, 34rem);
      border: 1px solid var(--line);
      background: var(--land);
    }
  `,
})
export class AlongMap {
  readonly stops = input.required<readonly Stop[]>();
  readonly fix = input<Fix | null>(null);
  readonly opened = output<string>();
  private readonly along = inject(AlongService);
  private readonly session = inject(SessionService);
  private readonly box = viewChild.required<ElementRef<HTMLElement>>('box');
  private drawn: MapCanvas | null = null;
  /** While it takes anything: not before it is styled. */
  private readonly canvas = signal<MapCanvas | null>(null);
  protected readonly fault = signal<string | null>(null);

  constructor() {
    const destroyed = inject(DestroyRef);
    destroyed.onDestroy(() => this.drawn?.destroy());
    afterNextRender(() => void this.start());
    effect(() => {
      const fix = this.fix();
      if (fix) this.canvas()?.stand([...fix.position], fix.accuracyM);
    });
    // The device reads what it kept after the page stands: the spots come later than the map.
    let fitted = false;
    effect(() => {
      const [canvas, stops] = [this.canvas(), this.stops()];
      if (!canvas || stops.length === 0) return;
      canvas.showKept(collectionOf(stops));
      const bounds = boundsOf(stops);
      if (bounds && !fitted) canvas.fit(bounds);
      fitted = true;
    });
    const theme = inject(ThemeService);
    effect(() => {
      theme.dark();
      if (untracked(this.canvas)) requestAnimationFrame(() => this.repaint());
    });
  }

  /** In the colours of the theme; what is drawn on the map is set again once it is styled. */
  private repaint(): void {
    const canvas = this.canvas();
    this.canvas.set(null);
    canvas?.repaint({});
    canvas?.onceStyled(() => this.canvas.set(canvas));
  }

  private async start(): Promise<void> {
    try {
      const { MapCanvas } = await import('../map/map-canvas');
      const info = mapSchema.safeParse(await this.along.answer('/api/map')).data ?? nowhere;
      const stops = this.stops();
      const canvas = (this.drawn = new MapCanvas({
        container: this.box().nativeElement,
        info: { ...info, bounds: boundsOf(stops) ?? info.bounds },
        filter: {},
        camera: null,
        unit: this.session.units() === 'us' ? 'imperial' : 'metric',
        kept: {
          tile: (at) => this.along.tile(at),
          maxZoom: this.session.away() ? await this.along.nearestZoom() : lastTileZoom,
          spots: collectionOf(stops),
        },
      }));
      canvas.onReady(() => this.canvas.set(canvas));
      canvas.onClick((_at, spotId) => {
        if (spotId) this.opened.emit(spotId);
      });
    } catch {
      this.fault.set('The map could not be drawn on this device. The list below holds the same.');
    }
  }
}

const collectionOf = (stops: readonly Stop[]): FeatureCollection => ({
  type: 'FeatureCollection',
  features: stops.map(featureOf),
});

/** What a mark tells, spelt as in the tiles of the server. */
function featureOf({ id, ref, species, position, life }: Stop): Feature {
  const probe = life?.inspections.map(({ record }) => record.facts.probe).findLast((one) => one !== null) ?? 'unknown';
  const planted = !!life?.planting;
  const properties = { id, ref, species, planted, level: life?.level ?? 'good', probe, stage: life?.stage ?? 'ground' };
  return { type: 'Feature', geometry: { type: 'Point', coordinates: [...position] }, properties };
}

function boundsOf(stops: readonly Stop[]): MapInfo['bounds'] {
  if (stops.length === 0) return null;
  const lngs = stops.map(({ position }) => position[0]);
  const lats = stops.map(({ position }) => position[1]);
  return [Math.min(...lngs), Math.min(...lats), Math.max(...lngs), Math.max(...lats)];
}
