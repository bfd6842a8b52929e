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
import type { DayDetail, DayPerson } from '@sombra/contract';
import { nameOfTeam } from '@sombra/core';
import { textOf } from '../fields/event-values';
import { TagReader } from '../fields/tag-reader';
import { ViewState } from '../ui/view-state.service';

/** Who is here, by name, with a thumb: one tap is here, another one gone home. */
@Component({
  selector: 's-check-in',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [TagReader],
  template: `
    <h2>{{ here() }} of {{ expected() }} are here</h2>
    <input
      class="form-control"
      type="search"
      aria-label="Find somebody of the day"
      placeholder="Name"
      [value]="find()"
      (input)="find.set(textOf($event))"
    />
    @if (mayRun()) {
      <s-tag-reader (seen)="read($event)" />
    }
    @if (said(); as words) {
      <p role="status">{{ words }}</p>
    }
    <ul>
      @for (person of shown(); track person.id) {
        <li [class.here]="person.cameAt" [class.gone]="person.leftAt">
          <span
            >{{ person.name }} <small>{{ note(person) }}</small></span
          >
          @if (!person.cameAt) {
            <button
              type="button"
              class="btn btn-primary"
              [disabled]="!mayRun()"
              [attr.aria-label]="person.name + ' is here'"
              (click)="came.emit(person)"
            >
              Here
            </button>
          } @else if (!person.leftAt) {
            <button
              type="button"
              class="btn btn-outline-primary"
              [disabled]="!mayRun()"
              [attr.aria-label]="person.name + ' goes home'"
              (click)="left.emit(person)"
            >
              Goes home
            </button>
          }
        </li>
      } @empty {
        <li>Nobody of this name is registered.</li>
      }
    </ul>
  `,
  styles: `
    ul {
      list-style: none;
      padding: 0;
      margin: 0.4rem 0 0;
      max-height: 24rem;
      overflow-y: auto;
    }
    li {
      display: flex;
      align-items: center;
      gap: 0.6rem;
      min-height: 52px;
      border-bottom: 1px solid var(--line);
      border-left: 6px solid var(--line);
      padding-left: 0.6rem;
    }
    li span {
      flex: 1;
    }
    li.here {
      border-left-color: var(--good);
    }
    li.gone {
      border-left-color: var(--edge);
      color: var(--quiet);
    }
    small {
      color: var(--quiet);
    }
    .btn,
    .form-control {
      min-height: 48px;
    }
  `,
})
export class CheckIn {
  readonly day = input.required<DayDetail>();
  readonly mayRun = input.required<boolean>();
  readonly came = output<DayPerson>();
  readonly left = output<DayPerson>();
  protected readonly textOf = textOf;
  /** A name tag read by the phone's own camera opens the day with its person. */
  private readonly view = inject(ViewState);
  protected readonly find = linkedSignal(
    () => this.people().find(({ id }) => id === this.view.text('person'))?.name ?? '',
  );
  protected readonly said = signal<string | null>(null);
  private readonly people = computed(() => this.day().people.filter(({ state }) => state !== 'cancelled'));
  protected readonly here = computed(() => this.people().filter(({ cameAt, leftAt }) => cameAt && !leftAt).length);
  protected readonly expected = computed(() => this.people().filter(({ state }) => state === 'confirmed').length);
  protected readonly shown = computed(() => {
    const words = plain(this.find());
    const order = (person: DayPerson) => (person.leftAt ? 2 : person.cameAt ? 1 : 0);
    return this.people()
      .filter(({ name }) => plain(name).includes(words))
      .sort((a, b) => order(a) - order(b) || a.name.localeCompare(b.name));
  });

  /** The code of a name tag: whoever it names is here. */
  protected read(text: string): void {
    const id = /[?&]person=([0-9a-f-]{36})/i.exec(text)?.[1]?.toLowerCase();
    const person = this.people().find((one) => one.id === id);
    if (!person) this.said.set('This code is of nobody of this day.');
    else if (person.cameAt) this.said.set(`${person.name} is here already.`);
    else {
      this.said.set(`${person.name}, by the code.`);
      this.came.emit(person);
    }
  }

  protected note(person: DayPerson): string {
    const team = this.day().teams.findIndex(({ helperIds }) => helperIds.includes(person.id));
    const lead = this.day().people.find(({ id }) => id === this.day().teams[team]?.leadId)?.name;
    return [
      team >= 0 ? `team ${nameOfTeam(lead, team)}` : 'no team yet',
      !person.waiver && 'waiver missing: cannot be assigned',
      person.minor && 'minor',
      person.state !== 'confirmed' && 'did not confirm',
    ]
      .filter(Boolean)
      .join(', ');
  }
}

const plain = (text: string): string => text.trim().toLowerCase().normalize('NFD').replace(/\p{M}/gu, '');
