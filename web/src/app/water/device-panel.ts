import { ChangeDetectionStrategy, Component, computed, inject, input, resource, signal } from '@angular/core';
import {
  addMonthsTo,
  chooseDevice,
  deviceCatalogue,
  downMmOf,
  drainsSlowly,
  formatQuantity,
  hosePlaces,
  hosePositions,
  ofKind,
  sayMinutes,
  standing,
  takesLPerHOf,
  type DeviceFit,
  type TreeWater,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { DrawingView } from '../drawing/drawing-view';
import { SessionService } from '../session/session.service';
import { RecordSender } from '../spot/record-sender';
import { SpotStore } from '../spot/spot-store';
import { BecauseList } from '../ui/because-list';
import { sayDay } from '../ui/say-date';
import { measuredFlows, sayHours } from './device-words';
import { DevicesService } from './devices.service';

const shown = 4;

/** What brings this tree its water: what stands there, what would do, and where a hose lies. */
@Component({
  selector: 's-device-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView, BecauseList],
  template: `
    <details (toggle)="opened.set(true)">
      <summary>{{ summary() }}</summary>
      @if (opened()) {
        <p class="quiet">For {{ dose() }} at a time.</p>
        <table class="plain">
          <thead>
            <tr>
              <th scope="col">Device</th>
              <th scope="col">Runs</th>
              <th scope="col">Hands, a visit</th>
              <td></td>
            </tr>
          </thead>
          <tbody>
            @for (fit of fits(); track fit.device.id) {
              <tr [class.not]="!fit.fits">
                <th scope="row">
                  {{ fit.count > 1 ? fit.count + ' × ' : '' }}{{ fit.device.name }}
                  @if (!fit.fits) {
                    <b>does not fit</b>
                  }
                  <s-because [reasons]="fit.because" />
                </th>
                <td>{{ hours(fit) }}</td>
                <td>{{ minutes(fit.handMinutes) }}</td>
                <td>
                  @if (mayWater() && fit.fits) {
                    <button type="button" class="btn btn-outline-primary" [disabled]="sender.busy()" (click)="set(fit)">
                      Set
                    </button>
                  }
                </td>
              </tr>
            }
          </tbody>
        </table>
        @if (!all()) {
          <button type="button" class="btn btn-link" (click)="all.set(true)">All devices</button>
        }
        @if (hose(); as lies) {
          <h3>Where a hose lies</h3>
          <div class="hose">
            <s-drawing [drawing]="lies.drawing" />
            <div>
              <p>
                <b>{{ lies.words }}</b>
              </p>
              <s-because [reasons]="lies.because" />
            </div>
          </div>
        }
      }
    </details>
  `,
  styles: `
    summary {
      min-height: 44px;
      padding-top: 0.6rem;
    }
    h3 {
      font-size: 1.05rem;
      margin: 0.8rem 0 0.3rem;
    }
    .hose {
      display: flex;
      flex-wrap: wrap;
      gap: 1rem;
      align-items: center;
    }
    th {
      font-weight: 600;
    }
    tr.not th,
    tr.not td {
      color: var(--quiet);
    }
    td {
      vertical-align: top;
      white-space: nowrap;
    }
    .btn-outline-primary {
      min-height: 44px;
    }
  `,
})
export class DevicePanel {
  readonly water = input.required<TreeWater>();
  protected readonly store = inject(SpotStore);
  protected readonly sender = inject(RecordSender);
  private readonly session = inject(SessionService);
  private readonly doors = inject(DevicesService);
  protected readonly all = signal(false);
  protected readonly opened = signal(false);
  protected readonly minutes = sayMinutes;
  protected readonly hours = (fit: DeviceFit): string => sayHours(fit.runHours);
  protected readonly mayWater = computed(() => this.session.may('record_device'));
  /** Without a network the catalogue that ships answers. */
  private readonly devices = resource({
    params: () => (this.opened() ? true : undefined),
    loader: () => firstValueFrom(this.doors.all()).catch(() => []),
  });

  private readonly doseL = computed(() => {
    const { next, holdsL } = this.water();
    return next.kind === 'water' ? next.litres : Math.max(0.5, holdsL);
  });
  protected readonly dose = computed(() => formatQuantity(this.doseL(), 'volumeL', this.session.units()));
  private readonly set_ = computed(() => {
    const kept = standing(this.store.records());
    const last = ofKind(kept, 'device').at(-1)?.facts;
    const off = ofKind(kept, 'remedy').some(
      ({ facts }) => facts.remedy === 'take_off_device' && last !== undefined && facts.doneOn >= last.setOn,
    );
    return last && !off ? last : null;
  });
  protected readonly summary = computed(() => {
    const set = this.set_();
    if (!set) return 'How it gets there: devices, and where a hose lies';
    const off = set.offBy ? `, off by ${sayDay(set.offBy)}` : '';
    return `${set.joined > 1 ? `${set.joined} × ` : ''}${set.deviceName} since ${sayDay(set.setOn)}${off}`;
  });

  private readonly choices = computed((): DeviceFit[] => {
    const life = this.store.life();
    const stock = life?.stock;
    if (!life || !stock) return [];
    const { ground } = life;
    const kept = this.devices.value() ?? [];
    const catalogue = kept.length > 0 ? kept.filter(({ retired }) => !retired) : deviceCatalogue;
    const ballMm = stock.kind === 'bare_root' ? stock.rootSpreadMm : stock.ballDiameterMm;
    const site = {
      doseL: this.doseL(),
      caliperMm: stock.caliperMm,
      clearStemMm: stock.firstBranchM === undefined || stock.firstBranchM === null ? null : stock.firstBranchM * 1000,
      slopePct: ground.slopePct ?? 0,
      compacted: ground.compacted,
      slowSoil: drainsSlowly(life.percolation),
      takesLPerH: takesLPerHOf(ballMm, downMmOf(life.percolation ?? null)),
    };
    return chooseDevice(site, catalogue, measuredFlows(kept));
  });
  protected readonly fits = computed(() => (this.all() ? this.choices() : this.choices().slice(0, shown)));

  protected readonly hose = computed(() => {
    const life = this.store.life();
    const stock = life?.stock;
    const truck = this.choices().find(({ device }) => device.id === 'truck-hose');
    if (!life || !stock || !truck?.runHours) return null;
    const ballDiameterMm = stock.kind === 'bare_root' ? stock.rootSpreadMm : stock.ballDiameterMm;
    const { slopePct, fallsTowardsDeg } = life.ground;
    const uphillDeg = fallsTowardsDeg === null ? null : (fallsTowardsDeg + 180) % 360;
    const lPerMin = this.doseL() / (truck.runHours * 60);
    const plan = hosePositions({ ballDiameterMm, slopePct: slopePct ?? 0, uphillDeg, lPerMin, doseL: this.doseL() });
    const units = this.session.units();
    const [first] = plan.positions;
    return {
      drawing: hosePlaces({ plan, ballDiameterMm, uphillDeg, units, sidePx: 220 }),
      words: `${plan.positions.length} places, ${sayMinutes(first?.minutes ?? 0)} at each, ${formatQuantity(lPerMin, 'volumeL', units)} a minute`,
      because: [
        ...plan.because,
        ...truck.because.filter(({ code }) => code.startsWith('device_label') || code.startsWith('device_meas')),
      ],
    };
  });

  protected async set({ device, count }: DeviceFit): Promise<void> {
    const setOn = this.session.today();
    const offBy = device.offAfterMonths === null ? null : addMonthsTo(setOn, Math.round(device.offAfterMonths));
    const facts = { setOn, deviceId: device.id, deviceName: device.name, joined: count, offBy };
    await this.sender.send({ kind: 'device', facts, supersedes: null }, `${device.name} set.`);
  }
}
