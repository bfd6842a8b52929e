import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { compassPoint, formatQuantity, ofKind, type DigCover, type Move } from '@sombra/core';
import type { Stop } from '../along/stop';
import { geodesicFrom, geodesicLengthM, type LngLat } from '../map/measure';
import { SessionService } from '../session/session.service';

const stepsM = [0.3, 0.5, 1, 1.5, 2, 3] as const;
const why = ['rock', 'root of a neighbour', 'a pipe or cable', 'too near the kerb'] as const;

/** A spot set a little aside where its place cannot be dug: only as far as the area that was cleared reaches. */
@Component({
  selector: 's-move-it',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p>{{ roomWords() }}</p>
    <div class="row" role="group" aria-label="How far">
      @for (m of steps; track m) {
        <button type="button" class="btn btn-outline-primary" [attr.aria-pressed]="far() === m" (click)="far.set(m)">
          {{ say(m) }}
        </button>
      }
    </div>
    <div class="row" role="group" aria-label="Which way">
      @for (deg of bearings; track deg) {
        <button
          type="button"
          class="btn btn-outline-primary"
          [attr.aria-pressed]="way() === deg"
          (click)="way.set(deg)"
        >
          {{ point(deg) }}
        </button>
      }
    </div>
    <div class="row" role="group" aria-label="Because of">
      @for (one of reasons; track one) {
        <button
          type="button"
          class="btn btn-outline-primary"
          [attr.aria-pressed]="reason() === one"
          (click)="reason.set(one)"
        >
          {{ one }}
        </button>
      }
    </div>
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <button type="button" class="btn btn-primary" [disabled]="!move() || busy()" (click)="keep()">Move it there</button>
  `,
  styles: `
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      margin: 0.4rem 0;
    }
    .btn {
      min-height: 52px;
      min-width: 56px;
    }
  `,
})
export class MoveIt {
  readonly stop = input.required<Stop>();
  readonly cover = input.required<DigCover | null>();
  readonly busy = input(false);
  readonly moved = output<Move>();
  private readonly session = inject(SessionService);
  protected readonly steps = stepsM;
  protected readonly reasons = why;
  protected readonly bearings = Array.from({ length: 8 }, (_, i) => i * 45);
  protected readonly point = compassPoint;
  protected readonly far = signal<number | null>(null);
  protected readonly way = signal<number | null>(null);
  protected readonly reason = signal<(typeof why)[number]>('rock');

  protected say(m: number): string {
    return formatQuantity(m, 'clearanceM', this.session.units());
  }

  /** How far the ticket still covers, from where the spot lay when it was taken along; `null` where none asks. m */
  private readonly roomM = computed(() => {
    const cover = this.cover();
    if (!cover) return null;
    return cover.kind === 'ticket' ? cover.roomM : 0;
  });
  protected readonly roomWords = computed(() => {
    const cover = this.cover();
    if (!cover) return 'How far, and which way.';
    if (cover.kind === 'ticket') return `The cleared area reaches ${this.say(cover.roomM)} around this spot.`;
    return 'Only the spot itself is cleared: it cannot be moved without a ticket.';
  });

  /** Where it stands by now: the last move that waits on this device counts. */
  private readonly from = computed<LngLat>(
    () => ofKind(this.stop().records, 'move').at(-1)?.facts.to ?? this.stop().position,
  );
  private readonly to = computed(() => {
    const [far, way] = [this.far(), this.way()];
    return far === null || way === null ? null : geodesicFrom(this.from(), way, far);
  });
  protected readonly fault = computed(() => {
    const [to, roomM] = [this.to(), this.roomM()];
    if (!to || roomM === null) return null;
    const offM = geodesicLengthM([this.stop().position, to]);
    if (offM <= roomM) return null;
    return `${this.say(offM)} from the spot lies outside the cleared area, which reaches ${this.say(roomM)}: nobody may dig there.`;
  });
  protected readonly move = computed<Move | null>(() => {
    const to = this.to();
    if (!to || this.fault()) return null;
    const [from, movedOn] = [this.from(), this.session.today()];
    return { movedOn, from: [from[0], from[1]], to: [to[0], to[1]], reason: `moved for ${this.reason()}` };
  });

  protected keep(): void {
    const move = this.move();
    if (move) this.moved.emit(move);
  }
}
