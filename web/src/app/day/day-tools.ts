import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { keptDayOf, type DayDetail } from '@sombra/contract';
import { toolCodes, tools, toolsOf, type ToolCode } from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { textOf } from '../fields/event-values';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem } from '../ui/problem';
import { DaysService } from './days.service';

/** What the teams take along, against what stands in the shed. */
@Component({
  selector: 's-day-tools',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <p class="quiet">
      By soil, stock and practice of the trees{{
        day().teams.length > 0 ? ', team by team' : ', as the work would be shared out'
      }}.
    </p>
    <table class="plain">
      <thead>
        <tr>
          <th scope="col">Tool</th>
          <th scope="col" class="num">Needed</th>
          <th scope="col" class="num">In the shed</th>
          <th scope="col">Short</th>
        </tr>
      </thead>
      <tbody>
        @for (line of lines(); track line.code) {
          <tr [class.short]="line.short > 0">
            <th scope="row">{{ line.name }}</th>
            <td class="num">{{ line.needed }}</td>
            <td class="num">
              <input
                class="form-control"
                inputmode="numeric"
                [attr.aria-label]="line.name + ' in the shed'"
                [value]="line.there"
                [readOnly]="!mayCount()"
                (change)="count(line.code, textOf($event))"
              />
            </td>
            <td>{{ line.short > 0 ? line.short + ' missing' : '' }}</td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    table {
      max-width: 40rem;
    }
    input {
      width: 6rem;
      display: inline-block;
      text-align: right;
    }
    .short {
      background: var(--caution-paper);
    }
    table.plain td,
    table.plain th {
      vertical-align: middle;
    }
  `,
})
export class DayTools {
  readonly day = input.required<DayDetail>();
  readonly changed = output();
  private readonly doors = inject(DaysService);
  private readonly session = inject(SessionService);
  protected readonly textOf = textOf;
  protected readonly fault = signal<string | null>(null);
  protected readonly mayCount = computed(() => this.session.may('count_store'));
  protected readonly lines = computed(() => {
    const { all } = toolsOf(keptDayOf(this.day(), this.session.units()));
    return toolCodes
      .map((code) => {
        const [needed, there] = [all[code] ?? 0, this.day().toolsThere[code] ?? 0];
        return { code, name: tools[code], needed, there, short: Math.max(0, needed - there) };
      })
      .filter(({ needed, there }) => needed > 0 || there > 0);
  });

  protected async count(code: ToolCode, typed: string): Promise<void> {
    const count = Number(typed);
    if (!Number.isInteger(count) || count < 0 || count > 10_000) {
      this.fault.set(`${tools[code]} must be a whole number within 0–10 000, got ${typed}.`);
      return;
    }
    try {
      await firstValueFrom(this.doors.countTool(code, count));
      this.fault.set(null);
      this.changed.emit();
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    }
  }
}
