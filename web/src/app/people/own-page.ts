import { ChangeDetectionStrategy, Component, inject, linkedSignal, signal } from '@angular/core';
import { roleNames, acts, may, permissions } from '@sombra/contract';
import type { UnitSystem } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';
import { CodePanel } from './code-panel';
import { PasswordField } from '../fields/password-fields';
import { SessionService } from '../session/session.service';
import { textOf } from '../fields/event-values';

/** What everybody changes about themselves, and what their role lets them do. */
@Component({
  selector: 's-own-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CodePanel, PasswordField],
  template: `
    @if (session.user(); as me) {
      <h1>{{ me.name }}</h1>
      <p class="quiet">Signs in as {{ me.signIn }} · {{ roleNames[me.role] }}</p>
      <div class="columns">
        <section>
          <h2>Name and units</h2>
          <form (submit)="store($event)">
            <label for="own-name">Name, as it stands beside your records from now on</label>
            <input
              id="own-name"
              class="form-control"
              maxlength="120"
              autocomplete="name"
              [value]="name()"
              (input)="name.set(textOf($event))"
            />
            <label for="own-units">Units</label>
            <select id="own-units" class="form-select" (change)="units.set(textOf($event))">
              <option value="metric" [selected]="units() === 'metric'">Metric</option>
              <option value="us" [selected]="units() === 'us'">US customary</option>
            </select>
            <button
              type="submit"
              class="btn btn-primary"
              [disabled]="busy() || (name().trim() === me.name && units() === me.units)"
            >
              Store
            </button>
          </form>
          <h2>Password</h2>
          <form (submit)="changePassword($event)">
            <input type="text" hidden autocomplete="username" [value]="me.signIn" />
            <label for="own-password">Your password now</label>
            <input
              id="own-password"
              class="form-control"
              type="password"
              autocomplete="current-password"
              [value]="current()"
              (input)="current.set(textOf($event))"
            />
            <small class="fault">{{ faults()['current'] }}</small>
            <s-password-field
              label="Another one"
              [of]="me"
              [(password)]="password"
              [fault]="faults()['password'] ?? null"
            />
            <button type="submit" class="btn btn-primary" [disabled]="busy() || current() === '' || password() === ''">
              Change it
            </button>
            <p class="quiet">Your sessions on other devices end then.</p>
          </form>
          @if (problem(); as text) {
            <p class="problem" role="alert">{{ text }}</p>
          }
          <s-code-panel />
        </section>
        <section>
          <h2>What you may do</h2>
          <ul>
            @for (words of allowed(me.role); track words) {
              <li>{{ words }}</li>
            }
          </ul>
        </section>
      </div>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 1rem 1.25rem;
      max-width: 62rem;
    }
    .columns {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(18rem, 100%), 1fr));
      gap: 0 2.5rem;
    }
    h2:not(:first-child) {
      margin-top: 1.4rem;
    }
    label {
      display: block;
      margin-top: 0.6rem;
    }
    .form-control,
    .form-select {
      min-height: 48px;
    }
    button[type='submit'] {
      margin-top: 0.8rem;
      min-height: 48px;
    }
    .fault {
      color: var(--urgent);
      font-weight: 600;
    }
    ul {
      padding-left: 1.1rem;
    }
  `,
})
export class OwnPage {
  protected readonly textOf = textOf;
  protected readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  protected readonly roleNames = roleNames;
  protected readonly name = linkedSignal(() => this.session.user()?.name ?? '');
  protected readonly units = linkedSignal<UnitSystem>(() => this.session.units());
  protected readonly current = signal('');
  protected readonly password = signal('');
  protected readonly problem = signal<string | null>(null);
  protected readonly faults = signal<Readonly<Record<string, string>>>({});
  protected readonly busy = signal(false);
  protected readonly allowed = (role: Parameters<typeof may>[0]): string[] =>
    acts.filter((act) => may(role, act)).map((act) => permissions[act].words);

  protected async store(event: Event): Promise<void> {
    event.preventDefault();
    await this.run(async () => {
      await firstValueFrom(this.session.change({ name: this.name().trim(), units: this.units() }));
      this.toasts.say('Stored.');
    });
  }

  protected async changePassword(event: Event): Promise<void> {
    event.preventDefault();
    await this.run(async () => {
      const entry = { current: this.current(), password: this.password() };
      await firstValueFrom(this.session.changePassword(entry));
      this.current.set('');
      this.password.set('');
      this.toasts.say('Your password is changed; other devices are signed out.');
    });
  }

  private async run(act: () => Promise<void>): Promise<void> {
    this.busy.set(true);
    this.problem.set(null);
    this.faults.set({});
    try {
      await act();
    } catch (error) {
      const problem = readProblem(error);
      this.faults.set(Object.fromEntries((problem.issues ?? []).map(({ path, message }) => [path, message])));
      this.problem.set(sayProblem(problem));
    } finally {
      this.busy.set(false);
    }
  }
}
