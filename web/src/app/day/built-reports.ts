import { ChangeDetectionStrategy, Component, effect, inject, input, output, signal, untracked } from '@angular/core';
import type { BuiltReports } from '@sombra/contract';
import { sayFacts } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { BuiltReportsService } from './built-reports.service';

type Report = BuiltReports[number];
export type ReportedFacts = NonNullable<Report['facts']>;
const stateWords: Readonly<Record<Report['state'], string>> = {
  asked: 'has the link, told nothing yet',
  reported: 'told how it was planted: look at it, then store it',
  verified: 'verified',
  over: 'the link is over',
};

/** What the keeper of this tree told, beside the form: it becomes a planting only once it is stored from there. */
@Component({
  selector: 's-built-reports',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (session.may('run_day')) {
      <h2>Told by who keeps it</h2>
      @for (one of reports(); track one.id) {
        <article>
          <p>
            <b>{{ one.owner }}</b> {{ stateWords[one.state] }}
            @if (one.state === 'asked') {
              <span class="quiet">until {{ say(one.expiresOn) }}</span>
            }
          </p>
          @if (one.facts; as facts) {
            <p>{{ said(facts) }}{{ one.words ? '. ' + one.words : '' }}. Signed {{ one.signedBy }}.</p>
          }
          @if (one.photoId) {
            <a [href]="'/api/photos/' + one.photoId" target="_blank"
              ><img [src]="'/api/photos/' + one.photoId + '?px=400'" [alt]="'The tree, by ' + one.owner"
            /></a>
          }
          @if (one.state === 'reported' && one.facts; as facts) {
            <button type="button" class="btn btn-outline-primary" (click)="taken.emit(facts)">
              Take into the form
            </button>
          }
          @if (one.state === 'asked' || one.state === 'reported') {
            <button type="button" class="btn btn-outline-primary" [disabled]="busy()" (click)="takeBack(one.id)">
              Take the link back
            </button>
          }
        </article>
      }
      @if (!planted()) {
        <div class="row">
          <input
            #owner
            class="form-control"
            maxlength="80"
            aria-label="Who keeps this tree"
            placeholder="Who keeps it"
          />
          <button type="button" class="btn btn-outline-primary" [disabled]="busy()" (click)="ask(owner.value)">
            Make a link
          </button>
        </div>
      }
      @if (link(); as path) {
        <p class="link">
          Shown once: <b>{{ path }}</b>
        </p>
      }
      @if (fault(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
    }
  `,
  styles: `
    .row {
      display: flex;
      gap: 0.5rem;
      max-width: 30rem;
    }
    .btn {
      white-space: nowrap;
      min-height: 44px;
    }
    .link {
      overflow-wrap: anywhere;
    }
    img {
      max-width: 14rem;
      display: block;
      margin: 0.3rem 0;
    }
  `,
})
export class BuiltReportsPanel {
  readonly spotId = input.required<string>();
  readonly planted = input.required<boolean>();
  readonly taken = output<ReportedFacts>();
  protected readonly session = inject(SessionService);
  private readonly doors = inject(BuiltReportsService);
  protected readonly say = sayDay;
  protected readonly stateWords = stateWords;
  protected readonly reports = signal<BuiltReports>([]);
  protected readonly link = signal<string | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);

  constructor() {
    effect(() => {
      const id = this.spotId();
      this.planted();
      untracked(() => {
        this.link.set(null);
        void this.read(id);
      });
    });
  }

  protected said(facts: ReportedFacts): string {
    return sayFacts<'planting'>({ ...facts, practiceId: '', practiceVersion: 1 }, this.session.units())
      .map(({ name, value }) => `${name} ${value}`)
      .join(', ');
  }

  private async read(id: string): Promise<void> {
    if (!this.session.may('run_day') || this.session.away()) return;
    try {
      const reports = await firstValueFrom(this.doors.of(id));
      if (id === this.spotId()) this.reports.set(reports);
    } catch {
      // Without a network nothing is shown of it: what is recorded here does not need it.
    }
  }

  protected async ask(typed: string): Promise<void> {
    const owner = typed.trim();
    if (owner === '') {
      this.fault.set('Who keeps this tree must not be empty.');
      return;
    }
    await this.act(async () => {
      const path = await firstValueFrom(this.doors.ask(this.spotId(), { id: uuidv7(), owner }));
      this.link.set(`${location.origin}${path}`);
    });
  }
  protected async takeBack(id: string): Promise<void> {
    await this.act(() => firstValueFrom(this.doors.takeBack(id)));
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
