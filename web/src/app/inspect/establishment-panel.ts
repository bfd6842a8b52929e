import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { establishedOn, establishmentStepNames, sayReason } from '@sombra/core';
import { textOf } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { RecordSender } from '../spot/record-sender';
import { SpotStore } from '../spot/spot-store';
import { sayProblem } from '../ui/problem';
import { sayDate } from '../ui/say-date';
import { ViewState } from '../ui/view-state.service';

const marks = {
  met: { icon: 'bi-check-circle-fill', words: 'shown' },
  not_yet: { icon: 'bi-x-circle', words: 'not yet' },
  unknown: { icon: 'bi-question-circle', words: 'not known' },
} as const;

/** Whether a tree stands on its own: what shows it, what is missing, and a person's word for it. */
@Component({
  selector: 's-establishment',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [RecordSender],
  template: `
    @if (found(); as now) {
      <section aria-labelledby="established">
        <h2 id="established">Established?</h2>
        @if (now.signedOn) {
          <p class="done">
            <b>Signed off on {{ now.signedOn }}.</b> Nobody looks by the calendar any more; what is found later is
            followed.
          </p>
        }
        <ul>
          @for (line of now.lines; track line.name) {
            <li [class]="line.state">
              <i class="bi {{ line.icon }}" aria-hidden="true"></i>
              <span
                ><b>{{ line.name }}: {{ line.words }}.</b> {{ line.because }}</span
              >
            </li>
          }
        </ul>
        @if (!now.signedOn && mayAct()) {
          @if (now.lacks > 0) {
            <label for="established-why">Why it counts as established all the same</label>
            <input
              id="established-why"
              class="form-control"
              maxlength="300"
              [value]="reason()"
              (input)="reason.set(textOf($event))"
            />
          }
          @if (fault(); as text) {
            <p class="problem" role="alert">{{ text }}</p>
          }
          <p>
            <button type="button" class="btn btn-outline-primary" [disabled]="sender.busy()" (click)="sign(now.lacks)">
              Sign it off as established
            </button>
          </p>
        }
      </section>
    }
  `,
  styles: `
    ul {
      list-style: none;
      padding: 0;
      margin: 0 0 0.75rem;
    }
    li {
      display: grid;
      grid-template-columns: 1.6rem 1fr;
      padding: 0.2rem 0;
    }
    .met i {
      color: var(--good);
    }
    .not_yet i {
      color: var(--act);
    }
    .done {
      border-left: 5px solid var(--chosen);
      background: var(--chosen-pale);
      padding: 0.4rem 0.75rem;
    }
  `,
})
export class EstablishmentPanel {
  protected readonly textOf = textOf;
  private readonly store = inject(SpotStore);
  private readonly session = inject(SessionService);
  private readonly view = inject(ViewState);
  protected readonly sender = inject(RecordSender);
  protected readonly reason = signal('');
  private readonly missing = signal<string | null>(null);
  protected readonly mayAct = computed(() => this.view.tense() === 'today' && this.session.may('record_signed_off'));
  protected readonly fault = computed(() => {
    const problem = this.sender.problem();
    return this.missing() ?? (problem ? sayProblem(problem) : null);
  });

  protected readonly found = computed(() => {
    const whole = this.store.life()?.establishment;
    if (!whole) return null;
    const lines = establishedOn(whole, this.view.on()).map(({ step, state, because }) => ({
      ...{ state, ...marks[state] },
      name: establishmentStepNames[step],
      because: sayReason(because, this.session.units()),
    }));
    return {
      lines,
      lacks: lines.filter(({ state }) => state !== 'met').length,
      signedOn: whole.signedOn && sayDate(whole.signedOn),
    };
  });

  protected async sign(lacks: number): Promise<void> {
    const reason = this.reason().trim();
    const silent = lacks > 0 && reason.length < 3;
    this.missing.set(
      silent ? 'Something is not shown yet: say why it counts as established, in 3 letters or more.' : null,
    );
    if (silent) return;
    const facts = { signedOn: this.session.today(), reason };
    if (await this.sender.send({ kind: 'signed_off', facts, supersedes: null }, 'Signed off as established.')) {
      this.reason.set('');
    }
  }
}
