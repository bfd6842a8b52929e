import { HttpClient } from '@angular/common/http';
import { computed, inject, Injectable, signal, type Signal } from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import {
  assignmentsSchema,
  may,
  type Assignment,
  type MapInfo,
  type PlantingDays,
  type Role,
  type SpotDetail,
} from '@sombra/contract';
import { addDaysTo } from '@sombra/core';
import { liveQuery } from 'dexie';
import {
  bufferCount,
  catchError,
  concatMap,
  defer,
  filter,
  firstValueFrom,
  from,
  lastValueFrom,
  map,
  mergeMap,
  of,
  switchMap,
  take,
  tap,
  timer,
  toArray,
  type Observable,
} from 'rxjs';
import * as z from 'zod';
import { serverTime } from '../session/device-clock';
import { dayMs, opensForDays } from '../session/device-marks';
import { SessionService } from '../session/session.service';
import { whoIsIn } from '../session/who-is-in';
import { whenIdle } from '../ui/when-idle';
import { AlongStore, type KeptSpot } from './along-store';
import { baseTileSource, type BaseTiles } from './base-tiles';
import { firstTileZoom, tilesAround } from './tiles';

/** What each role goes out to besides what it is assigned: the spots that wait for it. */
const goesOutTo: Partial<Readonly<Record<Role, Readonly<Record<string, string>>>>> = {
  crew_lead: { stage: 'day' },
  inspector: { due: 'week', planted: 'yes' },
  waterer: { probe: 'dry,slightly_dry' },
};
const most = 120;
const atOnce = 3;
const tilesAtOnce = 6;
const keptAtOnce = 20;
/** What was opened by hand stays until so many others were. */
const openedMost = 60;
/** Taken anew once it is older than this and the application is open on a network. */
const staleMs = 30 * 60_000;
const settleMs = 5_000;
/** So much of the map around each spot. */
const marginM = 300;
const photoPx = 400;
const mostDeliveries = 6;
const daysAhead = 8;
/** Less room than this is too little for a day of records and photos. */
const leastRoomBytes = 60_000_000;

const noExtras = { tiles: 0, photos: 0, deliveries: 0, bytes: 0 };

const listSchema = z.object({ lines: z.array(z.object({ spotId: z.string() })) });

type Summary = Awaited<ReturnType<AlongStore['summary']>>;

interface Walk {
  readonly what: string;
  readonly done: number;
  readonly of: number;
}

const shapes = () => import('./along-shapes');

/** Keeps on this device what its person needs where no server is reached. */
@Injectable({ providedIn: 'root' })
export class AlongService {
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  private readonly store = inject(AlongStore);
  private readonly walking = signal<Walk | null>(null);
  private readonly failed = signal<string | null>(null);
  private readonly short = signal<number | null>(null);

  /** How far it is, while it takes along. */
  readonly progress = this.walking.asReadonly();
  private onceMore = false;
  readonly fault = this.failed.asReadonly();
  /** Room left on this device where that is too little, bytes. */
  readonly shortOfRoom = this.short.asReadonly();

  private readonly kept = this.live<Summary | null>(() => this.store.summary(this.session.user()?.id ?? ''), [], null);
  private readonly assigned = this.live<Assignment[] | null>(() => this.readAssignments(), [], null);
  /** What the signed-in person is sent out to. */
  readonly assignments = computed<readonly Assignment[]>(() => this.assigned() ?? []);
  /** Whether that was read: before, nobody knows that it is nothing. */
  readonly isRead = computed(() => this.assigned() !== null);
  /** Squares of the map, photos and deliveries that are kept, and what all of them weigh. */
  readonly kinds = this.live(() => this.store.extras(), noExtras, noExtras);

  /** Whether the person goes out to something; others take along what they open. */
  readonly goesOut = computed(() => {
    const role = this.session.user()?.role;
    return (role !== undefined && goesOutTo[role] !== undefined) || this.assignments().length > 0;
  });
  /** What lies here and how old it is; `null` until that was read. */
  readonly ready = computed(() => {
    const kept = this.kept();
    if (!kept) return null;
    const taken = kept.filter((one) => one.taken);
    return {
      count: taken.length,
      opened: kept.length - taken.length,
      bytes: kept.reduce((sum, { bytes }) => sum + bytes, 0) + this.kinds().bytes,
      at: taken.length > 0 ? Math.min(...taken.map(({ keptAt }) => keptAt)) : null,
    };
  });

