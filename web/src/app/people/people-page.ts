import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { roleNames, acts, may, permissions, roles, type Person, type Problem, type Role } from '@sombra/contract';
import { firstValueFrom, type Observable } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay, sayMoment } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { ProgrammeService } from '../programme/programme.service';
import { DevicesPanel } from './devices-panel';
import { PeopleService } from './people.service';
import { SessionService } from '../session/session.service';
import { textOf } from '../fields/event-values';

/** Who works here: added by a one-time link, given a role, let in and kept out. */
@Component({
  selector: 's-people-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DevicesPanel, StateNote],
  templateUrl: './people-page.html',
  styleUrl: './people-page.scss',
})
export class PeoplePage {
  protected readonly textOf = textOf;
  private readonly doors = inject(PeopleService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  protected readonly people = signal<readonly Person[] | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly busy = signal(false);
  /** The link that was just made: shown once. */
  protected readonly link = signal<{ name: string; url: string } | null>(null);
  protected readonly faults = signal<Readonly<Record<string, string>>>({});
  protected readonly roles = roles;
  protected readonly roleNames = roleNames;
  protected readonly table = acts.map((act) => ({
    words: permissions[act].words,
    roles: roles.map((role) => may(role, act)),
  }));
  protected readonly say = sayProblem;
  protected readonly mayManage = this.session.may('manage_people');
  protected readonly me = () => this.session.user()?.id;
  /** Those the programme gives new people; one's own until they are read. */
  private units = this.session.units();
  /** Adding twice, because the answer was lost, adds once. */
  private newId = uuidv7();

  constructor() {
    if (!this.mayManage) return;
    void this.read();
    inject(ProgrammeService)
      .read()
      .subscribe({ next: ({ units }) => (this.units = units), error: () => undefined });
  }

  protected moment(instant: string | null): string {
    return instant ? sayMoment(instant) : 'never';
  }

  protected stateOf(person: Person): string {
    if (person.disabledAt) return `kept out since ${sayDay(person.disabledAt)}`;
    const link = person.linkUntil ? `a link is open until ${sayMoment(person.linkUntil)}` : '';
    return person.joined ? link : link || 'no password and no link';
  }

  protected async read(): Promise<void> {
    try {
      this.people.set(await firstValueFrom(this.doors.all()));
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  protected async add(event: Event): Promise<void> {
    event.preventDefault();
    const form = event.target as HTMLFormElement;
    const entry = new FormData(form);
    const text = (name: string) => String(entry.get(name) ?? '');
    const name = text('name');
    const person = { id: this.newId, signIn: text('signIn'), name, role: text('role') as Role };
    const units = this.units;
    if (await this.make(name, this.doors.add({ ...person, units }))) {
      this.newId = uuidv7();
      form.reset();
    }
  }

  protected async inviteAgain({ id, name }: Person): Promise<void> {
    await this.make(name, this.doors.link(id));
  }

  private make(name: string, asked: Observable<{ people: Person[]; link: string | null }>): Promise<boolean> {
    return this.run(async () => {
      const { people, link } = await firstValueFrom(asked);
      this.people.set(people);
      this.link.set(link ? { name, url: new URL(link, location.origin).href } : null);
    });
  }

  protected async copy(url: string): Promise<void> {
    await navigator.clipboard.writeText(url);
    this.toasts.say('Copied.');
  }

  protected async give(person: Person, role: Role): Promise<void> {
    const { id, name, version, disabledAt } = person;
    const change = { name, role, disabled: disabledAt !== null, version };
    const done = await this.store(
      this.doors.change(id, change),
      `${name}: ${roleNames[role].toLowerCase()} from now on.`,
    );
    // What is shown is what is kept.
    if (!done) await this.readKeepingProblem();
  }

  protected async shut({ id, name, role, version, disabledAt }: Person): Promise<void> {
    const disabled = disabledAt === null;
    const question = `Keep ${name} out? Their sessions end at once; their records stay and keep their name.`;
    if (disabled && !confirm(question)) return;
    const said = disabled ? `${name} is kept out.` : `${name} may sign in again.`;
    await this.store(this.doors.change(id, { name, role, disabled, version }), said);
  }

  protected async endSessions({ id, name }: Person): Promise<void> {
    await this.store(this.doors.endSessions(id), `${name} is signed out everywhere${id === this.me() ? ' else' : ''}.`);
  }

  private store(act: Observable<Person[]>, said: string): Promise<boolean> {
    return this.run(async () => {
      this.people.set(await firstValueFrom(act));
      this.toasts.say(said);
    });
  }

  private async readKeepingProblem(): Promise<void> {
    const problem = this.problem();
    await this.read();
    this.problem.set(problem);
  }

  private async run(act: () => Promise<void>): Promise<boolean> {
    this.busy.set(true);
    this.problem.set(null);
    this.faults.set({});
    try {
      await act();
      return true;
    } catch (error) {
      const problem = readProblem(error);
      this.problem.set(problem);
      this.faults.set(Object.fromEntries((problem.issues ?? []).map(({ path, message }) => [path, message])));
      return false;
    } finally {
      this.busy.set(false);
    }
  }
}
