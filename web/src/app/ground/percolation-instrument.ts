import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import {
  formatQuantity,
  limits,
  percolationConsequences,
  percolationNames,
  percolationPlot,
  percolationRate,
  questionNames,
  soakShort,
  inTime,
  testReadings,
  toDisplay,
  type PercolationTest,
  type Reason,
} from '@sombra/core';
import { interval } from 'rxjs';
import { BigNumber } from '../fields/big-number';
import { DrawingView } from '../drawing/drawing-view';
import { BecauseList } from '../ui/because-list';
import { DraftsService } from '../offline/drafts.service';
import { TypedQuantity } from '../fields/typed-quantity';
import { SessionService } from '../session/session.service';
import { FormDraft } from '../spot/form-draft';
import { FormFoot } from '../spot/form-foot';
import { RecordSender } from '../spot/record-sender';
import { SpotStore } from '../spot/spot-store';
import { textOf } from '../fields/event-values';

/** A test under way: kept on this device after every tap, through reloads and an afternoon without signal. */
interface Running {
  readonly holeMm: number | null;
  readonly soakedAt: string | null;
  readonly filledAt: string | null;
  readonly readings: PercolationTest['readings'];
}

const fresh: Running = { holeMm: null, soakedAt: null, filledAt: null, readings: [] };

/** The percolation test as an instrument: soak, fill, one tap a reading, the fall drawn as it comes. */
@Component({
  selector: 's-percolation-instrument',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView, BecauseList, BigNumber, FormFoot],
  providers: [RecordSender, FormDraft],
  template: `
    <form (submit)="finish($event)" novalidate>
      @if (!run().filledAt) {
        <h2>Test hole</h2>
        <p class="quiet">
          Straight sides, as deep as the pit will be, the walls scratched open. Soak it, let it drain, fill it again.
        </p>
        <label for="hole">Depth of the hole</label>
        <span class="big"
          ><input id="hole" inputmode="decimal" [value]="hole.text()" (input)="typeHole(textOf($event))" />
          {{ unit() }}</span
        >
        @if (holeFault(); as text) {
          <p class="problem" role="alert">{{ text }}</p>
        }
        @if (!run().soakedAt) {
          <div class="acts">
            <button type="button" class="btn btn-primary" (click)="soak()">Start the soak now</button>
          </div>
        } @else {
          <p class="clock" role="timer">
            Soaking for <b>{{ soakMin() }} min</b> of {{ rules()?.presoakMin }}
          </p>
        }
        <div class="acts">
          <button
            type="button"
            class="btn"
            [class.btn-primary]="run().soakedAt"
            [class.btn-outline-primary]="!run().soakedAt"
            (click)="fill()"
          >
            Filled: start reading
          </button>
        </div>
      } @else {
        <div class="reading">
          <div>
            <h2>Reading {{ run().readings.length + 1 }}</h2>
            <p class="clock" role="timer">
              {{ sinceFill() }} since filling{{ sinceLast() ? ', ' + sinceLast() + ' since the last reading' : '' }}
            </p>
            <label for="level">Water above the bottom of the hole</label>
            <s-big-number
              inputId="level"
              [unit]="unit()"
              [eighths]="session.units() === 'us'"
              [typed]="level.text()"
              (typedChange)="level.type($event)"
            />
            @if (levelFault(); as text) {
              <p class="problem" role="alert">{{ text }}</p>
            }
            <div class="acts">
              <button type="button" class="btn btn-primary tap" (click)="read()">Read now</button>
              @if (run().readings.length > 0) {
                <button type="button" class="btn btn-outline-primary" (click)="takeBack()">Take back the last</button>
              }
            </div>
          </div>
          <div>
            @if (readings().length > 1) {
              <s-drawing [drawing]="plot()" />
            }
            <p class="verdict" aria-live="polite">
              <b>{{ says().head }}</b> {{ says().more }}
            </p>
            @if (meaning().length > 0) {
              <s-because [reasons]="meaning()" />
            }
            <ol class="taps">
              @for (one of readings(); track $index) {
                <li>{{ one.minute }} min: {{ say(one.levelMm) }}</li>
              }
            </ol>
          </div>
        </div>
        @if (run().readings.length > 0) {
          <s-form-foot act="Finish and store the test" (discard)="again()" />
        }
        <button type="button" class="btn btn-link" (click)="again()">Start over</button>
      }
    </form>
  `,
  styleUrl: './percolation-instrument.scss',
})
export class PercolationInstrument {
  protected readonly textOf = textOf;
  private readonly store = inject(SpotStore);
  protected readonly session = inject(SessionService);
  private readonly drafts = inject(DraftsService);
  private readonly sender = inject(RecordSender);
  protected readonly run = signal<Running>(fresh);
  private readonly lengthOf = (range: { min: number; max: number }) => () => ({
    quantity: 'lengthMm' as const,
    units: this.session.units(),
    range,
  });
  protected readonly hole = new TypedQuantity(this.lengthOf(limits.testHoleMm));
  protected readonly level = new TypedQuantity(() =>
    this.lengthOf({ min: 0, max: this.run().holeMm ?? limits.waterLevelMm.max })(),
  );
  protected readonly levelFault = signal<string | null>(null);
  protected readonly holeFault = signal<string | null>(null);
  private readonly now = signal(Date.now());
  private readonly spotId = computed(() => this.store.detail()?.spot.id ?? null);
  protected readonly rules = computed(() => this.store.detail()?.rules.ground ?? null);
  protected readonly unit = computed(() => toDisplay(0, 'lengthMm', this.session.units()).unit);

