import { inject, signal } from '@angular/core';
import { FormArray, FormControl, FormGroup, NonNullableFormBuilder } from '@angular/forms';
import type { SaveProgramme } from '@sombra/contract';
import { proposedWindows, stockKinds, type PlantingWindow, type StockKind, type UnitSystem } from '@sombra/core';

export type Settings = Omit<SaveProgramme, 'version'>;

type WindowForm = FormGroup<{
  stock: FormControl<StockKind>;
  from: FormControl<string>;
  to: FormControl<string>;
  because: FormControl<string>;
}>;

/** What a programme goes by, as it is typed: by its own page and by the set-up. */
export class ProgrammeForm {
  private readonly build = inject(NonNullableFormBuilder);
  readonly windows = new FormArray<WindowForm>([]);
  /** The rows of it, as a page shows them. */
  readonly rows = signal<readonly WindowForm[]>([]);
  readonly group = this.build.group({
    name: '',
    timeZone: '',
    latDeg: '',
    lngDeg: '',
    elevationM: this.build.control<number | null>(null),
    currency: '',
    units: this.build.control<UnitSystem>('metric'),
    holidays: '',
    windows: this.windows,
  });

  fill(settings: Settings): void {
    this.setWindows(settings.windows);
    const { latDeg, lngDeg, holidays, windows: _windows, ...rest } = settings;
    this.group.patchValue({ ...rest, latDeg: String(latDeg), lngDeg: String(lngDeg), holidays: holidays.join('\n') });
    this.group.markAsPristine();
  }

  setWindows(windows: readonly PlantingWindow[]): void {
    this.windows.clear();
    for (const one of windows) this.windows.push(this.windowForm(one));
    this.rows.set([...this.windows.controls]);
  }

  addWindow(): void {
    this.windows.push(this.windowForm({ stock: stockKinds[0], from: '', to: '', because: '' }));
    this.rows.set([...this.windows.controls]);
    this.windows.markAsDirty();
  }

  removeWindow(at: number): void {
    this.windows.removeAt(at);
    this.rows.set([...this.windows.controls]);
    this.windows.markAsDirty();
  }

  private windowForm(one: PlantingWindow): WindowForm {
    return this.build.group({ stock: one.stock, from: one.from, to: one.to, because: one.because });
  }

  /** Two numbers pasted into one of the two fields go to both. */
  placePasted(text: string): boolean {
    const both = /^\s*(-?\d+(?:\.\d+)?)\s*[,; ]\s*(-?\d+(?:\.\d+)?)\s*$/.exec(text);
    if (!both) return false;
    this.group.patchValue({ latDeg: both[1] ?? '', lngDeg: both[2] ?? '' });
    this.group.markAsDirty();
    return true;
  }

  /** The windows that go with the place as it is typed. */
  proposeWindows(): void {
    this.setWindows(proposedWindows(Number(this.group.getRawValue().latDeg) || 0));
    this.group.markAsDirty();
  }

  /** As the server takes it; what is no number is sent as it is, and the answer names its field. */
  settings(): Settings {
    const { latDeg, lngDeg, holidays, currency, ...rest } = this.group.getRawValue();
    return {
      ...rest,
      currency: currency.trim().toUpperCase(),
      latDeg: numberOr(latDeg),
      lngDeg: numberOr(lngDeg),
      elevationM: rest.elevationM as number,
      holidays: holidays
        .split('\n')
        .map((line) => line.trim())
        .filter((line) => line !== ''),
    };
  }
}

function numberOr(text: string): number {
  const value = Number(text.replace(',', '.'));
  return text.trim() === '' || Number.isNaN(value) ? (text as unknown as number) : value;
}
