import { inject, Injectable, signal, type OnDestroy } from '@angular/core';
import { SessionService } from '../session/session.service';

interface CompassEvent extends Event {
  readonly alpha: number | null;
  readonly absolute?: boolean;
  /** Apple's own, degrees from magnetic north. */
  readonly webkitCompassHeading?: number;
}

/** The heading a device reads off its magnet, degrees clockwise from magnetic north; `null` where it has none. */
export function magneticHeading(
  event: Pick<CompassEvent, 'alpha' | 'absolute' | 'webkitCompassHeading'>,
): number | null {
  if (typeof event.webkitCompassHeading === 'number') return event.webkitCompassHeading;
  // Angles that are not measured from north say nothing of where north is.
  if (event.alpha === null || event.absolute !== true) return null;
  return (360 - event.alpha) % 360;
}

/** How far east of true north a magnet points at a place, degrees (World Magnetic Model 2025). */
export async function declinationDeg([lng, lat]: readonly [number, number], at: Date): Promise<number> {
  const { default: geomagnetism } = await import('geomagnetism');
  return geomagnetism.model(at, { allowOutOfBoundsModel: true }).point([lat, lng]).decl;
}

/** How some browsers are asked for the compass; `null` where it need not be. */
function permission(): (() => Promise<string>) | null {
  const events = (globalThis as { DeviceOrientationEvent?: { requestPermission?: () => Promise<string> } })
    .DeviceOrientationEvent;
  return events?.requestPermission?.bind(events) ?? null;
}

/** Which way the top of this device points, from true north; only where it has a compass and may read it. */
@Injectable()
export class CompassService implements OnDestroy {
  private readonly session = inject(SessionService);
  private readonly held = signal<number | null>(null);
  readonly headingDeg = this.held.asReadonly();
  private stop: () => void = () => undefined;
  private turn = 0;
  private readonly asks = signal(false);
  /** Whether this browser tells which way it points only once its owner was asked, by a press. */
  readonly needsAsking = this.asks.asReadonly();

  /** Asks for the compass where the browser wants that; some give it only from a press. What follows it hears of it then. */
  async ask(): Promise<void> {
    const asked = permission();
    if (asked) this.asks.set((await asked().catch(() => 'denied')) !== 'granted');
  }

  /** Follows the compass; the declination is that of a place near by. */
  async follow(near: readonly [number, number]): Promise<void> {
    const turn = this.leave();
    void this.ask();
    const day = new Date(`${this.session.today()}T12:00:00Z`);
    const east = await declinationDeg(near, day).catch(() => 0);
    // Another tree is gone to meanwhile, or the page was left.
    if (turn !== this.turn) return;
    const read = (event: Event) => {
      const magnetic = magneticHeading(event as CompassEvent);
      if (magnetic === null) return;
      const turned = screen.orientation?.angle ?? 0;
      this.held.set((magnetic + east + turned + 360) % 360);
    };
    const names = ['deviceorientationabsolute', 'deviceorientation'];
    for (const name of names) window.addEventListener(name, read);
    this.stop = () => names.forEach((name) => window.removeEventListener(name, read));
  }

  /** Listens no more, and to nothing that is still on its way. */
  private leave(): number {
    this.stop();
    this.stop = () => undefined;
    return ++this.turn;
  }

  ngOnDestroy(): void {
    this.leave();
  }
}