  protected readonly test = computed<PercolationTest | null>(() => {
    const { filledAt, soakedAt, readings } = this.run();
    const { holeMm: holeDepthMm } = this.run();
    if (!filledAt || holeDepthMm === null) return null;
    return { testedOn: this.session.today(), holeDepthMm, soakedAt, filledAt, readings };
  });
  protected readonly readings = computed(() => {
    const test = this.test();
    return test ? testReadings(inTime(test)) : [];
  });
  private readonly result = computed(() => percolationRate(this.readings(), this.store.drainage()));
  protected readonly plot = computed(() =>
    percolationPlot({ readings: this.readings(), units: this.session.units(), widthPx: 420, heightPx: 240 }),
  );
  protected readonly soakMin = computed(() => minutesSince(this.run().soakedAt, this.now()));
  protected readonly sinceFill = computed(() => clock(this.run().filledAt, this.now()));
  protected readonly sinceLast = computed(() => {
    const last = this.run().readings.at(-1)?.at ?? null;
    return last ? clock(last, this.now()) : null;
  });

  protected readonly says = computed(() => {
    const result = this.result();
    if (result.kind === 'questioned') {
      const count = this.readings().length;
      if (result.question === 'too_few_readings') {
        return {
          head: `${count} of 3 readings.`,
          more: 'Every half hour in ordinary ground, sooner where it falls fast.',
        };
      }
      return {
        head: `Reading ${result.atReading + 1} is in doubt.`,
        more: `${questionNames[result.question]}. Take it back or start over.`,
      };
    }
    const say = (rate: number) => formatQuantity(rate, 'rateMmPerH', this.session.units());
    const rate = `${say(result.rateMmPerH)}, between ${say(result.lowMmPerH)} and ${say(result.highMmPerH)}`;
    const doubt =
      result.couldBe.length > 1
        ? ` Could be ${result.couldBe.map((one) => percolationNames[one]).join(' or ')}: read longer.`
        : '';
    const steady = result.steady ? `Over ${result.readingsUsed} steady readings.` : 'Falls still differ: keep reading.';
    return { head: `${rate}: ${percolationNames[result.class]}.`, more: steady + doubt };
  });

  /** What the class means for planting here by the practice, and whether the soak was long enough. */
  protected readonly meaning = computed<readonly Reason[]>(() => {
    const [result, practice, rules, test] = [this.result(), this.store.life()?.care, this.rules(), this.test()];
    if (result.kind !== 'rate' || !practice || !rules || !test) return [];
    return [...percolationConsequences(result.class, practice), ...soakShort(test, rules.presoakMin)];
  });

  constructor() {
    interval(1000)
      .pipe(takeUntilDestroyed())
      .subscribe(() => this.now.set(Date.now()));
    effect(() => {
      const id = this.spotId();
      if (id) untracked(() => this.resume(this.drafts.read(`percolation.${id}`)?.value as Running | undefined));
    });
  }

  private resume(run: Running & { readonly holeText?: string } = fresh): void {
    // A test begun in an older Sombra kept the depth as it was typed.
    if (run.holeText !== undefined) this.hole.type(run.holeText);
    else this.hole.fill(run.holeMm);
    const { soakedAt, filledAt, readings } = run;
    this.run.set({ holeMm: this.hole.value(), soakedAt, filledAt, readings });
  }

  protected typeHole(text: string): void {
    this.hole.type(text);
    this.change({ holeMm: this.hole.value() });
  }

  protected change(change: Partial<Running>): void {
    this.run.update((run) => ({ ...run, ...change }));
    const id = this.spotId();
    if (id) this.drafts.keep(`percolation.${id}`, this.run());
  }

  protected soak(): void {
    this.change({ soakedAt: new Date().toISOString() });
  }

  protected fill(): void {
    const wrong = this.hole.value() === null;
    const { min, max } = limits.testHoleMm;
    this.holeFault.set(wrong ? `Depth of the hole must be within ${this.say(min)} to ${this.say(max)}` : null);
    if (!wrong) this.change({ filledAt: new Date().toISOString() });
  }

  protected read(): void {
    const levelMm = this.level.value();
    const deep = this.run().holeMm ?? limits.waterLevelMm.max;
    if (levelMm === null) {
      this.levelFault.set(`Water level must be within 0 to ${this.say(deep)}, the depth of the hole`);
      return;
    }
    this.levelFault.set(null);
    this.change({ readings: [...this.run().readings, { at: new Date().toISOString(), levelMm }] });
    this.level.fill(null);
  }

  protected takeBack(): void {
    this.change({ readings: this.run().readings.slice(0, -1) });
  }

  protected again(): void {
    const id = this.spotId();
    if (id) this.drafts.drop(`percolation.${id}`);
    this.resume();
    this.level.fill(null);
  }

  protected say(mm: number): string {
    return formatQuantity(mm, 'lengthMm', this.session.units());
  }

  protected async finish(event: Event): Promise<void> {
    event.preventDefault();
    const facts = this.test();
    if (!facts) return;
    const safe = await this.sender.send({ kind: 'percolation', facts, supersedes: null }, 'Percolation test stored.');
    if (safe) this.again();
  }
}

function minutesSince(at: string | null, nowMs: number): number {
  return at ? Math.max(0, Math.floor((nowMs - Date.parse(at)) / 60_000)) : 0;
}

function clock(at: string | null, nowMs: number): string {
  const seconds = at ? Math.max(0, Math.floor((nowMs - Date.parse(at)) / 1000)) : 0;
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')} min`;
}
