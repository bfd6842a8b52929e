import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import {
  choices,
  choiceTable,
  choiceValue,
  InvalidInputError,
  requirePractice,
  withChoice,
  type Choice,
  type ChoiceValue,
  type UnitSystem,
} from '@sombra/core';
import { choiceText, choiceUnit, readChoice, sayChoice } from '../practice/say-choice';
import { sayProblem } from '../ui/problem';
import { SessionService } from '../session/session.service';
import { RecordSender } from '../spot/record-sender';
import { SpotStore } from '../spot/spot-store';
import { textOf } from '../fields/event-values';

/** One choice of the practice made otherwise for this spot, with its reason; what was made otherwise before. */
@Component({
  selector: 's-override-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [RecordSender],
  template: `
    @if (said().length > 0) {
      <p class="made" role="status">
        Otherwise here:
        @for (one of said(); track one.path) {
          <span
            ><b>{{ one.name }}: {{ one.value }}</b> ({{ one.reason }})
            @if (one.setAside) {
              <span class="problem">Does not count any more: it contradicts the practice as it is now.</span>
            }
          </span>
        }
      </p>
    }
    @if (mayOverride()) {
      <details>
        <summary>Make a choice otherwise for this spot</summary>
        <form (submit)="$event.preventDefault(); send()">
          <label for="ov-choice">Choice</label>
          <select id="ov-choice" class="form-select" (change)="pick(textOf($event))">
            @for (group of table; track group.name) {
              <optgroup [label]="group.name">
                @for (one of group.choices; track one.path) {
                  <option [value]="one.path" [selected]="one.path === choice().path">{{ one.name }}</option>
                }
              </optgroup>
            }
          </select>
          <label for="ov-value">Here</label>
          @if (choice().kind === 'number') {
            <span class="entry">
              <input
                id="ov-value"
                class="form-control"
                inputmode="decimal"
                [value]="value()"
                (input)="type(textOf($event))"
              />
              {{ unit() }}
            </span>
          } @else {
            <select id="ov-value" class="form-select" (change)="type(textOf($event))">
              @for (one of values(); track one.key) {
                <option [value]="one.key" [selected]="one.key === value()">{{ one.name }}</option>
              }
            </select>
          }
          <p class="quiet said">{{ choice().research }}</p>
          <label for="ov-reason">Because</label>
          <input
            id="ov-reason"
            class="form-control"
            maxlength="300"
            [value]="reason()"
            (input)="reason.set(textOf($event))"
          />
          @if (fault(); as text) {
            <p class="problem" role="alert">{{ text }}</p>
          }
          <button type="submit" class="btn btn-outline-primary" [disabled]="sender.busy()">Store for this spot</button>
        </form>
      </details>
    }
  `,
  styles: `
    .made {
      border-left: 4px solid var(--chosen);
      padding-left: 0.8rem;
      span {
        display: block;
      }
    }
    form {
      display: grid;
      grid-template-columns: 6rem minmax(0, 24rem);
      gap: 0.5rem 0.8rem;
      align-items: center;
    }
    .entry {
      display: flex;
      gap: 0.5rem;
      align-items: center;
    }
    .said,
    .problem {
      grid-column: 1 / -1;
    }
    button {
      grid-column: 2;
      justify-self: start;
    }
    summary {
      min-height: 44px;
      padding-top: 0.6rem;
      cursor: pointer;
    }
  `,
})
export class OverrideForm {
  protected readonly textOf = textOf;
  private readonly store = inject(SpotStore);
  private readonly session = inject(SessionService);
  protected readonly sender = inject(RecordSender);
  protected readonly table = choiceTable;
  protected readonly path = signal('berm.where');
  /** As it stands in the field, and the value it was filled with. */
  protected readonly value = signal('');
  private filled: ChoiceValue | undefined;
  /** The units its text was written in. */
  private shownIn: UnitSystem = 'metric';
  protected readonly reason = signal('');
  private readonly own = signal<string | null>(null);
  protected readonly mayOverride = computed(() => this.session.may('record_override'));
  protected readonly choice = computed((): Choice => chosen(this.path()));
  protected readonly unit = computed(() => choiceUnit(this.choice(), this.session.units()));
  protected readonly values = computed(() => {
    const choice = this.choice();
    if (choice.kind === 'option') return Object.entries(choice.options).map(([key, { name }]) => ({ key, name }));
    return [
      { key: 'true', name: 'yes' },
      { key: 'false', name: 'no' },
    ];
  });
  protected readonly said = computed(() => {
    const { overrides = [], setAside: aside = [] } = this.store.life() ?? {};
    return overrides.map(({ path, value, reason }) => {
      const choice = choices.find((one) => one.path === path);
      return {
        path,
        reason,
        setAside: aside.some((one) => one.path === path),
        name: choice?.name ?? path,
        value: choice ? sayChoice(choice, value, this.session.units()) : '',
      };
    });
  });
  protected readonly fault = computed(() => {
    const problem = this.sender.problem();
    return this.own() ?? (problem ? sayProblem(problem) : null);
  });

  constructor() {
    queueMicrotask(() => this.pick(this.path()));
    effect(() => {
      const units = this.session.units();
      // Other units show the same value; its digits are not read anew.
      if (units !== this.shownIn) untracked(() => this.showIn(units));
    });
  }

  protected type(text: string): void {
    this.value.set(text);
    this.shownIn = this.session.units();
  }

  private showIn(units: UnitSystem): void {
    try {
      this.filled = readChoice(this.choice(), this.value(), this.shownIn, this.filled);
      this.value.set(choiceText(this.choice(), this.filled, units));
      this.shownIn = units;
    } catch (error) {
      // What is no value stays as it was typed.
      if (!(error instanceof InvalidInputError)) throw error;
    }
  }

  protected pick(path: string): void {
    this.path.set(path);
    this.shownIn = this.session.units();
    const care = this.store.life()?.care;
    this.filled = care && choiceValue(care, path);
    this.value.set(this.filled === undefined ? '' : choiceText(this.choice(), this.filled, this.session.units()));
    this.own.set(null);
  }

  protected async send(): Promise<void> {
    const choice = this.choice();
    const care = this.store.life()?.care;
    let value: ChoiceValue;
    try {
      value = readChoice(choice, this.value(), this.session.units(), this.filled);
      if (care) requirePractice(withChoice(care, choice.path, value));
    } catch (error) {
      if (!(error instanceof InvalidInputError)) throw error;
      this.own.set(`${error.message}.`);
      return;
    }
    const reason = this.reason().trim();
    if (reason.length < 3) {
      this.own.set('Because must say why, in 3 letters or more.');
      return;
    }
    this.own.set(null);
    const facts = { decidedOn: this.session.today(), path: choice.path, value, reason };
    if (await this.sender.send({ kind: 'override', facts, supersedes: null }, `${choice.name} made otherwise here.`)) {
      this.reason.set('');
    }
  }
}

const chosen = (path: string): Choice => {
  const found = choices.find((one) => one.path === path) ?? choices[0];
  if (!found) throw new Error('the table of choices is empty');
  return found;
};
