import { NgTemplateOutlet } from '@angular/common';
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
import {
  circlingFace,
  circlingSteps,
  displays,
  formatQuantity,
  limits,
  rootNatureNames,
  readQuantity,
  sayTyped,
  type ReceivedTree,
  type RootNature,
} from '@sombra/core';
import { DrawingView } from '../drawing/drawing-view';
import { BigNumber } from '../fields/big-number';
import { TypedQuantity } from '../fields/typed-quantity';
import { SessionService } from '../session/session.service';
import type { Question } from './tree-questions';

/** One question about one tree, large enough for a wet glove; a tapped answer goes on by itself. */
@Component({
  selector: 's-tree-question',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgTemplateOutlet, BigNumber, DrawingView],
  templateUrl: './tree-question.html',
  styleUrl: './tree-question.scss',
})
export class TreeQuestion {
  readonly question = input.required<Question>();
  readonly tree = input.required<ReceivedTree>();
  /** What was ordered: a caliper far from it is asked about. */
  readonly orderedMm = input.required<number>();
  /** Part of the tree that was answered. */
  readonly answered = output<Partial<ReceivedTree>>();
  /** On to the next question. */
  readonly next = output();

  private readonly head = viewChild<ElementRef<HTMLElement>>('head');
  private readonly session = inject(SessionService);
  protected readonly fault = signal<string | null>(null);
  protected readonly inches = signal<{ readonly words: string; readonly mm: number } | null>(null);
  protected readonly faces = circlingSteps.map((pct) => ({ pct, drawing: circlingFace(pct, 84) }));
  protected readonly natures = Object.entries(rootNatureNames) as [RootNature, string][];

  private readonly entry = new TypedQuantity(() => ({
    quantity: this.quantity(),
    units: this.session.units(),
    range: this.range(),
  }));
  protected readonly typed = this.entry.text;
  /** In inches lengths are typed in eighths. */
  protected readonly eighths = computed(() => displays[this.quantity()][this.session.units()].eighths === true);
  protected readonly unit = computed(() => displays[this.quantity()][this.session.units()].unit);
  private readonly quantity = computed(() => {
    const question = this.question();
    return question.kind === 'number' ? question.quantity : 'lengthMm';
  });
  private readonly range = computed(() => {
    const question = this.question();
    return question.kind === 'number' ? question.range : limits.topRootsDepthMm;
  });
  protected readonly options = computed(() => {
    const question = this.question();
    if (question.kind === 'words') return Object.entries(question.names).map(([value, name]) => ({ value, name }));
    return [
      { value: 'no', name: 'no' },
      { value: 'yes', name: 'yes' },
    ];
  });
  protected readonly chosen = computed(() => {
    const question = this.question();
    if (question.kind === 'words') return this.tree()[question.key];
    if (question.kind !== 'yes_no') return null;
    const answer = this.tree()[question.key];
    return answer === null ? null : answer ? 'yes' : 'no';
  });
  protected readonly probes = computed(() =>
    this.tree().probes.map(({ depthMm, nature }) => ({
      depth: formatQuantity(depthMm, 'lengthMm', this.session.units()),
      nature: rootNatureNames[nature],
    })),
  );

  constructor() {
    let before: Question['key'] | null = null;
    effect(() => {
      const question = this.question();
      // The list of questions is made anew with each answer: only another one begins afresh.
      if (question.key === before) return;
      untracked(() => this.start(question));
      if (before !== null) this.showHead();
      before = question.key;
    });
  }

  private start(question: Question): void {
    this.fault.set(null);
    this.inches.set(null);
    const held = question.kind === 'number' ? this.tree()[question.key] : null;
    this.entry.fill(held);
  }

  /** Up to its title, which is also where a reader of screens goes on; a field in focus would open the keyboard. */
  private showHead(): void {
    const head = this.head()?.nativeElement;
    head?.focus({ preventScroll: true });
    head?.scrollIntoView?.({ block: 'start' });
  }

  protected type(text: string): void {
    this.entry.type(text);
    this.fault.set(null);
    this.inches.set(null);
  }

  protected pick(value: string): void {
    const question = this.question();
    if (question.kind === 'words') this.answered.emit({ [question.key]: value });
    if (question.kind === 'yes_no') this.answered.emit({ [question.key]: value === 'yes' });
    this.next.emit();
  }

  protected circle(pct: number): void {
    this.answered.emit({ circlingPct: pct });
    this.next.emit();
  }

  /** Takes the number that is typed and goes on; nothing typed is an answer not given. */
  take(): void {
    const question = this.question();
    if (question.kind !== 'number') {
      this.next.emit();
      return;
    }
    if (this.typed().trim() === '') {
      this.answered.emit({ [question.key]: null });
      this.next.emit();
      return;
    }
    const value = this.value();
    if (value === null) return;
    const doubt = question.key === 'caliperMm' && this.inches() === null ? this.looksLikeInches(value) : null;
    this.inches.set(doubt);
    if (doubt) return;
    this.answered.emit({ [question.key]: value });
    this.next.emit();
  }

  protected takeInches(): void {
    const mm = this.inches()?.mm;
    if (mm === undefined) return;
    this.answered.emit({ caliperMm: mm });
    this.next.emit();
  }

  protected probe(nature: RootNature): void {
    const depthMm = this.value();
    if (depthMm === null) return;
    const most = 12;
    if (this.tree().probes.length >= most) {
      this.fault.set(`At most ${most} probes of one tree, got ${most + 1}`);
      return;
    }
    this.answered.emit({ probes: [...this.tree().probes, { depthMm, nature }] });
    this.entry.fill(null);
  }

  protected dropProbe(): void {
    this.answered.emit({ probes: this.tree().probes.slice(0, -1) });
  }

  /** What is typed, in metric; `null`, with the fault shown, where it is no number within the range. */
  private value(): number | null {
    const text = this.typed().trim();
    const as = { quantity: this.quantity(), units: this.session.units() };
    const { title, key } = this.question();
    const { unit } = displays[as.quantity][as.units];
    // A caliper of 2 is outside all limits in millimetres and quite usual in inches: that is asked, not refused.
    const anyhow = readQuantity(text, as);
    if (key === 'caliperMm' && anyhow.kind === 'value' && this.looksLikeInches(anyhow.value) !== null) {
      return anyhow.value;
    }
    const read = this.entry.read();
    if (read.kind === 'value') {
      this.fault.set(null);
      return read.value;
    }
    this.fault.set(
      read.kind === 'outside'
        ? `${title} must be within ${read.min}–${read.max} ${unit}, got ${sayTyped(text)}.`
        : `${title}: enter a number of ${unit}, got ${text === '' ? 'nothing' : text}.`,
    );
    return null;
  }

  private looksLikeInches(mm: number): { words: string; mm: number } | null {
    const ordered = this.orderedMm();
    const asInches = Math.round(mm * 25.4);
    if (mm <= 0 || mm * 2.5 > ordered || Math.abs(asInches - ordered) > ordered * 0.35) return null;
    return { words: `${mm} mm, and ${ordered} mm were ordered. Inches? ${mm} in are ${asInches} mm.`, mm: asInches };
  }
}
