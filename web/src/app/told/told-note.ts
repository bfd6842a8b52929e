import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { catchError, of, startWith, switchMap } from 'rxjs';
import { SessionService } from '../session/session.service';
import { LiveService } from '../ui/live.service';
import { ToldService } from './told.service';

/** On the desk: what residents told and nobody has seen to. */
@Component({
  selector: 's-told-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    @if (reports(); as count) {
      <p class="problem">
        {{ count === 1 ? '1 resident told of a tree' : count + ' reports of residents wait' }}.
        <a routerLink="/told">Read what was told</a>
      </p>
    }
  `,
})
export class ToldNote {
  protected readonly reports = signal(0);

  constructor() {
    if (!inject(SessionService).may('answer_residents')) return;
    const doors = inject(ToldService);
    inject(LiveService)
      .settled$.pipe(
        startWith(undefined),
        switchMap(() => doors.waiting().pipe(catchError(() => of({ reports: 0 })))),
        takeUntilDestroyed(),
      )
      .subscribe(({ reports }) => this.reports.set(reports));
  }
}
