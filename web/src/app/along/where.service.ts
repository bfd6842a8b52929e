import { computed, inject, Injectable, signal } from '@angular/core';
import { compassPoint, formatQuantity } from '@sombra/core';
import { SessionService } from '../session/session.service';

type Measure = typeof import('../map/measure');
type LngLat = readonly [number, number];
export interface Fix {
  readonly position: LngLat;
  readonly accuracyM: number;
}

/** A fix further from everything that was taken along than this is taken for a wrong one. m */
export const farM = 3000;

/** Where this device says it is, once it was asked. */
@Injectable()
export class WhereService {
  private readonly session = inject(SessionService);
  private readonly held = signal<Fix | null>(null);
  private readonly failed = signal<string | null>(null);
  private watching: number | null = null;
  readonly fix = this.held.asReadonly();
  readonly fault = this.failed.asReadonly();
  /** How lengths are measured on the ellipsoid: fetched once somebody asks where this is. */
  private readonly measure = signal<Measure | null>(null);
  readonly here = computed<LngLat | null>(() => (this.measure() && this.held()?.position) ?? null);

  /** Follows it from now on, until the page is left. */
  follow(): void {
    this.failed.set(null);
    if (!('geolocation' in navigator)) {
      this.failed.set('This device does not say where it is. The list stands in its own order.');
      return;
    }
    this.stop();
    void import('../map/measure').then(
      (measure) => this.measure.set(measure),
      () => this.failed.set('This page could not be fetched whole. The list stands in its own order.'),
    );
    this.watching = navigator.geolocation.watchPosition(
      ({ coords }) => {
        this.failed.set(null);
        this.held.set({ position: [coords.longitude, coords.latitude], accuracyM: coords.accuracy });
      },
      ({ code }) =>
        this.failed.set(
          code === 1
            ? 'This browser may not say where it is: allow it in the settings of the page. The list stands in its own order.'
            : 'No position just now. The list stands in its own order.',
        ),
      { enableHighAccuracy: true, timeout: 20_000, maximumAge: 15_000 },
    );
  }

  stop(): void {
    if (this.watching !== null) navigator.geolocation.clearWatch(this.watching);
    this.watching = null;
  }

  /** How far a place is, m; `null` where nobody knows where this is. */
  distanceM(to: LngLat): number | null {
    const [here, measure] = [this.here(), this.measure()];
    return here && measure && measure.geodesicLengthM([here, to]);
  }

  /** `120 m NE`. */
  way(to: LngLat): string {
    const [here, measure] = [this.here(), this.measure()];
    const metres = this.distanceM(to);
    if (!here || !measure || metres === null) return '';
    const bearing = measure.geodesicBearingDeg(here, to);
    return `${formatQuantity(metres, 'distanceM', this.session.units())} ${compassPoint(bearing)}`;
  }

  /** Far from every one of these: the position is a wrong one, or this is the wrong town. */
  isFarFrom(places: readonly LngLat[]): boolean {
    return this.here() !== null && places.length > 0 && places.every((to) => (this.distanceM(to) ?? 0) > farM);
  }
}
