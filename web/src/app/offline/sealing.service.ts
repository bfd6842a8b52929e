import { HttpClient } from '@angular/common/http';
import { inject, Injectable, type Signal } from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import {
  sealedReceiptSchema,
  sealingKeySchema,
  type Sealed,
  type SealedContent,
  type SealedReceipt,
} from '@sombra/contract';
import { liveQuery, type EntityTable } from 'dexie';
import { catchError, filter, firstValueFrom, from, fromEvent, merge, of, startWith, timer } from 'rxjs';
import { aheadMs } from '../session/device-clock';
import { deviceId, forgetDeviceId, keepDeviceId } from '../session/device-id';
import { SessionService } from '../session/session.service';
import { whoIsIn } from '../session/who-is-in';
import { passes, readProblem } from '../ui/problem';
import { canSeal, DeviceStore, publicKeyOf } from './device-store';
import { OutboxStore, type OutboxEntry, type Parcel, type SealedEntry } from './outbox-store';
import { seal, toBase64 } from './seal';

const retryMs = 45_000;

/**
 * What was not sent when somebody leaves this device is sealed: nobody on the device reads it, and it goes to the server
 * on the next contact, whoever is signed in then, or nobody.
 */
@Injectable({ providedIn: 'root' })
export class SealingService {
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  private readonly device = new DeviceStore();
  private readonly store = inject(OutboxStore);
  private delivering: Promise<void> | null = null;

  /** Sealed things on this device, the oldest first. */
  readonly sealed: Signal<readonly SealedEntry[]> = toSignal(
    from(liveQuery(() => this.store.sealed.orderBy('madeAt').toArray())).pipe(catchError(() => of<SealedEntry[]>([]))),
    { initialValue: [] as SealedEntry[] },
  );

  constructor() {
    this.session.beforeLeaving(() => this.sealAll());
    const { signedIn$, wipe$ } = this.session;
    whoIsIn(this.session)
      .pipe(takeUntilDestroyed())
      .subscribe(({ id }) => {
        if (!this.session.away()) void this.register().catch(() => undefined);
        // Somebody else's, from before they could be sealed.
        void this.sealAll(id).catch(() => undefined);
      });
    wipe$.pipe(takeUntilDestroyed()).subscribe(() => void this.wipe());
    merge(fromEvent(window, 'online'), signedIn$, timer(2000, retryMs), fromEvent(document, 'visibilitychange'))
      .pipe(
        startWith(null),
        filter(() => !document.hidden),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.deliver());
  }

  /** Makes this device known to the server, which tells it the key to seal to. */
  private async register(): Promise<void> {
    const id = deviceId();
    if (!canSeal() || id === null) return;
    const { publicKey } = await this.device.pair();
    const body = { id, name: nameOfDevice(navigator.userAgent), key: await publicKeyOf(publicKey) };
    try {
      const answer = await firstValueFrom(this.http.post('/api/devices', body));
      await this.device.keepSealTo(sealingKeySchema.parse(answer));
    } catch (error) {
      // Its key was lost with its storage: it is another device from now on.
      if (readProblem(error).code === 'conflict') forgetDeviceId();
    }
  }

  /** Seals what is unsent of everybody, or of everybody but one; where nothing can be sealed it stays as it is. */
  async sealAll(butUserId: string | null = null): Promise<void> {
    const seals = await this.seals();
    if (!seals) return;
    await this.sealTable(this.store.entries, butUserId, seals.record);
    await this.sealTable(this.store.parcels, butUserId, seals.parcel);
  }

  /** One after another: what is sealed and what it was sealed of change places in one act. */
  private async sealTable<E extends OutboxEntry | Parcel>(
    table: EntityTable<E, 'id'>,
    butUserId: string | null,
    sealOne: (thing: E) => Promise<SealedEntry>,
  ): Promise<void> {
    for (const thing of await table.filter(({ userId }) => userId !== butUserId).toArray()) {
      const one = await sealOne(thing);
      await this.store.transaction('rw', table, this.store.sealed, async () => {
        await this.store.sealed.put(one);
        await table.where('id').equals(thing.id).delete();
      });
    }
  }

