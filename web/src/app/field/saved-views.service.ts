import { HttpClient } from '@angular/common/http';
import { inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { savedViewsSchema, type SavedView } from '@sombra/contract';
import { catchError, map, merge, of, Subject, switchMap, tap, type Observable } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { SessionService } from '../session/session.service';

/** The views a person keeps under names. */
@Injectable({ providedIn: 'root' })
export class SavedViewsService {
  private readonly http = inject(HttpClient);
  private readonly asked = new Subject<void>();
  private readonly list = signal<readonly SavedView[]>([]);
  readonly views = this.list.asReadonly();

  constructor() {
    const session = inject(SessionService);
    merge(this.asked, session.signedIn$)
      .pipe(
        switchMap(() => this.http.get('/api/views').pipe(catchError(() => of([])))),
        takeUntilDestroyed(),
      )
      .subscribe((body) => this.take(body));
    if (session.state() === 'in') this.asked.next();
  }

  save(view: Pick<SavedView, 'name' | 'path' | 'query'>): Observable<void> {
    return this.taking(this.http.post('/api/views', { ...view, id: uuidv7() }));
  }

  drop(id: string): Observable<void> {
    return this.taking(this.http.delete(`/api/views/${id}`));
  }

  private taking(answer: Observable<object>): Observable<void> {
    return answer.pipe(
      tap((body) => this.take(body)),
      map(() => undefined),
    );
  }

  private take(body: unknown): void {
    this.list.set(savedViewsSchema.parse(body));
  }
}
