import { inject, Injectable } from '@angular/core';
import { auditTime, filter, map, merge, Observable, of, pairwise, share, Subject, switchMap } from 'rxjs';
import { toObservable } from '@angular/core/rxjs-interop';
import { SessionService } from '../session/session.service';

/** What somebody changed, here or elsewhere: ids of spots, or `null` for many. */
export interface Change {
  readonly spots: readonly string[] | null;
}

/** Listens to the server while somebody is signed in. */
@Injectable({ providedIn: 'root' })
export class LiveService {
  private readonly session = inject(SessionService);

  /** Each change as the server tells it. */
  readonly changes$: Observable<Change> = toObservable(this.session.state).pipe(
    switchMap((state) => (state === 'in' ? listen() : of())),
    share(),
  );

  private readonly acts = new Subject<void>();

  /** The programme's day turned while the page lay open. */
  private readonly newDay$ = toObservable(this.session.today).pipe(
    pairwise(),
    filter(([before, today]) => before !== '' && today !== ''),
    map(() => undefined),
  );

  /** After one's own acts and on a new day at once; else at most twice a second, which is gentle on the server when an import runs. */
  readonly settled$: Observable<void> = merge(
    this.acts,
    this.newDay$,
    this.changes$.pipe(
      auditTime(500),
      map(() => undefined),
    ),
  );

  /** Something was done here: what shows it is read again without waiting for the server to tell. */
  acted(): void {
    this.acts.next();
  }
}

const shared = 'sombra.live';
/** After a stream was cut for good another try is made, by whichever tab comes first. */
const againMs = 4000;

/**
 * One stream for all tabs: browsers allow six connections to a server, and each stream holds one. The tab that holds
 * the lock listens to the server and passes on what it hears; when it closes, the next one takes over.
 */
function listen(): Observable<Change> {
  return new Observable((subscriber) => {
    if (typeof EventSource === 'undefined') return undefined;
    const hear = (data: string) => subscriber.next(readChange(data));
    // Without locks or channels a tab hears for itself, as on a plain page of an old browser.
    if (!('locks' in navigator) || typeof BroadcastChannel === 'undefined') return openStream(hear);
    const channel = new BroadcastChannel(shared);
    channel.addEventListener('message', ({ data }: MessageEvent<unknown>) => hear(String(data)));
    const passOn = (data: string) => {
      hear(data);
      channel.postMessage(data);
    };
    const leave = leadInTurn(passOn);
    return () => {
      leave();
      channel.close();
    };
  });
}

/** Waits for the lock, then listens until it is left or the stream is cut for good; then waits again. */
function leadInTurn(hear: (data: string) => void): () => void {
  const left = new AbortController();
  const { signal } = left;
  const lead = () =>
    new Promise<void>((release) => {
      const close = openStream(hear, () => setTimeout(release, againMs));
      signal.addEventListener('abort', () => {
        close();
        release();
      });
    });
  const queue = async (): Promise<void> => {
    while (!signal.aborted) await navigator.locks.request(shared, { signal }, lead);
  };
  // Given up while it waits for its turn: that is how a tab is closed.
  queue().catch((error: unknown) => {
    if (!signal.aborted) throw error;
  });
  return () => left.abort();
}

/** The browser connects again by itself after a cut; `ended` tells that it will not, as after a sign-out. */
function openStream(hear: (data: string) => void, ended: () => void = () => undefined): () => void {
  const source = new EventSource('/api/live?ngsw-bypass');
  source.addEventListener('changed', ({ data }: MessageEvent<string>) => hear(data));
  source.addEventListener('error', () => {
    if (source.readyState !== EventSource.CLOSED) return;
    source.close();
    ended();
  });
  return () => source.close();
}

function readChange(data: string): Change {
  const parsed = JSON.parse(data) as { spots?: unknown };
  return { spots: Array.isArray(parsed.spots) ? parsed.spots.map(String) : null };
}
