import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import type { Problem, SpotList } from '@sombra/contract';
import { stageNames } from '@sombra/core';
import { catchError, combineLatest, debounceTime, map, of, startWith, switchMap, tap } from 'rxjs';
import type { OpenStage } from '../frame/open-stages';
import { DayBench } from '../day/day-bench';
import { readProblem, sayProblem } from '../frame/problem';
import { LevelMark } from '../frame/level-mark';
import { sayDay } from '../frame/say-date';
import { GroundBench } from '../ground/ground-bench';
import { InspectBench } from '../inspect/inspect-bench';
import { OutboxService } from '../offline/outbox.service';
import { PitBench } from '../pit/pit-bench';
import { SpotListService } from './spot-list.service';
import { SpotStore } from './spot-store';

const empty: Readonly<Record<OpenStage, string>> = {
  ground: 'No spot waits for measuring.',
  stock: 'No tree waits for its measures.',
  pit: 'Every measured tree has a pit plan.',
  day: 'No tree is ready to plant.',
  inspect: 'No tree is planted yet.',
};

/** Field beside bench: the spots that wait in a stage, and the chosen one with its drawing and decision. */
@Component({
  selector: 's-stage-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, LevelMark, GroundBench, PitBench, DayBench, InspectBench],
  providers: [SpotStore],
  template: `
    <section class="field" [class.hidden-when-narrow]="spotId()" aria-label="Spots in this stage">
      <div class="head">
        <h1>{{ name() }}</h1>
        <span class="quiet">{{ list()?.total ?? '…' }} {{ find() ? 'found' : 'here' }}</span>
      </div>
      <input
        type="search"
        class="form-control"
        placeholder="Find by number, street, species"
        aria-label="Find by number, street or species"
        [value]="find()"
        (input)="find.set($any($event.target).value)"
      />
      @if (problem(); as fault) {
        <p class="problem" role="alert">{{ say(fault) }}</p>
      }
      <ul>
        @for (line of list()?.lines; track line.spotId) {
          <li>
            <a
              [routerLink]="['/', stage(), line.spotId]"
              queryParamsHandling="preserve"
              [class.here]="line.spotId === spotId()"
              [attr.aria-current]="line.spotId === spotId() ? 'true' : null"
            >
              <b>{{ line.ref }}</b>
              <span class="place">{{ line.place }}</span>
              <i class="species">{{ line.species ?? 'no tree yet' }}</i>
              @if (line.stage === 'inspect') {
                <span class="state">
                  <s-level-mark [level]="line.level" />
                  <small>look {{ day(line.nextLookOn) }}</small>
                </span>
              }
            </a>
          </li>
        } @empty {
          @if (list()) {
            <li class="none">{{ find() ? 'Nothing found for these words.' : emptyText() }}</li>
          }
        }
      </ul>
      @if (more(); as rest) {
        <p class="quiet more">{{ rest }} more; find by words to see them.</p>
      }
    </section>
    <section class="bench" aria-label="Bench" [class.hidden-when-narrow]="!spotId()">
      @if (spotId()) {
        <a class="back" [routerLink]="['/', stage()]"
          ><i class="bi bi-arrow-left" aria-hidden="true"></i> All in {{ name() }}</a
        >
        @if (store.problem(); as fault) {
          <p class="problem" role="alert">
            {{ say(fault) }} <button type="button" class="btn btn-link" (click)="store.reload()">Try again</button>
          </p>
        }
        @if (store.detail()) {
          @switch (stage()) {
            @case ('ground') {
              <s-ground-bench />
            }
            @case ('stock') {
              <s-pit-bench />
            }
            @case ('pit') {
              <s-pit-bench />
            }
            @case ('day') {
              <s-day-bench />
            }
            @case ('inspect') {
              <s-inspect-bench />
            }
          }
        } @else if (!store.problem()) {
          <p class="quiet" role="status">Opening the spot…</p>
        }
      } @else {
        <p class="quiet hint">Choose a spot on the left.</p>
      }
    </section>
  `,
  styleUrl: './stage-page.scss',
})
export class StagePage {
  readonly stage = input.required<OpenStage>();
  readonly spotId = input<string>();
  protected readonly store = inject(SpotStore);
  private readonly lists = inject(SpotListService);
  private readonly router = inject(Router);
  protected readonly find = signal(new URLSearchParams(location.search).get('find') ?? '');
  protected readonly list = signal<SpotList | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly name = computed(() => stageNames[this.stage()]);
  protected readonly emptyText = computed(() => empty[this.stage()]);
  protected readonly more = computed(() => {
    const list = this.list();
    return list ? Math.max(0, list.total - list.lines.length) : 0;
  });
  protected readonly say = sayProblem;

  constructor() {
    const delivered$ = inject(OutboxService).delivered$.pipe(startWith(null));
    const find$ = toObservable(this.find).pipe(debounceTime(180), startWith(this.find()));
    combineLatest([toObservable(this.stage), find$, delivered$])
      .pipe(
        map(([stage, find]) => ({ stage, find })),
        switchMap(({ stage, find }) =>
          // Words are looked for everywhere: who types a number wants that tree, whatever stage it is in.
          this.lists.list(find.trim() ? { find: find.trim() } : { stage }).pipe(
            tap(() => this.problem.set(null)),
            catchError((error: unknown) => {
              this.problem.set(readProblem(error));
              return of(null);
            }),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((list) => {
        if (list) this.list.set(list);
      });
    effect(() => {
      const id = this.spotId();
      if (id) this.store.open({ kind: 'spot', id });
      else this.store.close();
    });
    effect(() => {
      const find = this.find().trim() || null;
      void this.router.navigate([], { queryParams: { find }, queryParamsHandling: 'merge', replaceUrl: true });
    });
  }

  protected readonly day = (date: string | null): string => (date ? sayDay(date) : '');
}
