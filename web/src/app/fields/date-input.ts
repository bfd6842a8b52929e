import {
  ChangeDetectionStrategy,
  Component,
  computed,
  Injectable,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import {
  NgbDateAdapter,
  NgbDateParserFormatter,
  NgbInputDatepicker,
  type NgbDateStruct,
} from '@ng-bootstrap/ng-bootstrap';
import { format, isValid, parse, parseISO } from 'date-fns';

const structOf = (day: Date): NgbDateStruct => ({
  year: day.getFullYear(),
  month: day.getMonth() + 1,
  day: day.getDate(),
});
const dayOf = ({ year, month, day }: NgbDateStruct): Date => new Date(year, month - 1, day);

/** Days as people write them; where no year is said it is this one. */
const written = ['d MMM yyyy', 'd MMMM yyyy', 'd.M.yyyy', 'd/M/yyyy', 'd-M-yyyy', 'd M yyyy', 'd MMM', 'd.M.'] as const;

/** The day somebody typed; `null` where it is none. */
export function readDay(text: string, today = new Date()): Date | null {
  const said = text.trim().replace(/^(mon|tue|wed|thu|fri|sat|sun)[a-z]*,?\s+/i, '');
  if (/^\d{4}-\d{2}-\d{2}$/.test(said)) {
    const day = parseISO(said);
    return isValid(day) ? day : null;
  }
  const read = written.map((one) => parse(said, one, today)).find((day) => isValid(day) && day.getFullYear() > 1900);
  return read ?? null;
}

@Injectable()
class WrittenDays extends NgbDateParserFormatter {
  parse(text: string): NgbDateStruct | null {
    const day = readDay(text);
    return day && structOf(day);
  }
  format(day: NgbDateStruct | null): string {
    return day ? format(dayOf(day), 'd MMM yyyy') : '';
  }
}

@Injectable()
class IsoDays extends NgbDateAdapter<string> {
  fromModel(value: string | null): NgbDateStruct | null {
    const day = value ? parseISO(value) : null;
    return day && isValid(day) ? structOf(day) : null;
  }
  toModel(day: NgbDateStruct | null): string | null {
    return day && format(dayOf(day), 'yyyy-MM-dd');
  }
}

/** A day, typed as people write it or taken from a calendar. It tells the ISO day, or nothing while the text is none. */
@Component({
  selector: 's-date-input',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FormsModule, NgbInputDatepicker],
  providers: [
    { provide: NgbDateParserFormatter, useClass: WrittenDays },
    { provide: NgbDateAdapter, useClass: IsoDays },
  ],
  template: `
    <input
      ngbDatepicker
      #picker="ngbDatepicker"
      autocomplete="off"
      placeholder="27 Nov 2026"
      [id]="for()"
      [attr.aria-label]="label() || null"
      [attr.aria-invalid]="wrong() !== ''"
      [ngModel]="shown()"
      (ngModelChange)="pick($event)"
      [ngModelOptions]="{ standalone: true }"
      [minDate]="min()"
      [maxDate]="max()"
      [disabled]="disabled()"
      [required]="required()"
      (blur)="left.emit()"
    />
    @if (name()) {
      <input type="hidden" [name]="name()" [value]="iso()" />
    }
    <button type="button" class="open" [disabled]="disabled()" aria-label="Calendar" (click)="picker.toggle()">
      <i class="bi bi-calendar3" aria-hidden="true"></i>
    </button>
    @if (wrong()) {
      <small class="fault" role="alert">{{ wrong() }}</small>
    }
  `,
  styleUrl: './date-input.scss',
})
export class DateInput {
  /** Id of the entry, for its label. */
  readonly for = input('');
  /** For screen readers where no label stands beside it. */
  readonly label = input('');
  /** Where a form is read by its names. */
  readonly name = input('');
  readonly value = input('');
  readonly earliest = input('');
  readonly latest = input('');
  readonly disabled = input(false);
  readonly required = input(false);
  /** The ISO day; empty where the field is, or what stands in it is no day. */
  readonly picked = output<string>();
  readonly left = output<void>();
  protected readonly wrong = signal('');
  protected readonly iso = linkedSignal(this.value);
  /** What stands in the field: text that is no day stays there. */
  protected readonly shown = linkedSignal<string, string>({
    source: this.value,
    computation: (value, before) => (value === '' && this.wrong() && before ? before.value : value),
  });
  private readonly adapter = new IsoDays();
  protected readonly min = computed(() => this.adapter.fromModel(this.earliest()) ?? { year: 1950, month: 1, day: 1 });
  protected readonly max = computed(() => this.adapter.fromModel(this.latest()) ?? { year: 2099, month: 12, day: 31 });

  protected pick(text: string | null): void {
    const day = text ? readDay(text) : null;
    this.shown.set(text ?? '');
    this.wrong.set(text && !day ? `“${text}” is not a day: write 27 Nov 2026.` : '');
    this.iso.set(day ? format(day, 'yyyy-MM-dd') : '');
    this.picked.emit(this.iso());
  }
}
