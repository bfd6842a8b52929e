import { computed, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, type Params } from '@angular/router';
import { spotFilterSchema, type SpotFilter } from '@sombra/contract';
import { filter, map, startWith } from 'rxjs';
import { SessionService } from '../session/session.service';

/** Where a chosen day lies: it has been, it is now, or it is only forecast. */
export type Tense = 'past' | 'today' | 'ahead';

const filterKeys = Object.keys(spotFilterSchema.shape) as (keyof SpotFilter)[];

/**
 * What the address says besides the page: the chosen day, the filter, the order, the chosen trees. The
 * address is the only copy, so that a link, a reload and the back button show the same.
 */
@Injectable({ providedIn: 'root' })
export class ViewState {
  private readonly router = inject(Router);
  private readonly session = inject(SessionService);
  private readonly current = signal<Params>({});
  /** Writes that wait for the navigation before them: two in one breath must not lose one. */
  private pending: Params = {};
  private scheduled = false;

  readonly params = this.current.asReadonly();
  readonly today = this.session.today;
  /** The day views show. */
  readonly on = computed(() => this.text('on') ?? this.today());
  readonly tense = computed<Tense>(() => {
    const [on, today] = [this.on(), this.today()];
    return on === today ? 'today' : on < today ? 'past' : 'ahead';
  });

  /** Only what differs from today is sent along. */
  readonly onParam = computed(() => (this.tense() === 'today' ? undefined : this.on()));
  /** The chosen day goes along from page to page; a filter stays where it was made. */
  readonly dayParams = computed((): Params => (this.onParam() ? { on: this.on() } : {}));

  /** The filter of the address; a part that does not fit is left out rather than refused. */
  readonly filter = computed<SpotFilter>(() => {
    const found: Record<string, unknown> = {};
    for (const key of filterKeys) {
      const value = this.text(key);
      if (value === null || key === 'on') continue;
      const parsed = spotFilterSchema.shape[key].safeParse(value);
      if (parsed.success) found[key] = parsed.data;
    }
    return found;
  });

  /** Numbers of the trees chosen for an act or a comparison. */
  readonly chosenRefs = computed(() => (this.text('chosen') ?? '').split(',').filter((ref) => ref !== ''));

  constructor() {
    this.router.events
      .pipe(
        filter((event) => event instanceof NavigationEnd),
        map((event) => event.urlAfterRedirects),
        startWith(this.router.url),
        takeUntilDestroyed(),
      )
      .subscribe((url) => this.current.set(this.router.parseUrl(url).queryParams));
  }

  text(key: string): string | null {
    const value: unknown = this.current()[key];
    return typeof value === 'string' && value !== '' ? value : null;
  }

  /** Changes parts of the address; `null` removes one. */
  set(change: Params): void {
    this.pending = { ...this.pending, ...change };
    if (this.scheduled) return;
    this.scheduled = true;
    queueMicrotask(() => {
      this.scheduled = false;
      const queryParams = this.pending;
      this.pending = {};
      void this.router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl: true });
    });
  }

  setDay(day: string): void {
    this.set({ on: day === this.today() ? null : day });
  }

  /** Clears the filter, not the day. */
  clearFilter(): void {
    this.set(Object.fromEntries(filterKeys.filter((key) => key !== 'on').map((key) => [key, null])));
  }
}

/** A filter as words of an address. */
export function filterParams(filter: SpotFilter): Record<string, string> {
  const given = Object.entries(filter).filter(([, value]) => value !== undefined);
  return Object.fromEntries(
    given.map(([key, value]) => [
      key,
      key === 'area' ? (value as number[][]).map((corner) => corner.join(',')).join(';') : String(value),
    ]),
  );
}
