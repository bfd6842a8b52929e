import { HttpClient } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { devicesSchema, type Device } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { deviceId } from '../session/device-id';
import { readProblem, sayProblem } from '../ui/problem';
import { sayMoment } from '../ui/say-date';

/** Phones and computers people signed in on; a lost one is made to forget what it keeps. */
@Component({
  selector: 's-devices-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>Devices</h2>
    <p class="quiet">
      A device that is wiped ends its sessions at once. On its next contact it brings what was not sent, sealed, and
      forgets the rest.
    </p>
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <table class="plain">
      <thead>
        <tr>
          <th scope="col">Device</th>
          <th scope="col">People</th>
          <th scope="col">Last seen</th>
          <th scope="col"><span class="visually-hidden">Wipe</span></th>
        </tr>
      </thead>
      <tbody>
        @for (one of devices(); track one.id) {
          <tr>
            <td>{{ one.name || 'Device' }}{{ one.id === own ? ', this one' : '' }}</td>
            <td>{{ one.people.join(', ') }}</td>
            <td>{{ moment(one.lastSeenAt) }}</td>
            <td>
              @if (one.wipeAskedAt && one.wipedAt && one.wipedAt > one.wipeAskedAt) {
                wiped {{ moment(one.wipedAt) }}
              } @else if (one.wipeAskedAt) {
                to be wiped on its next contact
              } @else if (one.id !== own) {
                <button type="button" class="btn btn-sm btn-outline-primary" [disabled]="busy()" (click)="wipe(one)">
                  {{ sure() === one.id ? 'Yes, wipe it' : 'Wipe it' }}
                </button>
              }
            </td>
          </tr>
        } @empty {
          <tr>
            <td colspan="4" class="quiet">Nobody signed in over https or on this machine yet.</td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    h2 {
      margin-top: 1.4rem;
    }
  `,
})
export class DevicesPanel {
  private readonly http = inject(HttpClient);
  protected readonly own = deviceId();
  protected readonly moment = sayMoment;
  protected readonly devices = signal<readonly Device[]>([]);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly sure = signal<string | null>(null);

  constructor() {
    void this.run(() => firstValueFrom(this.http.get('/api/devices')));
  }

  /** Asked twice: what was taken along on it is gone then. */
  protected async wipe({ id }: Device): Promise<void> {
    if (this.sure() !== id) {
      this.sure.set(id);
      return;
    }
    this.sure.set(null);
    await this.run(() => firstValueFrom(this.http.post(`/api/devices/${id}/wipe`, {})));
  }

  private async run(ask: () => Promise<unknown>): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      this.devices.set(devicesSchema.parse(await ask()));
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    } finally {
      this.busy.set(false);
    }
  }
}
