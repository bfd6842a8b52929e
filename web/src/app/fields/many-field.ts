import { ChangeDetectionStrategy, Component, forwardRef, input, signal } from '@angular/core';
import { NG_VALUE_ACCESSOR, type ControlValueAccessor } from '@angular/forms';
import { DrawingView } from '../drawing/drawing-view';
import type { Choice } from './choice-field';

/** Several of a few, or none of them; `null` where nobody looked. */
@Component({
  selector: 's-many-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView],
  template: `
    <fieldset [disabled]="disabled()">
      <legend>{{ label() }}</legend>
      <div class="choices">
        <button
          type="button"
          [attr.aria-pressed]="value()?.length === 0"
          (click)="put(value()?.length === 0 ? null : [])"
        >
          {{ none() }}
        </button>
        @for (choice of choices(); track choice.value) {
          <button type="button" [attr.aria-pressed]="has(choice.value)" (click)="toggle(choice.value)">
            @if (choice.picture; as drawing) {
              <s-drawing [drawing]="drawing" aria-hidden="true" />
            }
            {{ choice.label }}
          </button>
        }
      </div>
    </fieldset>
  `,
  styles: `
    :host {
      display: block;
      padding: 0.3rem 0;
    }
    legend {
      font-size: 1rem;
      margin: 0 0 0.2rem;
    }
    .choices {
      display: flex;
      flex-wrap: wrap;
      gap: 0.35rem;
    }
    button {
      min-height: var(--choice-height, 42px);
      padding: 0.2rem var(--choice-pad, 0.75rem);
      border: 1px solid var(--edge);
      background: var(--sheet);
      color: inherit;
    }
    button:has(s-drawing) {
      display: inline-flex;
      align-items: center;
      gap: 0.4rem;
      padding-left: 0.3rem;
      text-align: left;
    }
    s-drawing {
      flex: none;
      width: 38px;
      background: var(--sheet);
    }
    button[aria-pressed='true'] {
      background: var(--pine);
      border-color: var(--pine);
      color: var(--on-pine);
      font-weight: 600;
    }
    fieldset:disabled button {
      border-style: dashed;
      background: none;
      color: var(--quiet);
    }
    fieldset:disabled button[aria-pressed='true'] {
      border-style: solid;
      color: var(--ink);
    }
    button:focus-visible {
      outline: 3px solid var(--chosen);
      outline-offset: 1px;
    }
    @media (max-width: 720px) {
      button {
        min-height: 48px;
      }
    }
  `,
  providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => ManyField), multi: true }],
})
export class ManyField implements ControlValueAccessor {
  readonly label = input.required<string>();
  readonly choices = input.required<readonly Choice[]>();
  /** What none of them is called. */
  readonly none = input.required<string>();
  protected readonly value = signal<readonly string[] | null>(null);
  protected readonly disabled = signal(false);
  private changed: (value: readonly string[] | null) => void = () => undefined;
  private touched: () => void = () => undefined;

  protected has(value: string): boolean {
    return this.value()?.includes(value) ?? false;
  }

  protected toggle(value: string): void {
    const after = this.choices()
      .map((choice) => choice.value)
      .filter((one) => (one === value) !== this.has(one));
    this.put(after.length > 0 ? after : null);
  }

  protected put(value: readonly string[] | null): void {
    this.value.set(value);
    this.changed(value);
    this.touched();
  }

  writeValue(value: readonly string[] | null): void {
    this.value.set(value);
  }
  registerOnChange(fn: (value: readonly string[] | null) => void): void {
    this.changed = fn;
  }
  registerOnTouched(fn: () => void): void {
    this.touched = fn;
  }
  setDisabledState(disabled: boolean): void {
    this.disabled.set(disabled);
  }
}
