import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { KeptRecord } from '@sombra/contract';
import { contradictions, recordTable, sayFacts, sayReason, type Contradiction } from '@sombra/core';
import { textOf } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { RecordSender, sendsRecords } from '../spot/record-sender';
import { SpotStore } from '../spot/spot-store';
import { sayProblem } from '../ui/problem';
import { sayMoment } from '../ui/say-date';

interface Side {
  readonly id: string;
  readonly by: string;
  readonly at: string;
  readonly facts: readonly { readonly name: string; readonly one: string; readonly differs: boolean }[];
}

/** Two records that cannot both be so, side by side; a coordinator says which stands, or that both do. */
@Component({
  selector: 's-contradictions',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [sendsRecords],
  template: `
    @for (pair of pairs(); track pair.key) {
      <section class="problem" [attr.aria-label]="pair.name + ', twice'">
        <h2>Two records contradict each other</h2>
        @for (text of pair.why; track text) {
          <p>{{ text }}</p>
        }
        <div class="sides">
          @for (side of pair.sides; track side.id) {
            <div>
              <h3>{{ side.by }}, {{ side.at }}</h3>
              <dl>
                @for (fact of side.facts; track fact.name) {
                  <dt>{{ fact.name }}</dt>
                  <dd [class.differs]="fact.differs">{{ fact.one }}</dd>
                }
              </dl>
              @if (maySettle()) {
                <button
                  type="button"
                  class="btn btn-outline-primary"
                  [disabled]="sender.busy()"
                  (click)="only(pair, side)"
                >
                  This one stands
                </button>
              }
            </div>
          }
        </div>
        @if (maySettle()) {
          <form (submit)="both($event, pair)">
            <label [for]="'why-' + pair.key">Both stand, because</label>
            <input
              [id]="'why-' + pair.key"
              class="form-control"
              maxlength="300"
              [value]="reason()"
              (input)="reason.set(textOf($event))"
            />
            <button
              type="submit"
              class="btn btn-outline-primary"
              [disabled]="sender.busy() || reason().trim().length < 3"
            >
              Both stand
            </button>
          </form>
        } @else {
          <p class="quiet">A coordinator says which stands. Both are kept whatever is said.</p>
        }
        @if (sender.problem(); as fault) {
          <p role="alert">{{ say(fault) }}</p>
        }
      </section>
    }
  `,
  styles: `
    section {
      margin-bottom: 1rem;
    }
    .sides {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(13rem, 100%), 1fr));
      gap: 0.5rem 1.5rem;
    }
    h3 {
      font-size: 1rem;
    }
    dl {
      display: grid;
      grid-template-columns: auto 1fr;
      gap: 0.1rem 0.8rem;
    }
    dd {
      margin: 0;
    }
    .differs {
      font-weight: 700;
      text-decoration: underline;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
      align-items: center;
      margin-top: 0.75rem;
    }
    form input {
      flex: 1 1 12rem;
    }
    .btn,
    form input {
      min-height: 48px;
    }
  `,
})
export class ContradictionsPanel {
  protected readonly textOf = textOf;
  protected readonly say = sayProblem;
  protected readonly sender = inject(RecordSender);
  private readonly store = inject(SpotStore);
  private readonly session = inject(SessionService);
  protected readonly reason = signal('');
  protected readonly maySettle = computed(() => this.session.may('record_both_stand'));

  protected readonly pairs = computed(() =>
    contradictions(this.store.known()).map((one) => ({
      key: `${one.first.id}${one.second.id}`,
      name: recordTable[one.first.kind].name,
      first: one.first.id,
      second: one.second.id,
      why: one.because.map((reason) => sayReason(reason, this.session.units())),
      sides: this.sidesOf(one),
    })),
  );

  private sidesOf({ first, second }: Contradiction): Side[] {
    const units = this.session.units();
    const said = [first, second].map(({ facts }) => sayFacts(facts, units));
    return [first, second].map((record, i) => {
      const kept = record as unknown as KeptRecord;
      const facts = (said[i] ?? []).map(({ key, name, value }) => ({
        name,
        one: value,
        differs: said[1 - i]?.find((other) => other.key === key)?.value !== value,
      }));
      return { id: record.id, by: kept.recordedBy, at: sayMoment(record.recordedAt), facts };
    });
  }

  /** The other one is taken back; it stays on record as such. */
  protected async only(pair: { readonly first: string; readonly second: string }, { id }: Side): Promise<void> {
    const other = id === pair.first ? pair.second : pair.first;
    const facts = { reason: 'contradicts the record that stands' };
    await this.sender.send(
      { kind: 'retraction', facts, supersedes: other },
      'Settled; the other record is taken back.',
    );
  }

  protected async both(event: Event, pair: { readonly first: string; readonly second: string }): Promise<void> {
    event.preventDefault();
    const { first, second } = pair;
    const facts = { first, second, decidedOn: this.session.today(), reason: this.reason().trim() };
    if (await this.sender.send({ kind: 'both_stand', facts, supersedes: null }, 'Both records stand.')) {
      this.reason.set('');
    }
  }
}
