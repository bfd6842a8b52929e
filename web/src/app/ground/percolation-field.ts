import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  forwardRef,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { NG_VALUE_ACCESSOR, type ControlValueAccessor } from '@angular/forms';
import {
  fieldText,
  formatQuantity,
  parseNumber,
  readQuantity,
  percolationNames,
  percolationPlot,
  percolationRate,
  type PercolationLimits,
  questionNames,
  limits,
  toDisplay,
  type PercolationReading,
  type UnitSystem,
} from '@sombra/core';
import { DrawingView } from '../drawing/drawing-view';
import { SessionService } from '../session/session.service';
import { textOf } from '../fields/event-values';

interface Row {
  readonly minute: string;
  /** As typed, in the units it was typed in. */
  readonly level: string;
  /** What it stands for, to the last digit; `null` while it is no number. */
  readonly levelMm: number | null;
}

/** What is typed is the value: half-typed readings survive a reload too. */
export type PercolationRows = readonly Row[];

/** Stored readings as rows, in the reader's units. */
export const rowsOf = (readings: readonly PercolationReading[], units: UnitSystem): PercolationRows =>
  readings.map(({ minute, levelMm }) => ({
    minute: String(minute),
    level: fieldText(levelMm, 'lengthMm', units),
    levelMm,
  }));

/** Readings of the rows that are complete, or the fault that stops them. */
export function readRows(rows: PercolationRows, units: UnitSystem): PercolationReading[] | string {
  const readings: PercolationReading[] = [];
  const { min, max } = limits.waterLevelMm;
  for (const [i, { minute: text, level, levelMm }] of rows.entries()) {
    if (text.trim() === '' && level.trim() === '') continue;
    const minute = parseNumber(text);
    if (minute === undefined || levelMm === null) return `Reading ${i + 1} needs a minute and a level, as numbers`;
    if (minute < 0 || minute > limits.percolationMinute.max)
      return `Reading ${i + 1}: minute must be within 0–${limits.percolationMinute.max}, got ${text.trim()}`;
    if (levelMm < min || levelMm > max) {
      const say = (mm: number) => formatQuantity(mm, 'lengthMm', units);
      return `Reading ${i + 1}: level must be within 0–${say(max)}, got ${say(levelMm)}`;
    }
    readings.push({ minute, levelMm });
  }
  return readings;
}

