import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import type { Facets, SpotFilter } from '@sombra/contract';
import {
  formatNumber,
  holdsUp,
  levelNames,
  remedyWords,
  sayReason,
  stageNames,
  type Level,
  type Stage,
} from '@sombra/core';
import { auditTime, catchError, combineLatest, map, merge, of, startWith, switchMap } from 'rxjs';
import { SessionService } from '../session/session.service';
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
  readonly percent: string;
  /** What cannot be gone on with until then. */
  readonly holdsUp?: string | undefined;
}

interface Group {
  readonly key: 'level' | 'stage' | 'species' | 'place' | 'waits' | 'remedy';
  readonly name: string;
  readonly bars: readonly Bar[];
  readonly more: number;
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
      <h1>{{ heading() }}</h1>
      <p class="quiet">Open one by its number or mark; choose several with the boxes or the lasso.</p>
      <ng-content />
      <div class="pair">
        @for (group of groups(); track group.key) {
          @if (group.bars.length > 0) {
            <section [attr.aria-label]="group.name" [class.whole]="group.key === 'waits'">
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
                          @if (bar.holdsUp) {
                            <small>holds up {{ bar.holdsUp }}</small>
                          }
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
      grid-template-columns: repeat(auto-fit, minmax(min(19rem, 100%), 1fr));
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
    small {
      display: block;
      color: var(--quiet);
    }
    .whole {
      grid-column: 1 / -1;
    }
    .whole button {
      grid-template-columns: minmax(12rem, 3fr) 1fr 3rem 3.9rem;
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
  /** The stage all of them are in, where they are. */
  readonly stage = input<Stage | null>(null);
  private readonly session = inject(SessionService);
  protected readonly view = inject(ViewState);
  private readonly lists = inject(SpotListService);
  protected readonly facets = signal<Facets | null>(null);
  protected readonly total = computed(() => (this.facets()?.stages ?? []).reduce((sum, { count }) => sum + count, 0));

  protected readonly heading = computed(() => {
    const total = formatNumber(this.total(), 0);
    const spots = this.total() === 1 ? 'spot' : 'spots';
    return this.stage() ? `${total} ${spots} in ${stageNames[this.stage() ?? 'ground']}` : `${total} ${spots} shown`;
  });
  protected readonly groups = computed<readonly Group[]>(() => {
    const { stages = [], levels = [], places = [], species = [], waits = [] } = this.facets() ?? {};
    return [
      ...this.waiting(waits),
      this.group('level', 'Trees by level', levels, (name) => levelNames[name as Level]),
      // Of one stage all are in it.
      ...(stages.length > 1 ? [this.group('stage', 'By stage', stages, (name) => stageNames[name as Stage])] : []),
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

  /** What spots of one stage wait for: each thing that is missing, or each remedy that is open. */
  private waiting(waits: Facets['waits']): Group[] {
    const [first] = waits;
    if (!first) return [];
    const most = Math.max(...waits.map(({ count }) => count));
    const [key, name] = first.remedy
      ? (['remedy', 'Open remedies'] as const)
      : (['waits', 'What they wait for'] as const);
    const bars = waits.slice(0, mostBars).map(({ because, remedy, count }): Bar => ({
      level: null,
      value: remedy ?? because?.code ?? '',
      name: remedy ? remedyWords[remedy].act : because ? sayReason(because, this.session.units()) : '',
      count,
      share: (100 * count) / most,
      percent: ((100 * count) / Math.max(1, this.total())).toFixed(1),
      holdsUp: because ? holdsUp[because.code] : undefined,
    }));
    return [{ key, name, bars, more: waits.length - bars.length }];
  }

  private group(
    key: 'level' | 'stage' | 'species' | 'place',
    name: string,
    counts: Facets['places'],
    say: (name: string) => string,
  ): Group {
    const most = Math.max(1, ...counts.map(({ count }) => count));
    const sum = counts.reduce((total, { count }) => total + count, 0);
    const bars = counts.slice(0, mostBars).map((one): Bar => ({
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
