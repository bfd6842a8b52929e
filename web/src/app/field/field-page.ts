import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
  viewChild,
  type Type,
} from '@angular/core';
import { NgComponentOutlet } from '@angular/common';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { spotSorts, type SpotFilter, type SpotLine, type SpotSort } from '@sombra/contract';
import { stageNames, type Stage } from '@sombra/core';
import {
  catchError,
  combineLatest,
  debounceTime,
  firstValueFrom,
  from,
  merge,
  of,
  startWith,
  Subject,
  switchMap,
  tap,
  type Observable,
} from 'rxjs';
import { KeysService } from '../ui/keys.service';
import { LiveService } from '../ui/live.service';
import { RoomMap } from '../ui/rooms';
import { StateNote } from '../ui/state-note';
import { ViewState } from '../ui/view-state.service';
import { MapView } from '../map/map-view';
import { OutboxService } from '../offline/outbox.service';
import { SessionService } from '../session/session.service';
import { SpotListService, type ListPage } from '../spot/spot-list.service';
import { SpotStore } from '../spot/spot-store';
import { BulkActs } from '../spot/bulk-acts.service';
import { ChosenBench } from './chosen-bench';
import { ChosenService } from '../spot/chosen.service';
import { usualColumns } from './columns';
import { FilterBar } from './filter-bar';
import { ListSheet } from './list-sheet';
import { Overview } from './overview';
import { SpotSource } from './spot-source';
import { SpotSummary } from './spot-summary';
import { SpotTable } from './spot-table';
import { Splitter } from '../ui/splitter';
import { ViewMenu } from './view-menu';
import { textOf } from '../fields/event-values';

const showings = ['list', 'map', 'both'] as const;
type Showing = (typeof showings)[number];

/** Field beside bench: where the spots are, as list and map with one filter and one choice, and the open one. */
@Component({
  selector: 's-field-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    RouterLink,
    NgComponentOutlet,
    FilterBar,
    ViewMenu,
    SpotTable,
    SpotSummary,
    ChosenBench,
    ListSheet,
    Overview,
    Splitter,
    StateNote,
    MapView,
  ],
  providers: [SpotStore],
  templateUrl: './field-page.html',
  styleUrl: './field-page.scss',
})
export class FieldPage {
  protected readonly textOf = textOf;
  /** The stage this page is about; the whole town where there is none. */
  readonly stage = input<Stage | null, Stage | null | undefined>(null, { transform: (stage) => stage ?? null });
  readonly spotId = input<string>();
  protected readonly store = inject(SpotStore);
  protected readonly view = inject(ViewState);
  protected readonly chosen = inject(ChosenService);
  protected readonly session = inject(SessionService);
  private readonly lists = inject(SpotListService);
  private readonly router = inject(Router);
  private readonly rooms = inject(RoomMap);
  private readonly table = viewChild(SpotTable);

  protected readonly benchAsked = new Subject<null>();
  /** What works at one spot in this stage; `away` where it could not be loaded. */
  protected readonly bench = toSignal(
    combineLatest([toObservable(this.stage), this.benchAsked.pipe(startWith(null))]).pipe(
      switchMap(([stage]) => this.benchOf(stage)),
    ),
  );

  /** What is worth knowing in this stage besides its spots. */
  protected readonly note = toSignal(
    toObservable(this.stage).pipe(
      switchMap((stage) => {
        const note = this.rooms.ofStage(stage)?.note;
        return note ? from(note()).pipe(catchError(() => of(null))) : of(null);
      }),
    ),
  );

  protected readonly path = computed(() => `/${this.stage() ?? 'town'}`);
  protected readonly name = computed(() => {
    const stage = this.stage();
    return stage ? stageNames[stage] : 'Town';
  });
  protected readonly emptyText = computed(() => {
    const stage = this.stage();
    const filtered = Object.keys(this.view.filter()).length > 0;
    if (filtered) return 'Nothing fits this filter.';
    return stage
      ? (this.rooms.ofStage(stage)?.empty ?? '')
      : 'No spot is in the programme yet. Import a file or add spots on the map.';
  });
  protected readonly showings = showings;
  protected readonly showing = computed<Showing>(() => {
    const asked = showings.find((one) => one === this.view.text('as'));
    return asked ?? (this.stage() ? 'list' : 'map');
  });

