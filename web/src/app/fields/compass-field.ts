import { ChangeDetectionStrategy, Component, computed, forwardRef, input, signal } from '@angular/core';
import { NG_VALUE_ACCESSOR, type ControlValueAccessor } from '@angular/forms';
import { compassPoint } from '@sombra/core';

/** Where each point of the rose stands, degrees from north; the middle says what is chosen. */
const rose = [315, 0, 45, 270, null, 90, 225, 180, 135] as const;
const names: Readonly<Record<number, string>> = {
  0: 'N',
  45: 'NE',
  90: 'E',
  135: 'SE',
  180: 'S',
  225: 'SW',
  270: 'W',
  315: 'NW',
};

/** A direction, tapped on a small rose; pressed again it is unknown. Finer ones, from a file or a device, are kept and said. */
@Component({
  selector: 's-compass-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <fieldset [disabled]="disabled()">
      <legend>{{ label() }}</legend>
      <div class="rose">
        @for (deg of rose; track $index) {
          @if (deg === null) {
            <output>{{ said() }}</output>
          } @else {
            <button type="button" [attr.aria-pressed]="value() === deg" (click)="pick(deg)">{{ names[deg] }}</button>
          }
        }
      </div>
    </fieldset>
    @if (note()) {
      <small>{{ note() }}</small>
    }
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
    .rose {
      display: inline-grid;
      grid-template-columns: repeat(3, minmax(48px, auto));
      gap: 2px;
    }
    button,
    output {
      min-height: 44px;
      display: grid;
      place-items: center;
    }
    button {
      border: 1px solid #8b8471;
      background: var(--sheet);
      color: inherit;
    }
    button[aria-pressed='true'] {
      background: var(--pine);
      border-color: var(--pine);
      color: #fffdf6;
      font-weight: 600;
    }
    output {
      font-size: 0.9rem;
      color: var(--quiet);
      text-align: center;
    }
    .fault {
      color: var(--urgent);
      font-weight: 600;
    }
  `,
  providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => CompassField), multi: true }],
})
export class CompassField implements ControlValueAccessor {
  readonly label = input.required<string>();
  readonly note = input('');
  readonly fault = input<string | null>(null);
  protected readonly rose = rose;
  protected readonly names = names;
  protected readonly value = signal<number | null>(null);
  protected readonly disabled = signal(false);
  protected readonly said = computed(() => {
    const value = this.value();
    if (value === null) return '?';
    return value in names ? compassPoint(value) : `${compassPoint(value)} ${Math.round(value)}°`;
  });
  private changed: (value: number | null) => void = () => undefined;
  private touched: () => void = () => undefined;

  protected pick(deg: number): void {
    this.value.update((value) => (value === deg ? null : deg));
    this.changed(this.value());
    this.touched();
  }
  writeValue(value: number | null): void {
    this.value.set(value);
  }
  registerOnChange(changed: (value: number | null) => void): void {
    this.changed = changed;
  }
  registerOnTouched(touched: () => void): void {
    this.touched = touched;
  }
  setDisabledState(disabled: boolean): void {
    this.disabled.set(disabled);
  }
}
