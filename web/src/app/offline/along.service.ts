import { HttpClient } from '@angular/common/http';
import { computed, inject, Injectable, type Signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { assignmentsSchema, type Assignment, type MapInfo, type SpotDetail } from '@sombra/contract';
import { liveQuery } from 'dexie';
import { catchError, firstValueFrom, from, of, retry, switchMap, take, type Observable } from 'rxjs';
import { serverTime } from '../session/device-clock';
import { SessionService } from '../session/session.service';
import { whoIsIn } from '../session/who-is-in';
import { AlongStore, asKept, opensSince, type KeptSpot, type Summary } from './along-store';
import { baseTileSource, type BaseTiles } from './base-tiles';
import { goesOutTo } from './goes-out-to';
import { firstTileZoom } from './tiles';

const noExtras = { tiles: 0, photos: 0, deliveries: 0, bytes: 0 };

/** A browser whose storage fails for a moment, as after it was woken, is asked again so often, ms apart. */
const askedAgain = { count: 3, delay: 500 };
const nothing: Summary = { spots: [], isWhole: true };

/** What lies on this device for where no server is reached. */
@Injectable({ providedIn: 'root' })
export class AlongService {
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  private readonly store = inject(AlongStore);
  private readonly userId = () => this.session.user()?.id ?? '';
  private readonly kept = this.live<Summary | null>(() => this.store.summary(this.userId()), nothing, null);
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
    const { spots, isWhole } = kept;
    const taken = spots.filter((one) => one.taken);
    return {
      count: taken.length,
      /** Whether all that was to be taken along came; what was cut short is no day's work. */
      isWhole,
      opened: spots.length - taken.length,
      bytes: spots.reduce((sum, { bytes }) => sum + bytes, 0) + this.kinds().bytes,
      at: taken.length > 0 ? Math.min(...taken.map(({ keptAt }) => keptAt)) : null,
    };
  });

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
    const kept$ = whoever$.pipe(
      switchMap(() =>
        from(liveQuery(read)).pipe(
          retry(askedAgain),
          catchError(() => of(nothing)),
        ),
      ),
    );
    return toSignal(kept$, { initialValue: unread });
  }

  /** Keeps a spot as it came, whatever it was opened for. */
  async keep(detail: SpotDetail): Promise<void> {
    try {
      await this.store.keepOpened(asKept(detail, this.userId(), 0));
    } catch {
      // Storage refused or full: the spot is shown all the same, and opens with the network alone.
    }
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
    // A line that failed once is asked again with the next square.
    this.asked.catch(() => (this.asked = null));
    return (await this.asked).fetchTile(at);
  }
  private asked: Promise<BaseTiles> | null = null;

  private async fetchMap(): Promise<MapInfo> {
    const { mapSchema } = await import('./along-shapes');
    return mapSchema.parse(await firstValueFrom(this.http.get('/api/map')));
  }

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
    return userId === this.userId() && keptAt >= opensSince();
  }

  /** Keeps what the server answered to an address, for where it is not reached. */
  async keepAnswer(url: string, body: unknown): Promise<void> {
    await this.store.answers.put({
      url,
      userId: this.userId(),
      body,
      bytes: JSON.stringify(body).length,
      keptAt: serverTime(),
    });
  }

  private async mine(): Promise<KeptSpot[]> {
    return (await this.store.spotsOf(this.userId())).filter((one) => this.opens(one));
  }

  private async readAssignments(): Promise<Assignment[]> {
    const kept = assignmentsSchema.safeParse(await this.answer('/api/assignments'));
    return (kept.data ?? []).filter((one) => one.userId === this.userId());
  }
}
