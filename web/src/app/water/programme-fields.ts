import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { ZoneProgramme } from '@sombra/core';
import { textOf } from '../fields/event-values';

/** Minutes, days and times of a valve's programme, as they are typed. */
@Component({
  selector: 's-programme-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label
      >Minutes{{ of() }}
      <input
        class="form-control"
        type="number"
        [value]="programme().minutes"
        [disabled]="disabled()"
        (input)="changed.emit({ minutes: +textOf($event) })"
    /></label>
    @if (withDays()) {
      <label
        >Every so many days
        <input
          class="form-control"
          type="number"
          min="1"
          [value]="programme().everyDays"
          [disabled]="disabled()"
          (input)="changed.emit({ everyDays: +textOf($event) })"
      /></label>
    }
    <label
      >Times a day{{ of() }}
      <input
        class="form-control"
        type="number"
        min="1"
        max="6"
        [value]="programme().timesADay"
        [disabled]="disabled()"
        (input)="changed.emit({ timesADay: +textOf($event) })"
    /></label>
  `,
  styles: `
    :host {
      display: contents;
    }
    .form-control {
      min-height: 42px;
    }
  `,
})
export class ProgrammeFields {
  readonly programme = input.required<ZoneProgramme>();
  readonly disabled = input.required<boolean>();
  /** Goes on after the names, where there are two programmes on a page. */
  readonly of = input('');
  /** New turf is watered every day. */
  readonly withDays = input(true);
  readonly changed = output<Partial<ZoneProgramme>>();
  protected readonly textOf = textOf;
}
