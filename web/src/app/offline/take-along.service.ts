import { inject, Injectable, Injector, signal } from '@angular/core';
import { serverTime } from '../session/device-clock';
import { SessionService } from '../session/session.service';
import { AlongStore } from './along-store';
import { roomLeft } from './room-left';
import type { Taking } from './take-all';

/** Taken anew once it is older than this and the application is open on a network. */
const staleMs = 30 * 60_000;
/** Less room than this is too little for a day of records and photos. */
const leastRoomBytes = 60_000_000;

/** Takes along what its person needs where no server is reached: by itself while a network is there, and when asked. */
@Injectable({ providedIn: 'root' })
export class TakeAlongService {
  private readonly injector = inject(Injector);
  private readonly session = inject(SessionService);
  private readonly store = inject(AlongStore);
  private readonly walking = signal<Taking | null>(null);
  private readonly failed = signal<string | null>(null);
  private readonly short = signal<number | null>(null);
  private readonly through = signal(false);
  private onceMore = false;
  /** When this page last found that there is nothing to take along, ms. */
  private foundNothingAt = -Infinity;

  /** How far it is, while it takes along. */
  readonly progress = this.walking.asReadonly();
  readonly fault = this.failed.asReadonly();
  /** All of it came, a moment before the device's own notes say so. */
  readonly isThrough = this.through.asReadonly();
  /** Room left on this device where that is too little, bytes. */
  readonly shortOfRoom = this.short.asReadonly();

  /** As each time somebody looks at the page: whoever goes out to nothing is not asked for it at each look. */
  async lookAgain(): Promise<void> {
    if (serverTime() - this.foundNothingAt > staleMs) await this.takeIfStale();
  }

  /** Takes along by itself where that was long ago, never, or cut short. */
  async takeIfStale(): Promise<void> {
    if (this.session.away()) return;
    const { spots, isWhole } = await this.store.summary(this.session.user()?.id ?? '');
    const taken = spots.filter((one) => one.taken);
    const oldest = Math.min(Infinity, ...taken.map(({ keptAt }) => keptAt));
    if (taken.length === 0 || !isWhole || serverTime() - oldest > staleMs) await this.take();
  }

  /** Takes along what the person is assigned and what their role goes out to; what is not due any more is let go. */
  async take(): Promise<void> {
    const user = this.session.user();
    if (!user || this.session.away()) return;
    if (this.walking()) {
      // What is asked meanwhile may be of another kind: once more when this is through.
      this.onceMore = true;
      return;
    }
    this.walking.set({ what: 'spots', done: 0, of: 0 });
    this.failed.set(null);
    this.through.set(false);
    try {
      // Asked to stay: a browser short of room throws away what nobody asked to keep.
      void navigator.storage?.persist?.();
      const { TakeAll } = await import('./take-all');
      const taker = this.injector.get(TakeAll);
      const work = await taker.workOf(user);
      if (work.spotIds.length > 0 || work.assigned.length > 0) await this.lookForRoom();
      await taker.take(work, (now) => this.walking.set(now));
      this.through.set(true);
      this.foundNothingAt = work.spotIds.length + work.assigned.length === 0 ? serverTime() : -Infinity;
    } catch {
      this.failed.set(
        'Not everything could be taken along. What is here stays; try again where the network is better.',
      );
    } finally {
      this.walking.set(null);
    }
    if (this.onceMore) {
      this.onceMore = false;
      await this.take();
    }
  }

  /** Says before anybody leaves that the device is nearly full; the map of before makes room first. */
  private async lookForRoom(): Promise<void> {
    const left = await roomLeft();
    if (left !== null && left < leastRoomBytes) await AlongStore.makeRoom();
    const now = await roomLeft();
    this.short.set(now !== null && now < leastRoomBytes ? now : null);
  }
}
