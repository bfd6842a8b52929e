import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import {
  may,
  type FieldPeople,
  type LookLine,
  type LookPlan,
  type Problem,
  type SeekLooksProgress,
  type WorthList,
} from '@sombra/contract';
import { addDaysTo, formatNumber, formatQuantity, lastFoundNames, sayReason, type Reason } from '@sombra/core';
import { firstValueFrom, type Subscription } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { WaysMap } from '../drawing/ways-map';
import { DayField } from '../fields/day-field';
import { tickOf } from '../fields/event-values';
import { AssignmentsService } from '../offline/assignments.service';
import { SessionService } from '../session/session.service';
import { SpotListService } from '../spot/spot-list.service';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay, sayHours } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { LooksService } from './looks.service';

/** Looks that are due or in doubt, by the loss each avoids; divided among inspectors for an afternoon, and given out. */
@Component({
  selector: 's-looks-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, RouterLink, DayField, StateNote, WaysMap],
  templateUrl: './looks-page.html',
  styleUrls: ['../water/rounds-page.scss', './looks-page.scss'],
})
export class LooksPage {
  protected readonly tickOf = tickOf;
  protected readonly say = sayDay;
  protected readonly names = lastFoundNames;
  private readonly doors = inject(LooksService);
  private readonly assign = inject(AssignmentsService);
  private readonly lists = inject(SpotListService);
  private readonly session = inject(SessionService);
  private readonly router = inject(Router);
  protected readonly mayAssign = computed(() => this.session.may('assign'));
  protected readonly list = signal<WorthList | null>(null);
  protected readonly places = signal<readonly string[]>([]);
  protected readonly people = signal<FieldPeople>([]);
  protected readonly going = signal<ReadonlySet<string>>(new Set());
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly progress = signal<Extract<SeekLooksProgress, { kind: 'running' }> | null>(null);
  private readonly planned = signal<LookPlan | null>(null);
  /** Sent again after a cut each assignment is the same one. */
  private readonly ids = computed(() => (this.planned()?.rounds ?? []).map(() => uuidv7()));
  protected readonly sent = signal<string | null>(null);
  protected readonly busy = signal(false);
  private search: Subscription | null = null;
  private asking: Subscription | null = null;

  protected readonly form = new FormGroup({
    place: new FormControl('', { nonNullable: true }),
    aheadDays: new FormControl(7, { nonNullable: true }),
    hours: new FormControl(3, { nonNullable: true }),
  });
  protected readonly title = new FormControl('Looks', { nonNullable: true });
  protected readonly until = new FormControl(addDaysTo(this.session.today(), 2), { nonNullable: true });

  protected readonly found = computed(() => {
    const plan = this.planned();
    if (!plan) return null;
    const rounds = plan.rounds.filter(({ stops }) => stops.length > 0);
    const looks = rounds.reduce((sum, { stops }) => sum + stops.length, 0);
    const value = rounds.reduce((sum, round) => sum + round.value, 0);
    const left =
      plan.left.count === 0
        ? 'None is left for want of time.'
        : `${this.count(plan.left.count)} are left for want of time, worth ${this.worth(plan.left.value)}.`;
    const by = plan.routed ? 'Ways follow the streets.' : 'Ways are straight lines, made longer by 1.35.';
    return {
      head: `${looks === 1 ? '1 look' : `${looks} looks`}, worth ${this.worth(value)}`,
      more: `${left} ${by}`,
      ways: rounds.map(({ name, stops }) => ({
        name,
        from: null,
        places: stops.map(({ position, ref }) => ({ position, title: ref, fill: false })),
      })),
      rounds: rounds.map((round) => ({
        ...round,
        words: `${round.stops.length} looks, ${sayHours(round.minutes)}, walking ${this.far(round.walkM)}, worth ${this.worth(round.value)}`,
      })),
    };
  });
  private readonly asked = signal({ place: '', aheadDays: 7 });
  protected readonly csv = computed(() => {
    const { place, aheadDays } = this.asked();
    const query = new URLSearchParams({ aheadDays: String(aheadDays), ...(place ? { place } : {}) });
    return `/api/looks.csv?${query.toString()}`;
  });

