import { computed, signal, type Signal } from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import type { Problem } from '@sombra/contract';
import { liveQuery, type EntityTable } from 'dexie';
import {
  catchError,
  filter,
  firstValueFrom,
  from,
  fromEvent,
  map,
  merge,
  of,
  switchMap,
  tap,
  throttleTime,
  timeout,
  timer,
  type Observable,
} from 'rxjs';
import { passes, readProblem, stumbled } from '../ui/problem';
import type { SessionService } from '../session/session.service';
import { whoIsIn } from '../session/who-is-in';

export interface Queued {
  readonly id: string;
  readonly userId: string;
  readonly madeAt: number;
  /** Why the server refused it; `null` while it only waits. */
  readonly refused: Problem | null;
  /** How often the server fell over it. */
  readonly stumbles?: number;
  /** What its maker knows it by: the number of a spot, a lot. */
  readonly about?: string;
  /** Its maker put it in the bin, where it is kept and not sent. */
  readonly binnedAt?: number;
}

export type Sent<A> =
  | { readonly kind: 'stored'; readonly answer: A }
  /** Safe on this device; sent again by itself. */
  | { readonly kind: 'waiting'; readonly problem: Problem }
  | { readonly kind: 'refused'; readonly problem: Problem };

/** This device has no room left: what was made before is safe, this was not kept. */
const noRoom: Problem = {
  type: 'urn:sombra:problem:device_full',
  code: 'device_full',
  title: 'This device has no room left, and this was not kept. Free some room on it; what was kept before is safe.',
  status: 0,
};
/** It waits for a better line, by the wish of its maker. */
const held: Problem = {
  type: 'urn:sombra:problem:held',
  code: 'held',
  title: 'It waits for Wi-Fi.',
  status: 0,
};

/** All that lies on this device of one person. */
interface Lying<E> {
  readonly userId: string;
  readonly entries: readonly E[];
}

interface QueueOptions<E extends Queued, A> {
  readonly table: EntityTable<E, 'id'>;
  readonly session: SessionService;
  readonly post: (entry: E) => Observable<A>;
  /** What an older version of the application left behind is kept, but not sent as if it were understood. */
  readonly understood: (entry: E) => Promise<boolean>;
  readonly stored: (answer: A) => void;
  /** What is done with a stored entry before it leaves the queue: whoever counts by both never misses it. */
  readonly settle?: (entry: E, answer: A) => Promise<void>;
  /** What an entry becomes once one of its lane was stored before it. */
  readonly follows?: (behind: E, answer: A) => E;
  /** What has to arrive in order: behind an entry the server stumbles over, only those of its own lane wait. */
  readonly lane: (entry: E) => string;
  /** How long an answer is waited for; a picture on a poor line takes its time. */
  readonly giveUpAfterMs?: number;
  /** Whether it may leave over the network there is; what may not waits and holds up nothing. */
  readonly mayLeave?: (entry: E) => boolean;
  /** Gives up what can be had again, where the device is full; says whether there was anything. */
  readonly makeRoom?: () => Promise<boolean>;
}

/** A thing the server fell over this often is set aside for its maker to see; the others of its lane go on. */
const mostStumbles = 5;
/** A line that says nothing for so long is taken for cut; sent again it does no harm. */
const givenUpAfterMs = 90_000;
/** Of a thousand that leave one after the other not each is shown. */
const shownEveryMs = 150;
const bothEnds = { leading: true, trailing: true };
const firstRetryMs = 2000;
const longestRetryMs = 60_000;

/**
 * Things made on this device go here first and then to the server, in the order made within each lane. What cannot be
 * sent waits and is tried again, less and less often, at once when the network or the session is back. Made in a
 * service's constructor, with which it ends.
 */
export class SendQueue<E extends Queued, A> {
  private retryMs = firstRetryMs;
  private flushing: Promise<void> | null = null;

  private readonly lying: Signal<Lying<E> | null>;
  /** As it was read last, shown or not. */
  private newest: readonly E[] = [];
  private readonly entries = computed(() => this.lying()?.entries ?? []);
  /** Whether what lies here of the signed-in person was read: before, nobody knows that there is nothing. */
  readonly isRead: Signal<boolean> = computed(() => this.lying()?.userId === this.userId());
  /** On their way right now for the first time: they wait only once that has failed. */
  private readonly leaving = signal<ReadonlySet<string>>(new Set());
  readonly waiting: Signal<readonly E[]> = computed(() =>
    this.entries().filter((entry) => isWaiting(entry) && !this.leaving().has(entry.id)),
  );
  readonly refused: Signal<readonly E[]> = computed(() =>
    this.entries().filter((entry) => entry.refused !== null && !entry.binnedAt),
  );
  readonly binned: Signal<readonly E[]> = computed(() => this.entries().filter(({ binnedAt }) => !!binnedAt));

