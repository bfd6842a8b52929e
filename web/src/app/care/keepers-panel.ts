import { ChangeDetectionStrategy, Component, effect, inject, input, signal, untracked } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import type { Keeper } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { CareService } from './care.service';
import { WordAnswer } from './word-answer';

/** Who keeps this tree, and the way to give it to somebody. */
@Component({
  selector: 's-keepers-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ReactiveFormsModule, WordAnswer],
  template: `
    @if (session.may('give_care')) {
      <h2>Kept by</h2>
      @for (one of keepers(); track one.id) {
        <article>
          <p>
            <b>{{ one.name }}</b>
            @if (one.deputyOf) {
              stands in for {{ one.deputyOf }}, {{ say(one.fromDay) }} to {{ say(one.untilDay) }}
            } @else {
              since {{ say(one.since) }}
            }
            @if (one.over) {
              <span class="quiet">(over)</span>
            } @else {
              <span class="quiet">({{ one.heardOn ? 'heard of ' + say(one.heardOn) : 'not heard of yet' }})</span>
              @if (one.state === 'silent') {
                <b class="silent">silent though the tree asks</b>
              }
            }
          </p>
          @for (word of one.open; track word.id) {
            <s-word-answer [word]="word" (answered)="read(spotId())" />
          }
          @if (!one.over) {
            <button type="button" class="btn btn-outline-primary" [disabled]="busy()" (click)="renew(one.id)">
              New link
            </button>
            <button type="button" class="btn btn-outline-primary" [disabled]="busy()" (click)="revoke(one.id)">
              Take the link back
            </button>
          }
        </article>
      } @empty {
        <p class="quiet">Nobody keeps it besides the crews.</p>
      }
      <details>
        <summary>Give it to a keeper</summary>
        <form [formGroup]="form" (submit)="give($event)" novalidate>
          <label>Name <input class="form-control" maxlength="80" formControlName="name" /></label>
          <label
            >E-mail, for reminders <input class="form-control" type="email" maxlength="120" formControlName="email"
          /></label>
          <label
            >Their bucket holds, L
            <input class="form-control" type="number" min="1" max="50" step="0.5" formControlName="bucketL"
          /></label>
          <button type="submit" class="btn btn-outline-primary" [disabled]="busy()">Make a link</button>
        </form>
        <p class="quiet">
          They see this tree alone, without an account. What they say they poured counts in its balance, trusted less
          than what a crew poured.
        </p>
      </details>
      @if (link(); as address) {
        <p class="link" role="status">
          Shown once; hand it on: <b>{{ address }}</b>
        </p>
      }
      @if (fault(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
    }
  `,
  styles: `
    p {
      margin: 0.2rem 0;
    }
    form {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(min(12rem, 100%), 1fr));
      gap: 0.5rem;
      align-items: end;
    }
    .btn {
      min-height: 44px;
      white-space: nowrap;
      margin-right: 0.4rem;
    }
    .silent {
      color: var(--act);
    }
    .link {
      overflow-wrap: anywhere;
    }
    summary {
      min-height: 44px;
      padding-top: 0.6rem;
    }
  `,
})
export class KeepersPanel {
  readonly spotId = input.required<string>();
  protected readonly session = inject(SessionService);
  private readonly doors = inject(CareService);
  protected readonly say = (day: string | null): string => (day ? sayDay(day) : '');
  protected readonly keepers = signal<readonly Keeper[]>([]);
  protected readonly link = signal<string | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly form = new FormGroup({
    name: new FormControl('', { nonNullable: true }),
    email: new FormControl('', { nonNullable: true }),
    bucketL: new FormControl<number | null>(10),
  });
  private id = uuidv7();

  constructor() {
    effect(() => {
      const id = this.spotId();
      untracked(() => {
        this.link.set(null);
        this.keepers.set([]);
        void this.read(id);
      });
    });
  }

  protected async read(id: string): Promise<void> {
    if (!this.session.may('give_care') || this.session.away()) return;
    try {
      const keepers = await firstValueFrom(this.doors.of(id));
      if (id === this.spotId()) this.keepers.set(keepers);
    } catch {
      // Without a network nothing is shown of it: the tree's own page does not need it.
    }
  }

  protected async give(event: Event): Promise<void> {
    event.preventDefault();
    const { name, email, bucketL } = this.form.getRawValue();
    if (name.trim() === '' || bucketL === null) {
      this.fault.set('The name of who keeps it, and what their bucket holds, are needed.');
      return;
    }
    const ask = { id: this.id, name: name.trim(), email: email.trim(), bucketL };
    await this.act(async () => {
      const path = await firstValueFrom(this.doors.give(this.spotId(), ask));
      this.show(path);
      this.id = uuidv7();
      this.form.reset({ name: '', email: '', bucketL: 10 });
    });
  }
  protected async renew(id: string): Promise<void> {
    await this.act(async () => this.show(await firstValueFrom(this.doors.renew(id))));
  }
  protected async revoke(id: string): Promise<void> {
    await this.act(() => firstValueFrom(this.doors.revoke(id)));
  }

  private show(path: string): void {
    this.link.set(path === '' ? null : `${location.origin}${path}`);
  }

  private async act(what: () => Promise<unknown>): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      await what();
      await this.read(this.spotId());
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