  /** Words are looked for in the stage one is in; what is in none of its spots is looked for in all, and that is said. */
  protected readonly everywhere = linkedSignal<string, boolean>({
    source: () => `${this.stage()} ${this.view.filter().find ?? ''}`,
    computation: () => false,
  });
  protected readonly filter = computed<SpotFilter>(() => {
    const filter = this.view.filter();
    const stage = this.stage();
    const on = this.view.onParam();
    const within = stage && !filter.stage && !this.everywhere();
    return { ...filter, ...(on ? { on } : {}), ...(within ? { stage: [stage] } : {}) };
  });
  protected readonly sort = computed<SpotSort>(() => spotSorts.find((one) => one === this.view.text('sort')) ?? 'ref');
  protected readonly down = computed(() => this.view.text('down') === 'true');
  protected readonly columns = computed<readonly SpotSort[]>(() => {
    const asked = this.view.text('columns')?.split(',') ?? [];
    const known = spotSorts.filter((one) => asked.includes(one));
    return known.length > 0 ? known : usualColumns(this.stage());
  });
  private readonly page = computed<ListPage>(() => ({ filter: this.filter(), sort: this.sort(), down: this.down() }));
  /** The same filter read twice is the same list. */
  protected readonly pageKey = computed(() => JSON.stringify(this.page()));
  protected readonly source = computed(() => {
    this.pageKey();
    // A source reads signals of its own while it starts: the list must not be made anew when they change.
    return untracked(() => {
      const page = this.page();
      return new SpotSource((offset, limit) => this.lists.list({ ...page, offset, limit }));
    });
  });
  /** Where a spot stands in the list, to bring it into view when it was opened elsewhere. */
  protected readonly rank = (spotId: string) => this.lists.rank(this.page(), spotId);
  protected readonly csv = computed(() => this.lists.csvAddress(this.page(), this.columns()));
  protected readonly sheet = signal<readonly SpotLine[] | null>(null);
  protected readonly words = signal('');
  private readonly typed = new Subject<string>();

  constructor() {
    const changed$ = merge(inject(LiveService).settled$, inject(OutboxService).delivered$, inject(BulkActs).done$);
    changed$.pipe(takeUntilDestroyed()).subscribe(() => this.again());
    effect(() => {
      const id = this.spotId();
      if (id) this.store.open({ kind: 'spot', id });
      else this.store.close();
    });
    effect(() => this.words.set(this.view.text('find') ?? ''));
    inject(KeysService).bind([
      { keys: 'Escape', where: 'Field', does: 'clear what is chosen, else close the bench', run: () => this.escape() },
      { keys: 'l', where: 'Field', does: 'show the list', run: () => this.view.set({ as: 'list' }) },
      { keys: 'm', where: 'Field', does: 'show the map', run: () => this.view.set({ as: 'map' }) },
      { keys: 'b', where: 'Field', does: 'show both', run: () => this.view.set({ as: 'both' }) },
    ]);
    effect(() => {
      const found = this.source().total();
      if (found === 0 && this.stage() && this.view.filter().find) this.everywhere.set(true);
    });
    this.typed
      .pipe(debounceTime(180), takeUntilDestroyed())
      .subscribe((words) => this.view.set({ find: words.trim() || null }));
  }

  private benchOf(stage: Stage | null): Observable<Type<unknown> | 'away' | null> {
    const room = this.rooms.ofStage(stage);
    if (!room) return of(null);
    return from(room.bench()).pipe(
      // Whoever works at one stage may walk on to the next without a network.
      tap(() => this.rooms.preload()),
      catchError(() => of('away' as const)),
    );
  }

  protected again(): void {
    const { start, end } = this.table()?.range() ?? { start: 0, end: 1 };
    this.source().refresh(start, end);
  }

  protected type(words: string): void {
    this.words.set(words);
    this.typed.next(words);
  }

  protected open(spotId: string): void {
    if (this.chosen.count() > 0) this.chosen.clear();
    void this.router.navigate([this.path(), spotId], { queryParams: { chosen: null }, queryParamsHandling: 'merge' });
  }

  private escape(): void {
    if (this.chosen.count() > 0) this.chosen.clear();
    else void this.router.navigate([this.path()], { queryParamsHandling: 'preserve' });
  }

  protected order({ sort, down }: { sort: SpotSort; down: boolean }): void {
    this.view.set({ sort: sort === 'ref' ? null : sort, down: down ? 'true' : null });
  }

  protected show(as: Showing): void {
    this.view.set({ as });
  }

  protected chooseColumns(columns: readonly SpotSort[]): void {
    this.view.set({ columns: columns.join(',') });
  }

  /** The list as seen, on paper: what was scrolled past is read first. */
  protected async print(): Promise<void> {
    const { lines } = await firstValueFrom(this.lists.list({ ...this.page(), limit: 2000 }));
    this.sheet.set(lines);
    setTimeout(() => {
      window.print();
      this.sheet.set(null);
    }, 50);
  }
}
