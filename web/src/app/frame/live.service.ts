import { inject, Injectable } from '@angular/core';
import { auditTime, map, Observable, of, share, switchMap } from 'rxjs';
import { toObservable } from '@angular/core/rxjs-interop';
import { SessionService } from '../people/session.service';

/** What somebody changed, here or elsewhere: ids of spots, or `null` for many. */
export interface Change {
  readonly spots: readonly string[] | null;
}

/** Listens to the server while somebody is signed in; the browser reconnects by itself. */
@Injectable({ providedIn: 'root' })
export class LiveService {
  private readonly session = inject(SessionService);

  /** Each change as the server tells it. */
  readonly changes$: Observable<Change> = toObservable(this.session.state).pipe(
    switchMap((state) => (state === 'in' ? listen() : of())),
    share(),
  );

  /** At most twice a second: enough for eyes, and gentle on the server when an import runs. */
  readonly settled$: Observable<void> = this.changes$.pipe(
    auditTime(500),
    map(() => undefined),
  );
}

function listen(): Observable<Change> {
  return new Observable((subscriber) => {
    if (typeof EventSource === 'undefined') return undefined;
    const source = new EventSource('/api/live');
    const pass = ({ data }: MessageEvent<string>) => subscriber.next(readChange(data));
    source.addEventListener('changed', pass);
    return () => source.close();
  });
}

function readChange(data: string): Change {
  const parsed = JSON.parse(data) as { spots?: unknown };
  return { spots: Array.isArray(parsed.spots) ? parsed.spots.map(String) : null };
}
