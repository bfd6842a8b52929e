import { Injectable } from '@angular/core';
import type { KeptRecord, SpotDetail } from '@sombra/contract';
import { Dexie, type EntityTable } from 'dexie';
import { serverTime } from '../session/device-clock';
import { dayMs, opensForDays } from '../session/device-marks';

/** A spot as the server last sent it, with all that its benches ask for. */
export interface KeptSpot {
  readonly id: string;
  readonly treeId: string;
  readonly userId: string;
  readonly ref: string;
  /** As it came: read through its schema when it is shown. */
  readonly body: unknown;
  readonly bytes: number;
  readonly keptAt: number;
  /** 1 for part of what was taken along, 0 for what was opened by hand: a number, so that it can be looked up by. */
  readonly taken: 0 | 1;
}

/** A square of the base map. */
export interface KeptTile {
  /** `z/x/y`. */
  readonly at: string;
  /** Of the layers it was drawn from. */
  readonly stamp: string;
  readonly body: ArrayBuffer;
  readonly bytes: number;
  readonly keptAt: number;
}

/** A photo, small. */
export interface KeptPhoto {
  readonly id: string;
  readonly body: ArrayBuffer;
  readonly bytes: number;
  readonly keptAt: number;
}

/** What the server answered to an address, for where it is not reached. */
export interface KeptAnswer {
  readonly url: string;
  readonly userId: string;
  readonly body: unknown;
  readonly bytes: number;
  readonly keptAt: number;
}

/** What is kept for a person, without any of the bodies. */
export interface Summary {
  readonly spots: readonly { readonly taken: boolean; readonly keptAt: number; readonly bytes: number }[];
  /** Whether all that was to be taken along came. */
  readonly isWhole: boolean;
}

/** What weighs is found by keys alone: a body is read where it is shown. */
const byOwner = '[userId+taken+keptAt+bytes]';

/** Under this a person's taking along is marked from when it begins until all of it is here. */
const underWay = 'taking along';
/** What was opened by hand stays until so many others were. */
const openedMost = 60;
/** Tiles given up at a time, where the device is full. */
const tilesAtATime = 60;

/** What this device holds of the programme, for where there is no network. It can be had again, unlike the outbox. */
@Injectable({ providedIn: 'root', useFactory: () => new AlongStore() })
export class AlongStore extends Dexie {
  spots!: EntityTable<KeptSpot, 'id'>;
  tiles!: EntityTable<KeptTile, 'at'>;
  photos!: EntityTable<KeptPhoto, 'id'>;
  answers!: EntityTable<KeptAnswer, 'url'>;

  constructor(name = 'sombra-along') {
    super(name);
    this.version(1).stores({ spots: 'id, treeId, keptAt' });
    this.version(2)
      .stores({
        spots: `id, treeId, keptAt, ${byOwner}`,
        tiles: 'at, keptAt, bytes, stamp',
        photos: 'id, keptAt, bytes',
        answers: 'url, bytes',
      })
      .upgrade((old) => old.table('spots').clear());
  }

  /** Of each kept spot whether it was taken along, when it was kept and its bytes; no body is read. */
  async summary(userId: string): Promise<Summary> {
    const [keys, mark] = await Promise.all([this.spots.orderBy(byOwner).keys(), this.answers.get(underWay)]);
    const spots = (keys as unknown as readonly (readonly [string, number, number, number])[])
      .filter(([owner]) => owner === userId)
      .map(([, taken, keptAt, bytes]) => ({ taken: taken === 1, keptAt, bytes }));
    return { spots, isWhole: mark?.userId !== userId };
  }

  /** Whether all of these are kept for a person. */
  async hasAll(userId: string, spotIds: readonly string[]): Promise<boolean> {
    const here = new Set(await this.ofPerson(userId).primaryKeys());
    return spotIds.every((id) => here.has(id));
  }

  /** Notes that something is being taken along: cut short, it is not all that was to come. */
  async beginTaking(userId: string, keptAt: number): Promise<void> {
    await this.answers.put({ url: underWay, userId, body: null, bytes: 0, keptAt });
  }
  async endTaking(): Promise<void> {
    await this.answers.delete(underWay);
  }

  /** Keeps a spot that was opened; one that was taken along stays so. The oldest that were only opened make room. */
  async keepOpened(spot: KeptSpot): Promise<void> {
    await this.transaction('rw', this.spots, async () => {
      const before = await this.spots.get(spot.id);
      const taken = before?.userId === spot.userId ? before.taken : 0;
      await this.spots.put({ ...spot, taken });
      await this.dropOpened(spot.userId);
    });
  }

