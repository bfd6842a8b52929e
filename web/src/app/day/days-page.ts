import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import type { PlantingDays, Problem, SpotLine } from '@sombra/contract';
import { addDaysTo, dayKinds, type DayKind } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { DayField } from '../fields/day-field';
import { textOf } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { ChosenService } from '../spot/chosen.service';
import { SpotListService } from '../spot/spot-list.service';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDate } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { dayKindNames, dayStateNames } from './day-words';
import { DaysService } from './days.service';
import { WaiverForm } from './waiver-form';

const mostSpots = 1000;

/** Planting days to come and gone by, and three acts to a new one: which spots, when, how many people. */
@Component({
  selector: 's-days-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, StateNote, ReactiveFormsModule, DayField, WaiverForm],
  templateUrl: './days-page.html',
  styleUrl: './day-page.scss',
})
export class DaysPage {
  private readonly doors = inject(DaysService);
  private readonly spots = inject(SpotListService);
  private readonly router = inject(Router);
  protected readonly session = inject(SessionService);
  protected readonly chosen = inject(ChosenService);
  protected readonly textOf = textOf;
  protected readonly say = sayDate;
  protected readonly kinds = dayKinds;
  protected readonly kindNames = dayKindNames;
  protected readonly stateNames = dayStateNames;
  protected readonly days = signal<PlantingDays | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly ready = signal<readonly SpotLine[]>([]);
  protected readonly place = signal<string | null>(null);
  protected readonly mayPlan = computed(() => this.session.may('plan_day'));
  protected readonly today = this.session.today();

  protected readonly form = new FormGroup({
    onDay: new FormControl(addDaysTo(this.session.today(), 14), { nonNullable: true }),
    capacity: new FormControl(12, { nonNullable: true }),
    kind: new FormControl<DayKind>('volunteers', { nonNullable: true }),
    copyOf: new FormControl('', { nonNullable: true }),
  });

  /** Trees ready to plant and on no day yet, by place. */
  protected readonly places = computed(() => {
    const counts = new Map<string, number>();
    for (const { place } of this.ready()) counts.set(place, (counts.get(place) ?? 0) + 1);
    return [...counts].map(([name, count]) => ({ name, count })).sort((a, b) => a.name.localeCompare(b.name));
  });
  protected readonly picked = computed(() => {
    const chosen = this.chosen.chosen().filter(({ plantedOn }) => plantedOn === null);
    if (chosen.length > 0) return { title: placeTitle(chosen), ids: chosen.map(({ spotId }) => spotId) };
    const place = this.place() ?? this.places()[0]?.name;
    const there = this.ready().filter((spot) => spot.place === place);
    return { title: place ?? 'Planting day', ids: there.map(({ spotId }) => spotId) };
  });
  protected readonly coming = computed(() => (this.days() ?? []).filter(({ onDay }) => onDay >= this.today));
  protected readonly past = computed(() => (this.days() ?? []).filter(({ onDay }) => onDay < this.today));

  constructor() {
    void this.read();
  }

  protected async read(): Promise<void> {
    try {
      this.days.set(await firstValueFrom(this.doors.all()));
      const { lines } = await firstValueFrom(
        this.spots.list({ filter: { stage: ['day'], planted: 'no' }, sort: 'place', limit: mostSpots }),
      );
      this.ready.set(lines);
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  protected async make(event: Event): Promise<void> {
    event.preventDefault();
    const { onDay, capacity, kind, copyOf } = this.form.getRawValue();
    const { title, ids } = this.picked();
    this.busy.set(true);
    this.fault.set(null);
    try {
      const asked = {
        id: uuidv7(),
        title,
        onDay,
        kind,
        capacity: Number(capacity),
        spotIds: ids,
        copyOf: copyOf || null,
      };
      const day = await firstValueFrom(this.doors.make(asked));
      await this.router.navigate(['/days', day.id]);
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}

const placeTitle = (spots: readonly SpotLine[]): string =>
  [...new Set(spots.map(({ place }) => place))].slice(0, 2).join(' and ');
