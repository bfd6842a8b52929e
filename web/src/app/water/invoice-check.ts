import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { InvoiceReport } from '@sombra/contract';
import { formatQuantity, type InvoiceVerdict } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { takeFile } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { RoundsService } from './rounds.service';

const verdictNames: Readonly<Record<InvoiceVerdict, string>> = {
  proven: 'on record',
  less_water: 'less water on record',
  other_day: 'on record a day off',
  charged_twice: 'charged twice',
  not_on_record: 'not on record',
};

/** A contractor's invoice, held against what was recorded at the trees. Nothing of it is kept. */
@Component({
  selector: 's-invoice-check',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-labelledby="invoice">
      <h2 id="invoice">Check an invoice</h2>
      <p class="quiet">
        A CSV with the columns <code>ref</code>, <code>watered_on</code> and <code>litres</code>, one watering a row.
        Each is held against what was recorded at its tree.
      </p>
      <label class="btn btn-outline-primary">
        Choose the file
        <input class="visually-hidden" type="file" accept=".csv,text/csv" (change)="read($event)" />
      </label>
      @if (fault(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      @if (report(); as found) {
        <p role="status">
          <b>{{ headline() }}</b>
        </p>
        @if (found.issues.length > 0) {
          <ul class="problem" role="alert">
            @for (issue of found.issues.slice(0, 20); track $index) {
              <li>Row {{ issue.row }}, {{ issue.column }} {{ issue.message }}.</li>
            }
          </ul>
        }
        <table class="plain">
          <thead>
            <tr>
              <th scope="col" class="num">Row</th>
              <th scope="col">Charged</th>
              <th scope="col">Found</th>
            </tr>
          </thead>
          <tbody>
            @for (line of doubtful(); track line.row) {
              <tr>
                <td class="num">{{ line.row }}</td>
                <td>{{ line.charged }}</td>
                <td>
                  <b>{{ line.verdict }}</b>{{ line.found }}
                </td>
              </tr>
            }
          </tbody>
        </table>
        @if (uncharged(); as words) {
          <p class="quiet">{{ words }}</p>
        }
      }
    </section>
  `,
  styles: `
    section {
      margin-top: 1.5rem;
    }
    .btn {
      min-height: 44px;
    }
    .btn:focus-within {
      outline: 3px solid var(--chosen);
    }
  `,
})
export class InvoiceCheckPanel {
  private readonly doors = inject(RoundsService);
  private readonly session = inject(SessionService);
  protected readonly report = signal<InvoiceReport | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly headline = computed(() => {
    const lines = this.report()?.lines ?? [];
    const proven = lines.filter(({ verdict }) => verdict === 'proven').length;
    return `${proven} of ${lines.length} waterings are on record as charged.`;
  });
  protected readonly doubtful = computed(() => {
    const litres = (value: number) => formatQuantity(value, 'volumeL', this.session.units());
    return (this.report()?.lines ?? [])
      .filter(({ verdict }) => verdict !== 'proven')
      .map(({ row, line, verdict, proof }) => ({
        row,
        charged: `${line.ref}, ${sayDay(line.wateredOn)}, ${litres(line.litres)}`,
        verdict: verdictNames[verdict],
        found: proof
          ? `: ${sayDay(proof.wateredOn)}, ${litres(proof.litres)}, ${proof.by}, ${proof.photos === 1 ? '1 photo' : `${proof.photos} photos`}`
          : '',
      }));
  });
  protected readonly uncharged = computed(() => {
    const left = this.report()?.uncharged.length ?? 0;
    return left === 0
      ? ''
      : `${left} ${left === 1 ? 'watering' : 'waterings'} at these trees stand on record and on no line.`;
  });

  protected async read(event: Event): Promise<void> {
    const file = takeFile(event);
    if (!file) return;
    this.fault.set(null);
    try {
      this.report.set(await firstValueFrom(this.doors.invoice(file)));
    } catch (error) {
      this.report.set(null);
      this.fault.set(sayProblem(readProblem(error)));
    }
  }
}
