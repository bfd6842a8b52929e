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
import type { ChangeHelper, DayDetail, DayPerson, PrivateFacts } from '@sombra/contract';
import { skills, type Skill } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { textOf, tickOf } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { DayPersonForm } from './day-person-form';
import { skillNames } from './day-words';
import { DaysService } from './days.service';

const stateNames = {
  held: 'held, not confirmed',
  confirmed: 'comes',
  waiting: 'on the waiting list',
  cancelled: 'cancelled',
} as const;

/** Who comes: by the link, by the desk, on the day; and what they told for leads alone. */
@Component({
  selector: 's-day-people',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DayPersonForm],
  template: `
    <div class="bar">
      <span
        ><b>{{ count('confirmed') }}</b> of {{ day().capacity }} come, {{ count('held') }} held,
        {{ count('waiting') }} wait</span
      >
      @if (mayPlan()) {
        <button type="button" class="btn btn-outline-primary" [disabled]="busy()" (click)="renew(true)">
          {{ day().linkOpen ? 'Make a new link' : 'Make a link to register' }}
        </button>
        @if (day().linkOpen) {
          <button type="button" class="btn btn-outline-primary" [disabled]="busy()" (click)="renew(false)">
            Take the link back
          </button>
        }
      }
      @if (mayRun()) {
        <button
          type="button"
          class="btn btn-outline-primary"
          [attr.aria-expanded]="adding()"
          (click)="adding.set(!adding())"
        >
          Add somebody
        </button>
        <button
          type="button"
          class="btn btn-outline-primary"
          [attr.aria-pressed]="secrets() !== null"
          (click)="showSecrets()"
        >
          {{ secrets() === null ? 'Show contacts and allergies' : 'Hide contacts and allergies' }}
        </button>
      }
    </div>
    @if (link(); as address) {
      <p class="covered">
        Give this to whoever may register; the one before opens nothing any more:
        <input class="form-control" readonly aria-label="Link to register" [value]="address" />
      </p>
    }
    @if (day().mails.waiting + day().mails.sent + day().mails.refused > 0) {
      <p class="quiet">
        Letters: {{ day().mails.sent }} sent, {{ day().mails.waiting }} waiting, {{ day().mails.refused }} refused.
        @if (day().mails.page; as page) {
          <a [href]="page" target="_blank">The simulated mail server shows them</a>
        }
      </p>
    }
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (adding()) {
      <s-day-person-form [day]="day()" (added)="added($event)" />
    }
    <table class="plain">
      <thead>
        <tr>
          <th scope="col">Name</th>
          <th scope="col">Standing</th>
          <th scope="col">Skill</th>
          <th scope="col">Waiver</th>
          <th scope="col">Stays with</th>
          @if (secrets()) {
            <th scope="col">Told in confidence</th>
          }
          <th scope="col"><span class="visually-hidden">Acts</span></th>
        </tr>
      </thead>
      <tbody>
        @for (person of people(); track person.id) {
          <tr [class.off]="person.state === 'cancelled'">
            <th scope="row">
              {{ person.name }}
              @if (person.minor) {
                <small>minor</small>
              }
              @if (person.noLifting && !person.minor) {
                <small>no lifting</small>
              }
            </th>
            <td>{{ stateNames[person.state] }}{{ person.cameAt ? ', is here' : '' }}</td>
            <td>
              @if (person.minor) {
                –
              } @else {
                <select
                  class="form-select"
                  [attr.aria-label]="'Skill of ' + person.name"
                  [disabled]="!mayRun()"
                  (change)="setSkill(person, textOf($event))"
                >
                  @for (skill of skills; track skill) {
                    <option [value]="skill" [selected]="skill === person.skill">{{ skillNames[skill] }}</option>
                  }
                </select>
              }
            </td>
            <td>
              <label class="tick"
                ><input
                  type="checkbox"
                  [attr.aria-label]="'Waiver of ' + person.name + ' signed'"
                  [checked]="person.waiver"
                  [disabled]="!mayRun()"
                  (change)="sign(person, tickOf($event))"
                />
                {{ person.waiver ? 'signed' : 'missing' }}</label
              >
            </td>
            <td>{{ with(person) }}</td>
            @if (secrets(); as told) {
              <td class="told">{{ confidence(told[person.id]) }}</td>
            }
            <td>
              @if (mayRun() && person.state !== 'cancelled') {
                <button
                  type="button"
                  class="btn btn-sm btn-outline-primary"
                  [attr.aria-label]="'Cancel ' + person.name"
                  (click)="set(person, 'cancelled')"
                >
                  Cancel
                </button>
              } @else if (mayRun()) {
                <button
                  type="button"
                  class="btn btn-sm btn-outline-primary"
                  [attr.aria-label]="person.name + ' comes after all'"
                  (click)="set(person, 'confirmed')"
                >
                  Comes after all
                </button>
              }
            </td>
          </tr>
        } @empty {
          <tr>
            <td colspan="6" class="quiet">Nobody yet.</td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    .bar {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem 0.9rem;
      align-items: center;
      margin-bottom: 0.6rem;
    }
    .covered input {
      max-width: 40rem;
      margin-top: 0.3rem;
    }
    th small {
      margin-left: 0.4rem;
      padding: 0 0.3rem;
      border: 1px solid var(--edge);
      font-weight: 400;
    }
    .off {
      color: var(--quiet);
      text-decoration: line-through;
    }
    .tick {
      display: flex;
      gap: 0.4rem;
      align-items: center;
      min-height: 36px;
      input {
        width: 22px;
        height: 22px;
      }
    }
    .told {
      white-space: pre-line;
      max-width: 18rem;
    }
    table.plain td,
    table.plain th {
      vertical-align: middle;
    }
    @media (max-width: 720px) {
      table {
        display: block;
        overflow-x: auto;
      }
    }
  `,
})
export class DayPeople {
  readonly day = input.required<DayDetail>();
  readonly changed = output<DayDetail>();
  private readonly doors = inject(DaysService);
  private readonly session = inject(SessionService);
  protected readonly textOf = textOf;
  protected readonly tickOf = tickOf;
  protected readonly stateNames = stateNames;
  protected readonly skills = skills;
  protected readonly skillNames = skillNames;
  protected readonly busy = signal(false);
  protected readonly adding = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly link = signal<string | null>(null);
  protected readonly secrets = signal<Record<string, PrivateFacts> | null>(null);
  protected readonly mayPlan = computed(() => this.session.may('plan_day'));
  protected readonly mayRun = computed(() => this.session.may('run_day'));
  protected readonly people = computed(() => {
    const order = { confirmed: 0, held: 1, waiting: 2, cancelled: 3 };
    return [...this.day().people].sort((a, b) => order[a.state] - order[b.state] || a.name.localeCompare(b.name));
  });

