import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { FieldPeople, Problem, WaterRound } from '@sombra/contract';
import { formatQuantity } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { WaysMap, type MapWay } from '../drawing/ways-map';
import { textOf } from '../fields/event-values';
import { AssignmentsService } from '../offline/assignments.service';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay, sayHours } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { leftWhyNames, roundStateNames, stopStateNames } from './round-words';
import { RoundsService } from './rounds.service';

/** One round: each truck's stops in order with their doses, what is left and why; given out, then followed stop by stop. */
@Component({
  selector: 's-round-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, StateNote, WaysMap],
  templateUrl: './round-page.html',
  styleUrl: './round-page.scss',
})
export class RoundPage {
  protected readonly textOf = textOf;
  protected readonly say = sayDay;
  protected readonly states = roundStateNames;
  readonly roundId = input.required<string>();
  private readonly doors = inject(RoundsService);
  private readonly assign = inject(AssignmentsService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  protected readonly round = signal<WaterRound | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly people = signal<FieldPeople>([]);
  private readonly chosen = signal<Readonly<Record<string, string>>>({});
  protected readonly mayPlan = computed(() => this.session.may('plan_rounds'));

  protected readonly ways = computed((): MapWay[] =>
    (this.round()?.plan.trucks ?? []).map(({ name, depot, steps }) => ({
      name,
      from: depot,
      places: steps.map((step) =>
        step.kind === 'stop'
          ? { position: step.position, title: `${step.ref}, ${Math.round(step.litres)} L`, fill: false }
          : { position: step.position, title: `Fill at ${step.name}`, fill: true },
      ),
    })),
  );

  protected readonly trucks = computed(() => {
    const round = this.round();
    if (!round) return [];
    return round.plan.trucks
      .filter(({ steps }) => steps.length > 0)
      .map((truck) => {
        const stops = truck.steps.filter(({ kind }) => kind === 'stop').length;
        let order = 0;
        return {
          ...truck,
          words: `${stops} trees, ${this.litres(truck.litres)}, ${sayHours(truck.minutes)} of ${sayHours(truck.shiftMinutes)}, ${this.far(truck.driveM)}`,
          who: round.given.find(({ truckId }) => truckId === truck.truckId)?.userName ?? null,
          steps: truck.steps.map((step, key) => {
            if (step.kind === 'fill') {
              return {
                key,
                fill: `Fill at ${step.name}, ${this.litres(step.litres)}`,
                ref: '',
                place: '',
                dose: '',
                state: '',
                order: 0,
              };
            }
            const { state, litres, why } = round.stops[step.spotId] ?? {
              state: 'open' as const,
              litres: null,
              why: null,
            };
            const given = litres === null ? '' : `, ${this.litres(litres)}`;
            const words = `${stopStateNames[state]}${given}${why ? `: ${why}` : ''}`;
            order += 1;
            return {
              key,
              fill: '',
              ref: step.ref,
              place: step.place,
              dose: this.litres(step.litres),
              state: words,
              order,
            };
          }),
        };
      });
  });
  protected readonly left = computed(() =>
    (this.round()?.plan.left ?? []).map((one) => ({
      ...one,
      words: leftWhyNames[one.why],
      dose: this.litres(one.litres),
    })),
  );
  protected readonly needless = computed(
    () => Object.values(this.round()?.stops ?? {}).filter(({ state }) => state === 'not_needed').length,
  );
  protected readonly done = computed(
    () => Object.values(this.round()?.stops ?? {}).filter(({ state }) => state === 'watered').length,
  );

  constructor() {
    effect(() => {
      this.roundId();
      untracked(() => void this.read());
    });
  }

  private litres(value: number): string {
    return formatQuantity(value, 'volumeL', this.session.units());
  }
  private far(metres: number): string {
    return formatQuantity(metres, 'distanceM', this.session.units());
  }

  protected async read(): Promise<void> {
    try {
      this.round.set(await firstValueFrom(this.doors.round(this.roundId())));
      this.problem.set(null);
      if (this.mayPlan() && this.round()?.state === 'draft')
        this.people.set(await firstValueFrom(this.assign.people()));
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  protected choose(truckId: string, userId: string): void {
    this.chosen.update((before) => ({ ...before, [truckId]: userId }));
  }

  protected async give(): Promise<void> {
    const round = this.round();
    if (!round) return;
    const chosen = this.chosen();
    const missing = this.trucks().find(({ truckId }) => !chosen[truckId]);
    if (missing) {
      this.fault.set(`Name somebody who goes with ${missing.name}.`);
      return;
    }
    this.busy.set(true);
    this.fault.set(null);
    try {
      const people = this.trucks().map(({ truckId }) => ({ truckId, userId: chosen[truckId] ?? '' }));
      this.round.set(await firstValueFrom(this.doors.give(round.id, { version: round.version, people })));
      this.toasts.say('Given out: each finds it on their phone.');
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