  constructor() {
    const query = inject(ActivatedRoute).snapshot.queryParamMap;
    const ahead = Number(query.get('ahead') ?? 7);
    this.form.patchValue({
      place: query.get('place') ?? '',
      aheadDays: Number.isInteger(ahead) && ahead >= 0 && ahead <= 120 ? ahead : 7,
    });
    void this.read();
  }

  protected worth(value: number): string {
    return `${formatNumber(value, value < 10 ? 1 : 0)} ${this.list()?.currency ?? ''}`.trim();
  }
  protected count(value: number): string {
    return formatNumber(value, 0);
  }
  private far(metres: number): string {
    return formatQuantity(metres, 'distanceM', this.session.units());
  }
  protected because({ because }: LookLine): string {
    // What it comes to stands in a column of its own.
    return (because as Reason[])
      .filter(({ code }) => code !== 'look_worth')
      .map((reason) => sayReason(reason, this.session.units()))
      .join(' ');
  }

  protected async read(): Promise<void> {
    this.ask();
    try {
      const [facets, people] = await Promise.all([
        firstValueFrom(this.lists.facets({})),
        this.mayAssign() ? firstValueFrom(this.assign.people()) : [],
      ]);
      this.places.set(facets.places.map(({ name }) => name));
      this.people.set(people.filter(({ role }) => may(role, 'record_inspection')));
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  /** Weighs the looks asked for; the answer to an older question is dropped. */
  protected ask(): void {
    const { place, aheadDays } = this.form.getRawValue();
    if (!Number.isInteger(aheadDays) || aheadDays < 0 || aheadDays > 120) {
      this.fault.set(`Due within must be within 0 to 120 days, got ${aheadDays}.`);
      return;
    }
    this.fault.set(null);
    this.asked.set({ place, aheadDays });
    void this.router.navigate([], {
      queryParams: { place: place || null, ahead: aheadDays === 7 ? null : aheadDays },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
    this.asking?.unsubscribe();
    this.asking = this.doors.worth({ place: place || null, aheadDays }).subscribe({
      next: (list) => {
        this.list.set(list);
        this.problem.set(null);
      },
      error: (error: unknown) => this.problem.set(readProblem(error)),
    });
  }

  protected take(id: string, on: boolean): void {
    this.going.update((going) => new Set(on ? [...going, id] : [...going].filter((one) => one !== id)));
  }

  protected plan(event: Event): void {
    event.preventDefault();
    const { place, aheadDays, hours: each } = this.form.getRawValue();
    if (!(each >= 0.5 && each <= 12)) {
      this.fault.set(`Hours each must be within 0.5 to 12 h, got ${each}.`);
      return;
    }
    this.fault.set(null);
    this.sent.set(null);
    this.planned.set(null);
    this.progress.set({ kind: 'running', done: 0, cost: 0 });
    const minutes = Math.round(each * 60);
    const inspectors = [...this.going()].map((userId) => ({ userId, minutes }));
    this.search = this.doors.plan({ place: place || null, aheadDays, inspectors, seed: 1 }).subscribe({
      next: (line) => {
        if (line.kind === 'running') this.progress.set(line);
        if (line.kind === 'failed') this.fault.set(line.title);
        if (line.kind === 'found') this.planned.set(line.plan);
      },
      error: (error: unknown) => {
        this.fault.set(sayProblem(readProblem(error)));
        this.progress.set(null);
      },
      complete: () => this.progress.set(null),
    });
  }

  protected stop(): void {
    this.search?.unsubscribe();
    this.progress.set(null);
  }

  protected async give(): Promise<void> {
    const plan = this.planned();
    if (!plan || this.busy()) return;
    if (this.title.value.trim() === '') {
      this.fault.set('Called must not be empty.');
      return;
    }
    this.busy.set(true);
    this.fault.set(null);
    const rounds = plan.rounds
      .map(({ userId, stops }, i) => ({
        id: this.ids()[i] ?? uuidv7(),
        userId,
        spotIds: stops.map((one) => one.spotId),
      }))
      .filter(({ spotIds }) => spotIds.length > 0);
    try {
      await firstValueFrom(this.doors.give({ title: this.title.value, until: this.until.value, rounds }));
      const names = plan.rounds.filter(({ stops }) => stops.length > 0).map(({ name }) => name);
      this.sent.set(`Sent out: ${names.join(', ')}.`);
      this.planned.set(null);
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }

  protected print(): void {
    window.print();
  }
}
