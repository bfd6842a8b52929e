import { ChangeDetectionStrategy, Component, forwardRef, input, signal } from '@angular/core';
import { NG_VALUE_ACCESSOR, type ControlValueAccessor } from '@angular/forms';
import { DateInput } from './date-input';

let count = 0;

/** A day in a form. */
@Component({
  selector: 's-day-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DateInput],
  template: `
    <label [for]="id">{{ label() }}</label>
    <s-date-input
      [for]="id"
      [value]="value()"
      [latest]="latest()"
      [disabled]="disabled()"
      [class.wrong]="fault()"
      (picked)="pick($event)"
      (left)="touched()"
    />
    <small class="fault">{{ fault() }}</small>
  `,
  styleUrl: './field.scss',
  providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => DayField), multi: true }],
})
export class DayField implements ControlValueAccessor {
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
