import { DestroyRef, effect, inject, signal, type ElementRef, type Signal } from '@angular/core';

/** Width of an element in whole pixels as it changes, `fallback` until it is on the page. */
export function elementWidth(element: Signal<ElementRef<HTMLElement> | undefined>, fallback: number): Signal<number> {
  const width = signal(fallback);
  const observer = new ResizeObserver(([entry]) => {
    if (entry && entry.contentRect.width > 0) width.set(Math.round(entry.contentRect.width));
  });
  effect((onCleanup) => {
    const target = element()?.nativeElement;
    if (!target) return;
    observer.observe(target);
    onCleanup(() => observer.unobserve(target));
  });
  inject(DestroyRef).onDestroy(() => observer.disconnect());
  return width.asReadonly();
}
