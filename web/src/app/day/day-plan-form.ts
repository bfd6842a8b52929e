import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { arrangementNames, arrangementsAsked, type ArrangementName, type DayDetail } from '@sombra/contract';
import { clockOf, dayKinds, minutesOfClock, type DayKind } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { DayField } from '../fields/day-field';
import { SessionService } from '../session/session.service';
import { ChosenService } from '../spot/chosen.service';
import { FormDraft } from '../spot/form-draft';
import { readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';

import { dayKindNames } from './day-words';
import { DaysService } from './days.service';

const names = Object.keys(arrangementNames) as ArrangementName[];
const text = () => new FormControl('', { nonNullable: true });
const times = [
  { key: 'gatherMin', name: 'Check-in from' },
  { key: 'beginMin', name: 'Begin' },
  { key: 'endMin', name: 'End' },
] as const;
const lengths = [
  { key: 'demonstrationMin', name: 'Safety talk and demonstration' },
  { key: 'breakMin', name: 'Break' },
  { key: 'cleanUpMin', name: 'Clean-up before the end' },
] as const;

/** Date, hours, places, arrangements and spots of a day. */
@Component({
  selector: 's-day-plan-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, DayField],
  providers: [FormDraft],
  template: `
    @if (draft.restored()) {
      <p class="caution" role="status">
        This is what was typed here before, not stored yet.
        <button type="button" class="btn btn-sm btn-outline-primary" (click)="leaveAsItWas()">
          Leave it as it was
        </button>
      </p>
    }
    <form [formGroup]="form" (submit)="save($event)">
      <div class="two">
        <label>Called <input class="form-control" formControlName="title" maxlength="80" aria-label="Called" /></label>
        <s-day-field formControlName="onDay" label="Day" />
        <label
          >Kind
          <select class="form-select" formControlName="kind" aria-label="Kind">
            @for (kind of kinds; track kind) {
              <option [value]="kind">{{ kindNames[kind] }}</option>
            }
          </select></label
        >
        <label
          >Places
          <input class="form-control" type="number" min="0" max="500" formControlName="capacity" aria-label="Places"
        /></label>
        @for (one of times; track one.key) {
          <label
            >{{ one.name }}
            <input class="form-control" type="time" [formControlName]="one.key" [attr.aria-label]="one.name"
          /></label>
        }
        @for (one of lengths; track one.key) {
          <label
            >{{ one.name }}, min
            <input
              class="form-control"
              type="number"
              min="0"
              max="600"
              [formControlName]="one.key"
              [attr.aria-label]="one.name + ', min'"
          /></label>
        }
      </div>
      <h2>Arrangements</h2>
      <div class="two wide">
        @for (name of names; track name) {
          <label
            >{{ titles[name] }}{{ asked().includes(name) ? '' : ' (if any)' }}
            <textarea
              class="form-control"
              rows="2"
              maxlength="400"
              [formControlName]="name"
              [attr.aria-label]="titles[name]"
            ></textarea>
          </label>
        }
      </div>
      <h2>{{ spotIds().length === 1 ? '1 spot' : spotIds().length + ' spots' }}</h2>
      <p class="spots">
        @for (tree of trees(); track tree.spotId) {
          <button
            type="button"
            class="btn btn-sm btn-outline-primary"
            [disabled]="!mayPlan()"
            [attr.aria-label]="'Leave out ' + tree.ref"
            (click)="leaveOut(tree.spotId)"
          >
            {{ tree.ref }} ×
          </button>
        }
      </p>
      @if (mayPlan() && more().length > 0) {
        <button type="button" class="btn btn-outline-primary" (click)="add()">
          Add the {{ more().length }} chosen in the list
        </button>
      }
      @if (fault(); as words) {
        <p class="problem" role="alert">{{ words }}</p>
      }
      @if (mayPlan()) {
        <p class="acts"><button type="submit" class="btn btn-primary" [disabled]="busy()">Store the plan</button></p>
      }
    </form>
  `,
  styles: `
    .two {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(12rem, 100%), 1fr));
      gap: 0.5rem 1rem;
      max-width: 62rem;
      align-items: end;
    }
    s-day-field {
      display: block;
    }
    .wide {
      grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
    }
    label {
      display: block;
    }
    .form-control,
    .form-select {
      min-height: 44px;
      margin: 0;
    }
    .spots {
      display: flex;
      flex-wrap: wrap;
      gap: 0.3rem;
      max-width: 62rem;
    }
    .acts {
      margin-top: 0.8rem;
    }
  `,
})
export class DayPlanForm {
  readonly day = input.required<DayDetail>();
  readonly changed = output<DayDetail>();
  private readonly doors = inject(DaysService);
  private readonly session = inject(SessionService);
  private readonly chosen = inject(ChosenService);
  private readonly toasts = inject(ToastsService);
  protected readonly names = names;
  protected readonly titles = arrangementNames;
  protected readonly asked = computed(() => arrangementsAsked[this.day().kind]);
  protected readonly kinds = dayKinds;
  protected readonly kindNames = dayKindNames;
  protected readonly times = times;
  protected readonly lengths = lengths;
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly draft = inject(FormDraft);
  protected readonly spotIds = signal<readonly string[]>([]);
  protected readonly mayPlan = computed(() => this.session.may('plan_day'));
  protected readonly trees = computed(() => {
    const known = new Map(this.day().trees.map((tree) => [tree.spotId, tree.ref]));
    for (const { spotId, ref } of this.chosen.chosen()) known.set(spotId, ref);
    return this.spotIds().map((spotId) => ({ spotId, ref: known.get(spotId) ?? '' }));
  });
  protected readonly more = computed(() =>
    this.chosen.chosen().filter(({ spotId, plantedOn }) => plantedOn === null && !this.spotIds().includes(spotId)),
  );
  protected readonly form = new FormGroup({
    /** Of the day it was filled from: what others store meanwhile does not go under what is typed. */
    version: new FormControl(0, { nonNullable: true }),
    spotIds: new FormControl<readonly string[]>([], { nonNullable: true }),
    title: text(),
    onDay: text(),
    kind: new FormControl<DayKind>('volunteers', { nonNullable: true }),
    capacity: new FormControl(0, { nonNullable: true }),
    gatherMin: text(),
    beginMin: text(),
    endMin: text(),
    demonstrationMin: new FormControl(0, { nonNullable: true }),
    breakMin: new FormControl(0, { nonNullable: true }),
    cleanUpMin: new FormControl(0, { nonNullable: true }),
    ...(Object.fromEntries(names.map((name) => [name, text()])) as Record<ArrangementName, FormControl<string>>),
  });
  private filledFrom: string | null = null;

  constructor() {
    effect(() => {
      const day = this.day();
      untracked(() => this.fill(day));
    });
    // Whoever may not plan reads it, and finds so before typing.
    effect(() => {
      const mayPlan = this.mayPlan();
      untracked(() => (mayPlan ? this.form.enable({ emitEvent: false }) : this.form.disable({ emitEvent: false })));
    });
  }

  private fill(day: DayDetail): void {
    const { version: filled } = this.form.getRawValue();
    if (this.filledFrom === day.id && (this.form.dirty || filled === day.version)) return;
    const { title, onDay, kind, capacity, hours, arrangements, version } = day;
    this.filledFrom = day.id;
    const stored = {
      version,
      spotIds: day.trees.map(({ spotId }) => spotId),
      title,
      onDay,
      kind,
      capacity,
      ...hours,
      gatherMin: clockOf(hours.gatherMin),
      beginMin: clockOf(hours.beginMin),
      endMin: clockOf(hours.endMin),
      ...arrangements,
    };
    this.draft.bind(this.form, `day-plan.${day.id}`, stored);
    this.spotIds.set(this.form.controls.spotIds.value);
    if (this.draft.restored()) this.form.markAsDirty();
  }

  protected leaveAsItWas(): void {
    this.draft.clear();
    this.filledFrom = null;
    this.fault.set(null);
    this.fill(this.day());
  }

  private choose(spotIds: readonly string[]): void {
    this.spotIds.set(spotIds);
    this.form.controls.spotIds.setValue(spotIds);
    this.form.markAsDirty();
  }

  protected leaveOut(spotId: string): void {
    this.choose(this.spotIds().filter((one) => one !== spotId));
  }
  protected add(): void {
    this.choose([...this.spotIds(), ...this.more().map(({ spotId }) => spotId)]);
  }

  protected async save(event: Event): Promise<void> {
    event.preventDefault();
    const now = this.form.getRawValue();
    const [gatherMin, beginMin, endMin] = times.map(({ key }) => minutesOfClock(now[key]));
    if (typeof gatherMin !== 'number' || typeof beginMin !== 'number' || typeof endMin !== 'number') {
      this.fault.set('Check-in, begin and end must be times, like 09:30.');
      return;
    }
    this.busy.set(true);
    this.fault.set(null);
    try {
      const { id, gathering } = this.day();
      const changed = await firstValueFrom(
        this.doors.change(id, {
          title: now.title,
          onDay: now.onDay,
          kind: now.kind,
          capacity: now.capacity,
          hours: {
            gatherMin,
            beginMin,
            endMin,
            demonstrationMin: now.demonstrationMin,
            breakMin: now.breakMin,
            cleanUpMin: now.cleanUpMin,
          },
          arrangements: Object.fromEntries(names.map((name) => [name, now[name]])) as Record<ArrangementName, string>,
          gathering,
          spotIds: [...this.spotIds()],
          version: now.version,
        }),
      );
      this.draft.clear();
      this.filledFrom = null;
      this.form.markAsPristine();
      this.changed.emit(changed);
      this.toasts.say('The plan is stored.');
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
