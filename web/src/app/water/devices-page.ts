import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { KeptDevice, Problem } from '@sombra/contract';
import { formatNumber, formatQuantity } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { SessionService } from '../session/session.service';
import { LiveService } from '../ui/live.service';
import { readProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ViewState } from '../ui/view-state.service';
import { DeviceForm } from './device-form';
import { DeviceBench } from './device-bench';
import { formNames } from './device-words';
import { DevicesService } from './devices.service';

/** The catalogue of what brings water slowly: what each holds and costs, how fast it runs by label and by measure. */
@Component({
  selector: 's-devices-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [StateNote, DeviceBench, DeviceForm],
  template: `
    <h1>Watering devices</h1>
    @if (problem(); as trouble) {
      <s-state-note [problem]="trouble" (again)="read()" />
    }
    @if (devices()) {
      <p class="quiet">
        Numbers that ship are estimates. Run each into a measured vessel once: from then on it is counted by what it
        does, not by its label.
      </p>
      <div class="pair">
        <div class="scroll" tabindex="0" role="region" aria-label="Devices">
          <table class="plain">
            <thead>
              <tr>
                <th scope="col">Device</th>
                <th scope="col" class="num">Holds</th>
                <th scope="col" class="num">Label, an hour</th>
                <th scope="col" class="num">Measured, an hour</th>
                <th scope="col" class="num">At trees</th>
              </tr>
            </thead>
            <tbody>
              @for (line of lines(); track line.id) {
                <tr [class.here]="line.id === chosen()?.id">
                  <th scope="row">
                    <button type="button" class="btn btn-link" (click)="view.set({ device: line.id })">
                      {{ line.name }}</button><span class="quiet">{{ line.form }}</span>
                  </th>
                  <td class="num">{{ line.holds }}</td>
                  <td class="num">{{ line.label }}</td>
                  <td class="num">
                    <b>{{ line.flow }}</b><span class="quiet">{{ line.spread }}</span>
                  </td>
                  <td class="num">{{ line.atTrees }}</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
        <div>
          @if (form(); as open) {
            <s-device-form [device]="open.device" (changed)="stored($event)" (closed)="view.set({ form: null })" />
          } @else {
            @if (chosen(); as device) {
              <s-device-bench [device]="device" (changed)="devices.set($event)" />
              @if (may()) {
                <button type="button" class="btn btn-outline-primary act" (click)="view.set({ form: 'change' })">
                  Change this device
                </button>
              }
            }
            @if (may()) {
              <button type="button" class="btn btn-outline-primary act" (click)="view.set({ form: 'new' })">
                Add a device of our own
              </button>
            }
          }
        </div>
      </div>
    } @else if (!problem()) {
      <s-state-note kind="loading" text="Reading the catalogue…" />
    }
  `,
  styleUrl: '../ui/table-and-bench.scss',
  styles: `
    :host {
      --pair: minmax(0, 1.6fr) minmax(20rem, 1fr);
    }
    .act {
      min-height: 44px;
      margin: 0.5rem 0.4rem 0 0;
    }
    th .quiet,
    td .quiet {
      font-size: 0.92rem;
    }
  `,
})
export class DevicesPage {
  private readonly doors = inject(DevicesService);
  private readonly session = inject(SessionService);
  protected readonly view = inject(ViewState);
  protected readonly devices = signal<readonly KeptDevice[] | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly chosen = computed(() => {
    const all = this.devices() ?? [];
    return all.find(({ id }) => id === this.view.text('device')) ?? all[0] ?? null;
  });
  protected readonly may = computed(() => this.session.may('change_devices'));
  /** The address says whether something is being typed, and of which device. */
  protected readonly form = computed((): { readonly device: KeptDevice | null } | null => {
    const asked = this.may() ? this.view.text('form') : null;
    if (asked === 'new') return { device: null };
    const device = this.chosen();
    return asked === 'change' && device ? { device } : null;
  });
  protected readonly lines = computed(() => {
    const units = this.session.units();
    const litres = (value: number | null) => (value === null ? '' : formatQuantity(value, 'volumeL', units));
    return (this.devices() ?? []).map((device) => ({
      id: device.id,
      name: device.retired ? `${device.name} (no longer used)` : device.name,
      form: formNames[device.form],
      holds: device.volumeL === null ? 'as long as it runs' : litres(device.volumeL),
      label: litres(device.labelledLPerH) || 'says nothing',
      flow: device.measured ? litres(device.measured.lPerH) : '',
      spread: device.measured ? this.spread(device.measured) : 'not yet',
      atTrees: formatNumber(device.atTrees, 0),
    }));
  });

  constructor() {
    void this.read();
    inject(LiveService)
      .settled$.pipe(takeUntilDestroyed())
      .subscribe(() => void this.read());
  }

  protected stored({ devices, id }: { readonly devices: readonly KeptDevice[]; readonly id: string }): void {
    this.devices.set(devices);
    this.view.set({ form: null, device: id });
  }

  private spread({ spreadPct, on }: NonNullable<KeptDevice['measured']>): string {
    return `${spreadPct === null ? 'one run' : `± ${formatNumber(spreadPct, 0)} %`}, ${sayDay(on)}`;
  }

  protected async read(): Promise<void> {
    try {
      this.devices.set(await firstValueFrom(this.doors.all()));
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }
}
