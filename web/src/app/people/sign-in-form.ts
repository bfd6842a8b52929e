import { ChangeDetectionStrategy, Component, input, signal } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule, Validators } from '@angular/forms';
import type { Session, SignIn } from '@sombra/contract';

@Component({
  selector: 's-sign-in-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule],
  template: `
    <form [formGroup]="form" (ngSubmit)="submit()" novalidate>
      <img src="mark.svg" alt="" width="56" height="56" />
      <h1>{{ again() ? 'Your session has run out' : 'Sombra' }}</h1>
      @if (again()) {
        <p>Sign in to go on. What you typed is still here.</p>
      } @else {
        <p class="quiet">
          {{ programme()?.name ?? 'From the pit to an established tree'
          }}{{ programme()?.demo ? ' · the demo town' : '' }}
        </p>
      }
      <label for="sign-in-name">Name</label>
      <input
        id="sign-in-name"
        class="form-control"
        formControlName="signIn"
        autocomplete="username"
        autocapitalize="none"
      />
      <label for="sign-in-password">Password</label>
      <input
        id="sign-in-password"
        class="form-control"
        type="password"
        formControlName="password"
        autocomplete="current-password"
      />
      @if (fault(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <button type="submit" class="btn btn-primary" [disabled]="busy()">
        {{ busy() ? 'Signing in…' : 'Sign in' }}
      </button>
    </form>
  `,
  styles: `
    :host {
      display: grid;
      place-items: center;
      padding: 1rem;
    }
    form {
      width: min(22rem, 100%);
      display: flex;
      flex-direction: column;
      gap: 0.35rem;
      background: var(--sheet);
      padding: 1.75rem;
      border: 1px solid var(--line);
      border-top: 6px solid var(--pine);
    }
    img {
      margin-bottom: 0.5rem;
    }
    p {
      margin: 0 0 0.5rem;
    }
    label {
      margin-top: 0.5rem;
    }
    .form-control {
      min-height: 48px;
    }
    button {
      margin-top: 1rem;
    }
  `,
})
export class SignInForm {
  readonly again = input(false);
  readonly programme = input<Session['programme']>(null);
  /** Tries to enter; resolves to why not, or `null` once in. */
  readonly enter = input.required<(entry: SignIn) => Promise<string | null>>();
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly form = new FormGroup({
    signIn: new FormControl('', { nonNullable: true, validators: [Validators.required] }),
    password: new FormControl('', { nonNullable: true, validators: [Validators.required] }),
  });

  protected async submit(): Promise<void> {
    if (this.form.invalid) {
      this.fault.set('Enter your name and your password.');
      return;
    }
    this.busy.set(true);
    this.fault.set(await this.enter()(this.form.getRawValue()));
    this.busy.set(false);
  }
}

/** Why somebody was not let in. */
export const signInFault = ({ code, title }: { readonly code: string; readonly title: string }): string =>
  code === 'invalid_input' ? 'Name and password do not fit together.' : title;