  constructor() {
    // Another person on this device: what was kept for the one before goes.
    this.session.signedIn$
      .pipe(takeUntilDestroyed())
      .subscribe(({ id }) => whenIdle(() => void this.store.emptyOfOthers(id).catch(() => undefined)));
    this.session.beforeLeaving((what) => (what === 'forget' ? this.store.empty() : Promise.resolve()));
    // What opens no more goes; the first page need not wait for that.
    whenIdle(() => void this.store.dropBefore(opensSince()).catch(() => undefined));
    whoIsIn(this.session)
      .pipe(
        filter(() => !this.session.away()),
        // What the person opens comes first.
        switchMap(() => timer(settleMs)),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.takeIfStale());
  }

  /**
   * All spots that are kept here for the signed-in person, with their bodies; call it where signals may be made.
   * @param wanted$ nothing is read before: they weigh megabytes. `null` until they were
   */
  watchSpots(wanted$: Observable<unknown>): Signal<readonly KeptSpot[] | null> {
    return this.live<KeptSpot[] | null>(() => this.mine(), [], null, wanted$);
  }

  /** What `read` finds, as it changes: `unread` until then, `nothing` where storage is refused. */
  private live<T>(read: () => Promise<T>, nothing: T, unread: T, wanted$: Observable<unknown> = of(null)): Signal<T> {
    const whoever$ = wanted$.pipe(
      take(1),
      switchMap(() => whoIsIn(this.session)),
    );
    const kept$ = whoever$.pipe(switchMap(() => from(liveQuery(read)).pipe(catchError(() => of(nothing)))));
    return toSignal(kept$, { initialValue: unread });
  }

  /** Keeps a spot as it came, whatever it was opened for. */
  async keep(detail: SpotDetail): Promise<void> {
    try {
      const before = await this.store.spots.get(detail.spot.id);
      await this.store.spots.put(this.asKept(detail, before?.taken ?? 0));
      await this.dropOpened(this.session.user()?.id ?? '');
    } catch {
      // Storage refused or full: the spot is shown all the same, and opens with the network alone.
    }
  }

  private asKept(detail: SpotDetail, taken: 0 | 1): KeptSpot {
    const text = JSON.stringify(detail);
    return {
      id: detail.spot.id,
      treeId: detail.tree?.id ?? '',
      userId: this.session.user()?.id ?? '',
      ref: detail.spot.ref,
      body: JSON.parse(text) as unknown,
      bytes: text.length,
      keptAt: serverTime(),
      taken,
    };
  }

  /** A spot as it was kept; `null` where it is not here, or not this person's. */
  async find(source: { readonly kind: 'spot' | 'tree'; readonly id: string }): Promise<KeptSpot | null> {
    const { spots } = this.store;
    const found =
      source.kind === 'spot' ? await spots.get(source.id) : await spots.where({ treeId: source.id }).first();
    return found && this.opens(found) ? found : null;
  }

  /** A square of the base map, `z/x/y`, as it was taken along; on a network one that was not is asked for. */
  async tile(at: string): Promise<ArrayBuffer | null> {
    const kept = (await this.store.tiles.get(at))?.body;
    if (kept || this.session.away()) return kept ?? null;
    this.asked ??= this.fetchMap().then((info) => baseTileSource(this.http, info));
    return (await this.asked).fetchTile(at);
  }
  private asked: Promise<BaseTiles> | null = null;

  /** As near as the map that was taken along goes. */
  async nearestZoom(): Promise<number> {
    const keys = await this.store.tiles.toCollection().primaryKeys();
    return Math.max(firstTileZoom, ...keys.map((at) => Number(at.split('/')[0])));
  }

  /** A photo in small, as it was taken along. */
  async photo(id: string): Promise<Blob | null> {
    const kept = await this.store.photos.get(id);
    return kept ? new Blob([kept.body], { type: 'image/jpeg' }) : null;
  }

  /** What the server answered to an address when it was last asked there for this person. */
  async answer(url: string): Promise<unknown> {
    const kept = await this.store.answers.get(url);
    return kept && this.opens(kept) ? kept.body : null;
  }

