import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import type { Delivery, DeliveryState, Problem } from '@sombra/contract';
import { claimOf, daysBetween, limits, parseNumber } from '@sombra/core';
import { firstValueFrom, type Observable } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { SessionService } from '../session/session.service';
import { AssignForm } from '../spot/assign-form';
import { LotCard } from './lot-card';
import { StockService } from './stock.service';
import { textOf } from '../fields/event-values';

/** A delivery as it is received: how it came, where it waits, each lot with its sample and verdict, the claim. */
@Component({
  selector: 's-delivery-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, AssignForm, StateNote, LotCard],
  template: `
    <p><a routerLink="/deliveries">All deliveries</a></p>
    @if (problem(); as trouble) {
      <s-state-note [problem]="trouble" (again)="read()" />
    }
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (delivery(); as now) {
      <h1>{{ now.orderNumber }} from {{ now.nursery }}</h1>
      <p class="quiet">
        Arrived {{ say(now.arrivedOn) }}, received by {{ now.madeBy }}; held
        {{ held() === 1 ? '1 day' : held() + ' days' }}. Judged by
        <a routerLink="/practices" [queryParams]="{ a: now.practice.id }">{{ now.practice.name }}</a>, version
        {{ now.practice.version }}.
      </p>
      @if (mayAssign() && !session.away()) {
        <p>
          <button
            type="button"
            class="btn btn-outline-primary"
            [attr.aria-expanded]="sending()"
            (click)="sending.set(!sending())"
          >
            Send somebody to receive it
          </button>
        </p>
        @if (sending()) {
          <s-assign-form
            [deliveryId]="now.id"
            [proposed]="now.orderNumber + ' from ' + now.nursery"
            (sentOut)="sending.set(false)"
          />
        }
      }
      <section class="came" aria-label="How it came and where it waits">
        @for (one of yesNo; track one.key) {
          <fieldset>
            <legend>{{ one.name }}</legend>
            @for (choice of [true, false]; track choice) {
              <button
                type="button"
                [attr.aria-pressed]="now[one.key] === choice"
                [disabled]="!mayReceive()"
                (click)="answer(one.key, choice)"
              >
                {{ choice ? 'Yes' : 'No' }}
              </button>
            }
          </fieldset>
        }
        <label
          >The nursery watered every
          <span class="days"
            ><input
              class="form-control"
              inputmode="decimal"
              aria-label="The nursery watered every, days"
              [value]="now.wateredEveryDays ?? ''"
              [readOnly]="!mayReceive()"
              (change)="rhythm(textOf($event))"
            />
            days</span
          ></label
        >
        <label
          >Waits at
          <input
            class="form-control"
            maxlength="120"
            [value]="now.holding"
            [readOnly]="!mayReceive()"
            (change)="change({ holding: textOf($event) })"
        /></label>
        <label
          >Note
          <input
            class="form-control"
            maxlength="400"
            [value]="now.note"
            [readOnly]="!mayReceive()"
            (change)="change({ note: textOf($event) })"
        /></label>
        <p>
          Watered while held:
          {{ now.wateredOn.length === 0 ? 'not yet' : wateredWords() }}
          @if (mayReceive() && !wateredToday()) {
            <button type="button" class="btn btn-outline-primary" [disabled]="busy()" (click)="water()">
              Watered today
            </button>
          }
        </p>
      </section>
      <p class="caution">
        Off the truck by tail lift, or two and more hands, by the ball or container and never by the trunk; nobody
        stands below. Keep balls and roots moist and shaded; plant within days. Roll heavy balls on boards.
      </p>
      @for (lot of now.lots; track lot.id) {
        <s-lot-card
          [deliveryId]="now.id"
          [lot]="lot"
          [rules]="now.rules"
          [mayReceive]="mayReceive()"
          (kept)="delivery.set($event)"
        />
      }
      @if (claim().returned + claim().missing > 0) {
        <section class="claim" aria-labelledby="claim">
          <h2 id="claim">Claim</h2>
          <p>
            {{ claim().returned }} returned, {{ claim().missing }} did not come.
            <span class="quiet">Terms: {{ now.terms || 'none written down' }}</span>
          </p>
          <a class="btn btn-primary" [href]="'/api/deliveries/' + now.id + '/claim'" target="_blank">
            Claim sheet, PDF
          </a>
        </section>
      }
    } @else if (!problem()) {
      <s-state-note kind="loading" text="Opening the delivery…" />
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 1rem 1.5rem;
      max-width: 60rem;
    }
    .came {
      display: flex;
      flex-wrap: wrap;
      gap: 0.6rem 1.6rem;
      align-items: end;
      margin: 0.5rem 0;
    }
    legend {
      font-size: 1rem;
      margin-bottom: 0.2rem;
    }
    fieldset button {
      min-width: 64px;
      min-height: 48px;
      border: 1px solid var(--edge);
      background: var(--sheet);
      color: var(--ink);
    }
    fieldset button[aria-pressed='true'] {
      background: var(--chosen);
      color: var(--on-chosen);
    }
    .days {
      display: flex;
      gap: 0.4rem;
      align-items: center;
    }
    .days input {
      width: 5rem;
    }
    .came p {
      margin: 0;
    }
    .claim {
      border-left: 5px solid var(--urgent);
      padding-left: 1rem;
      margin: 1rem 0;
    }
  `,
})
export class DeliveryPage {
  protected readonly textOf = textOf;
  readonly deliveryId = input.required<string>();
  private readonly doors = inject(StockService);
  protected readonly session = inject(SessionService);
  protected readonly mayAssign = computed(() => this.session.may('assign'));
  protected readonly sending = signal(false);
  private readonly toasts = inject(ToastsService);
  protected readonly say = sayDay;
  protected readonly delivery = signal<Delivery | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly yesNo = [
    { key: 'covered', name: 'Load covered' },
    { key: 'moist', name: 'Roots and balls moist' },
  ] as const;
  protected readonly mayReceive = computed(() => this.session.may('receive_stock'));
  protected readonly held = computed(() => {
    const delivery = this.delivery();
    return delivery ? Math.max(0, daysBetween(delivery.arrivedOn, this.session.today())) : 0;
  });
  protected readonly wateredToday = computed(() => this.delivery()?.wateredOn.includes(this.session.today()) ?? false);
  protected readonly wateredWords = computed(() => (this.delivery()?.wateredOn ?? []).map(sayDay).join(', '));
  private readonly claims = computed(() => {
    const delivery = this.delivery();
    return (delivery?.lots ?? []).map((lot) => {
      const { stockKind: kind, caliperMm, expected, arrived, verdict } = lot;
      const opened = lot.trees.map(({ tree }) => tree);
      const received = { ordered: { kind, caliperMm }, expected, arrived, opened, verdict };
      return delivery ? claimOf(received, delivery.rules) : { returned: 0, missing: 0 };
    });
  });
  protected readonly claim = computed(() => ({
    returned: this.claims().reduce((sum, { returned }) => sum + returned, 0),
    missing: this.claims().reduce((sum, { missing }) => sum + missing, 0),
  }));

