import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { keptDayOf } from '@sombra/contract';
import { readinessOf, sayReason } from '@sombra/core';
import { catchError, forkJoin, map, of, switchMap } from 'rxjs';
import { SessionService } from '../session/session.service';
import { LevelMark } from '../ui/level-mark';
import { sayDate } from '../ui/say-date';
import { dayKindNames, topicNames } from './day-words';
import { DaysService } from './days.service';

/** So many days ahead are judged. */
const judged = 3;

/** The next planting days and whether each may be held as it stands: what stops it comes first. */
@Component({
  selector: 's-coming-days-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, LevelMark],
  template: `
    <h2>Days to come</h2>
    @for (day of days() ?? []; track day.id) {
      <section [attr.aria-label]="day.title">
        <h3>
          <s-level-mark [level]="day.level" />
          <a [routerLink]="['/days', day.id]">{{ day.title }}</a> <span class="quiet">{{ day.when }}</span>
        </h3>
        <ul>
          @for (line of day.lines; track line.topic) {
            <li>
              <b>{{ line.topic }}:</b> {{ line.because }}
            </li>
          } @empty {
            <li>Nothing stands in its way.</li>
          }
        </ul>
      </section>
    } @empty {
      @if (days()) {
        <p class="quiet">No day is planned. <a routerLink="/days">Plan one</a></p>
      }
    }
  `,
  styles: `
    h3 {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
      align-items: baseline;
    }
  `,
})
export class ComingDaysNote {
  private readonly doors = inject(DaysService);
  private readonly session = inject(SessionService);
  protected readonly days = toSignal(
    this.doors.all().pipe(
      map((days) =>
        days
          .filter(({ onDay, state }) => onDay >= this.session.today() && state === 'planned')
          .sort((a, b) => a.onDay.localeCompare(b.onDay))
          .slice(0, judged),
      ),
      switchMap((days) => (days.length === 0 ? of([]) : forkJoin(days.map(({ id }) => this.doors.one(id))))),
      map((details) =>
        details.map((day) => {
          const { lines } = readinessOf(keptDayOf(day, this.session.units()));
          const open = lines.filter(({ level }) => level !== 'good');
          return {
            id: day.id,
            title: day.title,
            when: `${sayDate(day.onDay)}, ${dayKindNames[day.kind].toLowerCase()}`,
            level: open[0]?.level ?? ('good' as const),
            lines: open.slice(0, 4).map(({ topic, because }) => ({
              topic: topicNames[topic],
              because: because.map((reason) => sayReason(reason, this.session.units())).join(' '),
            })),
          };
        }),
      ),
      catchError(() => of(null)),
    ),
  );
}
