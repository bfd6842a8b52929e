import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Assignment, HandOver } from '@sombra/contract';
import { assignmentNames } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDate } from '../ui/say-date';
import { AssignmentsService } from '../offline/assignments.service';
import { StopsService } from './stops.service';

/** What one is sent out to: how much of it is left, the walk, and handing it over. */
@Component({
  selector: 's-assignment-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    @let one = assignment();
    <h2>{{ one.title }}</h2>
    <p>
      @if (one.kind !== 'delivery' && areRead()) {
        <b>{{ left() }} of {{ one.spotIds.length }} left</b> ·
      }
      {{ names[one.kind] }}, until {{ date(one.until) }}, from {{ one.madeBy }}
    </p>
    @if (areRead() && missing() > 0) {
      <p class="caution">{{ missing() }} of its spots are not on this device yet: take along on a network.</p>
    }
    <div class="acts">
      @if (one.kind === 'delivery') {
        <a class="btn btn-primary" [routerLink]="['/deliveries', one.deliveryId]">Receive it</a>
      } @else {
        <a class="btn btn-primary" [routerLink]="['/walk', one.id]">{{ begun() ? 'Go on' : 'Begin' }}</a>
      }
      @if (!session.away()) {
        <button type="button" class="btn btn-outline-primary" (click)="handOver()">Hand over</button>
        @if (left() === 0 || one.kind === 'delivery') {
          <button type="button" class="btn btn-outline-primary" (click)="end()">Finish</button>
        }
      }
    </div>
    @if (code(); as given) {
      <p class="code" role="status">
        <b>{{ given.code }}</b> — typed under <i>Take over</i> on another phone within half an hour, it is theirs.
      </p>
    }
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      border: 1px solid var(--line);
      border-left: 6px solid var(--pine);
      background: var(--sheet);
      padding: 0.7rem 0.9rem;
      margin-bottom: 0.75rem;
    }
    h2 {
      font-size: 1.15rem;
      margin: 0;
    }
    p {
      margin: 0.2rem 0 0.5rem;
    }
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
    }
    .btn {
      min-height: 52px;
      padding-inline: 1.2rem;
      display: inline-grid;
      align-items: center;
    }
    .code b {
      font-size: 1.8rem;
      letter-spacing: 0.08em;
    }
  `,
})
export class AssignmentCard {
  readonly assignment = input.required<Assignment>();
  protected readonly names = assignmentNames;
  protected readonly date = sayDate;
  protected readonly session = inject(SessionService);
  private readonly stops = inject(StopsService);
  private readonly assignments = inject(AssignmentsService);
  protected readonly code = signal<HandOver | null>(null);
  protected readonly fault = signal<string | null>(null);
  private readonly states = computed(() => this.stops.of(this.assignment()));
  protected readonly left = computed(() => this.states().filter(({ state }) => state === 'open').length);
  protected readonly areRead = this.stops.areRead;
  protected readonly begun = computed(() => this.areRead() && this.left() < this.assignment().spotIds.length);
  protected readonly missing = computed(() => this.states().filter(({ stop }) => stop === null).length);

  protected async handOver(): Promise<void> {
    await this.run(async () => this.code.set(await firstValueFrom(this.assignments.handOver(this.assignment().id))));
  }

  protected async end(): Promise<void> {
    const { id, version } = this.assignment();
    await this.run(() => firstValueFrom(this.assignments.end(id, version)));
  }

  private async run(act: () => Promise<unknown>): Promise<void> {
    this.fault.set(null);
    try {
      await act();
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    }
  }
}
