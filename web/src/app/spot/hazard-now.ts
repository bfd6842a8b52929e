import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { hazardNames, openHazards, standing, type HazardKind } from '@sombra/core';
import { textOf, tickOf } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { RecordSender, sendsRecords } from './record-sender';
import { SpotStore } from './spot-store';

/**
 * Something at this tree may hurt somebody: told in two taps from any screen of it, at the top of every desk until somebody
 * closes it with a reason.
 */
@Component({
  selector: 's-hazard-now',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [sendsRecords],
  template: `
    @for (one of open(); track one.id) {
      <section class="stands" role="alert">
        <p>
          <i class="bi bi-exclamation-octagon-fill" aria-hidden="true"></i> <b>{{ one.name }}</b>, seen {{ one.on }}.
          {{ one.called }} {{ one.cordoned }} {{ one.note }}
        </p>
        @if (mayClose()) {
          <form (submit)="close($event, one.id)">
            <label
              >It is none any more, because
              <input
                class="form-control"
                maxlength="300"
                [value]="reasonOf(one.id)"
                (input)="because(one.id, textOf($event))"
                aria-label="It is none any more, because"
            /></label>
            <button
              type="submit"
              class="btn btn-outline-primary"
              [disabled]="sender.busy() || reasonOf(one.id).trim().length < 3"
            >
              Close the hazard
            </button>
          </form>
        }
      </section>
    }
    @if (mayTell()) {
      @if (telling()) {
        <section class="tell" aria-label="Hazard now">
          <p>
            <b>Keep people away first.</b> Never touch a tree that touches a wire; life in danger: the emergency number.
          </p>
          <div class="kinds">
            @for (one of kinds; track one.value) {
              <button type="button" class="btn kind" [disabled]="sender.busy()" (click)="tell(one.value)">
                {{ one.name }}
              </button>
            }
          </div>
          <label
            >Who was called, if anybody yet
            <input
              class="form-control"
              maxlength="120"
              [value]="called()"
              (input)="called.set(textOf($event))"
              aria-label="Who was called, if anybody yet"
          /></label>
          <label class="tick"
            ><input type="checkbox" [checked]="cordoned()" (change)="cordoned.set(tickOf($event))" /> Cordoned
            off</label
          >
          <button type="button" class="btn btn-link" (click)="telling.set(false)">Not now</button>
        </section>
      } @else {
        <button type="button" class="btn now" (click)="telling.set(true)">
          <i class="bi bi-exclamation-octagon" aria-hidden="true"></i> Hazard now
        </button>
      }
    }
    @if (sender.problem(); as problem) {
      <p class="problem" role="alert">{{ say(problem) }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    /* What stands, or is being told, takes the whole width. */
    :host:has(section) {
      flex-basis: 100%;
    }
    .stands,
    .tell {
      border: 2px solid var(--urgent);
      background: var(--problem-paper);
      padding: 0.5rem 0.8rem;
      margin: 0.3rem 0 0.6rem;
    }
    .stands p {
      margin: 0;
    }
    .now,
    .kind {
      min-height: 48px;
      border: 1px solid var(--urgent);
      color: var(--urgent);
      background: var(--sheet);
    }
    .now {
      min-height: 40px;
    }
    .kinds {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(min(11rem, 100%), 1fr));
      gap: 0.4rem;
      margin: 0.4rem 0;
    }
    .kind {
      font-weight: 600;
    }
    .tick {
      display: flex;
      gap: 0.6rem;
      align-items: center;
      min-height: 44px;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
      align-items: end;
      margin-top: 0.4rem;
    }
    form label {
      flex: 1 1 14rem;
    }
    @media (max-width: 720px) {
      .now {
        min-height: 48px;
      }
    }
    @media print {
      .now,
      .tell {
        display: none;
      }
    }
  `,
})
export class HazardNow {
  protected readonly textOf = textOf;
  protected readonly tickOf = tickOf;
  protected readonly say = sayProblem;
  private readonly store = inject(SpotStore);
  private readonly session = inject(SessionService);
  protected readonly sender = inject(RecordSender);
  protected readonly telling = signal(false);
  protected readonly called = signal('');
  protected readonly cordoned = signal(false);
  /** What is typed of each hazard that stands, by its id. */
  private readonly reasons = signal<Readonly<Record<string, string>>>({});
  protected readonly kinds = Object.entries(hazardNames).map(([value, name]) => ({ value: value as HazardKind, name }));

  protected readonly mayTell = computed(() => this.session.may('record_hazard') && !!this.store.life()?.planting);
  protected readonly mayClose = computed(() => this.session.may('record_hazard_closed'));
  protected readonly open = computed(() =>
    openHazards(standing(this.store.records())).map(({ id, facts: { hazard, seenOn, called, cordoned, note } }) => ({
      id,
      name: hazardNames[hazard],
      on: sayDay(seenOn),
      called: called ? `Called: ${called}.` : 'Nobody is called yet.',
      cordoned: cordoned ? 'Cordoned off.' : 'Not cordoned off.',
      note,
    })),
  );

  protected reasonOf(id: string): string {
    return this.reasons()[id] ?? '';
  }
  protected because(id: string, reason: string): void {
    this.reasons.update((all) => ({ ...all, [id]: reason }));
  }

  protected async tell(hazard: HazardKind): Promise<void> {
    const facts = {
      seenOn: this.session.today(),
      hazard,
      called: this.called().trim(),
      cordoned: this.cordoned(),
      note: '',
    };
    const done = 'Hazard told: it stands at the top of every desk until somebody closes it.';
    if (!(await this.sender.send({ kind: 'hazard', facts, supersedes: null }, done))) return;
    this.telling.set(false);
    this.called.set('');
    this.cordoned.set(false);
  }

  protected async close(event: Event, hazardId: string): Promise<void> {
    event.preventDefault();
    const facts = { closedOn: this.session.today(), hazardId, reason: this.reasonOf(hazardId).trim() };
    if (await this.sender.send({ kind: 'hazard_closed', facts, supersedes: null }, 'Hazard closed.'))
      this.because(hazardId, '');
  }
}
