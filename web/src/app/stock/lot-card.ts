import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { receiveLotSchema, type Delivery, type Lot } from '@sombra/contract';
import {
  formatQuantity,
  judgeLot,
  receivingNames,
  receivingVerdicts,
  samplingPlan,
  sayReason,
  stockNames,
  type LotJudgement,
  type ReceivingRules,
  type ReceivingVerdict,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { BecauseList } from '../ui/because-list';
import { LevelMark } from '../ui/level-mark';
import { readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';
import { SessionService } from '../session/session.service';
import { StockService } from './stock.service';
import { textOf } from '../fields/event-values';

const fieldNames: Readonly<Record<string, string>> = { arrived: 'Arrived', reason: 'Because' };

/** One lot as it is received: how many came, the trees opened so far, what they say of the lot, the decision. */
@Component({
  selector: 's-lot-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, BecauseList, LevelMark],
  templateUrl: './lot-card.html',
  styleUrl: './lot-card.scss',
})
export class LotCard {
  protected readonly textOf = textOf;
  readonly deliveryId = input.required<string>();
  readonly lot = input.required<Lot>();
  readonly rules = input.required<ReceivingRules>();
  readonly mayReceive = input(false);
  readonly kept = output<Delivery>();
  private readonly doors = inject(StockService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  protected readonly stockNames = stockNames;
  protected readonly verdicts = receivingVerdicts;
  protected readonly verdictNames = receivingNames;

  protected readonly open = signal(false);
  protected readonly arrived = signal('');
  protected readonly reason = signal('');
  protected readonly faults = signal<readonly string[]>([]);
  protected readonly busy = signal(false);

  protected readonly caliper = computed(() => formatQuantity(this.lot().caliperMm, 'lengthMm', this.session.units()));
  /** As counted in the field now, else as ordered; never fewer than were opened. */
  protected readonly count = computed(() => {
    const typed = Number(this.arrived());
    const counted = Number.isInteger(typed) && typed > 0 ? typed : this.lot().expected;
    return Math.min(100_000, Math.max(counted, this.lot().trees.length));
  });
  protected readonly sample = computed(() => samplingPlan(this.count(), this.rules()));
  protected readonly judged = computed<LotJudgement>(() =>
    judgeLot(
      {
        arrived: this.count(),
        opened: this.lot().trees.map(({ tree }) => tree),
        ordered: { kind: this.lot().stockKind, caliperMm: this.lot().caliperMm },
      },
      this.rules(),
    ),
  );
  protected readonly trees = computed(() =>
    this.lot().trees.map((one, i) => {
      const judged = this.judged().each[i];
      return {
        ...one,
        number: i + 1,
        verdict: judged?.verdict ?? 'accept',
        level: judged?.level ?? 'good',
        words: (judged?.because ?? []).map((reason) => sayReason(reason, this.session.units())).join(' '),
      };
    }),
  );

  constructor() {
    effect(() => {
      const lot = this.lot();
      untracked(() => this.start(lot));
    });
  }

  private start(lot: Lot): void {
    this.arrived.set(lot.arrived === null ? '' : String(lot.arrived));
    this.reason.set(lot.reason);
    this.open.set(lot.verdict === null);
  }

  protected async decide(verdict: ReceivingVerdict | null): Promise<void> {
    const count = this.arrived().trim() === '' ? NaN : Number(this.arrived());
    const body = { version: this.lot().version, arrived: count, verdict, reason: this.reason() };
    const parsed = receiveLotSchema.safeParse(body);
    this.faults.set([]);
    if (!parsed.success) {
      this.faults.set(
        parsed.error.issues.map(({ path, message }) => {
          const key = String(path[0] ?? '');
          const words = key === 'arrived' && Number.isNaN(count) ? 'count what arrived' : message;
          return `${fieldNames[key] ?? key}: ${words}.`;
        }),
      );
      return;
    }
    this.busy.set(true);
    try {
      this.kept.emit(await firstValueFrom(this.doors.receive(this.lot().id, parsed.data)));
      this.toasts.say(verdict ? `${this.lot().species}: ${receivingNames[verdict].toLowerCase()}.` : 'Stored.');
    } catch (error) {
      this.faults.set([sayProblem(readProblem(error))]);
    } finally {
      this.busy.set(false);
    }
  }
}
