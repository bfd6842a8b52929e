import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { digCover, judgeTicket, ticketNames } from '@sombra/core';
import { firstValueFrom, type Observable } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { BecauseList } from '../ui/because-list';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { ToastsService } from '../ui/toasts.service';
import { SessionService } from '../session/session.service';
import { SpotStore } from '../spot/spot-store';
import { DateInput } from '../fields/date-input';
import { GroundService } from './ground.service';

const consentWords = {
  asked: 'asked, no answer yet',
  given: 'consents',
  refused: 'does not consent',
  expired: 'link has run out',
  revoked: 'link revoked',
} as const;

/** What has to be there before anybody digs: ticket or clearance, permit, owner's consent. */
@Component({
  selector: 's-leave-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, BecauseList, DateInput],
  template: `
    @if (cover(); as now) {
      <h2>
        @if (now.kind === 'none') {
          <i class="bi bi-slash-circle" aria-hidden="true"></i> Nobody may dig here today
        } @else {
          <i class="bi bi-check2-circle" aria-hidden="true"></i> Digging is covered today
        }
      </h2>
      <s-because [reasons]="now.because" />
    }
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <div class="columns">
      <section aria-labelledby="tickets-head">
        <h3 id="tickets-head">Locate tickets over this spot</h3>
        @for (ticket of tickets(); track ticket.id) {
          <p>
            <a [routerLink]="['/tickets']" [queryParams]="{ ticket: ticket.id }">{{
              ticket.number || 'Not taken yet'
            }}</a>
            <b> {{ ticket.word }}</b>
          </p>
          <s-because [reasons]="ticket.because" />
        } @empty {
          <p class="quiet">None.</p>
        }
        @if (mayRaise()) {
          <button type="button" class="btn btn-outline-primary" [disabled]="busy()" (click)="raise()">
            Raise a ticket for this spot
          </button>
        }
        <h3>Lawful clearance instead</h3>
        @for (one of leave()?.clearances ?? []; track one.id) {
          <p>
            <a [href]="'/api/clearances/' + one.id" target="_blank">{{ one.document }}</a> by {{ one.clearedBy }},
            {{ say(one.validFrom) }} to {{ say(one.validUntil) }}
          </p>
        } @empty {
          <p class="quiet">None attached.</p>
        }
        @if (session.may('attach_clearance')) {
          <details>
            <summary>Attach a clearance</summary>
            <form (submit)="attach($event)">
              <label for="cl-doc">Document</label
              ><input id="cl-doc" name="document" class="form-control" required maxlength="120" />
              <label for="cl-by">Cleared by</label
              ><input id="cl-by" name="clearedBy" class="form-control" required maxlength="120" />
              <label for="cl-from">Valid from</label><s-date-input for="cl-from" name="validFrom" [required]="true" />
              <label for="cl-until">Valid until</label
              ><s-date-input for="cl-until" name="validUntil" [required]="true" />
              <label for="cl-file">PDF or photo of it</label
              ><input
                id="cl-file"
                name="file"
                type="file"
                accept="application/pdf,image/jpeg,image/png"
                class="form-control"
                required
              />
              <button type="submit" class="btn btn-primary" [disabled]="busy()">Attach</button>
            </form>
          </details>
        }
      </section>
      <section aria-labelledby="consent-head">
        <h3 id="consent-head">Owner's consent</h3>
        @if (owner() && owner() !== 'yard') {
          <p class="quiet">Not needed: the ground is the {{ owner() }}'s.</p>
        }
        @for (one of leave()?.consents ?? []; track one.id) {
          <p>
            {{ one.owner }}: <b>{{ words[one.state] }}</b>
            @if (one.signedBy) {
              , signed {{ one.signedBy }}
            }
            @if (one.remark) {
              <br /><span class="quiet">{{ one.remark }}</span>
            }
            @if (one.state === 'asked' && session.may('ask_owner')) {
              <button type="button" class="btn btn-sm btn-link" (click)="revoke(one.id)">Revoke the link</button>
            }
          </p>
        } @empty {
          <p class="quiet">Not asked.</p>
        }
        @if (session.may('ask_owner')) {
          <form class="line" (submit)="ask($event)">
            <label for="co-owner">Owner</label>
            <input id="co-owner" name="owner" class="form-control" required minlength="2" maxlength="120" />
            <button type="submit" class="btn btn-outline-primary" [disabled]="busy()">Make a link</button>
          </form>
        }
        @if (link(); as address) {
          <label for="co-link">Send this link to the owner; it is shown once and opens once</label>
          <input id="co-link" class="form-control" readonly [value]="address" #shown (focus)="shown.select()" />
        }
        <h3>Road permit</h3>
        @for (one of leave()?.permits ?? []; track one.id) {
          <p>
            <b>{{ one.number }}</b>, {{ one.authority }}, {{ say(one.validFrom) }} to {{ say(one.validUntil) }}
          </p>
        } @empty {
          <p class="quiet">None recorded.</p>
        }
        @if (session.may('record_permit')) {
          <details>
            <summary>Record a permit</summary>
            <form (submit)="permit($event)">
              <label for="pe-no">Number</label
              ><input id="pe-no" name="number" class="form-control" required maxlength="60" />
              <label for="pe-au">Authority</label
              ><input id="pe-au" name="authority" class="form-control" required maxlength="120" />
              <label for="pe-from">Valid from</label><s-date-input for="pe-from" name="validFrom" [required]="true" />
              <label for="pe-until">Valid until</label
              ><s-date-input for="pe-until" name="validUntil" [required]="true" />
              <button type="submit" class="btn btn-primary" [disabled]="busy()">Record</button>
            </form>
          </details>
        }
      </section>
    </div>
    <p class="caution">
      No digging without a valid ticket or clearance; marked lines are dug by hand. Overhead conductors are for the
      utility's qualified people. Local law decides.
    </p>
  `,
  styles: `
    .columns {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
      gap: 0 2rem;
    }
    h3 {
      margin-top: 1rem;
    }
    p {
      margin: 0.2rem 0;
    }
    .caution {
      margin-top: 1rem;
    }
    summary {
      min-height: 40px;
      padding-top: 0.5rem;
      cursor: pointer;
    }
    .line {
      display: flex;
      gap: 0.5rem;
      align-items: center;
    }
    form .btn {
      margin-top: 0.5rem;
    }
    .line .btn {
      margin-top: 0;
      white-space: nowrap;
    }
  `,
})
export class LeavePanel {
  protected readonly store = inject(SpotStore);
  protected readonly session = inject(SessionService);
  private readonly doors = inject(GroundService);
  private readonly toasts = inject(ToastsService);
  protected readonly words = consentWords;
  protected readonly say = sayDay;
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly link = signal<string | null>(null);

