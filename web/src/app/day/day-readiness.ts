import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { keptDayOf, type DayDetail } from '@sombra/contract';
import { learnPace, readinessOf } from '@sombra/core';
import { BecauseList } from '../ui/because-list';
import { LevelMark } from '../ui/level-mark';
import { SessionService } from '../session/session.service';
import { topicCures, topicNames } from './day-words';

/** Whether the day may be held as it stands: red lines first, each with the act that cures it. */
@Component({
  selector: 's-day-readiness',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, LevelMark, BecauseList],
  template: `
    <table class="plain">
      <thead>
        <tr>
          <th scope="col">Standing</th>
          <th scope="col">What</th>
          <th scope="col">Because</th>
          <th scope="col">Act</th>
        </tr>
      </thead>
      <tbody>
        @for (line of ready().lines; track line.topic) {
          <tr [class.red]="line.level === 'urgent'">
            <td><s-level-mark [level]="line.level" /></td>
            <th scope="row">{{ names[line.topic] }}</th>
            <td>
              <s-because [reasons]="line.because" />
              @if (spotsOf(line.refs); as spots) {
                @if (spots.length > 0) {
                  <p class="refs">
                    @for (spot of spots; track spot.spotId) {
                      <a [routerLink]="['/town', spot.spotId]" [title]="spot.why">{{ spot.ref }}</a>
                    }
                  </p>
                }
              }
            </td>
            <td>
              @if (line.level !== 'good') {
                @if (cures[line.topic].path; as path) {
                  <a
                    class="btn btn-outline-primary"
                    [routerLink]="path"
                    [queryParams]="line.topic === 'materials' ? { day: day().id } : {}"
                    >{{ cures[line.topic].act }}</a
                  >
                } @else {
                  <a
                    class="btn btn-outline-primary"
                    [routerLink]="[]"
                    [queryParams]="{ part: cures[line.topic].part }"
                    >{{ cures[line.topic].act }}</a
                  >
                }
              }
            </td>
          </tr>
        }
      </tbody>
    </table>
    <h2>Pace</h2>
    <s-because [reasons]="pace().because" />
    <p class="papers">
      @if (mayRun()) {
        <a class="btn btn-outline-primary" target="_blank" [href]="file('packet.pdf')">All papers, PDF</a>
        <a class="btn btn-outline-primary" target="_blank" [href]="file('sheets.pdf')">Sheets, PDF</a>
        @if (day().kind === 'volunteers') {
          <a class="btn btn-outline-primary" target="_blank" [href]="file('name-tags.pdf')">Name tags, PDF</a>
        }
      }
      <a class="btn btn-outline-primary" download [href]="file('day.ics')">Calendar</a>
      <a class="btn btn-outline-primary" download [href]="file('teams.gpx')">Ways, GPX</a>
      <a class="btn btn-outline-primary" download [href]="file('teams.geojson')">Ways, GeoJSON</a>
    </p>
    <p class="caution">
      Red lines are nobody’s to wave through: local codes, the utilities’ marks and licensed practitioners go before
      this page.
    </p>
  `,
  styles: `
    table {
      max-width: 70rem;
    }
    td,
    th {
      vertical-align: top;
      padding: 0.45rem 0.6rem;
    }
    tr.red {
      background: var(--problem-paper);
    }
    .refs {
      display: flex;
      flex-wrap: wrap;
      gap: 0.1rem 0.7rem;
      margin: 0.2rem 0 0;
    }
    .papers {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
    }
    @media (max-width: 720px) {
      tr {
        display: grid;
        grid-template-columns: 6rem 1fr;
      }
      td:nth-child(n + 3) {
        grid-column: 1 / -1;
      }
      thead {
        display: none;
      }
    }
  `,
})
export class DayReadiness {
  readonly day = input.required<DayDetail>();
  private readonly session = inject(SessionService);
  protected readonly names = topicNames;
  protected readonly cures = topicCures;
  protected readonly mayRun = computed(() => this.session.may('run_day'));
  protected readonly ready = computed(() => readinessOf(keptDayOf(this.day(), this.session.units())));
  protected readonly pace = computed(() => learnPace(this.day().worked));

  protected spotsOf(refs: readonly string[]): DayDetail['trees'] {
    return this.day().trees.filter(({ ref }) => refs.includes(ref));
  }
  protected file(name: string): string {
    return `/api/planting-days/${this.day().id}/${name}`;
  }
}
