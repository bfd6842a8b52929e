import { DestroyRef, inject, Injector } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { filter, fromEvent, merge, switchMap, timer } from 'rxjs';
import { SessionService } from '../session/session.service';
import { whoIsIn } from '../session/who-is-in';
import { settleMs, whenIdle } from '../ui/when-idle';
import { AlongStore, opensSince } from './along-store';

/**
 * What happens to what is taken along whatever page somebody is on: it comes by itself while there is a network, is wiped
 * when they leave, gives way to another person's, and is let go once it opens no more. Call it where services may be
 * injected.
 */
export function alongByItself(): void {
  const [session, store, injector] = [inject(SessionService), inject(AlongStore), inject(Injector)];
  const ends = takeUntilDestroyed<unknown>(inject(DestroyRef));
  session.signedIn$.pipe(ends).subscribe(() => {
    const id = session.user()?.id;
    if (id) whenIdle(() => void store.emptyOfOthers(id).catch(() => undefined));
  });
  session.beforeLeaving((what) => (what === 'forget' ? store.empty() : Promise.resolve()));
  // The first page need not wait for that.
  whenIdle(() => void store.dropBefore(opensSince()).catch(() => undefined));
  // A phone that lay open over night is looked at again in the morning; nothing is asked while nobody looks.
  const looked$ = merge(fromEvent(document, 'visibilitychange'), fromEvent(window, 'online')).pipe(
    filter(() => !document.hidden && session.user() !== null),
  );
  merge(whoIsIn(session), looked$)
    .pipe(
      filter(() => !session.away()),
      // What the person opens comes first.
      switchMap(() => timer(settleMs)),
      ends,
    )
    .subscribe(() => void takeAlong(injector).catch(() => undefined));
}

/** Where the network went before what takes along came there is nothing to take along either. */
async function takeAlong(injector: Injector): Promise<void> {
  const { TakeAlongService } = await import('./take-along.service');
  await injector.get(TakeAlongService).lookAgain();
}
