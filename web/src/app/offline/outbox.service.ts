import { HttpClient } from '@angular/common/http';
import { computed, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
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
import {
  catchError,
  concatMap,
  filter,
  firstValueFrom,
  from,
  fromEvent,
  map,
  merge,
  of,
  Subject,
  timer,
  type Observable,
} from 'rxjs';
import { passes, readProblem } from '../frame/problem';
import { SessionService } from '../people/session.service';
import { OutboxStore, type OutboxEntry } from './outbox-store';

export type Delivery =
  | { readonly kind: 'stored'; readonly receipt: RecordReceipt }
  /** Safe on this device; sent again by itself. */
  | { readonly kind: 'waiting'; readonly problem: Problem }
  | { readonly kind: 'refused'; readonly problem: Problem };

const firstRetryMs = 2000;
const longestRetryMs = 60_000;

/**
 * Every record goes to this device first and then to the server, in the order made. What cannot be sent
 * waits and is tried again, less and less often, at once when the network or the session is back.
 */
@Injectable({ providedIn: 'root' })
export class OutboxService {
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  private readonly store = new OutboxStore();
  private readonly entries = signal<readonly OutboxEntry[]>([]);
  private readonly deliveredSubject = new Subject<RecordReceipt>();
  private retryMs = firstRetryMs;
  private flushing: Promise<void> | null = null;

  /** Records of the signed-in person that wait on this device and will be sent by themselves. */
  readonly waiting = computed(() => this.entries().filter((entry) => entry.refused === null));
  /** Records the server refused when they came to it late: somebody has to decide. */
  readonly refused = computed(() => this.entries().filter((entry) => entry.refused !== null));
  /** Each record the server has kept, also those sent later by a retry. */
  readonly delivered$: Observable<RecordReceipt> = this.deliveredSubject.asObservable();

  constructor() {
    merge(this.session.signedIn$, fromEvent(window, 'online'))
      .pipe(
        concatMap(() => from(this.refresh())),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.flush());
    this.retryLater();
  }

  /** Keeps the record here, tries to send it, and says how that went. */
  async deliver(sent: SendRecord): Promise<Delivery> {
    const entry: OutboxEntry = { id: sent.record.id, userId: this.userId(), sent, madeAt: Date.now(), refused: null };
    await this.store.entries.put(entry);
    const delivery = await this.send(entry);
    await this.refresh();
    return delivery;
  }

  /** Takes a refused record off this device: its words live on in the form it came from. */
  async withdraw(id: string): Promise<void> {
    await this.store.entries.delete(id);
    await this.refresh();
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
    const again: OutboxEntry = { ...entry, refused: null, sent: { ...entry.sent, spotVersion, record } };
    await this.store.entries.put(again);
    const delivery = await this.send(again);
    await this.refresh();
    return delivery;
  }

  flush(): void {
    this.flushing ??= this.sendAll().finally(() => {
      this.flushing = null;
    });
  }

  private async sendAll(): Promise<void> {
    await this.refresh();
    for (const entry of this.waiting()) {
      const delivery = await this.send(entry);
      // The rest would meet the same closed door, and order matters.
      if (delivery.kind === 'waiting') break;
      this.retryMs = firstRetryMs;
    }
    await this.refresh();
  }

  private async send(entry: OutboxEntry): Promise<Delivery> {
    const delivery = await firstValueFrom(
      this.http.post('/api/records', entry.sent).pipe(
        map((body): Delivery => ({ kind: 'stored', receipt: recordReceiptSchema.parse(body) })),
        catchError((error: unknown) => {
          const problem = readProblem(error);
          return of<Delivery>({ kind: passes(problem) ? 'waiting' : 'refused', problem });
        }),
      ),
    );
    if (delivery.kind === 'stored') {
      await this.store.entries.delete(entry.id);
      this.deliveredSubject.next(delivery.receipt);
    } else if (delivery.kind === 'refused') {
      await this.store.entries.put({ ...entry, refused: delivery.problem });
    }
    return delivery;
  }

  private async refresh(): Promise<void> {
    const userId = this.userId();
    const mine = await this.store.entries
      .orderBy('madeAt')
      .filter((entry) => entry.userId === userId)
      .toArray();
    // What an older version of the application left behind is kept, but not sent as if it were understood.
    this.entries.set(mine.filter((entry) => sendRecordSchema.safeParse(entry.sent).success));
  }

  private retryLater(): void {
    timer(this.retryMs)
      .pipe(filter(() => this.session.state() === 'in' && this.waiting().length > 0))
      .subscribe({
        next: () => {
          this.retryMs = Math.min(longestRetryMs, this.retryMs * 1.6);
          this.flush();
        },
        complete: () => this.retryLater(),
      });
  }

  private userId(): string {
    return this.session.user()?.id ?? '';
  }
}