  /** Without a word from the server what was taken along opens for some days, and for whoever took it. */
  private opens({ userId, keptAt }: Pick<KeptSpot, 'userId' | 'keptAt'>): boolean {
    return userId === this.session.user()?.id && keptAt >= opensSince();
  }

  /** Takes along by itself where that was long ago, or never. */
  async takeIfStale(): Promise<void> {
    if (this.session.away()) return;
    const kept = await this.store.summary(this.session.user()?.id ?? '');
    const taken = kept.filter((one) => one.taken);
    const oldest = Math.min(Infinity, ...taken.map(({ keptAt }) => keptAt));
    if (taken.length === 0 || serverTime() - oldest > staleMs) await this.take();
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
    try {
      // Asked to stay: a browser short of room throws away what nobody asked to keep.
      void navigator.storage?.persist?.();
      const assigned = await this.takeAssignments(user.id);
      const ids = [...new Set([...assigned.flatMap(({ spotIds }) => spotIds), ...(await this.dueOf(user.role))])];
      if (ids.length === 0 && assigned.length === 0) return;
      await this.lookForRoom();
      const came = await this.fetchAll(ids);
      await this.letGo(new Set(ids));
      await this.takeAnswers(assigned, user.role);
      await this.takeExtras();
      if (came < ids.length) throw new Error('some did not come');
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

  private async takeAssignments(userId: string): Promise<Assignment[]> {
    const all = assignmentsSchema.parse(await this.fetchAnswer('/api/assignments'));
    return all.filter((one) => one.userId === userId);
  }

  private async dueOf(role: Role): Promise<string[]> {
    const due = goesOutTo[role];
    if (!due) return [];
    const list = await lastValueFrom(this.http.get('/api/spots', { params: { ...due, limit: most } }));
    return listSchema.parse(list).lines.map(({ spotId }) => spotId);
  }

  /** What the screens away from the desk ask for besides spots. */
  private async takeAnswers(assigned: readonly Assignment[], role: Role): Promise<void> {
    const deliveries = assigned.flatMap(({ deliveryId }) => (deliveryId ? [deliveryId] : []));
    const urls = [
      '/api/map',
      '/api/water/basis',
      '/api/planting-days',
      ...deliveries.map((id) => `/api/deliveries/${id}`),
    ];
    if (role === 'crew_lead' || deliveries.length > 0) {
      const { deliveryListSchema } = await shapes();
      const list = deliveryListSchema.parse(await this.fetchAnswer('/api/deliveries'));
      const open = list.deliveries.filter(({ undecided }) => undecided > 0).slice(0, mostDeliveries);
      urls.push(...open.map(({ id }) => `/api/deliveries/${id}`));
    }
    for (const url of new Set(urls)) {
      const body = await this.fetchAnswer(url);
      if (url !== '/api/planting-days' || !may(role, 'run_day')) continue;
      const { plantingDaysSchema } = await shapes();
      await this.takeDays(plantingDaysSchema.parse(body));
    }
  }

  /** Days of the coming week, for whoever runs them: people, teams and trees of each. */
  private async takeDays(days: PlantingDays): Promise<void> {
    const today = this.session.today();
    const last = addDaysTo(today, daysAhead);
    for (const { id, onDay } of days) {
      if (onDay >= today && onDay <= last) await this.fetchAnswer(`/api/planting-days/${id}`);
    }
  }

  private async fetchMap(): Promise<MapInfo> {
    const { mapSchema } = await shapes();
    return mapSchema.parse(await this.fetchAnswer('/api/map'));
  }

  private async fetchAnswer(url: string): Promise<unknown> {
    const body = await firstValueFrom(this.http.get(url));
    await this.keepAnswer(url, body);
    return body;
  }

  /** Keeps what the server answered to an address, for where it is not reached. */
  async keepAnswer(url: string, body: unknown): Promise<void> {
    const userId = this.session.user()?.id ?? '';
    await this.store.answers.put({ url, userId, body, bytes: JSON.stringify(body).length, keptAt: serverTime() });
  }

  private async fetchAll(ids: readonly string[]): Promise<number> {
    this.walking.set({ what: 'spots', done: 0, of: ids.length });
    const { spotDetailSchema } = await shapes();
    const one = (id: string) =>
      this.http.get(`/api/spots/${id}`).pipe(
        map((body) => this.asKept(spotDetailSchema.parse(body) as SpotDetail, 1)),
        catchError(() => of(null)),
        tap(() => this.step()),
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
    return (await lastValueFrom(came)).reduce((sum, count) => sum + count, 0);
  }

  private step(): void {
    this.walking.update((now) => now && { ...now, done: now.done + 1 });
  }

  /** The map around the spots, and their newest photos in small: what is here already is not asked for again. */
  private async takeExtras(): Promise<void> {
    const taken = (await this.mine()).filter((one) => one.taken);
    const details = taken.map(({ body }) => body as Pick<SpotDetail, 'spot' | 'photos'>);
    await this.takePhotos(details.flatMap(newestPhoto));
    await this.takeTiles(details.map(({ spot }) => spot.position));
  }

  private async takePhotos(ids: readonly string[]): Promise<void> {
    const here = new Set(await this.store.photos.toCollection().primaryKeys());
    const missing = [...new Set(ids)].filter((id) => !here.has(id));
    this.walking.set({ what: 'photos', done: 0, of: missing.length });
    await this.each(missing, async (id) => {
      const options = { params: { px: photoPx }, responseType: 'arraybuffer' } as const;
      const body = await firstValueFrom(this.http.get(`/api/photos/${id}`, options));
      await this.store.photos.put({ id, body, bytes: body.byteLength, keptAt: serverTime() });
    });
    const wanted = new Set(ids);
    await this.store.photos.bulkDelete([...here].filter((id) => !wanted.has(id)));
  }

  private async takeTiles(positions: readonly (readonly [number, number])[]): Promise<void> {
    const info = await this.fetchMap();
    const { fetchTile, maxZoom } = await baseTileSource(this.http, info);
    const wanted = tilesAround(positions, marginM, maxZoom);
    const here = await this.store.tiles.toCollection().primaryKeys();
    const drawnSo = new Set(await this.store.tiles.where('stamp').equals(info.stamp).primaryKeys());
    const missing = wanted.filter((at) => !drawnSo.has(at));
    this.walking.set({ what: 'squares of the map', done: 0, of: missing.length });
    await this.each(missing, async (at) => {
      const body = await fetchTile(at);
      await this.store.tiles.put({ at, stamp: info.stamp, body, bytes: body.byteLength, keptAt: serverTime() });
    });
    const still = new Set(wanted);
    await this.store.tiles.bulkDelete(here.filter((at) => !still.has(at)));
  }

  /** Some at a time; the first that fails ends it, and what came stays. */
  private async each(ids: readonly string[], take: (id: string) => Promise<void>): Promise<void> {
    const all = from(ids).pipe(mergeMap((id) => defer(() => take(id)).pipe(tap(() => this.step())), tilesAtOnce));
    await lastValueFrom(all.pipe(toArray()));
  }

  /** Says before anybody leaves that the device is nearly full; the map of before makes room first. */
  private async lookForRoom(): Promise<void> {
    const left = await roomLeft();
    if (left !== null && left < leastRoomBytes) await AlongStore.makeRoom();
    const now = await roomLeft();
    this.short.set(now !== null && now < leastRoomBytes ? now : null);
  }

  private async letGo(due: ReadonlySet<string>): Promise<void> {
    for (const { id, taken } of await this.mine()) {
      if (taken && !due.has(id)) await this.store.spots.update(id, { taken: 0 });
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
    return (await this.store.spotsOf(this.session.user()?.id ?? '')).filter((one) => this.opens(one));
  }

  private async readAssignments(): Promise<Assignment[]> {
    const userId = this.session.user()?.id ?? '';
    const kept = assignmentsSchema.safeParse(await this.answer('/api/assignments'));
    return (kept.data ?? []).filter((one) => one.userId === userId);
  }
}

/** The earliest moment from which what was kept still opens, ms. */
const opensSince = (): number => serverTime() - opensForDays * dayMs;

/** The newest photo of a place: what it was recognised by last. */
const newestPhoto = ({ photos = [] }: Pick<SpotDetail, 'photos'>): string[] => photos.slice(0, 1).map(({ id }) => id);

/** Room this browser may still fill, bytes; `null` where it does not say. */
async function roomLeft(): Promise<number | null> {
  try {
    const { quota, usage } = await navigator.storage.estimate();
    return quota === undefined ? null : quota - (usage ?? 0);
  } catch {
    return null;
  }
}
