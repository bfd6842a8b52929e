import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  assignmentsSchema,
  deliveryListSchema,
  mapSchema,
  may,
  plantingDaysSchema,
  spotDetailSchema,
  type Assignment,
  type MapInfo,
  type PlantingDays,
  type Role,
  type SpotDetail,
  type User,
} from '@sombra/contract';
import { addDaysTo } from '@sombra/core';
import {
  bufferCount,
  catchError,
  concatMap,
  defer,
  firstValueFrom,
  from,
  lastValueFrom,
  map,
  mergeMap,
  of,
  tap,
  toArray,
} from 'rxjs';
import * as z from 'zod';
import { serverTime } from '../session/device-clock';
import { neverArrived } from '../session/never-arrived';
import { SessionService } from '../session/session.service';
import { AlongStore, asKept } from './along-store';
import { AlongService } from './along.service';
import { baseTileSource } from './base-tiles';
import { goesOutTo } from './goes-out-to';
import { tilesAround } from './tiles';

type LngLat = readonly [number, number];

const most = 120;
const atOnce = 3;
const tilesAtOnce = 6;
const keptAtOnce = 20;
/** So much of the map around each spot. */
const marginM = 300;
const photoPx = 400;
const mostDeliveries = 6;
const daysAhead = 8;

const listSchema = z.object({ lines: z.array(z.object({ spotId: z.string() })) });

/** How far it is. */
export interface Taking {
  readonly what: string;
  readonly done: number;
  readonly of: number;
}

/** What somebody goes out to: what is assigned to them, and the spots that wait for their role. */
export interface Work {
  readonly user: User;
  readonly assigned: readonly Assignment[];
  readonly spotIds: readonly string[];
}

/** Fetches what is taken along, and keeps it. */
@Injectable({ providedIn: 'root' })
export class TakeAll {
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  private readonly store = inject(AlongStore);
  private readonly along = inject(AlongService);

  /** What there is to take along by now. */
  async workOf(user: User): Promise<Work> {
    const assigned = await this.takeAssignments(user.id);
    const due = await this.dueOf(user.role);
    return { user, assigned, spotIds: [...new Set([...assigned.flatMap(({ spotIds }) => spotIds), ...due])] };
  }

  /**
   * Takes it along and lets go what is not due any more.
   * @param told how far it is
   * @throws where anything of it did not come: what came stays, and the device knows that it is not all
   */
  async take({ user, assigned, spotIds }: Work, told: (now: Taking) => void): Promise<void> {
    if (spotIds.length === 0 && assigned.length === 0) {
      await this.store.letGo(user.id, new Set());
      return await this.store.endTaking();
    }
    // Where all of it lies here, if of this morning, nothing is missing while it comes anew.
    if (!(await this.store.hasAll(user.id, spotIds))) await this.store.beginTaking(user.id, serverTime());
    const lacking = await this.takeSpots(user.id, spotIds, told);
    await this.store.letGo(user.id, new Set(spotIds));
    await this.takeAnswers(assigned, user.role);
    await this.takeExtras(user.id, told);
    if (lacking > 0) throw new Error(`${lacking} spots did not come`);
    await this.store.endTaking();
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
      const list = deliveryListSchema.parse(await this.fetchAnswer('/api/deliveries'));
      const open = list.deliveries.filter(({ undecided }) => undecided > 0).slice(0, mostDeliveries);
      urls.push(...open.map(({ id }) => `/api/deliveries/${id}`));
    }
    for (const url of new Set(urls)) {
      const body = await this.fetchAnswer(url);
      if (url !== '/api/planting-days' || !may(role, 'run_day')) continue;
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
    return mapSchema.parse(await this.fetchAnswer('/api/map'));
  }

  private async fetchAnswer(url: string): Promise<unknown> {
    const body = await firstValueFrom(this.http.get(url));
    await this.along.keepAnswer(url, body);
    return body;
  }