  protected readonly leave = computed(() => this.store.detail()?.leave ?? null);
  protected readonly owner = computed(() => this.store.life()?.assessment?.owner ?? null);
  protected readonly mayRaise = computed(() => this.session.may('raise_ticket'));

  protected readonly cover = computed(() => {
    const detail = this.store.detail();
    return detail ? digCover(detail.leave, this.session.today(), detail.rules.ground) : null;
  });
  protected readonly tickets = computed(() => {
    const detail = this.store.detail();
    return (detail?.leave.tickets ?? []).map((ticket) => {
      const { standing, because } = judgeTicket(ticket, this.session.today(), detail?.rules.ground ?? fallback());
      return { ...ticket, word: ticketNames[standing], because };
    });
  });

  private spotId(): string {
    return this.store.detail()?.spot.id ?? '';
  }

  protected raise(): void {
    const purpose = `Planting, ${this.store.detail()?.spot.ref ?? ''}`;
    void this.run(
      this.doors.raise({ purpose, spotIds: [this.spotId()], renews: null }),
      'Ticket raised; the locate centre is asked.',
    );
  }

  protected attach(event: Event): void {
    const data = fields(event);
    const file = data.get('file');
    if (!(file instanceof File)) return;
    const text = (name: string) => String(data.get(name) ?? '').trim();
    const clearance = {
      id: uuidv7(),
      document: text('document'),
      clearedBy: text('clearedBy'),
      validFrom: text('validFrom'),
      validUntil: text('validUntil'),
    };
    void this.run(this.doors.attachClearance(this.spotId(), clearance, file), 'Clearance attached.');
  }

  protected permit(event: Event): void {
    const data = fields(event);
    const text = (name: string) => String(data.get(name) ?? '').trim();
    const permit = {
      id: uuidv7(),
      number: text('number'),
      authority: text('authority'),
      validFrom: text('validFrom'),
      validUntil: text('validUntil'),
      spotIds: [this.spotId()],
    };
    void this.run(this.doors.addPermit(permit), 'Permit recorded.');
  }

  protected async ask(event: Event): Promise<void> {
    const owner = String(fields(event).get('owner') ?? '').trim();
    const made = await this.run(this.doors.askConsent(this.spotId(), owner), 'Link made.');
    if (made) this.link.set(`${location.origin}${made.path}`);
  }

  protected revoke(id: string): void {
    void this.run(this.doors.revokeConsent(id), 'Link revoked.');
  }

  private async run<T>(act: Observable<T>, done: string): Promise<T | null> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      const answer = await firstValueFrom(act);
      this.toasts.say(done);
      this.store.reload();
      return answer;
    } catch (error) {
      const problem = readProblem(error);
      const more = (problem.issues ?? []).map(({ path, message }) => ` ${path}: ${message}.`).join('');
      this.fault.set(sayProblem(problem) + more);
      return null;
    } finally {
      this.busy.set(false);
    }
  }
}

function fields(event: Event): FormData {
  event.preventDefault();
  return new FormData(event.target as HTMLFormElement);
}

function fallback(): never {
  throw new Error('tickets are shown with the rules of their spot');
}
