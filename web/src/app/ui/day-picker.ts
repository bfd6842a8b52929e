import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NgbDatepicker, type NgbDateStruct } from '@ng-bootstrap/ng-bootstrap/datepicker';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { sayDay } from './say-date';

export interface AskedDay {
  readonly title?: string;
  /** ISO; empty where none is chosen yet. */
  readonly day: string;
  readonly note?: string;
  readonly earliest?: string;
  readonly latest?: string;
}

const structOf = (day: string): NgbDateStruct => {
  const [year = 2000, month = 1, date = 1] = day.split('-').map(Number);
  return { year, month, day: date };
};

const two = (value: number): string => String(value).padStart(2, '0');

const [first, last] = [
  { year: 1950, month: 1, day: 1 },
  { year: 2099, month: 12, day: 31 },
];

/** A calendar; it closes with the ISO day that was taken. */
@Component({
  selector: 's-day-picker',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgbDatepicker],
  template: `
    <div class="modal-header">
      <h2 class="modal-title" id="day-picker-title">{{ asked().title ?? 'Choose a day' }}</h2>
      <button type="button" class="btn-close" aria-label="Close" (click)="modal.dismiss()"></button>
    </div>
    <div class="modal-body">
      <p class="quiet">{{ asked().note ?? (asked().day ? 'Now ' + say(asked().day) + '.' : '') }}</p>
      <ngb-datepicker
        [startDate]="start()"
        [minDate]="min()"
        [maxDate]="max()"
        [firstDayOfWeek]="1"
        [displayMonths]="1"
        navigation="select"
        outsideDays="hidden"
        (dateSelect)="take($event)"
      />
    </div>
  `,
  styles: `
    :host ::ng-deep .ngb-dp-day,
    :host ::ng-deep .ngb-dp-weekday {
      width: 2.6rem;
      height: 2.4rem;
    }
    :host ::ng-deep [ngbDatepickerDayView] {
      height: 2.4rem;
      line-height: 2.4rem;
      width: 2.6rem;
      color: var(--ink);
      background: none;
    }
    :host ::ng-deep [ngbDatepickerDayView]:hover,
    :host ::ng-deep .ngb-dp-day:focus-visible [ngbDatepickerDayView] {
      background: var(--chosen-pale);
    }
    :host ::ng-deep .ngb-dp-header,
    :host ::ng-deep .ngb-dp-weekdays {
      background: none;
    }
    :host ::ng-deep .ngb-dp-weekday {
      color: var(--quiet);
    }
  `,
})
export class DayPicker {
  protected readonly modal = inject(NgbActiveModal);
  protected readonly say = sayDay;
  protected readonly asked = signal<AskedDay>({ day: '' });
  protected readonly start = computed(() => structOf(this.asked().day || new Date().toISOString().slice(0, 10)));
  protected readonly min = computed(() => (this.asked().earliest ? structOf(this.asked().earliest ?? '') : first));
  protected readonly max = computed(() => (this.asked().latest ? structOf(this.asked().latest ?? '') : last));

  ask(asked: AskedDay): void {
    this.asked.set(asked);
  }

  protected take({ year, month, day }: NgbDateStruct): void {
    this.modal.close(`${year}-${two(month)}-${two(day)}`);
  }
}
