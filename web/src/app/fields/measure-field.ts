import { ChangeDetectionStrategy, Component, computed, effect, forwardRef, inject, input, signal } from '@angular/core';
import {
  NG_VALIDATORS,
  NG_VALUE_ACCESSOR,
  type AbstractControl,
  type ControlValueAccessor,
  type ValidationErrors,
  type Validator,
} from '@angular/forms';
import {
  displays,
  formatNumber,
  formatQuantity,
  fromDisplay,
  limits,
  toDisplay,
  type Measure,
  type Quantity,
} from '@sombra/core';
import { SessionService } from '../people/session.service';

let count = 0;

/** A number with its unit, typed in the reader's units and held in metric; `null` when empty. */
@Component({
  selector: 's-measure-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label [for]="id">{{ label() }}</label>
    <span class="entry" [class.wrong]="shownFault()">
      <input
        [id]="id"
        type="text"
        inputmode="decimal"
        autocomplete="off"
        [value]="typed()"
        [disabled]="disabled()"
        [attr.aria-invalid]="shownFault() ? 'true' : null"
        [attr.aria-describedby]="id + '-note'"
        (input)="type($any($event.target).value)"
        (blur)="leave()"
      />
      <span class="unit">{{ unit() }}</span>
    </span>
    <small [id]="id + '-note'" [class.fault]="shownFault()">{{ shownFault() ?? note() }}</small>
    @if (inches(); as doubt) {
      <button type="button" class="btn btn-sm btn-outline-primary" (click)="takeInches(doubt.mm)">
        Inches? Take {{ doubt.words }}
      </button>
    }
  `,
  styleUrl: './field.scss',
  providers: [
    { provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => MeasureField), multi: true },
    { provide: NG_VALIDATORS, useExisting: forwardRef(() => MeasureField), multi: true },
  ],
})
export class MeasureField implements ControlValueAccessor, Validator {
  readonly label = input.required<string>();
  readonly measure = input.required<Measure>();
  readonly quantity = input<Quantity>('lengthMm');
  readonly note = input('');
  readonly required = input(true);
  /** A fault the server found in this field. */
  readonly fault = input<string | null>(null);

  protected readonly id = `measure-${(count += 1)}`;
  private readonly session = inject(SessionService);
  protected readonly typed = signal('');
  protected readonly disabled = signal(false);
  private readonly left = signal(false);
  private changed: (value: number | null) => void = () => undefined;
  private touched: () => void = () => undefined;
  private revalidate: () => void = () => undefined;
  private held: number | null = null;

  protected readonly unit = computed(() => displays[this.quantity()][this.session.units()].unit);
  protected readonly shownFault = computed(() => this.fault() ?? (this.left() ? this.ownFault() : this.glaringFault()));
  private readonly ownFault = computed(() =>
    faultOf(this.typed(), this.measure(), this.quantity(), this.session.units(), this.required()),
  );
  /** Shown while typing only where more digits cannot mend it. */
  private readonly glaringFault = computed(() => {
    const fault = this.ownFault();
    return fault && this.typed() !== '' && (parse(this.typed()) ?? 0) > this.shownMax() ? fault : null;
  });
  private readonly shownMax = computed(
    () => toDisplay(limits[this.measure()].max, this.quantity(), this.session.units()).value,
  );

  /** A caliper no stem can have in millimetres and many have in inches: asked, never assumed. */
  protected readonly inches = computed(() => {
    const shown = parse(this.typed());
    if (this.measure() !== 'caliperMm' || this.session.units() !== 'metric' || !shown || !this.left()) return null;
    const { min, max } = limits.caliperMm;
    const mm = Math.round(shown * 25.4);
    return shown < min && mm >= min && mm <= max ? { mm, words: formatQuantity(mm, 'lengthMm', 'metric') } : null;
  });

  constructor() {
    // Another unit system: show the same length, do not reinterpret the digits.
    effect(() => {
      this.session.units();
      if (this.held !== null) this.typed.set(this.show(this.held));
      this.revalidate();
    });
  }

  protected type(text: string): void {
    this.typed.set(text);
    const shown = parse(text);
    this.held =
      shown === undefined || text.trim() === '' ? null : fromDisplay(shown, this.quantity(), this.session.units());
    this.changed(this.held);
  }

  protected takeInches(mm: number): void {
    this.type(String(mm));
  }

  protected leave(): void {
    this.left.set(true);
    this.touched();
  }

  writeValue(value: number | null): void {
    this.held = value;
    this.typed.set(value === null || value === undefined ? '' : this.show(value));
  }
  registerOnChange(changed: (value: number | null) => void): void {
    this.changed = changed;
  }
  registerOnTouched(touched: () => void): void {
    this.touched = touched;
  }
  registerOnValidatorChange(revalidate: () => void): void {
    this.revalidate = revalidate;
  }
  setDisabledState(disabled: boolean): void {
    this.disabled.set(disabled);
  }
  validate(_control: AbstractControl): ValidationErrors | null {
    const fault = this.ownFault();
    return fault ? { measure: fault } : null;
  }

  private show(value: number): string {
    const { decimals } = displays[this.quantity()][this.session.units()];
    const shown = toDisplay(value, this.quantity(), this.session.units()).value;
    return String(Number(shown.toFixed(decimals + (decimals === 0 ? 1 : 1))));
  }
}

function parse(text: string): number | undefined {
  const clean = text.trim().replace(',', '.').replace('−', '-');
  if (!/^-?\d+(\.\d*)?$/.test(clean)) return undefined;
  return Number(clean);
}

function faultOf(
  typed: string,
  measure: Measure,
  quantity: Quantity,
  units: 'metric' | 'us',
  required: boolean,
): string | null {
  if (typed.trim() === '') return required ? 'Not measured yet' : null;
  const shown = parse(typed);
  const { min, max } = limits[measure];
  const { unit, decimals } = displays[quantity][units];
  if (shown === undefined) return `Enter a number of ${unit}`;
  const value = fromDisplay(shown, quantity, units);
  if (value >= min && value <= max) return null;
  const say = (metric: number) => formatNumber(toDisplay(metric, quantity, units).value, decimals);
  return `Must be within ${say(min)}–${say(max)} ${unit}, got ${formatNumber(shown, Number.isInteger(shown) ? 0 : decimals || 1)}`;
}
