import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  seekLooksProgressSchema,
  worthListSchema,
  type GiveLooks,
  type SeekLooks,
  type SeekLooksProgress,
  type WorthList,
} from '@sombra/contract';
import { map, type Observable } from 'rxjs';
import { ProgressService } from '../ui/progress.service';

/** Doors of looks: what each is worth, rounds of them, and who is sent out. */
@Injectable({ providedIn: 'root' })
export class LooksService {
  private readonly http = inject(HttpClient);
  private readonly progress = inject(ProgressService);

  worth(asked: { readonly place: string | null; readonly aheadDays: number }): Observable<WorthList> {
    const params = { aheadDays: asked.aheadDays, ...(asked.place ? { place: asked.place } : {}) };
    return this.http.get('/api/looks', { params }).pipe(map((body) => worthListSchema.parse(body)));
  }
  plan(asked: SeekLooks): Observable<SeekLooksProgress> {
    return this.progress.post('/api/looks/rounds', asked).pipe(map((line) => seekLooksProgressSchema.parse(line)));
  }
  give(asked: GiveLooks): Observable<unknown> {
    return this.http.post('/api/looks/give', asked);
  }
}
