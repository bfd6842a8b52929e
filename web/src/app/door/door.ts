import {
  ChangeDetectionStrategy,
  Component,
  inject,
  InjectionToken,
  provideZonelessChangeDetection,
} from '@angular/core';
import { bootstrapApplication } from '@angular/platform-browser';
import { csrfHeader, deviceTimeHeader, type SignIn } from '@sombra/contract';
import { SignInForm, signInFault } from '../people/sign-in-form';
import { forgetSession, left } from '../session/device-marks';
import { keepFirst, readAnswer, type Outside } from '../session/first-answer';
import { ThemeService } from '../ui/theme.service';

const DOORWAY = new InjectionToken<{ readonly outside: Outside; entered: () => void }>('doorway');

/** The sign-in by itself: it comes with a tenth of what the work needs, which is fetched while somebody types. */
@Component({
  selector: 's-door',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [SignInForm],
  template: `<s-sign-in-form [programme]="doorway.outside.programme" [enter]="enter" />`,
  styles: `
    :host {
      display: flex;
      min-height: 100%;
    }
    s-sign-in-form {
      flex: 1;
    }
  `,
})
export class Door {
  protected readonly doorway = inject(DOORWAY);
  protected readonly theme = inject(ThemeService);
  private token = this.doorway.outside.csrfToken;

  protected readonly enter = async (entry: SignIn): Promise<string | null> => {
    try {
      const fault = await this.tryToEnter(entry);
      if (fault === null) this.doorway.entered();
      return fault && signInFault(fault);
    } catch {
      return 'The server cannot be reached.';
    }
  };

  private async tryToEnter(entry: SignIn, again = false): Promise<{ code: string; title: string } | null> {
    const { response, body, ...times } = await readAnswer({
      method: 'POST',
      headers: {
        'content-type': 'application/json',
        [csrfHeader]: this.token,
        [deviceTimeHeader]: new Date().toISOString(),
      },
      body: JSON.stringify(entry),
    });
    if (response.ok) {
      keepFirst({ body, ...times });
      return null;
    }
    const said = body as { readonly code?: string; readonly title?: string } | null;
    if (said?.code === 'csrf' && !again) {
      // Another window of this browser began a session meanwhile: its token counts.
      this.token = ((await readAnswer()).body as Outside).csrfToken;
      return this.tryToEnter(entry, true);
    }
    const { code = 'unexpected', title = `The server answered with an error (${response.status}).` } = said ?? {};
    return { code, title };
  }
}

/** Shows the sign-in in the place of the application, until somebody is in. */
export async function letIn(outside: Outside, root: HTMLElement): Promise<void> {
  // The server knows of no session here: none opens this device without it, and whoever left has left.
  forgetSession();
  left();
  const host = document.createElement('s-door');
  root.before(host);
  root.hidden = true;
  let entered = (): void => undefined;
  const inside = new Promise<void>((resolve) => (entered = resolve));
  const door = await bootstrapApplication(Door, {
    providers: [provideZonelessChangeDetection(), { provide: DOORWAY, useValue: { outside, entered } }],
  });
  await inside;
  door.destroy();
  host.remove();
  root.hidden = false;
}
