import { ChangeDetectionStrategy, Component, forwardRef, input, signal } from '@angular/core';
import { NG_VALUE_ACCESSOR, type ControlValueAccessor } from '@angular/forms';
import { textOf } from './event-values';

let count = 0;

/** A calendar date. The browser's own picker: the one every phone user knows. */
@Component({
  selector: 's-day-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label [for]="id">{{ label() }}</label>
    <span class="entry" [class.wrong]="fault()">
      <input
        [id]="id"
        type="date"
        [value]="value()"
        [max]="latest()"
        [disabled]="disabled()"
        (change)="pick(textOf($event))"
        (blur)="touched()"
      />
    </span>
    <small class="fault">{{ fault() }}</small>
  `,
  styleUrl: './field.scss',
  providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => DayField), multi: true }],
})
export class DayField implements ControlValueAccessor {
  protected readonly textOf = textOf;
  readonly label = input.required<string>();
  readonly latest = input('');
  readonly fault = input<string | null>(null);
  protected readonly id = `day-${(count += 1)}`;
  protected readonly value = signal('');
  protected readonly disabled = signal(false);
  private changed: (value: string) => void = () => undefined;
  protected touched: () => void = () => undefined;

  protected pick(value: string): void {
    this.value.set(value);
    this.changed(value);
  }
  writeValue(value: string | null): void {
    this.value.set(value ?? '');
  }
  registerOnChange(changed: (value: string) => void): void {
    this.changed = changed;
  }
  registerOnTouched(touched: () => void): void {
    this.touched = touched;
  }
  setDisabledState(disabled: boolean): void {
    this.disabled.set(disabled);
  }
}
