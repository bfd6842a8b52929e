import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { keptDayOf, type DayDetail, type Problem } from '@sombra/contract';
import { dayParts, peopleNeeded, readinessOf } from '@sombra/core';
import { debounceTime, firstValueFrom } from 'rxjs';
import { SessionService } from '../session/session.service';
import { LevelMark } from '../ui/level-mark';
import { LiveService } from '../ui/live.service';
import { readProblem } from '../ui/problem';
import { sayDate } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ViewState } from '../ui/view-state.service';
import { DayPlanForm } from './day-plan-form';
import { DayReadiness } from './day-readiness';
import { DayReport } from './day-report';
import { DayRunBoard } from './day-run-board';
import { DayTeams } from './day-teams';
import { DayPeople } from './day-people';
import { DayTools } from './day-tools';
import { dayKindNames, dayStateNames } from './day-words';
import { DaysService } from './days.service';

const allParts = [
  { key: 'ready', name: 'Readiness' },
  { key: 'plan', name: 'Plan' },
  { key: 'people', name: 'People' },
  { key: 'teams', name: 'Teams' },
  { key: 'tools', name: 'Tools' },
  { key: 'run', name: 'Run of the day' },
  { key: 'report', name: 'Report' },
] as const;
type Part = (typeof allParts)[number]['key'];

/** One planting day, from its red lines to the last tool counted back. */
@Component({
  selector: 's-day-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    RouterLink,
    StateNote,
    LevelMark,
    DayReadiness,
    DayPlanForm,
    DayPeople,
    DayTeams,
    DayTools,
    DayRunBoard,
    DayReport,
  ],
  template: `
    @if (problem(); as trouble) {
      <s-state-note [problem]="trouble" (again)="read()" />
    }
    @if (day(); as now) {
      <div class="head">
        <h1>{{ now.title }}</h1>
        <span>{{ say(now.onDay) }}, {{ kindNames[now.kind] }}</span>
        @if (now.state !== 'planned') {
          <b>{{ stateNames[now.state] }}</b>
        } @else if (ready(); as standing) {
          <s-level-mark [level]="standing.level" />
        }
        @if (sum(); as words) {
          <span class="quiet">{{ words }}</span>
        }
      </div>
      <nav class="parts" aria-label="Parts of the day">
        @for (one of parts(); track one.key) {
          <a
            [routerLink]="[]"
            [queryParams]="{ part: one.key }"
            queryParamsHandling="merge"
            [attr.aria-current]="part() === one.key ? 'page' : null"
            >{{ one.name }}</a
          >
        }
      </nav>
      @switch (part()) {
        @case ('plan') {
          <s-day-plan-form [day]="now" (changed)="day.set($event)" />
        }
        @case ('people') {
          <s-day-people [day]="now" (changed)="day.set($event)" />
        }
        @case ('teams') {
          <s-day-teams [day]="now" (changed)="day.set($event)" />
        }
        @case ('tools') {
          <s-day-tools [day]="now" (changed)="read()" />
        }
        @case ('run') {
          <s-day-run-board [day]="now" (changed)="read()" />
        }
        @case ('report') {
          <s-day-report [day]="now" />
        }
        @default {
          <s-day-readiness [day]="now" />
        }
      }
    } @else if (!problem()) {
      <s-state-note kind="loading" text="Reading the day…" />
    }
  `,
  styleUrl: './day-page.scss',
})
export class DayPage {
  readonly dayId = input.required<string>();
  private readonly doors = inject(DaysService);
  private readonly session = inject(SessionService);
  private readonly view = inject(ViewState);
  /** What a kind of day has no part in is not shown. */
  protected readonly parts = computed(() => {
    const { people = true, teams = true } = dayParts[this.day()?.kind ?? 'volunteers'];
    const out: readonly Part[] = [
      ...(people ? [] : ['people' as const]),
      ...(teams ? [] : ['teams' as const, 'tools' as const]),
    ];
    return allParts.filter(({ key }) => !out.includes(key));
  });
  protected readonly say = sayDate;
  protected readonly kindNames = dayKindNames;
  protected readonly stateNames = dayStateNames;
  protected readonly day = signal<DayDetail | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly part = computed<Part>(
    () =>
      this.parts().find(({ key }) => key === this.view.text('part'))?.key ??
      (this.view.text('person') ? 'run' : 'ready'),
  );
  protected readonly ready = computed(() => {
    const day = this.day();
    return day && readinessOf(keptDayOf(day, this.session.units()));
  });
  /** What the work comes to, in one line. */
  protected readonly sum = computed(() => {
    const day = this.day();
    if (!day || day.state === 'closed') return null;
    const open = day.trees.filter(({ planted }) => !planted).length;
    const { hours, people } = peopleNeeded(keptDayOf(day, this.session.units()));
    const range = `${Math.round(hours.low)}–${Math.round(hours.high)}`;
    const trees = `${open} of ${day.trees.length} trees to plant`;
    const { teams, handsOut } = dayParts[day.kind];
    if (handsOut) return trees;
    return `${trees}, about ${Math.round(hours.likely)} person-hours (${range})${teams ? `, ${people} people` : ''}`;
  });

  constructor() {
    effect(() => {
      this.dayId();
      untracked(() => void this.read());
    });
    // Others work on the same day: their records, people and teams show here too.
    inject(LiveService)
      .changes$.pipe(debounceTime(400), takeUntilDestroyed())
      .subscribe(() => void this.read());
    inject(SessionService)
      .signedIn$.pipe(takeUntilDestroyed())
      .subscribe(() => void this.read());
  }

  protected async read(): Promise<void> {
    const id = this.dayId();
    try {
      const day = await firstValueFrom(this.doors.one(id));
      if (id === this.dayId()) this.day.set(day);
      this.problem.set(null);
    } catch (error) {
      // What was read stays on the screen while the server is away.
      if (!this.day()) this.problem.set(readProblem(error));
    }
  }
}
