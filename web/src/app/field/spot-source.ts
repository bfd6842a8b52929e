import { DataSource, type CollectionViewer } from '@angular/cdk/collections';
import { signal } from '@angular/core';
import type { Problem, SpotLine, SpotList } from '@sombra/contract';
import { BehaviorSubject, catchError, EMPTY, mergeMap, Subject, takeUntil, type Observable } from 'rxjs';
import { readProblem } from '../ui/problem';

export type FetchPage = (offset: number, limit: number) => Observable<SpotList>;

const pageLines = 100;

/** The lines of a long list as they are scrolled to, page by page; what was read stays until the list changes. */
export class SpotSource extends DataSource<SpotLine | undefined> {
  private readonly lines$ = new BehaviorSubject<readonly (SpotLine | undefined)[]>([]);
  private readonly asked = new Set<number>();
  private readonly wanted = new Subject<number>();
  private readonly left = new Subject<void>();
  private readonly count = signal<number | null>(null);
  private readonly failed = signal<Problem | null>(null);
  private readonly reads = signal(0);
  /** Grows with each page that is read. */
  readonly version = this.reads.asReadonly();
  /** `null` until the first page is here. */
  readonly total = this.count.asReadonly();
  readonly problem = this.failed.asReadonly();

  constructor(private readonly fetch: FetchPage) {
    super();
    this.wanted
      .pipe(
        mergeMap(
          (page) =>
            this.fetch(page * pageLines, pageLines).pipe(
              catchError((error: unknown) => {
                this.asked.delete(page);
                this.failed.set(readProblem(error));
                return EMPTY;
              }),
              mergeMap((list) => [this.keep(page, list)]),
            ),
          2,
        ),
        takeUntil(this.left),
      )
      .subscribe();
    this.want(0);
  }

  connect(viewer: CollectionViewer): Observable<readonly (SpotLine | undefined)[]> {
    viewer.viewChange.pipe(takeUntil(this.left)).subscribe(({ start, end }) => this.need(start, end));
    return this.lines$;
  }

  disconnect(): void {
    this.left.next();
  }

  at(index: number): SpotLine | undefined {
    return this.lines$.value[index];
  }

  indexOf(spotId: string): number {
    return this.lines$.value.findIndex((line) => line?.spotId === spotId);
  }

  /** Lines read so far between two places of the list, both included. */
  between(first: number, last: number): SpotLine[] {
    return this.lines$.value
      .slice(Math.min(first, last), Math.max(first, last) + 1)
      .filter((line) => line !== undefined);
  }

  /** Reads again what is on screen; the rest is read again when it is scrolled to. */
  refresh(start: number, end: number): void {
    this.failed.set(null);
    this.asked.clear();
    this.need(start, Math.max(end, start + 1));
  }

  need(start: number, end: number): void {
    for (let page = Math.floor(start / pageLines); page * pageLines < Math.max(end, 1); page++) this.want(page);
  }

  private want(page: number): void {
    const total = this.count();
    if (this.asked.has(page) || (total !== null && page > 0 && page * pageLines >= total)) return;
    this.asked.add(page);
    this.wanted.next(page);
  }

  private keep(page: number, { lines, total }: SpotList): void {
    const before = this.lines$.value;
    const all = before.length === total ? [...before] : Array.from({ length: total }, (_, i) => before[i]);
    lines.forEach((line, i) => {
      all[page * pageLines + i] = line;
    });
    this.count.set(total);
    this.failed.set(null);
    this.lines$.next(all);
    this.reads.update((reads) => reads + 1);
  }
}
