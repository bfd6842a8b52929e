import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { SpotLine, SpotSort } from '@sombra/contract';
import { levelNames } from '@sombra/core';
import { sayDate } from '../ui/say-date';
import { ViewState } from '../ui/view-state.service';
import { columns } from './columns';

/** The list as seen, for paper. */
@Component({
  selector: 's-list-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1>{{ title() }}</h1>
    <p>{{ lines().length }} spots, {{ date(view.on()) }}</p>
    <table class="plain">
      <thead>
        <tr>
          @for (column of shownColumns(); track column.key) {
            <th scope="col">{{ column.name }}</th>
          }
        </tr>
      </thead>
      <tbody>
        @for (line of lines(); track line.spotId) {
          <tr>
            @for (column of shownColumns(); track column.key) {
              <td>{{ column.key === 'level' ? level(line) : column.cell(line, view.on()) }}</td>
            }
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    :host {
      display: none;
    }
    @media print {
      :host {
        display: block;
      }
      td {
        padding-block: 0.15rem;
      }
    }
  `,
})
export class ListSheet {
  readonly lines = input.required<readonly SpotLine[]>();
  readonly shown = input.required<readonly SpotSort[]>();
  readonly title = input.required<string>();
  protected readonly view = inject(ViewState);
  protected readonly date = sayDate;
  protected readonly shownColumns = computed(() => columns.filter(({ key }) => this.shown().includes(key)));

  protected level({ level, plantedOn }: SpotLine): string {
    return plantedOn ? levelNames[level] : '';
  }
}
