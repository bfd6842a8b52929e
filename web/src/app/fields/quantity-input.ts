import { ChangeDetectionStrategy, Component, effect, input, output, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import type { MeasuredName } from '@sombra/core';
import { MeasureField } from './measure-field';

/** A measure field for a form that is held in signals: the metric value in and out, `null` while it is none. */
@Component({
  selector: 's-quantity-input',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MeasureField, ReactiveFormsModule],
  template: `<s-measure-field [fact]="fact()" [label]="label()" [formControl]="control" [required]="required()" />`,
  styles: ':host { display: block; }',
})
export class QuantityInput {
  readonly fact = input.required<MeasuredName>();
  readonly label = input<string | null>(null);
  readonly value = input.required<number | null>();
  readonly required = input(true);
  readonly disabled = input(false);
  readonly valueChange = output<number | null>();
  protected readonly control = new FormControl<number | null>(null);

  constructor() {
    effect(() => {
      const value = this.value();
      untracked(() => {
        if (value !== this.control.value) this.control.setValue(value, { emitEvent: false });
      });
    });
    effect(() => {
      const disabled = this.disabled();
      untracked(() => (disabled ? this.control.disable : this.control.enable).call(this.control, { emitEvent: false }));
    });
    this.control.valueChanges.pipe(takeUntilDestroyed()).subscribe((value) => this.valueChange.emit(value));
  }
}