  constructor(private readonly options: QueueOptions<E, A>) {
    // As they lie on the device: what another tab keeps or sends shows here too.
    const lying$ = whoIsIn(options.session).pipe(
      switchMap(() =>
        from(liveQuery(() => this.read())).pipe(
          tap(({ entries }) => (this.newest = entries)),
          throttleTime(shownEveryMs, undefined, bothEnds),
        ),
      ),
    );
    this.lying = toSignal(lying$, { initialValue: null });
    merge(options.session.signedIn$, fromEvent(window, 'online'), fromEvent(document, 'visibilitychange'))
      .pipe(takeUntilDestroyed())
      .subscribe(() => {
        if (!document.hidden) this.flush();
      });
    this.retryLater();
  }

  /**
   * Keeps it here, tries to send it, and says how that went. What is refused stays here with its reason, unless it goes
   * `back` to the form it came from, which still holds it.
   */
  async deliver(entry: E, refusedGoes: 'aside' | 'back' = 'aside'): Promise<Sent<A>> {
    this.leaving.update((ids) => new Set([...ids, entry.id]));
    try {
      if (!(await this.keep(entry))) return { kind: 'refused', problem: noRoom };
      if (!this.mayLeave(entry)) return { kind: 'waiting', problem: held };
      return await this.sendWithAhead(entry, refusedGoes);
    } finally {
      this.leaving.update((ids) => new Set([...ids].filter((id) => id !== entry.id)));
    }
  }

  /** Puts it on this device; where that is full what can be had again makes room. */
  private async keep(entry: E): Promise<boolean> {
    const { table, makeRoom } = this.options;
    for (;;) {
      try {
        await table.put(entry);
        return true;
      } catch (error) {
        if (!isFull(error)) throw error;
        if (!(await makeRoom?.())) return false;
      }
    }
  }

  private mayLeave(entry: E): boolean {
    return this.options.mayLeave?.(entry) ?? true;
  }

  private async sendWithAhead(entry: E, refusedGoes: 'aside' | 'back'): Promise<Sent<A>> {
    const lane = this.options.lane(entry);
    const ahead = (await this.mine()).filter(
      (one) => one.id !== entry.id && isWaiting(one) && this.mayLeave(one) && this.options.lane(one) === lane,
    );
    let sent: Sent<A> | null = null;
    for (const one of [...ahead, entry]) {
      const lying = await this.one(one.id);
      // Another tab has sent it, or it was sealed; one's own goes all the same, for its answer: twice does no harm.
      if (!lying && one !== entry) continue;
      sent = await this.send(lying ?? one, one === entry ? refusedGoes : 'aside');
      // What is behind would arrive before it.
      if (sent.kind === 'waiting') break;
    }
    return sent as Sent<A>;
  }

  /** Sends once more what was set aside, as it is. */
  async again(entry: E): Promise<void> {
    const { binnedAt: _out, ...rest } = entry;
    await this.deliver({ ...(rest as E), refused: null, stumbles: 0 });
  }

  /** Puts it in the bin, where it is kept and not sent, or takes it out again. */
  async bin(id: string, into = true): Promise<void> {
    await this.change(id, (entry) => {
      const { binnedAt: _before, ...rest } = entry;
      return into ? { ...entry, binnedAt: Date.now() } : (rest as E);
    });
  }

  /** Changes it where it lies: what another tab has sent, or sealed, meanwhile must not come back. */
  private async change(id: string, to: (entry: E) => E): Promise<void> {
    await this.options.table
      .where('id')
      .equals(id)
      .modify((one, kept) => {
        kept.value = to(one);
      });
  }

  async drop(id: string): Promise<void> {
    await this.options.table.where('id').equals(id).delete();
  }

  flush(): void {
    this.flushing ??= this.sendAll().finally(() => {
      this.flushing = null;
    });
  }

  private async sendAll(): Promise<void> {
    const stuck = new Set<string>();
    const waiting = (await this.mine()).filter((entry) => isWaiting(entry) && this.mayLeave(entry));
    for (const entry of waiting) {
      const lane = this.options.lane(entry);
      const lying = stuck.has(lane) ? undefined : await this.one(entry.id);
      if (!lying) continue;
      const sent = await this.send(lying);
      if (sent.kind === 'waiting') {
        // The rest would meet the same closed door.
        if (!stumbled(sent.problem)) break;
        stuck.add(lane);
      } else this.retryMs = firstRetryMs;
    }
  }

