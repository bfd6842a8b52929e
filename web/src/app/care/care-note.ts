import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import type { CareWaiting } from '@sombra/contract';
import { SessionService } from '../session/session.service';
import { LiveService } from '../ui/live.service';
import { catchError, of, startWith, switchMap } from 'rxjs';
import { CareService } from './care.service';

const some = (count: number, one: string, many: string): string[] =>
  count === 0 ? [] : [count === 1 ? `1 ${one}` : `${count} ${many}`];

/** On the desk: who of those that keep a tree calls for help, complains, or has gone silent. */
@Component({
  selector: 's-care-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    @if (words(); as text) {
      <p class="problem">
        {{ text }}
        <a routerLink="/keepers" [queryParams]="{ group: group() }">See who</a>
      </p>
    }
  `,
})
export class CareNote {
  private readonly waiting = signal<CareWaiting | null>(null);
  protected readonly words = computed(() => {
    const now = this.waiting();
    if (!now) return '';
    const said = [
      ...some(now.help, 'keeper calls for help', 'keepers call for help'),
      ...some(now.complaints, 'complaint waits for an answer', 'complaints wait for an answer'),
      ...some(
        now.silent,
        'keeper has gone silent though the tree asks',
        'keepers have gone silent though their trees ask',
      ),
    ];
    return said.length === 0 ? '' : `${said.join('; ')}.`;
  });
  protected readonly group = computed(() => {
    const now = this.waiting();
    return now && now.help + now.complaints > 0 ? 'waits' : 'silent';
  });

  constructor() {
    if (!inject(SessionService).may('give_care')) return;
    const doors = inject(CareService);
    inject(LiveService)
      .settled$.pipe(
        startWith(undefined),
        switchMap(() => doors.waiting().pipe(catchError(() => of(null)))),
        takeUntilDestroyed(),
      )
      .subscribe((now) => this.waiting.set(now));
  }
}
