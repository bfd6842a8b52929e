import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import type { Booked } from '@sombra/contract';
import { formatQuantity } from '@sombra/core';
import { sayProblem } from '../ui/problem';
import { SessionService } from '../session/session.service';
import { RecordSender } from '../spot/record-sender';
import { SpotStore } from '../spot/spot-store';
import { geodesicLengthM, isInside, type LngLat } from './measure';
import { textOf } from '../fields/event-values';

const reasons = [
  'rock',
  'root of a neighbour',
  'private line found',
  'drive or door',
  'sight line',
  'asked by the owner',
];

/** Sets the open spot elsewhere, with the reason that is kept, and says what that does to cover by a ticket. */
@Component({
  selector: 's-move-spot-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [RecordSender],
  template: `
    <form class="map-says" (submit)="move($event)">
      <h2>Move {{ store.detail()?.spot?.ref }} by {{ distance() }}</h2>
      @if (cover(); as text) {
        <p class="caution">{{ text }}</p>
      }
      <label
        >Reason
        <input
          class="form-control form-control-sm"
          list="move-reasons"
          maxlength="300"
          [value]="reason()"
          (input)="reason.set(textOf($event))"
        />
      </label>
      <datalist id="move-reasons">
        @for (one of reasons; track one) {
          <option [value]="one"></option>
        }
      </datalist>
      @if (tried() && reason().trim().length < 3) {
        <p class="problem" role="alert">Reason must say why, in 3 letters or more.</p>
      }
      @if (sender.problem(); as fault) {
        <p class="problem" role="alert">{{ say(fault) }}</p>
      }
      @if (sender.conflict(); as conflict) {
        <p class="problem" role="alert">{{ conflict.title }}</p>
      }
      <p>
        <button type="submit" class="btn btn-sm btn-primary" [disabled]="sender.busy()">Move it</button>
        <button type="button" class="btn btn-sm btn-link" (click)="done.emit()">Cancel</button>
      </p>
    </form>
  `,
  styles: `
    form {
      width: 20rem;
    }
    p {
      margin: 0.4rem 0;
    }
  `,
})
export class MoveSpotForm {
  protected readonly textOf = textOf;
  readonly to = input.required<LngLat>();
  readonly tickets = input.required<Booked['tickets']>();
  readonly done = output();
  protected readonly store = inject(SpotStore);
  protected readonly sender = inject(RecordSender);
  private readonly session = inject(SessionService);
  protected readonly reasons = reasons;
  protected readonly reason = signal('');
  protected readonly tried = signal(false);
  protected readonly say = sayProblem;

  protected readonly distance = computed(() => {
    const from = this.store.detail()?.spot.position;
    return from ? formatQuantity(geodesicLengthM([from, this.to()]), 'distanceM', this.session.units()) : '';
  });

  protected readonly cover = computed(() => {
    const from = this.store.detail()?.spot.position;
    if (!from) return null;
    const covering = (at: LngLat) => this.tickets().find(({ area }) => area.some((ring) => isInside(at, ring)));
    const [before, after] = [covering(from), covering(this.to())];
    if (after) return null;
    return before
      ? `The new place lies outside the area cleared by ticket ${before.number}. No digging there before a new ticket is valid.`
      : 'No valid locate ticket covers the new place. No digging there before one is valid.';
  });

  protected async move(event: Event): Promise<void> {
    event.preventDefault();
    this.tried.set(true);
    const detail = this.store.detail();
    const reason = this.reason().trim();
    if (!detail || reason.length < 3) return;
    const [lng, lat] = this.to();
    const to: [number, number] = [Number(lng.toFixed(7)), Number(lat.toFixed(7))];
    const facts = { movedOn: this.session.today(), from: detail.spot.position, to, reason };
    const stored = await this.sender.send({ kind: 'move', facts, supersedes: null }, `${detail.spot.ref} moved.`);
    if (stored) this.done.emit();
  }
}
