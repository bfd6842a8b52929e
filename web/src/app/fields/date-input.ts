import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { sayDay } from '../ui/say-date';
import { textOf } from './event-values';
import { readDay } from './read-day';

/** A day, typed as people write it or taken from a calendar. It tells the ISO day, or nothing while the text is none. */
@Component({
  selector: 's-date-input',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input
      type="text"
      autocomplete="off"
      placeholder="27 Nov 2026"
      [id]="for()"
      [attr.aria-label]="label() || null"
      [attr.aria-invalid]="wrong() !== ''"
      [value]="text()"
      [disabled]="disabled()"
      [required]="required()"
      (input)="follow(textOf($event))"
      (change)="type(textOf($event))"
      (blur)="left.emit()"
    />
    @if (name()) {
      <input type="hidden" [name]="name()" [value]="iso()" />
    }
    <button type="button" class="open" [disabled]="disabled()" aria-label="Calendar" (click)="open()">
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
  /** Days outside are not offered by the calendar; whoever asks says what is wrong with one that is typed. */
  readonly earliest = input('');
  readonly latest = input('');
  readonly disabled = input(false);
  readonly required = input(false);
  /** The ISO day; empty where the field is, or what stands in it is no day. */
  readonly picked = output<string>();
  readonly left = output<void>();
  private readonly modals = inject(NgbModal);
  protected readonly textOf = textOf;
  protected readonly wrong = signal('');
  protected readonly iso = linkedSignal(this.value);
  /** What stands in the field: text that is no day stays there. */
  private readonly typed = signal('');
  private readonly typing = signal(false);
  protected readonly text = computed(() =>
    this.typing() || (this.iso() === '' && this.wrong()) ? this.typed() : sayDay(this.iso()),
  );

  /** While somebody types, a day is told as soon as it is one, and nothing is found fault with. */
  protected follow(text: string): void {
    this.typing.set(true);
    this.typed.set(text);
    const day = readDay(text);
    if (day) this.tell(day);
  }

  protected type(text: string): void {
    this.typing.set(false);
    const day = text.trim() ? readDay(text) : null;
    this.typed.set(text);
    this.wrong.set(text.trim() && !day ? `“${text}” is not a day: write 27 Nov 2026.` : '');
    this.tell(day ?? '');
  }

  private tell(day: string): void {
    this.iso.set(day);
    this.picked.emit(day);
  }

  protected async open(): Promise<void> {
    const { DayPicker } = await import('../ui/day-picker');
    const dialog = this.modals.open(DayPicker, { size: 'sm', ariaLabelledBy: 'day-picker-title' });
    const picker = dialog.componentInstance as InstanceType<typeof DayPicker>;
    picker.ask({ day: this.iso(), earliest: this.earliest(), latest: this.latest() });
    const day: unknown = await dialog.result.catch(() => null);
    if (typeof day !== 'string') return;
    this.wrong.set('');
    this.tell(day);
  }
}
