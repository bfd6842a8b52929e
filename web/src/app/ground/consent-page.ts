import { HttpClient } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, effect, inject, input, signal } from '@angular/core';
import { openConsentSchema, type OpenConsent } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { textOf } from '../fields/event-values';

/** What a yard's owner sees by the link, without an account: what is asked, and two answers. */
@Component({
  selector: 's-consent-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <main>
      @if (fault(); as text) {
        <h1>Consent to plant a tree</h1>
        <p class="problem" role="alert">{{ text }}</p>
      } @else if (asked(); as ask) {
        <h1>May we plant a tree in your yard?</h1>
        <p>
          {{ ask.programme }} asks {{ ask.owner }}: spot <b>{{ ask.ref }}</b>, {{ ask.place
          }}{{ ask.species ? ', ' : '' }}<i>{{ ask.species }}</i
          >.
        </p>
        @switch (ask.state) {
          @case ('asked') {
            <p>
              The tree becomes yours. The programme plants it, and tells you how much water it needs in its first years.
              Buried lines are located before anybody digs; tell us of lines that are your own: irrigation, low-voltage
              cable, drains.
            </p>
            <form (submit)="$event.preventDefault()">
              <label for="signed">Your name, as your signature</label>
              <input
                id="signed"
                class="form-control"
                autocomplete="name"
                maxlength="120"
                [value]="name()"
                (input)="name.set(textOf($event))"
              />
              <label for="remark">Anything we should know</label>
              <textarea
                id="remark"
                class="form-control"
                rows="3"
                maxlength="400"
                [value]="remark()"
                (input)="remark.set(textOf($event))"
              ></textarea>
              @if (missing()) {
                <p class="problem" role="alert">Write your name, 2 letters or more.</p>
              }
              <div class="acts">
                <button type="button" class="btn btn-primary" [disabled]="busy()" (click)="answer(true)">
                  Yes, plant it
                </button>
                <button type="button" class="btn btn-outline-primary" [disabled]="busy()" (click)="answer(false)">
                  No, do not
                </button>
              </div>
            </form>
            <p class="quiet">This link opens once, until {{ say(ask.expiresOn) }}.</p>
          }
          @case ('given') {
            <p class="done">Thank you: your consent is stored. This link is used up.</p>
          }
          @case ('refused') {
            <p class="done">Your answer is stored: no tree will be planted here. This link is used up.</p>
          }
          @default {
            <p class="done">This link is no longer open. Ask the programme for a new one.</p>
          }
        }
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
    .acts {
      display: flex;
      gap: 0.75rem;
      margin-top: 1rem;
    }
    .btn {
      min-height: 52px;
      flex: 1;
    }
    .done {
      font-size: 1.15rem;
      font-weight: 600;
    }
  `,
})
export class ConsentPage {
  protected readonly textOf = textOf;
  readonly token = input.required<string>();
  private readonly http = inject(HttpClient);
  protected readonly say = sayDay;
  protected readonly asked = signal<OpenConsent | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly name = signal('');
  protected readonly remark = signal('');
  protected readonly missing = signal(false);
  protected readonly busy = signal(false);

  constructor() {
    effect(() => void this.take(this.http.get(this.address())));
  }

  private address(): string {
    return `/api/open/consents/${encodeURIComponent(this.token())}`;
  }

  protected answer(agrees: boolean): void {
    const signedBy = this.name().trim();
    this.missing.set(signedBy.length < 2);
    if (!this.missing())
      void this.take(this.http.post(this.address(), { agrees, signedBy, remark: this.remark().trim() }));
  }

  private async take(answer: ReturnType<HttpClient['get']>): Promise<void> {
    this.busy.set(true);
    try {
      this.asked.set(openConsentSchema.parse(await firstValueFrom(answer)));
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
