import { HttpClient } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { establishingSchema, type EstablishingSeason } from '@sombra/contract';
import { formatNumber, type EstablishingState } from '@sombra/core';
import { catchError, map, of, startWith, switchMap } from 'rxjs';
import { LiveService } from '../ui/live.service';
import { saySeason } from '../ui/say-date';
import { ViewState } from '../ui/view-state.service';

interface Part {
  readonly comes: EstablishingState;
  readonly count: number;
  readonly words: string;
}

/** The goal: of the trees planted last season, how many stand on their own, are on their way, or hang. */
@Component({
  selector: 's-establishing-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    @if (season(); as now) {
      <section aria-label="Establishing">
        <p>
          <b>Planted {{ now.name }}: {{ now.planted }}</b>
          @for (part of now.parts; track part.comes) {
            <a routerLink="/inspect" [queryParams]="{ season: now.season, comes: part.comes }" [class]="part.comes">{{
              part.words
            }}</a>
          }
          @if (seasons().length > 1) {
            <button type="button" class="btn btn-sm btn-link" [attr.aria-expanded]="all()" (click)="all.set(!all())">
              {{ all() ? 'Only last season' : 'All seasons' }}
            </button>
          }
        </p>
        <span class="bar" aria-hidden="true">
          @for (part of now.parts; track part.comes) {
            <span [class]="part.comes" [style.flex-grow]="part.count"></span>
          }
        </span>
      </section>
      @if (all()) {
        <table class="plain">
          <thead>
            <tr>
              <th scope="col">Planted</th>
              <th scope="col" class="num">stand</th>
              <th scope="col" class="num">established</th>
              <th scope="col" class="num">to sign off</th>
              <th scope="col" class="num">on their way</th>
              <th scope="col" class="num">hang</th>
            </tr>
          </thead>
          <tbody>
            @for (one of seasons(); track one.season) {
              <tr>
                <td>
                  <a routerLink="/inspect" [queryParams]="{ season: one.season }">{{ named(one.season) }}</a>
                </td>
                <td class="num">{{ one.planted }}</td>
                <td class="num">{{ one.established }}</td>
                <td class="num">{{ one.ready }}</td>
                <td class="num">{{ one.onTheWay }}</td>
                <td class="num">{{ one.hangs }}</td>
              </tr>
            }
          </tbody>
        </table>
      }
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 0 1rem;
    }
    .btn-sm {
      padding: 0;
      min-height: 0;
    }
    p {
      display: flex;
      flex-wrap: wrap;
      gap: 0 0.9rem;
      align-items: baseline;
      margin: 0.25rem 0;
    }
    .bar {
      display: flex;
      height: 8px;
      gap: 2px;
      margin-bottom: 0.5rem;
    }
    .bar > span {
      flex-basis: 0;
      background: var(--line);
    }
    .bar > .established,
    .bar > .ready {
      background: var(--good);
    }
    .bar > .ready {
      opacity: 0.6;
    }
    .bar > .hangs {
      background: var(--act);
    }
  `,
})
export class EstablishingNote {
  private readonly http = inject(HttpClient);
  protected readonly view = inject(ViewState);
  protected readonly seasons = signal<readonly EstablishingSeason[]>([]);
  protected readonly all = signal(false);
  protected readonly named = saySeason;

  /** The last season that is over: the one before is where help pays; the one under way is still being planted. */
  protected readonly season = computed(() => {
    const over = this.seasons().find(({ season }) => `${season + 1}-07-01` <= this.view.today());
    if (!over) return null;
    const part = (comes: EstablishingState, count: number, words: string): Part[] =>
      count === 0 ? [] : [{ comes, count, words: `${formatNumber(count, 0)} ${words}` }];
    return {
      season: over.season,
      name: this.named(over.season),
      planted: formatNumber(over.planted, 0),
      parts: [
        ...part('established', over.established, 'established'),
        ...part('ready', over.ready, 'to sign off'),
        ...part('on_the_way', over.onTheWay, 'on their way'),
        ...part('hangs', over.hangs, over.hangs === 1 ? 'hangs' : 'hang'),
      ],
    };
  });

  constructor() {
    inject(LiveService)
      .settled$.pipe(
        startWith(undefined),
        switchMap(() =>
          this.http.get('/api/establishing').pipe(
            map((body) => establishingSchema.parse(body)),
            catchError(() => of(null)),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((seasons) => {
        if (seasons) this.seasons.set(seasons);
      });
  }
}
