import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { displays, formatQuantity, sayTyped } from '@sombra/core';
import { noRoots, readRoots, type CollarRoots } from '../collar/collar-roots';
import { DialField } from '../collar/dial-field';
import { DrawingView } from '../drawing/drawing-view';
import { numberOf } from '../fields/event-values';
import { BigNumber } from '../fields/big-number';
import { TypedQuantity } from '../fields/typed-quantity';
import { SessionService } from '../session/session.service';
import type { Answer, Ask } from './ask';

/** One question, large enough for a wet glove; a tapped answer goes on by itself. */
@Component({
  selector: 's-ask',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [BigNumber, DialField, DrawingView],
  templateUrl: './ask-question.html',
  styleUrl: './ask-question.scss',
})
export class AskQuestion {
  protected readonly numberOf = numberOf;
  readonly ask = input.required<Ask>();
  readonly answer = input<Answer>(null);
  readonly answered = output<Answer>();
  readonly next = output();

  private readonly head = viewChild<ElementRef<HTMLElement>>('head');
  private readonly session = inject(SessionService);
  protected readonly fault = signal<string | null>(null);
  protected readonly minus = signal(false);
  private readonly number = computed(() => {
    const ask = this.ask();
    return ask.kind === 'number' ? ask : null;
  });
  private readonly quantity = computed(() => this.number()?.quantity ?? 'lengthMm');
  private readonly entry = new TypedQuantity(() => ({ quantity: this.quantity(), units: this.session.units() }));
  protected readonly typed = this.entry.text;
  protected readonly unit = computed(() => displays[this.quantity()][this.session.units()].unit);
  protected readonly eighths = computed(() => displays[this.quantity()][this.session.units()].eighths === true);
  protected readonly pictures = computed(() => this.number()?.pictures ?? []);
  protected readonly signs = computed(() => this.number()?.signs ?? null);
  protected readonly likely = computed(() =>
    (this.number()?.likely ?? []).map((value) => ({
      value,
      words: formatQuantity(Math.abs(value), this.quantity(), this.session.units()),
      sign: value < 0 ? (this.signs()?.minus ?? '') : '',
    })),
  );
  /** A scale to slide along, from the least to the most of the usual values. */
  protected readonly scale = computed(() => {
    const likely = this.number()?.likely ?? [];
    const [min, max] = [Math.min(0, ...likely), Math.max(...likely)];
    if (likely.length < 2) return null;
    const step = Math.max(1, Math.round((max - min) / 60 / 5) * 5);
    const ticks = Array.from({ length: 4 }, (_, i) => Math.round(min + ((max - min) * i) / 3));
    const say = (mm: number) => formatQuantity(mm, this.quantity(), this.session.units());
    return { min, max, step, ticks: ticks.map((value) => ({ value, words: say(value) })) };
  });
  protected readonly slid = computed(() => {
    const value = this.entry.value();
    return value === null ? 0 : this.minus() ? -value : value;
  });
  protected readonly options = computed(() => {
    const ask = this.ask();
    return ask.kind === 'words' || ask.kind === 'many' ? ask.options : [];
  });
  /** Many short words stand two abreast, and stay so whatever is tapped. */
  protected readonly paired = computed(() => {
    const ask = this.ask();
    return ask.kind === 'many' && ask.none !== undefined;
  });
  /** What none of several is called; nothing of the kind is offered once one of them is chosen. */
  protected readonly none = computed(() => {
    const ask = this.ask();
    return ask.kind === 'many' && ask.none !== undefined && !this.answer() ? ask.none : null;
  });
  protected readonly step = computed(() => {
    const ask = this.ask();
    return ask.kind === 'step' ? ask : null;
  });
  protected readonly roots = computed(() => readRoots(this.answer()) ?? noRoots);
  protected readonly rootsBefore = computed(() => {
    const ask = this.ask();
    return ask.kind === 'dial' ? ask.before : [];
  });
  protected readonly pathDeg = computed(() => {
    const ask = this.ask();
    return ask.kind === 'dial' ? ask.pathDeg : null;
  });
  protected readonly chosen = computed(() => new Set(String(this.answer() ?? '').split(',')));

  constructor() {
    let before: string | null = null;
    effect(() => {
      const { key } = this.ask();
      if (key === before) return;
      untracked(() => this.start());
      // The title is also where a reader of screens goes on; a field in focus would open the keyboard.
      if (before !== null) this.head()?.nativeElement.focus({ preventScroll: true });
      before = key;
    });
  }

  private start(): void {
    const held = this.answer();
    this.fault.set(null);
    this.fill(typeof held === 'number' ? held : null);
  }

  private fill(value: number | null): void {
    this.minus.set(this.signs() !== null && value !== null && value < 0);
    this.entry.fill(value === null ? null : this.signs() ? Math.abs(value) : value);
  }

  protected type(text: string): void {
    this.entry.type(text);
    this.fault.set(null);
  }

  protected slide(value: number): void {
    this.fill(value);
    this.fault.set(null);
  }

  protected pick(value: string): void {
    this.answered.emit(value);
    this.next.emit();
  }

  /** Takes one of several up, or drops it; none at all is an answer too. */
  protected toggle(value: string): void {
    const chosen = this.chosen();
    const after = this.options().filter((one) => (one.value === value) !== chosen.has(one.value));
    this.answered.emit(after.map((one) => one.value).join(','));
  }

  protected drew(roots: CollarRoots): void {
    this.answered.emit(JSON.stringify(roots));
  }

  protected pickNumber(value: number): void {
    this.fill(value);
    this.answered.emit(value);
    this.next.emit();
  }

  /** Takes what is typed and goes on; nothing typed is an answer not given. */
  take(): void {
    const ask = this.number();
    if (this.ask().kind === 'many' && this.answer() === null) this.answered.emit('');
    if (!ask) return this.next.emit();
    const text = this.typed().trim();
    if (text === '') {
      this.answered.emit(null);
      return this.next.emit();
    }
    const read = this.entry.value();
    const value = read === null ? null : this.minus() ? -read : read;
    const { min, max } = ask.range;
    if (value === null || value < min || value > max) {
      const say = (metric: number) => formatQuantity(metric, ask.quantity, this.session.units());
      this.fault.set(
        value === null
          ? `${ask.title}: enter a number of ${this.unit()}, got ${text}.`
          : `${ask.title} must be within ${say(min)} to ${say(max)}, got ${sayTyped(text)}.`,
      );
      return;
    }
    this.answered.emit(value);
    this.next.emit();
  }
}
