import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  resource,
  signal,
  untracked,
} from '@angular/core';
import {
  displays,
  formatQuantity,
  isNeedless,
  limits,
  probeClasses,
  probeNames,
  sayReason,
  wateringLeave,
  type ProbeClass,
  type RecordFacts,
} from '@sombra/core';
import type { Assignment } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import type { Stop } from '../along/stop';
import { textOf } from '../fields/event-values';
import { TypedQuantity } from '../fields/typed-quantity';
import { SessionService } from '../session/session.service';
import { BecauseList } from '../ui/because-list';
import { BallGauge } from '../water/ball-gauge';
import { followedTree, readLitres } from '../water/followed-tree';
import { sayNext } from '../water/say-next';
import { WaterBasisService } from '../water/water-basis.service';

/** Of a tree that is not followed: what is poured where nobody planned anything. L */
const usualL = 40;

/** A tree on a watering round: how its ball stands by this device, its dose, and one tap for *watered*. */
@Component({
  selector: 's-water-stop',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [BallGauge, BecauseList],
  template: `
    @if (fillBefore(); as where) {
      <p class="caution"><b>Fill first</b> at {{ where }}.</p>
    }
    @if (restriction(); as text) {
      <p class="caution" role="note"><b>Restricted.</b> {{ text }}</p>
    }
    @if (water(); as now) {
      <p class="next">
        <s-ball-gauge [share]="now.now.share" [errorShare]="now.now.errorShare" /><br />
        <b>{{ now.words }}</b>
      </p>
      @if (now.needless) {
        <p class="caution" role="status">
          It asks for no water this week any more: rain fell, or somebody watered. Probe, and leave it if the ball is
          moist.
        </p>
      }
    } @else if (basis.isLoading()) {
      <p class="quiet" role="status">Working out its water…</p>
    } @else {
      <p class="quiet">Its water cannot be followed on this device: go by the probe.</p>
    }
    <div class="probe" role="group" aria-label="Probe at ball depth, before">
      <span>Probe at ball depth</span>
      @for (one of classes; track one) {
        <button
          type="button"
          class="btn btn-outline-primary"
          [attr.aria-pressed]="probe() === one"
          (click)="probe.set(probe() === one ? null : one)"
        >
          {{ names[one] }}
        </button>
      }
    </div>
    <button type="button" class="btn btn-primary big" [disabled]="busy()" (click)="give(dose())">
      Watered {{ say(dose()) }}
    </button>
    <div class="other">
      <input
        class="form-control"
        inputmode="decimal"
        [value]="typed.text()"
        (input)="type(textOf($event))"
        [attr.aria-label]="'Another amount, ' + unit()"
        [placeholder]="'other, ' + unit()"
      />
      <button type="button" class="btn btn-outline-primary" [disabled]="busy()" (click)="giveTyped()">
        Watered this much
      </button>
    </div>
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (water(); as now) {
      <details>
        <summary>Why</summary>
        <s-because [reasons]="now.because" />
      </details>
    }
  `,
  styles: `
    .next {
      font-size: 1.25rem;
      margin: 0.5rem 0;
    }
    .caution {
      background: var(--caution-paper);
      padding: 0.6rem 0.8rem;
    }
    .probe {
      display: flex;
      flex-wrap: wrap;
      gap: 0.4rem;
      align-items: center;
      margin: 0.6rem 0;
    }
    .probe span {
      flex-basis: 100%;
    }
    .probe .btn {
      min-height: 48px;
    }
    .btn[aria-pressed='true'] {
      background: var(--chosen);
      color: var(--on-chosen);
    }
    .big {
      width: 100%;
      min-height: 72px;
      font-size: 1.4rem;
    }
    .other {
      display: flex;
      gap: 0.5rem;
      margin-top: 0.6rem;
    }
    .other .form-control,
    .other .btn {
      min-height: 56px;
      flex: 1;
    }
    summary {
      min-height: 44px;
      padding-top: 0.6rem;
    }
  `,
})
export class WaterStop {
  readonly stop = input.required<Stop>();
  readonly assignment = input.required<Assignment>();
  readonly busy = input.required<boolean>();
  readonly watered = output<RecordFacts['watering']>();
  protected readonly textOf = textOf;
  protected readonly classes = probeClasses;
  protected readonly names = probeNames;
  private readonly session = inject(SessionService);
  private readonly doors = inject(WaterBasisService);
  protected readonly probe = signal<ProbeClass | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly typed = new TypedQuantity(() => ({ quantity: 'volumeL', units: this.session.units() }));
  protected readonly unit = computed(() => displays.volumeL[this.session.units()].unit);
  protected readonly fillBefore = computed(() => this.assignment().water?.fills[this.stop().id] ?? null);

  protected readonly basis = resource({ loader: () => firstValueFrom(this.doors.basis()).catch(() => null) });
  /** What restrictions on watering say of a truck today. */
  protected readonly restriction = computed(() => {
    const rules = this.basis.value()?.watering;
    if (!rules) return '';
    const leave = wateringLeave(rules, this.session.today(), 'truck');
    return leave.because.map((reason) => sayReason(reason, this.session.units())).join(' ');
  });
  private readonly followed = computed(() => {
    const { life, detail, records } = this.stop();
    const basis = this.basis.value();
    if (!life || !detail || !basis) return null;
    return followedTree({ records, life, detail }, basis, this.session.today());
  });
  protected readonly water = computed(() => {
    const followed = this.followed();
    const now = followed?.days.at(-1);
    if (!followed || !now) return null;
    const today = this.session.today();
    return {
      now,
      because: followed.because,
      words: sayNext(followed.next, { today, units: this.session.units() }),
      needless: isNeedless(followed.next, today),
    };
  });
  /** As the round was planned; else what its ball is missing by this device. L */
  protected readonly dose = computed(() => {
    const planned = this.assignment().water?.doses[this.stop().id];
    const next = this.followed()?.next;
    const { min, max } = limits.wateringL;
    const litres = planned ?? (next?.kind === 'water' ? Math.ceil(next.litres) : usualL);
    return Math.min(max, Math.max(min, litres));
  });

  private readonly stopId = computed(() => this.stop().id);

  constructor() {
    // What was typed and found at one tree is not carried over to the next.
    effect(() => {
      this.stopId();
      untracked(() => {
        this.typed.fill(null);
        this.probe.set(null);
        this.fault.set(null);
      });
    });
  }

  protected say(litres: number): string {
    return formatQuantity(litres, 'volumeL', this.session.units());
  }

  protected type(text: string): void {
    this.typed.type(text);
    this.fault.set(null);
  }

  protected giveTyped(): void {
    const read = readLitres(this.typed, { name: 'Another amount', units: this.session.units() });
    if ('fault' in read) this.fault.set(read.fault);
    else this.give(read.litres);
  }

  protected give(litres: number): void {
    const probe = this.probe();
    this.watered.emit({ wateredOn: this.session.today(), litres, ...(probe ? { probeBefore: probe } : {}) });
  }
}
