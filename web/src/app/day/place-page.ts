import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import type { OpenRegistration } from '@sombra/contract';
import { clockOf } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDate } from '../ui/say-date';

import { DaysService } from './days.service';

const words: Readonly<Record<OpenRegistration['state'], string>> = {
  held: 'A place is held for you. Confirm it, or it is given up.',
  confirmed: 'Your place is confirmed. See you there.',
  waiting: 'All places are taken: you are on the waiting list, and get a letter as soon as one is free.',
  cancelled: 'Your place is cancelled.',
  over: 'This day is over, or was called off.',
};

/** The page behind the link of a letter: confirm a place, or give it up. */
@Component({
  selector: 's-place-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <main>
      @if (fault(); as text) {
        <h1>Your place</h1>
        <p class="problem" role="alert">{{ text }}</p>
      } @else if (place(); as now) {
        <p class="from">{{ now.programme }}</p>
        <h1>{{ now.title }}</h1>
        <p class="facts">
          <b>{{ say(now.onDay) }}</b>, check-in from {{ clock(now.hours.gatherMin)
          }}{{ now.gathering ? ': ' + now.gathering : '' }}.
        </p>
        <p role="status">
          <b>{{ now.name }}{{ now.with.length > 0 ? ' with ' + now.with.join(', ') : '' }}.</b> {{ said() }}
        </p>
        <div class="acts">
          @if (now.state === 'held') {
            <button type="button" class="btn btn-primary" [disabled]="busy()" (click)="answer('confirm')">
              I come
            </button>
          }
          @if (now.state === 'held' || now.state === 'confirmed' || now.state === 'waiting') {
            <button type="button" class="btn btn-outline-primary" [disabled]="busy()" (click)="answer('cancel')">
              {{ now.state === 'waiting' ? 'Leave the list' : 'I cannot come' }}
            </button>
          }
        </div>
      }
    </main>
  `,
  styleUrl: './join-page.scss',
})
export class PlacePage {
  readonly token = input.required<string>();
  private readonly doors = inject(DaysService);
  protected readonly say = sayDate;
  protected readonly clock = clockOf;
  protected readonly place = signal<OpenRegistration | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly said = computed(() => words[this.place()?.state ?? 'over']);

  constructor() {
    effect(() => {
      const token = this.token();
      void this.run(() => firstValueFrom(this.doors.place(token)));
    });
  }

  /** Nothing happens by opening the link: mail programs look at links too. */
  protected async answer(answer: 'confirm' | 'cancel'): Promise<void> {
    await this.run(() => firstValueFrom(this.doors.answer(this.token(), answer)));
  }

  private async run(act: () => Promise<OpenRegistration>): Promise<void> {
    this.busy.set(true);
    try {
      this.place.set(await act());
      this.fault.set(null);
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
