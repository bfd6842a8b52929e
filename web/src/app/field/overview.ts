import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import type { Facets, SpotFilter } from '@sombra/contract';
import { levelNames, stageNames, type Level, type Stage } from '@sombra/core';
import { auditTime, catchError, combineLatest, map, merge, of, startWith, switchMap } from 'rxjs';
import { LevelMark } from '../ui/level-mark';
import { LiveService } from '../ui/live.service';
import { ViewState } from '../ui/view-state.service';
import { SpotListService } from '../spot/spot-list.service';
import { BulkActs } from '../spot/bulk-acts.service';

interface Bar {
  /** Where the bar is of a level: its mark stands instead of its name. */
  readonly level: Level | null;
  readonly value: string;
  readonly name: string;
  readonly count: number;
  readonly share: number;
}

const mostBars = 10;
/** Counting a city takes the server a while: others' acts are counted in now and then. */
const liveEveryMs = 8000;

/** What the field shows, in numbers: each bar narrows the filter to itself. */
@Component({
  selector: 's-overview',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LevelMark],
  template: `
    @if (facets(); as counts) {
      <h1>{{ total() }} {{ total() === 1 ? 'spot' : 'spots' }} shown</h1>
      <p class="quiet">Open one by its number or mark; choose several with the boxes or the lasso.</p>
      <div class="pair">
        @for (group of groups(); track group.key) {
          @if (group.bars.length > 0) {
            <section [attr.aria-label]="group.name">
              <h2>{{ group.name }}</h2>
              <ul>
                @for (bar of group.bars; track bar.value) {
                  <li>
                    <button type="button" (click)="view.set(narrow(group.key, bar.value))">
                      <span class="name" [class.botanical]="group.key === 'species'">
                        @if (bar.level; as level) {
                          <s-level-mark [level]="level" />
                        } @else {
                          {{ bar.name }}
                        }
                      </span>
                      <span class="bar"><span [style.width.%]="bar.share"></span></span>
                      &ngsp;<span class="num">{{ bar.count }}</span
                      >&ngsp;<span class="num quiet">{{ bar.percent }} %</span>
                    </button>
                  </li>
                }
              </ul>
              @if (group.more > 0) {
                <p class="quiet">{{ group.more }} more.</p>
              }
            </section>
          }
        }
      </div>
    }
  `,
  styles: `
    .pair {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(19rem, 1fr));
      gap: 0.5rem 2rem;
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    button {
      display: grid;
      grid-template-columns: minmax(7rem, 1.2fr) 1fr 3rem 3.9rem;
      align-items: center;
      gap: 0.5rem;
      width: 100%;
      min-height: 34px;
      border: 0;
      border-bottom: 1px solid var(--line);
      background: none;
      color: var(--ink);
      text-align: left;
    }
    button:hover {
      background: var(--shade);
    }
    .botanical {
      font-style: italic;
    }
    .bar {
      height: 10px;
      background: var(--cost-paper);
    }
    .bar span {
      display: block;
      height: 100%;
      background: var(--pine);
    }
    :host-context([data-bs-theme='dark']) .bar span {
      background: var(--leaf);
    }
    .num {
      text-align: right;
      white-space: nowrap;
      font-variant-numeric: tabular-nums lining-nums;
    }
    @media (max-width: 720px) {
      button {
        min-height: 48px;
      }
    }
  `,
})
export class Overview {
  readonly filter = input.required<SpotFilter>();
  protected readonly view = inject(ViewState);
  private readonly lists = inject(SpotListService);
  protected readonly facets = signal<Facets | null>(null);
  protected readonly total = computed(() => (this.facets()?.stages ?? []).reduce((sum, { count }) => sum + count, 0));

  protected readonly groups = computed(() => {
    const { stages = [], levels = [], places = [], species = [] } = this.facets() ?? {};
    return [
      this.group('level', 'Trees by level', levels, (name) => levelNames[name as Level]),
      this.group('stage', 'By stage', stages, (name) => stageNames[name as Stage]),
      this.group('species', 'By species', species, (name) => name),
      this.group('place', 'By place', places, (name) => name),
    ];
  });

  constructor() {
    const changed$ = merge(inject(LiveService).settled$.pipe(auditTime(liveEveryMs)), inject(BulkActs).done$).pipe(
      startWith(null),
    );
    const key = computed(() => JSON.stringify(this.filter()));
    combineLatest([toObservable(key), changed$])
      .pipe(
        map(() => this.filter()),
        switchMap((filter) => this.lists.facets(filter).pipe(catchError(() => of(null)))),
        takeUntilDestroyed(),
      )
      .subscribe((facets) => {
        if (facets) this.facets.set(facets);
      });
  }

  private group(
    key: 'level' | 'stage' | 'species' | 'place',
    name: string,
    counts: Facets['places'],
    say: (name: string) => string,
  ) {
    const most = Math.max(1, ...counts.map(({ count }) => count));
    const sum = counts.reduce((total, { count }) => total + count, 0);
    const bars = counts.slice(0, mostBars).map((one): Bar & { percent: string } => ({
      level: key === 'level' ? (one.name as Level) : null,
      value: one.name,
      name: say(one.name),
      count: one.count,
      share: (100 * one.count) / most,
      percent: ((100 * one.count) / Math.max(1, sum)).toFixed(1),
    }));
    return { key, name, bars, more: counts.length - bars.length };
  }

  protected narrow(key: string, value: string): Record<string, string> {
    return { [key]: value };
  }
}
