import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import type { KeptDevice } from '@sombra/contract';
import {
  calibrate,
  formatQuantity,
  fromDisplay,
  InvalidInputError,
  type Calibration,
  type VesselRun,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { textOf } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { BecauseList } from '../ui/because-list';
import { readProblem, sayProblem } from '../ui/problem';
import { ToastsService } from '../ui/toasts.service';
import { looksNames } from './device-words';
import { DevicesService } from './devices.service';

interface TypedRun {
  readonly litres: string;
  readonly minutes: string;
}
const empty: TypedRun = { litres: '', minutes: '' };
const numberOf = (text: string): number => (text.trim() === '' ? NaN : Number(text.replace(',', '.')));

/** One device: what there is to know of it, and its runs into a measured vessel, worked out as they are typed. */
@Component({
  selector: 's-device-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [BecauseList],
  template: `
    <h2>{{ device().name }}</h2>
    <dl>
      @for (line of facts(); track line.name) {
        <div>
          <dt>{{ line.name }}</dt>
          <dd>{{ line.value }}</dd>
        </div>
      }
    </dl>
    @if (may()) {
      <h3>Run it into a measured vessel</h3>
      <p class="quiet">
        Fill it as at a tree, let it run into a bucket with a scale, read how much and how long. Three times.
      </p>
      <table class="plain">
        <thead>
          <tr>
            <th scope="col">Run</th>
            <th scope="col">{{ volumes() }}</th>
            <th scope="col">Minutes</th>
          </tr>
        </thead>
        <tbody>
          @for (run of runs(); track $index; let i = $index) {
            <tr>
              <th scope="row">{{ i + 1 }}</th>
              <td>
                <input
                  class="form-control"
                  inputmode="decimal"
                  [value]="run.litres"
                  (input)="type(i, { litres: textOf($event) })"
                  [attr.aria-label]="volumes() + ' of run ' + (i + 1)"
                />
              </td>
              <td>
                <input
                  class="form-control"
                  inputmode="decimal"
                  [value]="run.minutes"
                  (input)="type(i, { minutes: textOf($event) })"
                  [attr.aria-label]="'Minutes of run ' + (i + 1)"
                />
              </td>
            </tr>
          }
        </tbody>
      </table>
      @if (found(); as now) {
        <p role="status">
          <b>{{ flow(now) }}</b>
        </p>
        <s-because [reasons]="now.because" />
      }
      @if (fault(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <button type="button" class="btn btn-outline-primary" (click)="more()">Another run</button>
      <button type="button" class="btn btn-primary" [disabled]="busy()" (click)="keep()">Keep the measurement</button>
    }
  `,
  styles: `
    dl {
      margin: 0;
    }
    dl div {
      display: grid;
      grid-template-columns: minmax(0, 9rem) minmax(0, 1fr);
      gap: 0.5rem;
      padding: 0.15rem 0;
    }
    dt {
      font-weight: 400;
      color: var(--quiet);
    }
    dd {
      margin: 0;
    }
    h3 {
      font-size: 1.05rem;
      margin-top: 1rem;
    }
    input {
      max-width: 8rem;
      min-height: 40px;
    }
    .btn {
      min-height: 44px;
      margin: 0.5rem 0.4rem 0 0;
    }
  `,
})
export class DeviceBench {
  readonly device = input.required<KeptDevice>();
  readonly changed = output<readonly KeptDevice[]>();
  protected readonly textOf = textOf;
  private readonly doors = inject(DevicesService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  protected readonly busy = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly may = computed(() => this.session.may('change_devices'));
  private id = uuidv7();

  /** What was typed of one device is not another's. */
  private readonly typed = signal<{ readonly of: string; readonly runs: readonly TypedRun[] }>({ of: '', runs: [] });
  protected readonly runs = computed(() => {
    const { of, runs } = this.typed();
    return of === this.device().id ? runs : [empty, empty, empty];
  });
  private readonly read = computed((): readonly VesselRun[] =>
    this.runs()
      .filter(({ litres, minutes }) => litres.trim() !== '' || minutes.trim() !== '')
      .map(({ litres, minutes }) => ({
        litres: fromDisplay(numberOf(litres), 'volumeL', this.session.units()),
        minutes: numberOf(minutes),
      })),
  );
  protected readonly volumes = computed(() => (this.session.units() === 'us' ? 'Gallons' : 'Litres'));
  protected readonly found = computed((): Calibration | null => {
    try {
      return this.read().length > 0 ? calibrate(this.read()) : null;
    } catch (error) {
      if (error instanceof InvalidInputError) return null;
      throw error;
    }
  });

  protected readonly facts = computed(() => {
    const units = this.session.units();
    const device = this.device();
    const mm = (value: number) => formatQuantity(value, 'lengthMm', units);
    const list: readonly (readonly [string, string] | false)[] = [
      device.volumeL !== null && ['Holds', formatQuantity(device.volumeL, 'volumeL', units)],
      ['Outlets', String(device.outlets)],
      device.inletMm !== null && ['Opening', mm(device.inletMm)],
      device.fillMinutes > 0 && ['To fill', `${device.fillMinutes} min`],
      device.soakMinutes > 0 && ['Soaks first', `${device.soakMinutes} min in water`],
      device.clearStemMm !== null && ['Needs', `${mm(device.clearStemMm)} of trunk without branches`],
      device.mostSlopePct !== null && ['Slope', `${device.mostSlopePct} % at most`],
      device.dug && ['Ground', 'sunk in: not into compacted soil'],
      ['Joined', device.perCaliperMm === null ? 'one is enough' : `one for each ${mm(device.perCaliperMm)} of caliper`],
      ['Looks', looksNames[device.looks]],
      ['Costs', device.cost === 0 ? 'nothing' : String(device.cost)],
      ['Upkeep', device.upkeep],
      ['Comes off', device.offAfterMonths === null ? 'may stay' : `after ${device.offAfterMonths} months`],
      device.measured !== null && [
        'Measured by',
        device.measured.by + (device.measured.note ? `, ${device.measured.note}` : ''),
      ],
    ];
    return list.flatMap((line) => (line === false ? [] : [{ name: line[0], value: line[1] }]));
  });

  protected flow({ lPerH }: Calibration): string {
    return `${formatQuantity(lPerH, 'volumeL', this.session.units())} an hour`;
  }

  protected type(at: number, change: Partial<TypedRun>): void {
    const runs = this.runs().map((run, i) => (i === at ? { ...run, ...change } : run));
    this.typed.set({ of: this.device().id, runs });
    this.fault.set(null);
  }
  protected more(): void {
    this.typed.set({ of: this.device().id, runs: [...this.runs(), empty] });
  }

  protected async keep(): Promise<void> {
    this.fault.set(null);
    try {
      // Says which run is wrong, by its limits.
      calibrate(this.read());
    } catch (error) {
      if (!(error instanceof InvalidInputError)) throw error;
      this.fault.set(
        this.read().length === 0
          ? `Type ${this.volumes().toLowerCase()} and minutes of one run at least.`
          : `${sayPath(error.message)}.`,
      );
      return;
    }
    this.busy.set(true);
    try {
      const asked = { id: this.id, measuredOn: this.session.today(), runs: [...this.read()], note: '' };
      this.changed.emit(await firstValueFrom(this.doors.calibrate(this.device().id, asked)));
      this.id = uuidv7();
      this.typed.set({ of: '', runs: [] });
      this.toasts.say('Measurement kept.');
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}

/** `runs.0.litres must be…` as a person counts: *Run 1, litres must be…*. */
const sayPath = (message: string): string =>
  message.replace(/^runs\.(\d+)\.(\w+)/, (_all, i: string, what: string) => `Run ${Number(i) + 1}, ${what}`);