  /** As it lies there now: what was stored before it may have changed it. */
  private one(id: string): Promise<E | undefined> {
    return this.options.table.where('id').equals(id).first();
  }

  private async send(entry: E, refusedGoes: 'aside' | 'back' = 'aside'): Promise<Sent<A>> {
    const { table, post, stored, settle } = this.options;
    const sent = await firstValueFrom(
      post(entry).pipe(
        timeout(this.options.giveUpAfterMs ?? givenUpAfterMs),
        map((answer): Sent<A> => ({ kind: 'stored', answer })),
        catchError((error: unknown) => {
          const problem = readProblem(error);
          return of<Sent<A>>({ kind: passes(problem) ? 'waiting' : 'refused', problem });
        }),
      ),
    );
    if (sent.kind === 'stored') {
      // Where it cannot be done it is read from the server with the next taking along.
      await settle?.(entry, sent.answer).catch(() => undefined);
      await table.where('id').equals(entry.id).delete();
      await this.tellBehind(entry, sent.answer);
      stored(sent.answer);
    } else if (sent.kind === 'refused') {
      if (refusedGoes === 'back') await this.drop(entry.id);
      else await this.change(entry.id, (one) => ({ ...one, refused: sent.problem }));
    } else if (stumbled(sent.problem)) {
      const stumbles = (entry.stumbles ?? 0) + 1;
      const refused = stumbles < mostStumbles ? null : sent.problem;
      await this.change(entry.id, (one) => ({ ...one, stumbles, refused }));
      if (refused) return { kind: 'refused', problem: refused };
    }
    return sent;
  }

  private async tellBehind(entry: E, answer: A): Promise<void> {
    const { lane, follows } = this.options;
    if (!follows || !this.mayHaveBehind(entry)) return;
    const behind = (await this.mine()).filter((one) => one.madeAt >= entry.madeAt && lane(one) === lane(entry));
    for (const one of behind) {
      // Each write goes down to the disk before the next is sent: none is spent on what stays as it is.
      if (follows(one, answer) !== one) await this.change(one.id, (lying) => follows(lying, answer));
    }
  }

  /** Whether anything of its lane may lie behind it: read from memory, since a thousand that wait ask it a thousand times. */
  private mayHaveBehind({ id, madeAt }: E): boolean {
    const { lane } = this.options;
    const own = this.newest.find((one) => one.id === id);
    if (!own || this.leaving().size > 0) return true;
    return this.newest.some((one) => one.id !== id && one.madeAt >= madeAt && lane(one) === lane(own));
  }

  /** Asked of each once: what lies here is read again with each thing that is sent. */
  private async isUnderstood(entry: E): Promise<boolean> {
    const known = this.known.get(entry.id) ?? (await this.options.understood(entry));
    this.known.set(entry.id, known);
    return known;
  }
  private readonly known = new Map<string, boolean>();

  private userId(): string {
    return this.options.session.user()?.id ?? '';
  }

  private async mine(): Promise<readonly E[]> {
    return (await this.read()).entries;
  }

  /** What the signed-in person made and this version understands, in the order made. */
  private async read(): Promise<Lying<E>> {
    const { table } = this.options;
    const userId = this.userId();
    // By its index in one go: a cursor that looks at each takes half a second for a thousand.
    const mine = await table.where('userId').equals(userId).toArray();
    mine.sort((one, other) => one.madeAt - other.madeAt);
    const entries: E[] = [];
    for (const entry of mine) if (await this.isUnderstood(entry)) entries.push(entry);
    return { userId, entries };
  }

  /** Nothing is tried while nobody looks: a phone in a pocket keeps its battery. */
  private mayRetry(): boolean {
    return (
      this.options.session.state() === 'in' && !document.hidden && this.waiting().some((one) => this.mayLeave(one))
    );
  }

  private retryLater(): void {
    timer(this.retryMs)
      .pipe(filter(() => this.mayRetry()))
      .subscribe({
        next: () => {
          this.retryMs = Math.min(longestRetryMs, this.retryMs * 1.6);
          this.flush();
        },
        complete: () => this.retryLater(),
      });
  }
}

const isWaiting = ({ refused, binnedAt }: Queued): boolean => refused === null && !binnedAt;

/** No room left on this device, however the browser says so. */
function isFull(error: unknown): boolean {
  const { name, inner } = error as { name?: unknown; inner?: unknown };
  return name === 'QuotaExceededError' || (inner !== undefined && inner !== null && isFull(inner));
}