/** The percolation test: water level against the clock, the fall drawn as it comes, the rate and its class. */
@Component({
  selector: 's-percolation-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView],
  template: `
    <h2>Percolation test</h2>
    <p class="quiet">Soak the hole, fill again, then read the water level. Three steady readings at least.</p>
    <div class="pair">
      <table class="plain" [hidden]="rows().length === 0">
        <thead>
          <tr>
            <th scope="col">Minute</th>
            <th scope="col">Level, {{ unit() }}</th>
            <th><span class="visually-hidden">Take out</span></th>
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track $index) {
            <tr>
              <td>
                <input
                  inputmode="decimal"
                  [attr.aria-label]="'Minute of reading ' + ($index + 1)"
                  [value]="row.minute"
                  (input)="edit($index, { minute: textOf($event) })"
                />
              </td>
              <td>
                <input
                  inputmode="decimal"
                  [attr.aria-label]="'Level of reading ' + ($index + 1)"
                  [value]="row.level"
                  (input)="level($index, textOf($event))"
                />
              </td>
              <td>
                <button
                  type="button"
                  class="btn btn-sm"
                  [attr.aria-label]="'Take out reading ' + ($index + 1)"
                  (click)="remove($index)"
                >
                  <i class="bi bi-x-lg" aria-hidden="true"></i>
                </button>
              </td>
            </tr>
          }
        </tbody>
      </table>
      <div>
        @if (readings().length > 1) {
          <s-drawing [drawing]="plot()" />
        }
        <p class="verdict" aria-live="polite">
          @if (fault(); as text) {
            <span class="fault">{{ text }}</span>
          } @else {
            <b>{{ verdict().head }}</b> {{ verdict().more }}
          }
        </p>
      </div>
    </div>
    <button type="button" class="btn btn-outline-primary btn-sm" (click)="add()">
      <i class="bi bi-plus-lg" aria-hidden="true"></i> Add a reading
    </button>
  `,
  styles: `
    .pair {
      display: grid;
      grid-template-columns: 15rem 1fr;
      gap: 1.25rem;
    }
    input {
      width: 5rem;
      min-height: 40px;
      text-align: right;
      border: 1px solid var(--edge);
      background: var(--sheet);
      padding: 0 0.4rem;
    }
    td {
      padding-block: 0.15rem;
    }
    s-drawing {
      max-width: 26rem;
    }
    .fault {
      color: var(--urgent);
      font-weight: 600;
    }
    p {
      margin: 0.2rem 0 0.5rem;
    }
    @media (max-width: 720px) {
      .pair {
        grid-template-columns: minmax(0, 1fr);
      }
      input {
        min-height: 48px;
        width: 6rem;
      }
    }
  `,
  providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => PercolationField), multi: true }],
})
export class PercolationField implements ControlValueAccessor {
  protected readonly textOf = textOf;
  /** Of the programme's practice. */
  readonly classes = input.required<PercolationLimits>();
  private readonly session = inject(SessionService);
  protected readonly rows = signal<PercolationRows>([]);
  private changed: (rows: PercolationRows) => void = () => undefined;
  protected readonly unit = computed(() => toDisplay(0, 'lengthMm', this.session.units()).unit);
  private readonly read = computed(() => readRows(this.rows(), this.session.units()));
  protected readonly fault = computed(() => {
    const read = this.read();
    return typeof read === 'string' ? read : null;
  });
  protected readonly readings = computed(() => {
    const read = this.read();
    return typeof read === 'string' ? [] : read;
  });
  protected readonly plot = computed(() =>
    percolationPlot({ readings: this.readings(), units: this.session.units(), widthPx: 360, heightPx: 170 }),
  );
  protected readonly verdict = computed(() => {
    if (this.readings().length === 0) return { head: 'No test yet.', more: '' };
    const result = percolationRate(this.readings(), this.classes());
    if (result.kind === 'questioned')
      return { head: `${questionNames[result.question]}.`, more: `Reading ${result.atReading + 1}.` };
    const say = (rate: number) => formatQuantity(rate, 'rateMmPerH', this.session.units());
    const doubt =
      result.couldBe.length > 1 ? ` It could be ${result.couldBe.map((c) => percolationNames[c]).join(' or ')}.` : '';
    const steady = result.steady
      ? `From the last ${result.readingsUsed} readings.`
      : 'The falls still differ: keep reading.';
    const between = `between ${say(result.lowMmPerH)} and ${say(result.highMmPerH)}`;
    return {
      head: `${say(result.rateMmPerH)}, ${between}: ${percolationNames[result.class]}.`,
      more: `${steady}${doubt}`,
    };
  });

  constructor() {
    // Other units show the same levels; their digits are not read anew.
    effect(() => {
      const units = this.session.units();
      untracked(() => this.rows.update((rows) => inUnits(rows, units)));
    });
  }

  protected level(index: number, text: string): void {
    const was = this.rows()[index]?.levelMm ?? null;
    const read = readQuantity(text, { quantity: 'lengthMm', units: this.session.units(), was });
    this.edit(index, { level: text, levelMm: read.kind === 'value' ? read.value : null });
  }
  protected edit(index: number, change: Partial<Row>): void {
    this.set(this.rows().map((row, i) => (i === index ? { ...row, ...change } : row)));
  }
  protected add(): void {
    this.set([...this.rows(), { minute: '', level: '', levelMm: null }]);
  }
  protected remove(index: number): void {
    this.set(this.rows().filter((_, i) => i !== index));
  }
  private set(rows: PercolationRows): void {
    this.rows.set(rows);
    this.changed(rows);
  }
  writeValue(rows: PercolationRows | null): void {
    const units = this.session.units();
    this.rows.set(inUnits((rows ?? []).map(withLevel(units)), units));
  }
  registerOnChange(changed: (rows: PercolationRows) => void): void {
    this.changed = changed;
  }
  registerOnTouched(): void {
    // Readings are judged as they are typed.
  }
}

/** A draft of an older Sombra kept the text alone. */
const withLevel =
  (units: UnitSystem) =>
  (row: Omit<Row, 'levelMm'> & Partial<Row>): Row => {
    if (row.levelMm !== undefined) return { ...row, levelMm: row.levelMm };
    const read = readQuantity(row.level, { quantity: 'lengthMm', units });
    return { ...row, levelMm: read.kind === 'value' ? read.value : null };
  };

/** Rows whose levels are numbers, as they read in these units; what is no number stays as it was typed. */
const inUnits = (rows: PercolationRows, units: UnitSystem): PercolationRows =>
  rows.map((row) => (row.levelMm === null ? row : { ...row, level: fieldText(row.levelMm, 'lengthMm', units) }));