  /** What is not due any more counts as opened, and makes room like that. */
  async letGo(userId: string, due: ReadonlySet<string>): Promise<void> {
    await this.transaction('rw', this.spots, async () => {
      const taken = await this.ofTaken(userId, 1).primaryKeys();
      const over = taken.filter((id) => !due.has(id));
      await this.spots.where('id').anyOf(over).modify({ taken: 0 });
      await this.dropOpened(userId);
    });
  }

  private async dropOpened(userId: string): Promise<void> {
    const opened = await this.ofTaken(userId, 0).primaryKeys();
    await this.spots.bulkDelete(opened.slice(0, Math.max(0, opened.length - openedMost)));
  }

  private ofPerson(userId: string) {
    const { minKey, maxKey } = Dexie;
    return this.spots.where(byOwner).between([userId, minKey], [userId, maxKey]);
  }

  /** Those of a person that were taken along, or only opened: the oldest first. */
  private ofTaken(userId: string, taken: 0 | 1) {
    const { minKey, maxKey } = Dexie;
    return this.spots.where(byOwner).between([userId, taken, minKey], [userId, taken, maxKey]);
  }

  /** All spots kept for a person: by an index in one go, since a cursor that looks at each takes a phone half a second. */
  spotsOf(userId: string): Promise<KeptSpot[]> {
    return this.ofPerson(userId).toArray();
  }

  /** How many squares, photos and deliveries there are, and what all that is no spot weighs. */
  async extras(): Promise<{ tiles: number; photos: number; deliveries: number; bytes: number }> {
    const [tiles, photos, answers, urls] = await Promise.all([
      this.tiles.orderBy('bytes').keys(),
      this.photos.orderBy('bytes').keys(),
      this.answers.orderBy('bytes').keys(),
      this.answers.toCollection().primaryKeys(),
    ]);
    const sum = [...tiles, ...photos, ...answers].reduce<number>((all, bytes) => all + Number(bytes), 0);
    const deliveries = urls.filter((url) => url.startsWith('/api/deliveries/')).length;
    return { tiles: tiles.length, photos: photos.length, deliveries, bytes: sum };
  }

  /** Gives up the oldest of the map, then the photos; says whether there was anything to give up. */
  static async makeRoom(store = new AlongStore()): Promise<boolean> {
    try {
      const tiles = await store.tiles.orderBy('keptAt').limit(tilesAtATime).primaryKeys();
      await store.tiles.bulkDelete(tiles);
      if (tiles.length > 0) return true;
      const photos = await store.photos.count();
      await store.photos.clear();
      return photos > 0;
    } catch {
      return false;
    } finally {
      store.close();
    }
  }

  /** Empties it where anything in it is another person's. */
  async emptyOfOthers(userId: string): Promise<void> {
    const owners = (await this.spots.orderBy(byOwner).keys()) as unknown as readonly string[][];
    const answers = await this.answers.filter((one) => one.userId !== userId).count();
    if (answers > 0 || owners.some(([owner]) => owner !== userId)) await this.empty();
  }

  /**
   * What the server took from this device is known of its spot here too: without a network nobody reads it anew.
   * @param version of the spot, with the record
   */
  async learn(spotId: string, record: KeptRecord, version: number): Promise<void> {
    await this.transaction('rw', this.spots, async () => {
      const kept = await this.spots.get(spotId);
      const body = kept?.body as SpotDetail | undefined;
      if (!kept || !body || body.records.some(({ id }) => id === record.id)) return;
      const spot = { ...body.spot, version: Math.max(body.spot.version, version) };
      const knows: SpotDetail = { ...body, spot, records: [...body.records, record] };
      await this.spots.put({ ...kept, body: knows, bytes: JSON.stringify(knows).length });
    });
  }

  /** Lets go what the server sent before a moment; the map is nobody's. */
  async dropBefore(at: number): Promise<void> {
    await this.spots.where('keptAt').below(at).delete();
    await this.photos.where('keptAt').below(at).delete();
    await this.answers.filter(({ keptAt }) => keptAt < at).delete();
  }

  async empty(): Promise<void> {
    await Promise.all([this.spots.clear(), this.tiles.clear(), this.photos.clear(), this.answers.clear()]);
  }
}

/** The earliest moment from which what was kept still opens without a word from the server, ms. */
export const opensSince = (): number => serverTime() - opensForDays * dayMs;

/** A spot as it is kept: a copy, since what is shown may still change. */
export function asKept(detail: SpotDetail, userId: string, taken: 0 | 1): KeptSpot {
  const text = JSON.stringify(detail);
  return {
    id: detail.spot.id,
    treeId: detail.tree?.id ?? '',
    userId,
    ref: detail.spot.ref,
    body: JSON.parse(text) as unknown,
    bytes: text.length,
    keptAt: serverTime(),
    taken,
  };
}
