import { HttpClient } from '@angular/common/http';
import { computed, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { seasonSchema, type Problem, type Season } from '@sombra/contract';
import { addDaysTo, mondayOf } from '@sombra/core';
import { catchError, combineLatest, filter, map, of, startWith, switchMap } from 'rxjs';
import { readProblem } from '../ui/problem';
import { ViewState } from '../ui/view-state.service';
import { SessionService } from '../session/session.service';

/** The band shows a year back and half a year ahead. */
export const bandWeeks = 78;
const weeksBack = 52;

/** The weeks of the band around the chosen day. */
@Injectable({ providedIn: 'root' })
export class SeasonService {
  private readonly http = inject(HttpClient);
  private readonly view = inject(ViewState);
  private readonly latest = signal<Season | null>(null);
  private readonly failed = signal<Problem | null>(null);
  readonly season = this.latest.asReadonly();
  readonly problem = this.failed.asReadonly();

  /** First Monday of the band: around today, or around the chosen day where that lies outside. */
  readonly from = computed(() => {
    const today = this.view.today();
    if (!today) return '';
    const first = addDaysTo(mondayOf(today), -7 * weeksBack);
    const on = this.view.on();
    if (on < first) return addDaysTo(mondayOf(on), -7 * 13);
    const last = addDaysTo(first, 7 * bandWeeks - 1);
    return on > last ? addDaysTo(mondayOf(on), -7 * (bandWeeks - 13)) : first;
  });

  constructor() {
    const signedIn$ = inject(SessionService).signedIn$.pipe(startWith(null));
    combineLatest([toObservable(this.from), signedIn$])
      .pipe(
        map(([from]) => from),
        filter((from) => from !== ''),
        switchMap((from) =>
          this.http.get('/api/season', { params: { from, weeks: bandWeeks } }).pipe(
            map((body) => seasonSchema.parse(body)),
            catchError((error: unknown) => {
              this.failed.set(readProblem(error));
              return of(null);
            }),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((season) => {
        if (season) {
          this.latest.set(season);
          this.failed.set(null);
        }
      });
  }
}
