import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  recordReceiptSchema,
  sendRecordSchema,
  spotDetailSchema,
  type Problem,
  type RecordReceipt,
  type SendRecord,
  type SpotDetail,
} from '@sombra/contract';
import { ofKind, standing } from '@sombra/core';
import { firstValueFrom, map, Subject, type Observable } from 'rxjs';
import { SessionService } from '../session/session.service';
import { OutboxStore, type OutboxEntry } from './outbox-store';
import { SendQueue, type Sent } from './send-queue';

export type Delivery =
  | { readonly kind: 'stored'; readonly receipt: RecordReceipt }
  /** Safe on this device; sent again by itself. */
  | { readonly kind: 'waiting'; readonly problem: Problem }
  | { readonly kind: 'refused'; readonly problem: Problem };

/** Every record goes to this device first and then to the server, in the order made. */
@Injectable({ providedIn: 'root' })
export class OutboxService {
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  private readonly deliveredSubject = new Subject<RecordReceipt>();
  private readonly queue = new SendQueue<OutboxEntry, RecordReceipt>({
    table: new OutboxStore().entries,
    session: this.session,
    post: ({ sent }) => this.http.post('/api/records', sent).pipe(map((body) => recordReceiptSchema.parse(body))),
    understood: ({ sent }) => sendRecordSchema.safeParse(sent).success,
    stored: (receipt) => this.deliveredSubject.next(receipt),
    lane: ({ sent }) => sent.spotId,
    follows: afterOwn,
  });

  /** Records of the signed-in person that wait on this device and will be sent by themselves. */
  readonly waiting = this.queue.waiting;
  /** Records the server refused when they came to it late: somebody has to decide. */
  readonly refused = this.queue.refused;
  /** Each record the server has kept, also those sent later by a retry. */
  readonly delivered$: Observable<RecordReceipt> = this.deliveredSubject.asObservable();

  /** Keeps the record here, tries to send it, and says how that went; a refused one goes `back` where a form holds it. */
  async deliver(sent: SendRecord, refusedGoes: 'aside' | 'back' = 'aside'): Promise<Delivery> {
    const userId = this.session.user()?.id ?? '';
    const entry = { id: sent.record.id, userId, sent, madeAt: Date.now(), refused: null };
    return deliveryOf(await this.queue.deliver(entry, refusedGoes));
  }

  /** Takes a refused record off this device: its words live on in the form it came from. */
  async withdraw(id: string): Promise<void> {
    await this.queue.drop(id);
  }

  /**
   * Sends a refused record once more, as a correction of the newest record of its kind: its maker has seen
   * that somebody else was first, and wants theirs to follow.
   */
  async sendOver(entry: OutboxEntry): Promise<Delivery> {
    const { kind } = entry.sent.record;
    const url = `/api/spots/${entry.sent.spotId}`;
    const detail = await firstValueFrom(
      this.http.get(url).pipe(map((body) => spotDetailSchema.parse(body) as SpotDetail)),
    );
    const supersedes = ofKind(standing(detail.records), kind).at(-1)?.id ?? null;
    const record = { ...entry.sent.record, supersedes };
    const spotVersion = entry.sent.spotVersion === null ? null : detail.spot.version;
    return deliveryOf(
      await this.queue.deliver({ ...entry, refused: null, sent: { ...entry.sent, spotVersion, record } }),
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
