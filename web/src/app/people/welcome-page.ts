import { HttpClient } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, effect, inject, input, signal } from '@angular/core';
import { invitationSchema, type Invitation } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { PasswordField } from '../fields/password-fields';
import { SessionService } from '../session/session.service';

/** Where a one-time link leads: a person sets their password and is signed in. */
@Component({
  selector: 's-welcome-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PasswordField],
  template: `
    <main>
      @if (invitation(); as who) {
        <h1>Welcome, {{ who.name }}</h1>
        <p>
          {{ who.programme }} works with Sombra. Your name to sign in by is <b>{{ who.signIn }}</b>.
        </p>
        <form (submit)="accept($event)">
          <input type="text" hidden autocomplete="username" [value]="who.signIn" />
          <s-password-field label="Choose a password" [of]="who" [(password)]="password" [fault]="fault()" />
          @if (problem(); as text) {
            <p class="problem" role="alert">{{ text }}</p>
          }
          <button type="submit" class="btn btn-primary" [disabled]="busy()">
            {{ busy() ? 'Storing…' : 'Set it and sign in' }}
          </button>
        </form>
        <p class="quiet">This link is used up then.</p>
      } @else if (problem()) {
        <h1>Sombra</h1>
        <p class="problem" role="alert">{{ problem() }}</p>
        <a href="/">To the sign-in</a>
      } @else {
        <p role="status">Opening…</p>
      }
    </main>
  `,
  styles: `
    :host {
      flex: 1;
    }
    main {
      max-width: 34rem;
      margin: 6vh auto;
      padding: 1rem 1.25rem;
    }
    button[type='submit'] {
      margin-top: 1rem;
      min-height: 48px;
    }
  `,
})
export class WelcomePage {
  readonly token = input.required<string>();
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  protected readonly invitation = signal<Invitation | null>(null);
  protected readonly password = signal('');
  protected readonly fault = signal<string | null>(null);
  protected readonly problem = signal<string | null>(null);
  protected readonly busy = signal(false);

  constructor() {
    effect(() => void this.open(this.token()));
  }

  private readonly door = (token: string) => `/api/open/invitations/${encodeURIComponent(token)}`;

  private async open(token: string): Promise<void> {
    try {
      this.invitation.set(invitationSchema.parse(await firstValueFrom(this.http.get(this.door(token)))));
    } catch (error) {
      this.problem.set(sayProblem(readProblem(error)));
    }
  }

  protected async accept(event: Event): Promise<void> {
    event.preventDefault();
    const signIn = this.invitation()?.signIn ?? '';
    this.busy.set(true);
    this.problem.set(null);
    this.fault.set(null);
    try {
      await firstValueFrom(this.http.post(this.door(this.token()), { password: this.password() }));
      await firstValueFrom(this.session.signIn({ signIn, password: this.password() }));
      location.assign('/');
    } catch (error) {
      const problem = readProblem(error);
      const issue = problem.issues?.find(({ path }) => path === 'password');
      if (issue) this.fault.set(issue.message);
      else this.problem.set(sayProblem(problem));
      this.busy.set(false);
    }
  }
}
