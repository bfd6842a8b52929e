import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import {
  recordFormat,
  type KeptRecord,
  type Problem,
  type RecordReceipt,
  type SendRecord,
  type SpotDetail,
} from '@sombra/contract';
import { ofKind, standing } from '@sombra/core';
import { firstValueFrom, Subject, switchMap, timer, type Observable } from 'rxjs';
import { aheadMs } from '../session/device-clock';
import { SessionService } from '../session/session.service';
import { settleMs } from '../ui/when-idle';
import { AlongStore } from './along-store';
import { OutboxStore, type OutboxEntry } from './outbox-store';
import { SendQueue, type Sent } from './send-queue';

export type Delivery =
  | { readonly kind: 'stored'; readonly receipt: RecordReceipt }
  /** Safe on this device; sent again by itself. */
  | { readonly kind: 'waiting'; readonly problem: Problem }
  | { readonly kind: 'refused'; readonly problem: Problem };

const shapes = () => import('./record-shapes');
/** Where the network went before they came, what lies here is shown and sent all the same: the server checks it. */
const shapesOrNone = () => shapes().catch(() => null);

/** Every record goes to this device first and then to the server, in the order made. */
@Injectable({ providedIn: 'root' })
export class OutboxService {
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  private readonly along = inject(AlongStore);
  private readonly deliveredSubject = new Subject<RecordReceipt>();
  private readonly queue = new SendQueue<OutboxEntry, RecordReceipt>({
    table: inject(OutboxStore).entries,
    session: this.session,
    post: ({ sent }) =>
      this.http
        .post('/api/records', sent)
        .pipe(
          switchMap(async (body) => (await shapesOrNone())?.recordReceiptSchema.parse(body) ?? (body as RecordReceipt)),
        ),
    understood: async ({ sent }) => (await shapesOrNone())?.sendRecordSchema.safeParse(sent).success ?? true,
    stored: (receipt) => this.deliveredSubject.next(receipt),
    settle: ({ sent }, { spotVersion }) => this.along.learn(sent.spotId, this.asKept(sent), spotVersion),
    lane: ({ sent }) => sent.spotId,
    follows: afterOwn,
    makeRoom: () => AlongStore.makeRoom(),
  });

  constructor() {
    // Behind the first page, while there is a network: whoever loses it later has them.
    timer(settleMs)
      .pipe(takeUntilDestroyed())
      .subscribe(() => void shapesOrNone());
  }

  /** Records of the signed-in person that wait on this device and will be sent by themselves. */
  readonly waiting = this.queue.waiting;
  /** Records the server refused when they came to it late: somebody has to decide. */
  readonly refused = this.queue.refused;
  /** What their maker put away: kept on this device, and not sent. */
  readonly binned = this.queue.binned;
  /** Whether what lies here was read at all. */
  readonly isRead = this.queue.isRead;
  /** Each record the server has kept, also those sent later by a retry. */
  readonly delivered$: Observable<RecordReceipt> = this.deliveredSubject.asObservable();

  /** A record with the version of its shape, and what this device knows of its clock. */
  stamped(sent: SendRecord): SendRecord {
    return { ...sent, format: recordFormat, aheadMs: aheadMs() };
  }

  /**
   * Keeps the record here, tries to send it, and says how that went; a refused one goes `back` where a form holds it.
   * @param about the number its maker knows the spot by
   */
  async deliver(sent: SendRecord, refusedGoes: 'aside' | 'back' = 'aside', about?: string): Promise<Delivery> {
    const userId = this.session.user()?.id ?? '';
    const stamped = this.stamped(sent);
    const entry = { id: sent.record.id, userId, sent: stamped, madeAt: Date.now(), refused: null };
    const named = about === undefined ? entry : { ...entry, about };
    return deliveryOf(await this.queue.deliver(named, refusedGoes));
  }

  /** As the server will tell of it, until it is read from there. */
  private asKept({ record, device }: SendRecord): KeptRecord {
    const user = this.session.user();
    return {
      ...record,
      recordedBy: user?.name ?? '',
      recordedById: user?.id ?? null,
      device,
      receivedAt: new Date().toISOString(),
      deviceSaid: record.recordedAt,
      clock: 'kept',
    };
  }

  /** Puts a record in the bin of this device, or takes it out; nothing is thrown away. */
  bin(id: string, into = true): Promise<void> {
    return this.queue.bin(id, into);
  }

  /**
   * Sends a refused record once more, as a correction of the newest record of its kind: its maker has seen
   * that somebody else was first, and wants theirs to follow.
   */
  async sendOver(entry: OutboxEntry): Promise<Delivery> {
    const { kind } = entry.sent.record;
    const url = `/api/spots/${entry.sent.spotId}`;
    const body = await firstValueFrom(this.http.get(url));
    const detail: SpotDetail = (await shapes()).spotDetailSchema.parse(body);
    const supersedes = ofKind(standing(detail.records), kind).at(-1)?.id ?? null;
    const record = { ...entry.sent.record, supersedes };
    const spotVersion = entry.sent.spotVersion === null ? null : detail.spot.version;
    const { binnedAt: _out, ...rest } = entry;
    return deliveryOf(
      await this.queue.deliver({ ...rest, refused: null, sent: { ...entry.sent, spotVersion, record } }),
    );
  }

  /** Sends once more what the server fell over too often. */
  again(entry: OutboxEntry): Promise<void> {
    return this.queue.again(entry);
  }

  flush(): void {
    this.queue.flush();
  }
}

/** What was made here from the state before one's own record is as good as made after it, if nobody came between. */
function afterOwn(behind: OutboxEntry, { spotVersion }: RecordReceipt): OutboxEntry {
  if (behind.sent.spotVersion !== spotVersion - 1) return behind;
  return { ...behind, sent: { ...behind.sent, spotVersion } };
}

const deliveryOf = (sent: Sent<RecordReceipt>): Delivery =>
  sent.kind === 'stored' ? { kind: 'stored', receipt: sent.answer } : sent;