  constructor() {
    this.doors.changed$.pipe(takeUntilDestroyed()).subscribe((delivery) => {
      if (delivery.id === this.deliveryId()) this.delivery.set(delivery);
    });
    effect(() => {
      this.deliveryId();
      untracked(() => void this.read());
    });
  }

  protected async read(): Promise<void> {
    try {
      this.delivery.set(await firstValueFrom(this.doors.delivery(this.deliveryId())));
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  protected change(part: Partial<Omit<DeliveryState, 'version'>>): void {
    const now = this.delivery();
    if (!now) return;
    const { version, covered, moist, wateredEveryDays, holding, note } = now;
    const state = { version, covered, moist, wateredEveryDays, holding, note, ...part };
    void this.run(this.doors.keepState(now.id, state), 'Stored.');
  }

  /** How often the nursery watered: its trees are weaned from there. Empty where it is not known. */
  protected rhythm(text: string): void {
    const days = text.trim() === '' ? null : parseNumber(text);
    const { min, max } = limits.wateredEveryDays;
    if (days === undefined || (days !== null && (days < min || days > max))) {
      this.fault.set(`The nursery watered every: must be within ${min}–${max} days, got ${text.trim()}`);
      return;
    }
    this.change({ wateredEveryDays: days });
  }

  protected answer(key: 'covered' | 'moist', yes: boolean): void {
    this.change({ [key]: yes });
  }

  protected water(): void {
    void this.run(this.doors.water(this.deliveryId(), this.session.today()), 'Watering noted.');
  }

  private async run(act: Observable<Delivery>, done: string): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      this.delivery.set(await firstValueFrom(act));
      this.toasts.say(done);
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
