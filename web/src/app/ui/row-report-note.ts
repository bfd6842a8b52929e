import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { RowReport } from '@sombra/contract';

/** What a file of rows did: rows written, rows that say nothing new, and each bad row with its column. */
@Component({
  selector: 's-row-report',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p role="status">
      <b>{{ report().written }} {{ report().written === 1 ? 'row' : 'rows' }} stored</b>, {{ report().same }} were
      already here{{
        report().issues.length > 0 && report().written === 0 && whole() ? '; the file was refused whole' : ''
      }}.
    </p>
    @if (report().issues.length > 0) {
      <table class="plain problem" role="alert">
        <thead>
          <tr>
            <th scope="col" class="num">Row</th>
            <th scope="col">Column</th>
            <th scope="col">What is wrong</th>
          </tr>
        </thead>
        <tbody>
          @for (issue of report().issues.slice(0, 30); track $index) {
            <tr>
              <td class="num">{{ issue.row }}</td>
              <td>
                <code>{{ issue.column }}</code>
              </td>
              <td>{{ issue.message }}</td>
            </tr>
          }
        </tbody>
      </table>
      @if (report().issues.length > 30) {
        <p class="quiet">{{ report().issues.length - 30 }} more.</p>
      }
    }
  `,
})
export class RowReportNote {
  readonly report = input.required<RowReport>();
  /** Such files are taken whole or not at all. */
  readonly whole = input(false);
}
