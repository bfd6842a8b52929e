import { HttpClient } from '@angular/common/http';
import { computed, inject, Injectable, signal, type Signal } from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import { spotDetailSchema, type Role, type SpotDetail } from '@sombra/contract';
import { liveQuery } from 'dexie';
import {
  bufferCount,
  catchError,
  concatMap,
  filter,
  from,
  lastValueFrom,
  map,
  mergeMap,
  of,
  startWith,
  switchMap,
  tap,
  timer,
  toArray,
} from 'rxjs';
import * as z from 'zod';
import { SessionService } from '../session/session.service';
import { AlongStore, type KeptSpot } from './along-store';

/** What each role goes out to: the spots that wait for it. Others take along what they open. */
const goesOutTo: Partial<Readonly<Record<Role, Readonly<Record<string, string>>>>> = {
  crew_lead: { stage: 'day' },
  inspector: { stage: 'inspect', due: 'week', sort: 'dueOn' },
  waterer: { probe: 'dry,slightly_dry' },
};
const most = 120;
const atOnce = 3;
const keptAtOnce = 20;
/** What was opened by hand stays until so many others were. */
const openedMost = 60;
/** Taken anew once it is older than this and the application is open on a network. */
const staleMs = 30 * 60_000;
const settleMs = 5_000;

const listSchema = z.object({ lines: z.array(z.object({ spotId: z.string() })) });

/** Keeps on this device what its person needs where no server is reached. */
@Injectable({ providedIn: 'root' })
export class AlongService {
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  private readonly store = new AlongStore();
  private readonly walking = signal<{ readonly done: number; readonly of: number } | null>(null);
  private readonly failed = signal<string | null>(null);

  /** How far it is, while it takes along. */
  readonly progress = this.walking.asReadonly();
  readonly fault = this.failed.asReadonly();

  /** All that is kept here for the signed-in person. */
  private readonly kept: Signal<readonly KeptSpot[]> = toSignal(
    this.session.signedIn$.pipe(
      startWith(null),
      switchMap(() => from(liveQuery(() => this.mine())).pipe(catchError(() => of<KeptSpot[]>([])))),
    ),
    { initialValue: [] as KeptSpot[] },
  );
  readonly spots = this.kept;
  /** Whether the person's role goes out to something; others take along what they open. */
  readonly goesOut = computed(() => {
    const role = this.session.user()?.role;
    return role !== undefined && goesOutTo[role] !== undefined;
  });
  readonly ready = computed(() => {
    const taken = this.kept().filter((one) => one.taken);
    return {
      count: taken.length,
      bytes: this.kept().reduce((sum, { bytes }) => sum + bytes, 0),
      at: taken.length > 0 ? Math.min(...taken.map(({ keptAt }) => keptAt)) : null,
    };
  });

  constructor() {
    // Another person on this device: what was kept for the one before goes.
    this.session.signedIn$
      .pipe(takeUntilDestroyed())
      .subscribe(({ id }) => void this.store.spots.filter((one) => one.userId !== id).delete());
    this.session.signedOut$.pipe(takeUntilDestroyed()).subscribe(() => void this.store.spots.clear());
    this.session.signedIn$
      .pipe(
        startWith(this.session.user()),
        filter((user) => user !== null && !this.session.away()),
        // What the person opens comes first.
        switchMap(() => timer(settleMs)),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.takeIfStale());
  }

  /** Keeps a spot as it came, whatever it was opened for. */
  async keep(detail: SpotDetail): Promise<void> {
    try {
      const before = await this.store.spots.get(detail.spot.id);
      await this.store.spots.put(this.asKept(detail, before?.taken ?? false));
      await this.dropOpened(this.session.user()?.id ?? '');
    } catch {
      // Storage refused or full: the spot is shown all the same, and opens with the network alone.
    }
  }

