import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { textOf } from '../fields/event-values';
import { locksAfterMs, LockService, mostWrong } from '../session/lock.service';
import { ToastsService } from '../ui/toasts.service';

/** A short code for this device, where several people share a phone. */
@Component({
  selector: 's-code-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Code of this device</h2>
    <p class="quiet">
      On a phone several people use, a short code opens the screen after {{ minutes }} minutes away. After
      {{ most }} wrong codes it opens only with a network and your password. It does not take the place of the phone’s
      own lock.
    </p>
    @if (!able) {
      <p class="caution">Only over https can a code be kept safely.</p>
    } @else {
      <form (submit)="keep($event)">
        <label for="device-code">{{ lock.hasCode() ? 'Another code' : 'Code, 4 to 8 digits' }}</label>
        <input
          id="device-code"
          class="form-control"
          type="password"
          inputmode="numeric"
          autocomplete="off"
          maxlength="8"
          [value]="code()"
          (input)="code.set(textOf($event))"
        />
        @if (fault(); as text) {
          <p class="problem" role="alert">{{ text }}</p>
        }
        <button type="submit" class="btn btn-primary" [disabled]="code() === ''">Keep this code</button>
        @if (lock.hasCode()) {
          <button type="button" class="btn btn-outline-primary" (click)="lock.lock()">Lock now</button>
          <button type="button" class="btn btn-link" (click)="lock.drop()">No code any more</button>
        }
      </form>
    }
  `,
  styles: `
    h2 {
      margin-top: 1.4rem;
    }
    .form-control,
    .btn {
      min-height: 48px;
    }
    .btn {
      margin: 0.6rem 0.5rem 0 0;
    }
  `,
})
export class CodePanel {
  protected readonly textOf = textOf;
  protected readonly lock = inject(LockService);
  private readonly toasts = inject(ToastsService);
  protected readonly minutes = locksAfterMs / 60_000;
  protected readonly most = mostWrong;
  protected readonly able = typeof crypto.subtle !== 'undefined';
  protected readonly code = signal('');
  protected readonly fault = signal<string | null>(null);

  protected async keep(event: Event): Promise<void> {
    event.preventDefault();
    this.fault.set(null);
    try {
      await this.lock.setCode(this.code());
      this.code.set('');
      this.toasts.say('The code is kept on this device.');
    } catch (error) {
      this.fault.set(
        error instanceof RangeError ? `${error.message}, got ${this.code().length}.` : 'It could not be kept.',
      );
    }
  }
}
