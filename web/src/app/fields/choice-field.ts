import { ChangeDetectionStrategy, Component, forwardRef, input, signal } from '@angular/core';
import type { Drawing } from '@sombra/core';
import { NG_VALUE_ACCESSOR, type ControlValueAccessor } from '@angular/forms';

export interface Choice {
  readonly value: string;
  readonly label: string;
  readonly picture?: Drawing;
}

let count = 0;

/** Choices from a record of names, in its order. */
export const choicesOf = (names: Readonly<Record<string, string>>): Choice[] =>
  Object.entries(names).map(([value, label]) => ({ value, label }));

/** One of a few, as buttons large enough for gloves. */
@Component({
  selector: 's-choice-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <fieldset [disabled]="disabled()">
      <legend>{{ label() }}</legend>
      <div class="choices">
        @for (choice of choices(); track choice.value) {
          <label [class.on]="value() === choice.value">
            <input
              type="radio"
              [name]="name"
              [value]="choice.value"
              [checked]="value() === choice.value"
              (change)="pick(choice.value)"
            />
            {{ choice.label }}
          </label>
        }
      </div>
    </fieldset>
    @if (fault()) {
      <small class="fault">{{ fault() }}</small>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 0.3rem 0;
    }
    legend {
      font-size: 1rem;
      margin-bottom: 0.25rem;
    }
    .choices {
      display: flex;
      flex-wrap: wrap;
      gap: 0.3rem;
    }
    label {
      /* Holds its hidden radio: left free, it would stretch the page it sits on. */
      position: relative;
      display: inline-flex;
      align-items: center;
      min-height: var(--choice-height, 42px);
      padding: 0.2rem var(--choice-pad, 0.75rem);
      border: 1px solid #8b8471;
      background: var(--sheet);
      cursor: pointer;
    }
    label.on {
      background: var(--pine);
      color: #fffdf6;
      border-color: var(--pine);
      font-weight: 600;
    }
    /* What takes nothing looks so, and what is stored still reads. */
    fieldset:disabled label {
      border-style: dashed;
      background: none;
      color: var(--quiet);
      cursor: default;
    }
    fieldset:disabled label.on {
      border-style: solid;
      color: var(--ink);
    }
    label:focus-within {
      outline: 3px solid var(--chosen);
      outline-offset: 1px;
    }
    input {
      position: absolute;
      opacity: 0;
      width: 1px;
      height: 1px;
    }
    .fault {
      color: var(--urgent);
      font-weight: 600;
    }
    @media (max-width: 720px) {
      label {
        min-height: 48px;
      }
    }
  `,
  providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => ChoiceField), multi: true }],
})
export class ChoiceField implements ControlValueAccessor {
  readonly label = input.required<string>();
  readonly choices = input.required<readonly Choice[]>();
  readonly fault = input<string | null>(null);
  protected readonly name = `choice-${(count += 1)}`;
  protected readonly value = signal<string | null>(null);
  protected readonly disabled = signal(false);
  private changed: (value: string) => void = () => undefined;
  private touched: () => void = () => undefined;

  protected pick(value: string): void {
    this.value.set(value);
    this.changed(value);
    this.touched();
  }
  writeValue(value: string | null): void {
    this.value.set(value);
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
