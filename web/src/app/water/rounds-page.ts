import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import type { Fleet, Problem, RoundHead, SeekRounds, SeekRoundsProgress, WaterList } from '@sombra/contract';
import { formatQuantity } from '@sombra/core';
import { firstValueFrom, type Subscription } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { DayField } from '../fields/day-field';
import { tickOf } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { FleetPanel } from './fleet-panel';
import { InvoiceCheckPanel } from './invoice-check';
import { roundStateNames } from './round-words';
import { RoundsService } from './rounds.service';
import { WaterService } from './water.service';

const groupsOf: Readonly<Record<'now' | 'week' | 'drought', SeekRounds['groups']>> = {
  now: ['now'],
  week: ['now', 'week'],
  drought: ['now', 'week', 'drought'],
};

/** Watering rounds: for whom, with which trucks, for how long; those planned so far; the fleet. */
@Component({
  selector: 's-rounds-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, RouterLink, StateNote, DayField, FleetPanel, InvoiceCheckPanel],
  templateUrl: './rounds-page.html',
  styleUrl: './rounds-page.scss',
})
export class RoundsPage {
  protected readonly tickOf = tickOf;
  protected readonly say = sayDay;
  protected readonly states = roundStateNames;
  private readonly doors = inject(RoundsService);
  private readonly water = inject(WaterService);
  private readonly session = inject(SessionService);
  private readonly router = inject(Router);
  protected readonly fleet = signal<Fleet | null>(null);
  protected readonly rounds = signal<readonly RoundHead[] | null>(null);
  protected readonly places = signal<WaterList['places']>([]);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly progress = signal<Extract<SeekRoundsProgress, { kind: 'running' }> | null>(null);
  private readonly without = signal<ReadonlySet<string>>(new Set());
  private search: Subscription | null = null;

  protected readonly mayPlan = computed(() => this.session.may('plan_rounds'));
  protected readonly trucks = computed(() => (this.fleet()?.trucks ?? []).filter(({ retired }) => !retired));
  protected readonly taken = computed(
    () => new Set(this.trucks().flatMap(({ id }) => (this.without().has(id) ? [] : [id]))),
  );
  protected readonly form = new FormGroup({
    title: new FormControl('Watering round', { nonNullable: true }),
    onDay: new FormControl(this.session.today(), { nonNullable: true }),
    until: new FormControl<'now' | 'week' | 'drought'>('week', { nonNullable: true }),
    place: new FormControl('', { nonNullable: true }),
    hours: new FormControl(6, { nonNullable: true }),
  });

  constructor() {
    void this.read();
  }

  protected litres(value: number): string {
    return formatQuantity(value, 'volumeL', this.session.units());
  }

  protected async read(): Promise<void> {
    try {
      const [fleet, rounds, { places }] = await Promise.all([
        firstValueFrom(this.doors.fleet()),
        firstValueFrom(this.doors.rounds()),
        firstValueFrom(this.water.list({ offset: 0, limit: 1 })),
      ]);
      this.fleet.set(fleet);
      this.rounds.set(rounds);
      this.places.set(places);
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  protected take(id: string, on: boolean): void {
    this.without.update((out) => new Set(on ? [...out].filter((one) => one !== id) : [...out, id]));
  }

  protected plan(event: Event): void {
    event.preventDefault();
    const { title, onDay, until, place, hours } = this.form.getRawValue();
    if (!(hours >= 0.5 && hours <= 24)) {
      this.fault.set(`Shift must be within 0.5 to 24 h, got ${hours}.`);
      return;
    }
    if (title.trim() === '') {
      this.fault.set('Called must not be empty.');
      return;
    }
    this.fault.set(null);
    this.progress.set({ kind: 'running', done: 0, cost: 0 });
    const shiftMinutes = Math.round(hours * 60);
    const asked = {
      id: uuidv7(),
      ...{ title, onDay, seed: 1, place: place || null },
      groups: groupsOf[until],
      trucks: [...this.taken()].map((truckId) => ({ truckId, shiftMinutes })),
    };
    this.search = this.doors.plan({ ...asked, groups: [...asked.groups] }).subscribe({
      next: (line) => {
        if (line.kind === 'running') this.progress.set(line);
        if (line.kind === 'failed') this.fault.set(line.title);
        if (line.kind === 'found') void this.router.navigate(['/rounds', line.id]);
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
}
