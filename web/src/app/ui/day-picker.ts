import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NgbDatepicker, type NgbDateStruct } from '@ng-bootstrap/ng-bootstrap/datepicker';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { ViewState } from './view-state.service';

const structOf = (day: string): NgbDateStruct => {
  const [year = 2000, month = 1, date = 1] = day.split('-').map(Number);
  return { year, month, day: date };
};

const two = (value: number): string => String(value).padStart(2, '0');

/** A calendar to hang the thread at any day. */
@Component({
  selector: 's-day-picker',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgbDatepicker],
  template: `
    <div class="modal-header">
      <h2 class="modal-title" id="day-picker-title">Show another day</h2>
      <button type="button" class="btn-close" aria-label="Close" (click)="modal.dismiss()"></button>
    </div>
    <div class="modal-body">
      <p class="quiet">Days before today show what was on record, days after it what falls due.</p>
      <ngb-datepicker
        [startDate]="start"
        [firstDayOfWeek]="1"
        [displayMonths]="1"
        navigation="select"
        outsideDays="hidden"
        (dateSelect)="show($event)"
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
  private readonly view = inject(ViewState);
  protected readonly start = structOf(this.view.on());

  protected show({ year, month, day }: NgbDateStruct): void {
    this.view.setDay(`${year}-${two(month)}-${two(day)}`);
    this.modal.close();
  }
}
