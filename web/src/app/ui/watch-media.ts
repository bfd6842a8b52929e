import type { Signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { fromEvent, map } from 'rxjs';

/** Whether the window is as asked, also after it was turned or dragged; call it where signals may be made. */
export function watchMedia(query: string): Signal<boolean> {
  const list = matchMedia(query);
  const changes$ = fromEvent<MediaQueryListEvent>(list, 'change').pipe(map(({ matches }) => matches));
  return toSignal(changes$, { initialValue: list.matches });
}
