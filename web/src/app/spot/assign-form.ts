import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { mostAssignedSpots, type FieldPeople } from '@sombra/contract';
import { assignmentKinds, assignmentNames, type AssignmentKind } from '@sombra/core';
import { catchError, firstValueFrom, of } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { DayField } from '../fields/day-field';
import { textOf } from '../fields/event-values';
import { AssignmentsService } from '../offline/assignments.service';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';
import { FormControl, ReactiveFormsModule } from '@angular/forms';

/** Sends somebody out to spots, or to a delivery, until a day. */
@Component({
  selector: 's-assign-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DayField, ReactiveFormsModule],
  template: `
    <form (submit)="send($event)">
      @if (!deliveryId()) {
        <label for="assign-kind">For</label>
        <select id="assign-kind" class="form-select" (change)="pickKind($event)">
          @for (one of kinds(); track one) {
            <option [value]="one" [selected]="one === chosenKind()">{{ names[one] }}</option>
          }
        </select>
      }
      <label for="assign-who">Who</label>
      <select id="assign-who" class="form-select" (change)="userId.set(textOf($event))">
        <option value="" [selected]="userId() === ''">choose</option>
        @for (one of people(); track one.id) {
          <option [value]="one.id" [selected]="one.id === userId()">
            {{ one.name }}, {{ one.role.replace('_', ' ') }}
          </option>
        }
      </select>
      <s-day-field [formControl]="until" label="Until" [fault]="faults()['until'] ?? null" />
      <label for="assign-title">Called</label>
      <input
        id="assign-title"
        class="form-control"
        maxlength="80"
        [value]="title() ?? proposed()"
        (input)="title.set(textOf($event))"
      />
      @if (tooMany(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <button type="submit" class="btn btn-primary" [disabled]="busy() || userId() === '' || !!tooMany()">
        Send out
      </button>
    </form>
  `,
  styles: `
    form {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(11rem, 100%), 1fr));
      gap: 0.3rem 0.9rem;
      align-items: end;
      padding: 0.7rem;
      border: 1px solid var(--line);
      background: var(--sheet);
      margin-bottom: 0.8rem;
    }
    label {
      grid-column: 1 / -1;
      margin-bottom: -0.2rem;
    }
    select,
    input,
    s-day-field,
    p {
      grid-column: 1 / -1;
    }
    .form-control,
    .form-select,
    .btn {
      min-height: 48px;
    }
  `,
})
export class AssignForm {
  protected readonly textOf = textOf;
  readonly spotIds = input<readonly string[]>([]);
  readonly deliveryId = input<string | null>(null);
  /** Whether all of the spots are planted, or none: what can be asked there follows from it. */
  readonly planted = input<boolean | null>(null);
  /** What the assignment is called unless somebody calls it otherwise. */
  readonly proposed = input.required<string>();
  readonly sentOut = output();
  private readonly assignments = inject(AssignmentsService);
  private readonly toasts = inject(ToastsService);
  protected readonly names = assignmentNames;
  protected readonly people = signal<FieldPeople>([]);
  protected readonly kind = signal<AssignmentKind | null>(null);
  protected readonly userId = signal('');
  protected readonly title = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly problem = signal<string | null>(null);
  protected readonly faults = signal<Readonly<Record<string, string>>>({});
  protected readonly until = new FormControl(inject(SessionService).today(), { nonNullable: true });

  protected readonly kinds = computed<readonly AssignmentKind[]>(() => {
    if (this.deliveryId()) return ['delivery'];
    const planted = this.planted();
    const fits: Readonly<Record<AssignmentKind, boolean>> = {
      test_holes: planted !== true,
      planting: planted !== true,
      watering: planted !== false,
      looks: planted !== false,
      remedies: planted !== false,
      delivery: false,
    };
    return assignmentKinds.filter((kind) => fits[kind]);
  });
  protected readonly chosenKind = computed(() => {
    const kind = this.kind();
    return kind && this.kinds().includes(kind) ? kind : (this.kinds()[0] ?? 'looks');
  });
  protected readonly tooMany = computed(() =>
    this.spotIds().length > mostAssignedSpots
      ? `At most ${mostAssignedSpots} spots go out at once, got ${this.spotIds().length}.`
      : null,
  );

  constructor() {
    this.assignments
      .people()
      .pipe(
        catchError((error: unknown) => {
          this.problem.set(sayProblem(readProblem(error)));
          return of([]);
        }),
        takeUntilDestroyed(),
      )
      .subscribe((people) => this.people.set(people));
  }

  protected pickKind(event: Event): void {
    this.kind.set(textOf<AssignmentKind>(event));
  }

  protected async send(event: Event): Promise<void> {
    event.preventDefault();
    this.busy.set(true);
    this.problem.set(null);
    this.faults.set({});
    try {
      const [deliveryId, until] = [this.deliveryId(), this.until.value];
      const spotIds = deliveryId ? [] : [...this.spotIds()];
      const plain = { id: uuidv7(), kind: this.chosenKind(), title: (this.title() ?? this.proposed()).trim() };
      await firstValueFrom(this.assignments.assign({ ...plain, userId: this.userId(), until, spotIds, deliveryId }));
      const name = this.people().find(({ id }) => id === this.userId())?.name ?? '';
      this.toasts.say(`Sent out: ${name} takes it along on the next contact.`);
      this.sentOut.emit();
    } catch (error) {
      const problem = readProblem(error);
      this.faults.set(Object.fromEntries((problem.issues ?? []).map(({ path, message }) => [path, message])));
      const [issue] = problem.issues ?? [];
      this.problem.set(issue ? `${sayProblem(problem)} ${issue.path}: ${issue.message}.` : sayProblem(problem));
    } finally {
      this.busy.set(false);
    }
  }
}
