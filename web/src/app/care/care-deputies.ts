import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import type { OpenCare } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { DayField } from '../fields/day-field';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDate } from '../ui/say-date';
import { CareService } from './care.service';

const text = () => new FormControl('', { nonNullable: true });

/** Who waters while a keeper is away: they get a link of their own for those days. */
@Component({
  selector: 's-care-deputies',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, DayField],
  template: `
    <details>
      <summary>I am away</summary>
      @for (one of care().deputies; track one.id) {
        <p>
          <b>{{ one.name }}</b> stands in from {{ say(one.fromDay) }} to {{ say(one.untilDay) }}.
        </p>
      }
      <form [formGroup]="form" (submit)="send($event)" novalidate>
        <label>Who waters <input class="form-control" maxlength="80" formControlName="name" /></label>
        <label
          >Their e-mail, if they want reminders
          <input class="form-control" type="email" maxlength="120" formControlName="email"
        /></label>
        <s-day-field formControlName="fromDay" label="From" />
        <s-day-field formControlName="untilDay" label="Until" />
        @if (fault(); as words) {
          <p class="problem" role="alert">{{ words }}</p>
        }
        <button type="submit" class="btn btn-primary" [disabled]="busy()">Name them</button>
      </form>
      @if (link(); as address) {
        <p role="status">
          Their link, shown once; hand it on: <b class="link">{{ address }}</b>
        </p>
      }
    </details>
  `,
  styles: `
    summary {
      min-height: 48px;
      padding-top: 0.8rem;
      font-weight: 600;
    }
    label {
      display: block;
      margin-top: 0.7rem;
    }
    .form-control,
    .btn {
      min-height: 48px;
    }
    .btn {
      margin-top: 0.8rem;
    }
    .link {
      overflow-wrap: anywhere;
    }
  `,
})
export class CareDeputies {
  readonly token = input.required<string>();
  readonly care = input.required<OpenCare>();
  readonly told = output<OpenCare>();
  private readonly doors = inject(CareService);
  protected readonly say = sayDate;
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly link = signal<string | null>(null);
  protected readonly form = new FormGroup({ name: text(), email: text(), fromDay: text(), untilDay: text() });
  private id = uuidv7();

  protected async send(event: Event): Promise<void> {
    event.preventDefault();
    const { name, email, fromDay, untilDay } = this.form.getRawValue();
    if (name.trim() === '' || fromDay === '' || untilDay === '') {
      this.fault.set('A name, the first day and the last day are needed.');
      return;
    }
    this.busy.set(true);
    this.fault.set(null);
    try {
      const named = { id: this.id, name: name.trim(), email: email.trim(), fromDay, untilDay };
      const { path, care } = await firstValueFrom(this.doors.deputy(this.token(), named));
      this.id = uuidv7();
      this.form.reset();
      this.link.set(path === '' ? null : `${location.origin}${path}`);
      this.told.emit(care);
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
