import { HttpClient } from '@angular/common/http';
import { computed, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { deskSchema, type Desk, type Problem } from '@sombra/contract';
import { catchError, filter, map, merge, of, Subject, switchMap, tap } from 'rxjs';
import { LiveService } from '../ui/live.service';
import { readProblem } from '../ui/problem';
import { ViewState } from '../ui/view-state.service';
import { OutboxService } from '../offline/outbox.service';
import { SessionService } from '../session/session.service';

/** The ranked list of what needs somebody, refreshed after every record that was kept. */
@Injectable({ providedIn: 'root' })
export class DeskService {
  private readonly http = inject(HttpClient);
  private readonly asked = new Subject<void>();
  private readonly latest = signal<Desk | null>(null);
  private readonly failed = signal<Problem | null>(null);
  readonly desk = this.latest.asReadonly();
  readonly problem = this.failed.asReadonly();
  readonly waiting = computed(() => this.latest()?.waiting ?? {});

  /** Planting days with spots nobody may dig at. */
  readonly uncovered = computed(() => this.latest()?.uncovered ?? []);

  constructor() {
    const session = inject(SessionService);
    const outbox = inject(OutboxService);
    const view = inject(ViewState);
    merge(this.asked, session.signedIn$, outbox.delivered$, inject(LiveService).settled$, toObservable(view.onParam))
      .pipe(
        filter(() => session.state() === 'in'),
        switchMap(() => this.fetch(view.onParam())),
        takeUntilDestroyed(),
      )
      .subscribe();
  }

  refresh(): void {
    this.asked.next();
  }

  private fetch(on: string | undefined) {
    return this.http.get('/api/desk', { params: on ? { on } : {} }).pipe(
      // The schema checks the shape; reasons keep the types the core gave them.
      map((body) => deskSchema.parse(body) as unknown as Desk),
      tap((desk) => {
        this.latest.set(desk);
        this.failed.set(null);
      }),
      catchError((error: unknown) => {
        this.failed.set(readProblem(error));
        return of(null);
      }),
    );
  }
}
