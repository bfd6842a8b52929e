import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { Problem } from '@sombra/contract';
import { defaultGroundRules, defaultMatchRules, fieldDefault, presets, type UnitSystem } from '@sombra/core';
import { debounceTime, firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { readProblem, sayProblem } from '../ui/problem';
import { DraftsService } from '../offline/drafts.service';
import { PasswordField } from '../fields/password-fields';
import { SessionService } from '../session/session.service';
import { ProgrammeFields } from './programme-fields';
import { ProgrammeForm, type Settings } from './programme-form';
import { ProgrammeService } from './programme.service';
import { textOf } from '../fields/event-values';

const draftName = 'set-up';
const americans = new Set(['en-US', 'es-US']);

/** The only page of a programme nobody has set up: its first administrator, and a proposal for everything else. */
@Component({
  selector: 's-set-up-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PasswordField, ProgrammeFields],
  template: `
    <main>
      <img src="mark.svg" alt="" width="56" height="56" />
      <h1>Begin a programme</h1>
      <p>
        Nothing is here yet. Everything below but the code and the password can be changed later, on the page Programme.
      </p>
      <form (submit)="begin($event)">
        <section class="columns">
          <div>
            <h2>You, its first administrator</h2>
            <label for="set-up-code">The code that the start command printed</label>
            <input
              id="set-up-code"
              class="form-control code"
              autocomplete="off"
              autocapitalize="characters"
              placeholder="AB23-CD45-EF67"
              [value]="code()"
              (input)="code.set(textOf($event))"
            />
            <small class="fault">{{ faultOf('code') }}</small>
            <label for="set-up-name">Your name</label>
            <input
              id="set-up-name"
              class="form-control"
              maxlength="120"
              autocomplete="name"
              [value]="name()"
              (input)="name.set(textOf($event))"
            />
            <small class="fault">{{ faultOf('person.name') }}</small>
            <label for="set-up-sign-in">You sign in as</label>
            <input
              id="set-up-sign-in"
              class="form-control"
              maxlength="60"
              autocomplete="username"
              autocapitalize="none"
              [value]="signIn()"
              (input)="signIn.set(textOf($event))"
            />
            <small class="fault">{{ faultOf('person.signIn') }}</small>
            <s-password-field
              [of]="{ signIn: signIn(), name: name() }"
              [(password)]="password"
              [fault]="faultOf('password') ?? faultOf('person.password')"
            />
          </div>
          <div>
            <h2>How you plant</h2>
            <p class="quiet">
              Practitioners disagree. Each of these is a school with its reasons; you can compare them, copy one and
              change every choice of it afterwards.
            </p>
            @for (one of practices; track one.id) {
              <label class="practice" [class.on]="practice() === one.id">
                <input
                  type="radio"
                  name="practice"
                  [value]="one.id"
                  [checked]="practice() === one.id"
                  (change)="practice.set(one.id)"
                />
                {{ one.name }}
              </label>
            }
          </div>
        </section>
        <s-programme-fields [form]="form" [issues]="problem()?.issues ?? []" />
        @if (problem(); as trouble) {
          <p class="problem" role="alert">{{ say(trouble) }}</p>
        }
        <button type="submit" class="btn btn-primary begin" [disabled]="busy()">
          {{ busy() ? 'Setting up…' : 'Begin' }}
        </button>
      </form>
    </main>
  `,
  styles: `
    :host {
      flex: 1;
    }
    main {
      max-width: 70rem;
      margin: 0 auto;
      padding: 2rem 1.25rem;
    }
    .columns {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
      gap: 0 2.5rem;
    }
    label {
      display: block;
      margin-top: 0.6rem;
    }
    .code {
      font-family: monospace;
      text-transform: uppercase;
    }
    .practice {
      padding: 0.5rem 0.6rem;
      margin: 0.2rem 0;
      border: 1px solid var(--line);
      background: var(--sheet);
    }
    .practice.on {
      border-color: var(--chosen);
      background: var(--chosen-pale);
    }
    .fault {
      color: var(--urgent);
      font-weight: 600;
    }
    .begin {
      margin-top: 1rem;
      min-height: 48px;
      min-width: 12rem;
    }
  `,
})
export class SetUpPage {
  protected readonly textOf = textOf;
  private readonly doors = inject(ProgrammeService);
  private readonly session = inject(SessionService);
  private readonly drafts = inject(DraftsService);
  protected readonly form = new ProgrammeForm();
  protected readonly practices = presets;
  protected readonly practice = signal<string>(fieldDefault.id);
  protected readonly code = signal('');
  protected readonly name = signal('');
  protected readonly signIn = signal('');
  protected readonly password = signal('');
  protected readonly problem = signal<Problem | null>(null);
  protected readonly busy = signal(false);
  protected readonly say = sayProblem;
  private readonly id = uuidv7();

  constructor() {
    const draft = this.drafts.read(draftName);
    this.form.fill(draft ? (draft.value as Settings) : proposals());
    if (!draft) {
      this.form.group.patchValue({ latDeg: '', lngDeg: '' });
      this.form.proposeWindows();
    }
    this.form.group.valueChanges
      .pipe(debounceTime(150), takeUntilDestroyed())
      .subscribe(() => this.drafts.keep(draftName, this.form.settings()));
    // Windows follow the latitude until somebody touches them.
    this.form.group.controls.latDeg.valueChanges.pipe(debounceTime(300), takeUntilDestroyed()).subscribe(() => {
      if (this.form.windows.pristine) this.form.proposeWindows();
    });
  }

  protected faultOf(path: string): string | null {
    return this.problem()?.issues?.find((issue) => issue.path === path)?.message ?? null;
  }

  protected async begin(event: Event): Promise<void> {
    event.preventDefault();
    const programme = this.form.settings();
    const [signIn, password] = [this.signIn().trim().toLowerCase(), this.password()];
    const chosen = presets.find(({ id }) => id === this.practice()) ?? fieldDefault;
    this.busy.set(true);
    this.problem.set(null);
    try {
      const person = { id: this.id, signIn, name: this.name(), units: programme.units, password };
      const practice = { id: chosen.id, version: chosen.version };
      await firstValueFrom(this.doors.setUp({ code: this.code(), person, programme, practice }));
      this.drafts.drop(draftName);
      await firstValueFrom(this.session.signIn({ signIn, password }));
    } catch (error) {
      this.problem.set(readProblem(error));
    } finally {
      this.busy.set(false);
    }
  }
}

/** What this device lets guess; the place itself is asked. */
function proposals(): Settings {
  const units: UnitSystem = americans.has(navigator.language) ? 'us' : 'metric';
  return {
    name: '',
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    latDeg: 0,
    lngDeg: 0,
    elevationM: 50,
    currency: units === 'us' ? 'USD' : defaultMatchRules.currency,
    units,
    holidays: units === 'us' ? ['01-01', '07-04', '12-25'] : [...defaultGroundRules.holidays],
    windows: [],
  };
}