  /** How many did not come; what the server does not give to this person, as one that is gone, is not awaited. */
  private async takeSpots(userId: string, ids: readonly string[], told: (now: Taking) => void): Promise<number> {
    const step = counter('spots', ids.length, told);
    const one = (id: string) =>
      this.http.get(`/api/spots/${id}`).pipe(
        map((body) => asKept(spotDetailSchema.parse(body) as SpotDetail, userId, 1)),
        catchError((error: unknown) => of(isRefused(error) ? 'refused' : 'lacking')),
        tap(step),
      );
    // Some at a time: whoever leaves in the middle has what came, and the device is not asked anew for each.
    const came = from(ids).pipe(
      mergeMap(one, atOnce),
      bufferCount(keptAtOnce),
      concatMap(async (some) => {
        await this.store.spots.bulkPut(some.filter((spot) => typeof spot !== 'string'));
        return some.filter((spot) => spot === 'lacking').length;
      }),
      toArray(),
    );
    return (await lastValueFrom(came)).reduce((sum, count) => sum + count, 0);
  }

  /** The map around the spots, and their newest photos in small: what is here already is not asked for again. */
  private async takeExtras(userId: string, told: (now: Taking) => void): Promise<void> {
    const taken = (await this.store.spotsOf(userId)).filter((one) => one.taken);
    const details = taken.map(({ body }) => body as Pick<SpotDetail, 'spot' | 'photos'>);
    await this.takePhotos(details.flatMap(newestPhoto), told);
    await this.takeTiles(
      details.map(({ spot }) => spot.position),
      told,
    );
  }

  private async takePhotos(ids: readonly string[], told: (now: Taking) => void): Promise<void> {
    const here = new Set(await this.store.photos.toCollection().primaryKeys());
    const missing = [...new Set(ids)].filter((id) => !here.has(id));
    await each(counter('photos', missing.length, told), missing, async (id) => {
      const options = { params: { px: photoPx }, responseType: 'arraybuffer' } as const;
      const body = await firstValueFrom(this.http.get(`/api/photos/${id}`, options));
      await this.store.photos.put({ id, body, bytes: body.byteLength, keptAt: serverTime() });
    });
    const wanted = new Set(ids);
    await this.store.photos.bulkDelete([...here].filter((id) => !wanted.has(id)));
  }

  private async takeTiles(positions: readonly LngLat[], told: (now: Taking) => void): Promise<void> {
    const info = await this.fetchMap();
    const { fetchTile, maxZoom } = await baseTileSource(this.http, info);
    const wanted = tilesAround(positions, marginM, maxZoom);
    const here = await this.store.tiles.toCollection().primaryKeys();
    const drawnSo = new Set(await this.store.tiles.where('stamp').equals(info.stamp).primaryKeys());
    const missing = wanted.filter((at) => !drawnSo.has(at));
    await each(counter('squares of the map', missing.length, told), missing, async (at) => {
      const body = await fetchTile(at);
      await this.store.tiles.put({ at, stamp: info.stamp, body, bytes: body.byteLength, keptAt: serverTime() });
    });
    const still = new Set(wanted);
    await this.store.tiles.bulkDelete(here.filter((at) => !still.has(at)));
  }
}

/** Says how far it is after each one. */
function counter(what: string, of: number, told: (now: Taking) => void): () => void {
  let done = 0;
  told({ what, done, of });
  return () => told({ what, done: ++done, of });
}

/** Some at a time; the first that fails ends it, and what came stays. */
async function each(step: () => void, ids: readonly string[], take: (id: string) => Promise<void>): Promise<void> {
  const all = from(ids).pipe(mergeMap((id) => defer(() => take(id)).pipe(tap(step)), tilesAtOnce));
  await lastValueFrom(all.pipe(toArray()));
}

/** A word of the server itself, of something that is gone or not this person's. */
const isRefused = (error: unknown): boolean =>
  error instanceof HttpErrorResponse && !neverArrived(error) && [403, 404, 410].includes(error.status);

/** The newest photo of a place: what it was recognised by last. */
const newestPhoto = ({ photos = [] }: Pick<SpotDetail, 'photos'>): string[] => photos.slice(0, 1).map(({ id }) => id);
