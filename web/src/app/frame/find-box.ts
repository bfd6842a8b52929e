import { HttpClient } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, ElementRef, inject, viewChild } from '@angular/core';
import { Router } from '@angular/router';
import { NgbTypeahead, type NgbTypeaheadSelectItemEvent } from '@ng-bootstrap/ng-bootstrap/typeahead';
import { findHitsSchema, type FindHit } from '@sombra/contract';
import { catchError, debounceTime, distinctUntilChanged, map, of, switchMap, type Observable } from 'rxjs';
import { readDay } from '../fields/read-day';
import { KeysService } from '../ui/keys.service';
import { RoomMap, type Page } from '../ui/rooms';
import { sayDay } from '../ui/say-date';
import { ViewState } from '../ui/view-state.service';

type Hit = Omit<FindHit, 'kind'> & { readonly kind: FindHit['kind'] | 'page' | 'none' };

const kinds: Readonly<Record<Hit['kind'], { readonly icon: string; readonly name: string }>> = {
  tree: { icon: 'bi-geo', name: 'spot' },
  place: { icon: 'bi-signpost', name: 'place' },
  species: { icon: 'bi-tree', name: 'species' },
  person: { icon: 'bi-person', name: 'person' },
  day: { icon: 'bi-calendar-event', name: 'day' },
  page: { icon: 'bi-window', name: 'page' },
  none: { icon: 'bi-slash-circle', name: 'nothing found' },
};

const nothingLike = (words: string): Hit => ({
  kind: 'none',
  name: `Nothing is called “${words}”`,
  detail: 'a number, place, species, person, day or page',
  path: '',
  query: {},
});

/** One box that finds trees, places, species, people, days and pages; a date moves the thread. */
@Component({
  selector: 's-find-box',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgbTypeahead],
  template: `
    <ng-template #hit let-hit="result">
      <i class="bi {{ iconOf(hit) }}" aria-hidden="true"></i>
      <b>{{ hit.name }}</b>&ngsp;<small>{{ hit.detail }}</small
      ><span class="visually-hidden">, {{ kindOf(hit) }}</span>
    </ng-template>
    <input
      #box
      type="text"
      class="form-control form-control-sm"
      placeholder="Find anything   /"
      aria-label="Find trees, places, species, people, days and pages"
      [ngbTypeahead]="search"
      [resultTemplate]="hit"
      [inputFormatter]="nothing"
      [focusFirst]="true"
      (selectItem)="go($event)"
    />
  `,
  styles: `
    input {
      width: 15rem;
      min-height: 36px;
    }
    i {
      margin-right: 0.4rem;
    }
    small {
      margin-left: 0.4rem;
      color: var(--quiet);
    }
    @media (max-width: 1080px) {
      input {
        width: 10rem;
      }
    }
    @media (max-width: 720px) {
      input {
        width: 7.5rem;
        min-height: 44px;
      }
    }
  `,
})
export class FindBox {
  private readonly http = inject(HttpClient);
  private readonly router = inject(Router);
  private readonly rooms = inject(RoomMap);
  private readonly view = inject(ViewState);
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  protected readonly iconOf = ({ kind }: Hit): string => kinds[kind].icon;
  protected readonly kindOf = ({ kind }: Hit): string => kinds[kind].name;
  protected readonly nothing = (): string => '';

  constructor() {
    inject(KeysService).bind([
      {
        keys: '/',
        where: 'Everywhere',
        does: 'find a tree, place, species, person, day or page',
        run: () => this.focus(),
      },
    ]);
  }

  private focus(): void {
    this.box().nativeElement.focus();
    this.box().nativeElement.select();
  }

  protected readonly search = (words$: Observable<string>): Observable<Hit[]> =>
    words$.pipe(
      debounceTime(150),
      map((words) => words.trim()),
      distinctUntilChanged(),
      switchMap((words) =>
        words === ''
          ? of([])
          : this.http.get('/api/find', { params: { words } }).pipe(
              map((body) => findHitsSchema.parse(body)),
              catchError(() => of(null)),
              map((found) => {
                const hits = [...this.asDate(words), ...this.asPages(words), ...(found ?? [])];
                // Where the server is away nobody knows whether there is any.
                return hits.length > 0 || found === null ? hits : [nothingLike(words)];
              }),
            ),
      ),
    );

  /** Pages need no server to be found. */
  private asPages(words: string): Hit[] {
    const asHit = ({ path, name, key }: Page): Hit => ({ kind: 'page', name, detail: `g ${key}`, path, query: {} });
    return this.rooms.pagesLike(words).map(asHit);
  }

  private asDate(words: string): FindHit[] {
    const on = readDay(words);
    if (on === null) return [];
    return [{ kind: 'day', name: sayDay(on), detail: 'show this day', path: '', query: { on } }];
  }

  protected go({ item, preventDefault }: NgbTypeaheadSelectItemEvent<Hit>): void {
    preventDefault();
    // What was typed stays, to be typed otherwise.
    if (item.kind === 'none') return;
    this.box().nativeElement.value = '';
    this.box().nativeElement.blur();
    if (item.path === '') return this.view.setDay(item.query['on'] ?? this.view.today());
    const on = this.view.onParam();
    void this.router.navigate([item.path], { queryParams: { ...(on ? { on } : {}), ...item.query } });
  }
}