  private asKept(detail: SpotDetail, taken: boolean): KeptSpot {
    const text = JSON.stringify(detail);
    return {
      id: detail.spot.id,
      treeId: detail.tree?.id ?? '',
      userId: this.session.user()?.id ?? '',
      ref: detail.spot.ref,
      body: JSON.parse(text) as unknown,
      bytes: text.length,
      keptAt: Date.now(),
      taken,
    };
  }

  /** A spot as it was kept; `null` where it is not here, or not this person's. */
  async find(source: { readonly kind: 'spot' | 'tree'; readonly id: string }): Promise<KeptSpot | null> {
    const { spots } = this.store;
    const found =
      source.kind === 'spot' ? await spots.get(source.id) : await spots.where({ treeId: source.id }).first();
    return found && found.userId === this.session.user()?.id ? found : null;
  }

  /** Takes along by itself where that was long ago, or never. */
  async takeIfStale(): Promise<void> {
    if (this.session.away()) return;
    const taken = (await this.mine()).filter((one) => one.taken);
    const oldest = Math.min(Infinity, ...taken.map(({ keptAt }) => keptAt));
    if (taken.length === 0 || Date.now() - oldest > staleMs) await this.take();
  }

  /** Takes along what the person's role goes out to; what is not due any more is let go. */
  async take(): Promise<void> {
    const role = this.session.user()?.role;
    const due = role && goesOutTo[role];
    if (!due || this.walking()) return;
    this.walking.set({ done: 0, of: 0 });
    this.failed.set(null);
    try {
      const list = await lastValueFrom(this.http.get('/api/spots', { params: { ...due, limit: most } }));
      const ids = listSchema.parse(list).lines.map(({ spotId }) => spotId);
      // Asked to stay: a browser short of room throws away what nobody asked to keep.
      void navigator.storage?.persist?.();
      await this.fetchAll(ids);
      await this.letGo(new Set(ids));
    } catch {
      this.failed.set(
        'Not everything could be taken along. What is here stays; try again where the network is better.',
      );
    } finally {
      this.walking.set(null);
    }
  }

  private async fetchAll(ids: readonly string[]): Promise<void> {
    this.walking.set({ done: 0, of: ids.length });
    const one = (id: string) =>
      this.http.get(`/api/spots/${id}`).pipe(
        map((body) => this.asKept(spotDetailSchema.parse(body) as SpotDetail, true)),
        catchError(() => of(null)),
        tap(() => this.walking.update((now) => now && { ...now, done: now.done + 1 })),
      );
    // Some at a time: whoever leaves in the middle has what came, and the device is not asked anew for each.
    const came = from(ids).pipe(
      mergeMap(one, atOnce),
      bufferCount(keptAtOnce),
      concatMap(async (some) => {
        const arrived = some.filter((spot) => spot !== null);
        await this.store.spots.bulkPut(arrived);
        return arrived.length;
      }),
      toArray(),
    );
    const kept = (await lastValueFrom(came)).reduce((sum, count) => sum + count, 0);
    if (kept < ids.length) throw new Error('some did not come');
  }

  private async letGo(due: ReadonlySet<string>): Promise<void> {
    for (const { id, taken } of await this.mine()) {
      if (taken && !due.has(id)) await this.store.spots.update(id, { taken: false });
    }
    await this.dropOpened(this.session.user()?.id ?? '');
  }

  /** The oldest that were only opened make room; never what was taken along. */
  private async dropOpened(userId: string): Promise<void> {
    if ((await this.store.spots.count()) <= openedMost) return;
    const opened = (await this.store.spots.orderBy('keptAt').toArray()).filter(
      (one) => !one.taken && one.userId === userId,
    );
    await this.store.spots.bulkDelete(opened.slice(0, Math.max(0, opened.length - openedMost)).map(({ id }) => id));
  }

  private async mine(): Promise<KeptSpot[]> {
    const userId = this.session.user()?.id ?? '';
    return this.store.spots.filter((one) => one.userId === userId).toArray();
  }
}
