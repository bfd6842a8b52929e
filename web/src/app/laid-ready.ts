import { inject, Injectable } from '@angular/core';
import { Router, type PreloadingStrategy, type Route } from '@angular/router';
import { catchError, EMPTY, from, switchMap, type Observable } from 'rxjs';
import { whenIdle } from './ui/when-idle';

/** A page that mostly follows another, by its route's `follows`, is laid ready while that one is looked at. */
@Injectable({ providedIn: 'root' })
export class LaidReady implements PreloadingStrategy {
  private readonly router = inject(Router);

  preload({ data }: Route, load: () => Observable<unknown>): Observable<unknown> {
    const before: unknown = data?.['follows'];
    if (typeof before !== 'string' || this.router.url.split('?')[0] !== before) return EMPTY;
    // Where the network went before it came it is fetched when it is asked for.
    return from(new Promise<void>(whenIdle)).pipe(
      switchMap(load),
      catchError(() => EMPTY),
    );
  }
}