  /** All that waits of one person, sealed, one a line: to be read in where the phone cannot be brought to a network. */
  async file(userId: string): Promise<{ readonly text: string; readonly count: number } | null> {
    const seals = await this.seals();
    if (!seals) return null;
    const own = (one: { userId: string }) => one.userId === userId;
    const records = await this.store.entries.orderBy('madeAt').filter(own).toArray();
    const parcels = await this.store.parcels.orderBy('madeAt').filter(own).toArray();
    const lines: SealedEntry[] = [];
    for (const entry of records) lines.push(await seals.record(entry));
    for (const parcel of parcels) lines.push(await seals.parcel(parcel));
    return { text: lines.map(({ sealed }) => `${JSON.stringify(sealed)}\n`).join(''), count: lines.length };
  }

  /** Brings one sealed thing to the server. */
  async bring(sealed: Sealed): Promise<SealedReceipt> {
    const answer = await firstValueFrom(this.http.post('/api/sealed', sealed));
    return sealedReceiptSchema.parse(answer);
  }

  private deliver(): Promise<void> {
    return (this.delivering ??= this.deliverAll()
      .catch(() => undefined)
      .finally(() => {
        this.delivering = null;
      }));
  }

  private async deliverAll(): Promise<void> {
    const waiting = (await this.store.sealed.orderBy('madeAt').toArray()).filter(({ refused }) => refused === null);
    for (const { id, sealed } of waiting) {
      try {
        await this.bring(sealed);
        await this.store.sealed.where('id').equals(id).delete();
      } catch (error) {
        const problem = readProblem(error);
        // The rest would meet the same closed door.
        if (passes(problem)) return;
        await this.store.sealed.update(id, { refused: problem });
      }
    }
  }

  /** Forgets all but what is sealed and could not be brought to the server yet. */
  private async wipe(): Promise<void> {
    await this.sealAll().catch(() => undefined);
    await this.deliver();
    const left = await this.store.sealed.count().catch(() => 0);
    const id = deviceId();
    if (left === 0 && id !== null) {
      await firstValueFrom(this.http.post(`/api/open/devices/${id}/wiped`, {})).catch(() => undefined);
    }
    for (const name of ['sombra-along', ...(left === 0 ? ['sombra', 'sombra-device'] : [])]) {
      await new Promise<void>((resolve) => {
        const asked = indexedDB.deleteDatabase(name);
        for (const end of ['success', 'error', 'blocked']) asked.addEventListener(end, () => resolve());
      });
    }
    localStorage.clear();
    if (left > 0 && id !== null) keepDeviceId(id);
    location.assign('/');
  }

  private async seals(): Promise<{
    readonly record: (entry: OutboxEntry) => Promise<SealedEntry>;
    readonly parcel: (parcel: Parcel) => Promise<SealedEntry>;
  } | null> {
    const [id, sealTo] = [deviceId(), canSeal() ? await this.device.sealTo() : null];
    if (id === null || !sealTo) return null;
    const signer = { deviceId: id, pair: await this.device.pair() };
    const put = async (thing: OutboxEntry | Parcel, what: object): Promise<SealedEntry> => {
      const content = { authorId: thing.userId, madeAt: thing.madeAt, aheadMs: aheadMs(), ...what } as SealedContent;
      return {
        id: thing.id,
        madeAt: thing.madeAt,
        sealed: await seal(thing.id, content, sealTo, signer),
        refused: null,
      };
    };
    return {
      record: (entry) => put(entry, { what: 'record', sent: entry.sent }),
      parcel: async (parcel) => put(parcel, await parcelContent(parcel)),
    };
  }
}

async function parcelContent({ method, url, name, body }: Parcel): Promise<object> {
  const plain = { what: 'parcel', method, url, name };
  if (!(body instanceof Blob)) return { ...plain, json: body };
  const base64 = toBase64(new Uint8Array(await body.arrayBuffer()));
  return { ...plain, picture: { type: body.type || 'image/jpeg', base64 } };
}

/** What somebody would call it in a list of devices. */
export function nameOfDevice(userAgent: string): string {
  const systems: readonly (readonly [RegExp, string])[] = [
    [/Android/, 'Android phone'],
    [/iPad/, 'iPad'],
    [/iPhone/, 'iPhone'],
    [/Windows/, 'Windows computer'],
    [/Macintosh/, 'Mac'],
    [/CrOS/, 'Chromebook'],
    [/Linux/, 'Linux computer'],
  ];
  return systems.find(([says]) => says.test(userAgent))?.[1] ?? 'Device';
}
