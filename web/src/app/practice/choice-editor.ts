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
  choiceTable,
  choiceValue,
  InvalidInputError,
  stockKinds,
  stockNames,
  withChoice,
  type Choice,
  type Practice,
  type StockKind,
} from '@sombra/core';
import { SessionService } from '../people/session.service';
import { sayChoice } from './say-choice';

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
          (input)="name.set($any($event.target).value)"
        />
        <span></span>
      </div>
      <fieldset class="line">
        <legend>For</legend>
        <span class="kinds">
          @for (kind of stockKinds; track kind) {
            <label
              ><input
                type="checkbox"
                [checked]="kinds().has(kind)"
                (change)="cover(kind, $any($event.target).checked)"
              />
              {{ stockNames[kind] }}</label
            >
          }
        </span>
      </fieldset>
      @for (group of table; track group.name) {
        <h3>{{ group.name }}</h3>
        @for (choice of group.choices; track choice.path) {
          <div class="line" [class.changed]="typed()[choice.path] !== undefined">
            <label [for]="choice.path">{{ choice.name }}</label>
            @switch (choice.kind) {
              @case ('option') {
                <select [id]="choice.path" class="form-select" (change)="type(choice, $any($event.target).value)">
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
                  (change)="type(choice, $any($event.target).checked ? 'true' : 'false')"
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
                    (input)="type(choice, $any($event.target).value)"
                  />
                  <span class="quiet">{{ choice.kind === 'number' ? choice.unit : '' }}</span>
                </span>
              }
            }
            <span class="quiet">
              @if (faults()[choice.path]; as fault) {
                <b class="fault" role="alert">{{ fault }}</b>
              } @else if (typed()[choice.path] !== undefined) {
                was {{ before(choice) }}
              } @else {
                {{ choice.research }}
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
      grid-template-columns: 14rem minmax(10rem, 18rem) 1fr;
      gap: 0.3rem 0.9rem;
      align-items: center;
      min-height: 46px;
      border-bottom: 1px solid var(--line);
    }
    .line.changed {
      background: var(--chosen-pale);
    }
    h3 {
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
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class ChoiceEditor {
  readonly practice = input.required<Practice>();
  readonly busy = input(false);
  readonly save = output<Practice>();
  readonly leave = output();
  private readonly session = inject(SessionService);
  protected readonly table = choiceTable;
  protected readonly stockKinds = stockKinds;
  protected readonly stockNames = stockNames;
  protected readonly name = signal('');
  protected readonly kinds = signal<ReadonlySet<StockKind>>(new Set());
  /** What was typed, by path. */
  protected readonly typed = signal<Readonly<Record<string, string>>>({});
  protected readonly faults = signal<Readonly<Record<string, string>>>({});
  private readonly all = computed(() => choiceTable.flatMap(({ choices }) => choices));

  constructor() {
    effect(() => {
      const { name, appliesTo } = this.practice();
      untracked(() => {
        this.name.set(name);
        this.kinds.set(new Set(appliesTo));
        this.typed.set({});
        this.faults.set({});
      });
    });
  }

  private kept(choice: Choice): string {
    const value = choiceValue(this.practice(), choice.path);
    return typeof value === 'number' ? String(Math.round(value * 1000) / 1000) : String(value);
  }

  protected shown(choice: Choice): string {
    return this.typed()[choice.path] ?? this.kept(choice);
  }

  protected before(choice: Choice): string {
    return sayChoice(choice, choiceValue(this.practice(), choice.path), this.session.units());
  }

  protected keysOf(choice: Choice): string[] {
    return choice.kind === 'option' ? Object.keys(choice.options) : [];
  }

  protected optionName(choice: Choice, key: string): string {
    return choice.kind === 'option' ? (choice.options[key]?.name ?? key) : key;
  }

  protected cover(kind: StockKind, on: boolean): void {
    this.kinds.update((kinds) => new Set(stockKinds.filter((one) => (one === kind ? on : kinds.has(one)))));
  }

  protected type(choice: Choice, text: string): void {
    this.typed.update(({ [choice.path]: _old, ...rest }) =>
      text === this.kept(choice) ? rest : { ...rest, [choice.path]: text },
    );
    this.faults.update(({ [choice.path]: _gone, ...rest }) => rest);
  }

  protected store(): void {
    const faults: Record<string, string> = {};
    let practice = this.practice();
    for (const choice of this.all()) {
      const text = this.typed()[choice.path];
      if (text === undefined) continue;
      const clean = text.trim().replace(',', '.');
      const value =
        choice.kind === 'number'
          ? clean === ''
            ? NaN
            : Number(clean)
          : choice.kind === 'yes_no'
            ? text === 'true'
            : text;
      try {
        practice = withChoice(practice, choice.path, value);
      } catch (error) {
        if (!(error instanceof InvalidInputError)) throw error;
        faults[choice.path] = Number.isNaN(value)
          ? `${choice.name} must be a number, got ${text || 'nothing'}`
          : error.message;
      }
    }
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
}
