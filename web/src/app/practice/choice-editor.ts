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
} from '@angular/core';
import {
  choices,
  choiceTable,
  choiceValue,
  InvalidInputError,
  requirePractice,
  stockKinds,
  stockNames,
  withChoice,
  type Choice,
  type ChoiceValue,
  type Practice,
  type StockKind,
  type UnitSystem,
} from '@sombra/core';
import { SessionService } from '../session/session.service';
import { DraftsService } from '../offline/drafts.service';
import { choiceText, choiceUnit, readChoice, sayChoice } from './say-choice';
import { textOf, tickOf } from '../fields/event-values';

/** What was typed in the editor and not stored yet. */
export interface TypedPractice {
  readonly name: string;
  readonly kinds: readonly StockKind[];
  /** Fields as typed, by the path of their choice, in the units they were typed in. */
  readonly typed: Readonly<Record<string, TypedChoice>>;
  readonly units: UnitSystem;
}

interface TypedChoice {
  readonly text: string;
  /** What it stands for, to the last digit; left out where it is no value. */
  readonly value?: ChoiceValue;
}

/** Every choice of a practice, to be made otherwise; what is out of its limits is named and kept as typed. */
@Component({
  selector: 's-choice-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (submit)="$event.preventDefault(); store()">
      <div class="line">
        <label for="practice-name">Name</label>
        <input
          id="practice-name"
          class="form-control"
          maxlength="80"
          [value]="name()"
          (input)="rename(textOf($event))"
        />
        <span class="words">
          @if (faults()['name']; as fault) {
            <b class="fault" role="alert">{{ fault }}</b>
          }
        </span>
      </div>
      <fieldset class="line">
        <legend>For</legend>
        <span class="kinds">
          @for (kind of stockKinds; track kind) {
            <label
              ><input type="checkbox" [checked]="kinds().has(kind)" (change)="cover(kind, tickOf($event))" />
              {{ stockNames[kind] }}</label
            >
          }
        </span>
        @if (faults()['appliesTo']; as fault) {
          <b class="fault" role="alert">{{ fault }}</b>
        }
      </fieldset>
      @for (group of table; track group.name) {
        <h2>{{ group.name }}</h2>
        @for (choice of speaking(group.choices); track choice.path) {
          <div class="line" [class.changed]="typed()[choice.path] !== undefined">
            <label [for]="choice.path">{{ choice.name }}</label>
            @switch (choice.kind) {
              @case ('option') {
                <select [id]="choice.path" class="form-select" (change)="type(choice, textOf($event))">
                  @for (key of keysOf(choice); track key) {
                    <option [value]="key" [selected]="key === shown(choice)">{{ optionName(choice, key) }}</option>
                  }
                </select>
              }
              @case ('yes_no') {
                <input
                  [id]="choice.path"
                  type="checkbox"
                  [checked]="shown(choice) === 'true'"
                  (change)="type(choice, tickOf($event) ? 'true' : 'false')"
                />
              }
              @default {
                <span class="entry">
                  <input
                    [id]="choice.path"
                    class="form-control"
                    inputmode="decimal"
                    [class.wrong]="faults()[choice.path]"
                    [value]="shown(choice)"
                    (input)="type(choice, textOf($event))"
                  />
                  <span class="quiet">{{ unitOf(choice) }}</span>
                </span>
              }
            }
            <span class="quiet words">
              @if (faults()[choice.path]; as fault) {
                <b class="fault" role="alert">{{ fault }}</b>
              } @else if (typed()[choice.path] !== undefined) {
                was {{ before(choice) }}
              } @else {
                {{ heldBy(choice) }} {{ choice.research }}
              }
            </span>
          </div>
        }
      }
      <div class="acts">
        <button type="submit" class="btn btn-primary" [disabled]="busy()">
          Store as {{ practice().version === 0 ? 'a new practice' : 'version ' + (practice().version + 1) }}
        </button>
        <button type="button" class="btn btn-link" (click)="leave.emit()">Leave it</button>
      </div>
    </form>
  `,
  styles: `
    .line {
      display: grid;
      grid-template-columns: minmax(10rem, 16rem) minmax(12rem, 1fr);
      gap: 0.15rem 0.9rem;
      align-items: center;
      min-height: 46px;
      padding: 0.35rem 0.4rem;
      border-bottom: 1px solid var(--line);
    }
    .words {
      grid-column: 1 / -1;
      font-size: 0.9rem;
    }
    .words:empty {
      display: none;
    }
    .line.changed {
      background: var(--chosen-pale);
    }
    h2 {
      margin-top: 1rem;
    }
    legend {
      font-size: 1rem;
      float: left;
    }
    .kinds,
    .entry,
    .acts {
      display: flex;
      gap: 0.8rem;
      align-items: center;
    }
    .entry input {
      width: 7rem;
      text-align: right;
    }
    .wrong {
      border: 2px solid var(--urgent);
    }
    .fault {
      color: var(--urgent);
    }
    input[type='checkbox'] {
      width: 1.25rem;
      height: 1.25rem;
    }
    .acts {
      position: sticky;
      bottom: 0;
      background: var(--paper);
      padding: 0.5rem 0;
    }
    @media (max-width: 900px) {
      .line {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class ChoiceEditor {
  protected readonly textOf = textOf;
  protected readonly tickOf = tickOf;
  readonly practice = input.required<Practice>();
  readonly busy = input(false);
  /** Under which what is typed is kept on this device until it is stored. */
  readonly draftName = input.required<string>();
  readonly save = output<Practice>();
  readonly leave = output();
  /** The practice as typed so far, whenever it is one. */
  readonly tried = output<Practice>();
  private readonly session = inject(SessionService);
  private readonly drafts = inject(DraftsService);
  protected readonly table = choiceTable;
  protected readonly stockKinds = stockKinds;
  protected readonly stockNames = stockNames;
  protected readonly name = signal('');
  protected readonly kinds = signal<ReadonlySet<StockKind>>(new Set());
  /** What was typed, by path. */
  protected readonly typed = signal<TypedPractice['typed']>({});
  protected readonly faults = signal<Readonly<Record<string, string>>>({});
  private readonly all = computed(() => choiceTable.flatMap(({ choices }) => choices));

  constructor() {
    effect(() => {
      const { name, appliesTo } = this.practice();
      const kept = this.drafts.read(this.draftName())?.value as Partial<TypedPractice> | undefined;
      const units = this.session.units();
      untracked(() => {
        this.name.set(kept?.name ?? name);
        this.kinds.set(new Set(kept?.kinds ?? appliesTo));
        this.typed.set(this.inUnits(kept?.typed ?? {}, { from: kept?.units ?? units, to: units }));
        this.faults.set({});
        this.try();
      });
    });
  }

  /** What was typed in other units, as it reads in these; what is no value stays as it was typed. */
  private inUnits(
    typed: Readonly<Record<string, TypedChoice | string>>,
    { from, to }: { from: UnitSystem; to: UnitSystem },
  ): TypedPractice['typed'] {
    const shown = Object.entries(typed).map(([path, kept]): [string, TypedChoice] => {
      const choice = this.all().find((one) => one.path === path);
      // A draft of an older Sombra kept the text alone.
      const one = typeof kept === 'string' ? (choice ? typedAs(choice, kept, from) : { text: kept }) : kept;
      if (!choice || one.value === undefined || from === to) return [path, one];
      return [path, { ...one, text: choiceText(choice, one.value, to) }];
    });
    return Object.fromEntries(shown);
  }

  private try(): void {
    const { practice, faults } = this.read();
    if (Object.keys(faults).length === 0) this.tried.emit(practice);
  }

  private keep(): void {
    const [name, typed, units] = [this.name(), this.typed(), this.session.units()];
    const draft: TypedPractice = { name, kinds: [...this.kinds()], typed, units };
    this.drafts.keep(this.draftName(), draft);
  }

  protected rename(name: string): void {
    this.name.set(name);
    this.keep();
  }

  private kept(choice: Choice): string {
    return choiceText(choice, choiceValue(this.practice(), choice.path), this.session.units());
  }

  protected unitOf(choice: Choice): string {
    return choiceUnit(choice, this.session.units());
  }

  protected shown(choice: Choice): string {
    return this.typed()[choice.path]?.text ?? this.kept(choice);
  }

  protected before(choice: Choice): string {
    return sayChoice(choice, choiceValue(this.practice(), choice.path), this.session.units());
  }

  /** Choices that say something: how much of a second thing is mixed in is asked once there is one. */
  protected speaking(all: readonly Choice[]): readonly Choice[] {
    return all.filter(({ idleWhile }) => {
      const other = idleWhile && choices.find(({ path }) => path === idleWhile.path);
      return !other || this.shown(other) !== idleWhile.value;
    });
  }

  protected keysOf(choice: Choice): string[] {
    return choice.kind === 'option' ? Object.keys(choice.options) : [];
  }

  /** Who holds what is shown: the option's own words, or the range of values. */
  protected heldBy(choice: Choice): string {
    return choice.kind === 'option' ? (choice.options[this.shown(choice)]?.held ?? '') : choice.held;
  }

  protected optionName(choice: Choice, key: string): string {
    return choice.kind === 'option' ? (choice.options[key]?.name ?? key) : key;
  }

  protected cover(kind: StockKind, on: boolean): void {
    this.kinds.update((kinds) => new Set(stockKinds.filter((one) => (one === kind ? on : kinds.has(one)))));
    this.keep();
  }

  protected type(choice: Choice, text: string): void {
    this.typed.update(({ [choice.path]: _old, ...rest }) =>
      text === this.kept(choice)
        ? rest
        : {
            ...rest,
            [choice.path]: typedAs(choice, text, this.session.units(), choiceValue(this.practice(), choice.path)),
          },
    );
    this.faults.update(({ [choice.path]: _gone, ...rest }) => rest);
    this.keep();
    this.try();
  }

  /** The practice with what was typed, and what of it cannot be, by path. */
  private read(): { practice: Practice; faults: Record<string, string> } {
    const faults: Record<string, string> = {};
    let practice = this.practice();
    for (const choice of this.all()) {
      const typed = this.typed()[choice.path];
      if (typed === undefined) continue;
      this.gather(faults, () => {
        const value = typed.value ?? readChoice(choice, typed.text, this.session.units());
        practice = withChoice(practice, choice.path, value);
      });
    }
    if (Object.keys(faults).length === 0) this.gather(faults, () => requirePractice(practice));
    return { practice, faults };
  }

  protected store(): void {
    const { practice, faults } = this.read();
    if (this.name().trim() === '') faults['name'] = 'Name must not be empty';
    if (this.kinds().size === 0) faults['appliesTo'] = 'Choose one kind of stock or more';
    this.faults.set(faults);
    if (Object.keys(faults).length > 0) return;
    this.save.emit({
      ...practice,
      name: this.name().trim(),
      appliesTo: stockKinds.filter((kind) => this.kinds().has(kind)),
    });
  }

  /** Runs an act and keeps what it refuses by its path. */
  private gather(faults: Record<string, string>, act: () => void): void {
    try {
      act();
    } catch (error) {
      if (!(error instanceof InvalidInputError)) throw error;
      faults[error.path] = error.message;
    }
  }
}

/** What stands in a field, with its value where it is one. */
function typedAs(choice: Choice, text: string, units: UnitSystem, was?: ChoiceValue): TypedChoice {
  try {
    return { text, value: readChoice(choice, text, units, was) };
  } catch (error) {
    if (!(error instanceof InvalidInputError)) throw error;
    return { text };
  }
}
