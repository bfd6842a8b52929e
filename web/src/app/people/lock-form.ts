import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { NumberPad } from '../fields/number-pad';
import { LockService } from '../session/lock.service';
import { SessionService } from '../session/session.service';

/** Asks for the short code of this device. */
@Component({
  selector: 's-lock-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NumberPad],
  template: `
    <form (submit)="open($event)">
      <h1>{{ session.user()?.name }}</h1>
      <p>The screen is locked. What is recorded here is safe.</p>
      <label for="lock-code">Code</label>
      <input
        id="lock-code"
        class="form-control"
        type="password"
        inputmode="numeric"
        autocomplete="off"
        maxlength="8"
        [value]="code()"
        (input)="code.set(valueOf($event))"
      />
      <s-number-pad [typed]="code()" (typedChange)="code.set($event)" />
      @if (fault(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <button type="submit" class="btn btn-primary" [disabled]="busy() || code().length < 4">Open</button>
      <button type="button" class="btn btn-link" (click)="session.signOut()">Sign out</button>
    </form>
  `,
  styles: `
    :host {
      flex: 1;
      display: grid;
      place-items: center;
      padding: 1rem;
    }
    form {
      width: min(22rem, 100%);
      display: flex;
      flex-direction: column;
      gap: 0.5rem;
    }
    input,
    .btn {
      min-height: 56px;
      font-size: 1.2rem;
    }
  `,
})
export class LockForm {
  protected readonly session = inject(SessionService);
  private readonly lock = inject(LockService);
  protected readonly code = signal('');
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly valueOf = (event: Event): string => (event.target as HTMLInputElement).value;

  protected async open(event: Event): Promise<void> {
    event.preventDefault();
    this.busy.set(true);
    const ended = await this.lock.unlock(this.code());
    this.busy.set(false);
    this.code.set('');
    if (ended.kind === 'wrong') {
      this.fault.set(`Not this code. ${ended.left === 1 ? 'One try is' : `${ended.left} tries are`} left.`);
    }
    if (ended.kind === 'shut') {
      this.fault.set('Too many wrong codes. This device opens again with a network and your password.');
    }
  }
}
