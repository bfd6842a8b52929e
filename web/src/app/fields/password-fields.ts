import { ChangeDetectionStrategy, Component, computed, input, model, signal } from '@angular/core';
import { passwordFault, passwordLeast, passwordMost } from '@sombra/contract';
import { textOf } from './event-values';

/** A password somebody chooses, and why it will not do yet; shown on wish, so that it need not be typed twice. */
@Component({
  selector: 's-password-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label for="new-password">{{ label() }}</label>
    <span class="entry">
      <input
        id="new-password"
        class="form-control"
        autocomplete="new-password"
        [type]="shown() ? 'text' : 'password'"
        [maxLength]="most"
        [value]="password()"
        (input)="password.set(textOf($event))"
        (blur)="left.set(true)"
        aria-describedby="new-password-note"
      />
      <button type="button" class="btn btn-link" [attr.aria-pressed]="shown()" (click)="shown.set(!shown())">
        {{ shown() ? 'Hide' : 'Show' }}
      </button>
    </span>
    <small id="new-password-note" [class.fault]="!!told()">{{
      told() ?? 'At least ' + least + ' characters: a few words are easier to keep than signs.'
    }}</small>
  `,
  styles: `
    :host {
      display: block;
      margin-top: 0.5rem;
    }
    .entry {
      display: flex;
    }
    .form-control {
      min-height: 48px;
    }
    .fault {
      color: var(--urgent);
      font-weight: 600;
    }
  `,
})
export class PasswordField {
  protected readonly textOf = textOf;
  readonly label = input('Password');
  readonly of = input.required<{ signIn: string; name: string }>();
  readonly password = model('');
  /** What the server said of it. */
  readonly fault = input<string | null>(null);
  protected readonly least = passwordLeast;
  protected readonly most = passwordMost;
  protected readonly shown = signal(false);
  protected readonly left = signal(false);
  private readonly ownFault = computed(() => passwordFault(this.password(), this.of()));
  protected readonly told = computed(() => {
    const fault = this.fault() ?? (this.left() && this.password() !== '' ? this.ownFault() : null);
    return fault ? `The password ${fault}.` : null;
  });
}
