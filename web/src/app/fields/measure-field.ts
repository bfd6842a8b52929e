import { ChangeDetectionStrategy, Component, computed, forwardRef, inject, input, signal } from '@angular/core';
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
  formatQuantity,
  isMeasured,
  limits,
  measuredFacts,
  parseNumber,
  readQuantity,
  termOfFact,
  toDisplay,
  type MeasuredFact,
  type MeasuredName,
} from '@sombra/core';
import { SessionService } from '../session/session.service';
import { TermNote } from '../ui/term-note';
import { TypedQuantity } from './typed-quantity';
import { textOf } from './event-values';
import { FieldFaults } from './field-faults';

let count = 0;

/** A number with its unit, typed in the reader's units and held in metric; `null` when empty. */
@Component({
  selector: 's-measure-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [TermNote],
  template: `
    <span class="called">
      <label [for]="id">{{ called() }}</label>
      @if (term(); as code) {
        <s-term [code]="code" />
      }
    </span>
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
        (input)="type(textOf($event))"
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
  protected readonly textOf = textOf;
  /** The control it is bound to; its words, unit and limits are those of the fact of that name. */
  readonly formControlName = input<string | number | null>(null);
  /** The measured fact where the control has another name. */
  readonly fact = input<MeasuredName | null>(null);
  /** Said instead of the name of the fact. */
  readonly label = input<string | null>(null);
  readonly note = input('');
  readonly required = input(true);
  /** A fault found in this field, where it is not the server's. */
  readonly fault = input<string | null>(null);

  private readonly measured = computed<MeasuredFact>(() => {
    const name = this.fact() ?? String(this.formControlName());
    if (!isMeasured(name)) throw new Error(`no measured fact is named ${name}`);
    return measuredFacts[name];
  });
  protected readonly term = computed(() => {
    const name = this.fact() ?? String(this.formControlName());
    return isMeasured(name) ? (termOfFact[name] ?? null) : null;
  });
  protected readonly called = computed(() => this.label() ?? this.measured().name);
  private readonly range = computed(() => limits[this.measured().measure]);
  private readonly quantity = computed(() => this.measured().quantity);
  private readonly faults = inject(FieldFaults, { optional: true });
  private readonly given = computed(() => {
    const name = this.formControlName();
    return this.fault() ?? (typeof name === 'string' ? this.faults?.faultIn(name) : null) ?? null;
  });

  protected readonly id = `measure-${(count += 1)}`;
  private readonly session = inject(SessionService);
  private readonly entry = new TypedQuantity(
    () => ({ quantity: this.quantity(), units: this.session.units(), range: this.range() }),
    () => this.revalidate(),
  );
  protected readonly typed = this.entry.text;
  protected readonly disabled = signal(false);
  private readonly left = signal(false);
  private changed: (value: number | null) => void = () => undefined;
  private touched: () => void = () => undefined;
  private revalidate: () => void = () => undefined;

  protected readonly unit = computed(() => displays[this.quantity()][this.session.units()].unit);
  protected readonly shownFault = computed(() => this.given() ?? (this.left() ? this.ownFault() : this.glaringFault()));
  private readonly ownFault = computed(() =>
    this.typed().trim() === '' ? (this.required() ? 'Not measured yet' : null) : this.entry.fault(),
  );
  /** Shown while typing only where more digits cannot mend it. */
  private readonly glaringFault = computed(() => {
    const { max } = this.range();
    const most = toDisplay(max, this.quantity(), this.session.units()).value;
    return (parseNumber(this.typed()) ?? 0) > most ? this.ownFault() : null;
  });

  /** A caliper no stem can have in millimetres and many have in inches: asked, never assumed. */
  protected readonly inches = computed(() => {
    const shown = parseNumber(this.typed());
    if (this.measured().measure !== 'caliperMm' || this.session.units() !== 'metric' || !shown || !this.left())
      return null;
    const { min, max } = limits.caliperMm;
    const mm = Math.round(shown * 25.4);
    return shown < min && mm >= min && mm <= max ? { mm, words: formatQuantity(mm, 'lengthMm', 'metric') } : null;
  });

  protected type(text: string): void {
    this.entry.type(text);
    const quantity = this.quantity();
    // Outside its limits it is still the value: the fault is told by the validator, and facts are not read before it.
    const read = readQuantity(text, { quantity, units: this.session.units() });
    this.changed(this.entry.value() ?? (read.kind === 'value' ? read.value : null));
  }

  protected takeInches(mm: number): void {
    this.type(String(mm));
  }

  protected leave(): void {
    this.left.set(true);
    this.touched();
  }

  writeValue(value: number | null): void {
    this.entry.fill(value);
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
}
