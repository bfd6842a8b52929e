import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import type { DayDetail } from '@sombra/contract';
import { skills, type Skill } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { readProblem, sayProblem } from '../ui/problem';
import { skillNames } from './day-words';
import { DaysService } from './days.service';

const text = () => new FormControl('', { nonNullable: true });
const tick = () => new FormControl(false, { nonNullable: true });

/** Somebody added at the desk, or who walks in on the day. */
@Component({
  selector: 's-day-person-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule],
  template: `
    <form [formGroup]="form" (submit)="save($event)">
      <label
        >Name <input class="form-control" formControlName="name" maxlength="80" autocomplete="off" aria-label="Name"
      /></label>
      <label
        >Skill
        <select class="form-select" formControlName="skill" aria-label="Skill">
          @for (skill of skills; track skill) {
            <option [value]="skill">{{ skillNames[skill] }}</option>
          }
        </select></label
      >
      <label
        >A minor of
        <select class="form-select" formControlName="guardianId" aria-label="A minor of">
          <option value="">nobody: a grown-up</option>
          @for (one of grown(); track one.id) {
            <option [value]="one.id">{{ one.name }}</option>
          }
        </select></label
      >
      <label
        >Stays together with others who give this word
        <input
          class="form-control"
          formControlName="together"
          maxlength="40"
          aria-label="Stays together with others who give this word"
      /></label>
      <label
        >E-mail <input class="form-control" type="email" formControlName="email" maxlength="120" aria-label="E-mail"
      /></label>
      <label
        >Telephone <input class="form-control" formControlName="phone" maxlength="40" aria-label="Telephone"
      /></label>
      <label
        >Whom to call
        <input class="form-control" formControlName="emergencyContact" maxlength="120" aria-label="Whom to call"
      /></label>
      <label
        >Allergies <input class="form-control" formControlName="allergies" maxlength="400" aria-label="Allergies"
      /></label>
      <div class="ticks">
        <label><input type="checkbox" formControlName="signed" /> has signed the waiver</label>
        <label><input type="checkbox" formControlName="noLifting" /> may not lift</label>
        <label><input type="checkbox" formControlName="photos" /> may be photographed</label>
        <label><input type="checkbox" formControlName="walkIn" /> is here now</label>
      </div>
      @if (fault(); as words) {
        <p class="problem" role="alert">{{ words }}</p>
      }
      <button type="submit" class="btn btn-primary" [disabled]="busy()">Add</button>
    </form>
  `,
  styles: `
    form {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(13rem, 100%), 1fr));
      gap: 0.5rem 1rem;
      align-items: end;
      max-width: 62rem;
      padding: 0.8rem 1rem;
      margin-bottom: 0.8rem;
      border: 1px solid var(--line);
      background: var(--sheet);
    }
    .ticks {
      grid-column: 1 / -1;
      display: flex;
      flex-wrap: wrap;
      gap: 0.4rem 1.4rem;
      label {
        min-height: 44px;
        display: flex;
        gap: 0.5rem;
        align-items: center;
      }
      input {
        width: 22px;
        height: 22px;
      }
    }
    .problem {
      grid-column: 1 / -1;
    }
    button {
      justify-self: start;
    }
    .form-control,
    .form-select {
      min-height: 44px;
    }
  `,
})
export class DayPersonForm {
  readonly day = input.required<DayDetail>();
  readonly added = output<DayDetail>();
  private readonly doors = inject(DaysService);
  protected readonly skills = skills;
  protected readonly skillNames = skillNames;
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly grown = computed(() =>
    this.day().people.filter(({ minor, state }) => !minor && state !== 'cancelled'),
  );
  protected readonly form = new FormGroup({
    name: text(),
    skill: new FormControl<Skill>('first_time', { nonNullable: true }),
    guardianId: text(),
    together: text(),
    email: text(),
    phone: text(),
    emergencyContact: text(),
    allergies: text(),
    signed: tick(),
    noLifting: tick(),
    photos: tick(),
    walkIn: tick(),
  });
  /** Sent again after a cut line it is the same person. */
  private id = uuidv7();

  protected async save(event: Event): Promise<void> {
    event.preventDefault();
    const { name, guardianId, together, signed, email, phone, emergencyContact, allergies, ...rest } =
      this.form.getRawValue();
    if (name.trim() === '') {
      this.fault.set('Name must not be empty.');
      return;
    }
    this.busy.set(true);
    this.fault.set(null);
    try {
      const guardian = this.grown().find(({ id }) => id === guardianId);
      const asked = {
        ...rest,
        id: this.id,
        name,
        minor: guardian !== undefined,
        guardianId: guardian?.id ?? null,
        together: together.trim() || null,
        userId: null,
        signedBy: signed ? (guardian?.name ?? name) : null,
        private: { email, phone, emergencyContact, allergies },
      };
      const day = await firstValueFrom(this.doors.add(this.day().id, asked));
      this.id = uuidv7();
      this.form.reset();
      this.added.emit(day);
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