  constructor() {
    effect(() => {
      const id = this.day().id;
      untracked(() => {
        if (this.shownFor === id) return;
        this.shownFor = id;
        this.secrets.set(null);
        this.link.set(null);
      });
    });
  }
  private shownFor = '';

  protected count(state: DayPerson['state']): number {
    return this.day().people.filter((person) => person.state === state).length;
  }
  protected with(person: DayPerson): string {
    const guardian = this.day().people.find(({ id }) => id === person.guardianId)?.name;
    const friends = person.together
      ? this.day().people.filter(
          (one) => one.together === person.together && one.id !== person.id && one.state !== 'cancelled',
        )
      : [];
    return [guardian, ...friends.map(({ name }) => name)].filter(Boolean).join(', ');
  }
  protected confidence(told: PrivateFacts | undefined): string {
    if (!told) return '';
    const { email, phone, emergencyContact, allergies } = told;
    return [email, phone, emergencyContact && `call ${emergencyContact}`, allergies && `allergic: ${allergies}`]
      .filter(Boolean)
      .join('\n');
  }

  protected added(day: DayDetail): void {
    this.adding.set(false);
    this.changed.emit(day);
  }

  protected setSkill(person: DayPerson, skill: Skill): void {
    void this.change(person, { skill });
  }
  protected sign(person: DayPerson, signed: boolean): void {
    const by = this.day().people.find(({ id }) => id === person.guardianId)?.name ?? person.name;
    void this.change(person, { signedBy: signed ? by : null });
  }
  protected set(person: DayPerson, state: 'confirmed' | 'cancelled'): void {
    void this.change(person, { state });
  }

  private async change(person: DayPerson, change: Partial<ChangeHelper>): Promise<void> {
    const { name, skill, minor, together, noLifting, photos, guardianId, state, waiverSignedBy } = person;
    const asked: ChangeHelper = {
      name,
      skill,
      minor,
      together,
      noLifting,
      photos,
      guardianId,
      state: state === 'held' ? 'confirmed' : state,
      signedBy: waiverSignedBy,
      ...change,
    };
    await this.run(async () => this.changed.emit(await firstValueFrom(this.doors.changePerson(person.id, asked))));
  }

  protected async renew(open: boolean): Promise<void> {
    await this.run(async () => {
      const path = await firstValueFrom(this.doors.link(this.day().id, open));
      this.link.set(open ? location.origin + path : null);
      this.changed.emit(await firstValueFrom(this.doors.one(this.day().id)));
    });
  }

  protected async showSecrets(): Promise<void> {
    if (this.secrets() !== null) {
      this.secrets.set(null);
      return;
    }
    await this.run(async () => this.secrets.set(await firstValueFrom(this.doors.private(this.day().id))));
  }

  private async run(act: () => Promise<unknown>): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      await act();
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
