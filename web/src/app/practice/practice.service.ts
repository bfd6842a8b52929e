import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  adoptProgressSchema,
  listHeadSchema,
  plantingDaysSchema,
  practicesSchema,
  seasonMaterialsSchema,
  settlementSchema,
  type AdoptProgress,
  type ListHead,
  type MeasuredSettlement,
  type PlantingDays,
  type Practices,
  type SeasonMaterials,
} from '@sombra/contract';
import type { Practice } from '@sombra/core';
import { map, type Observable } from 'rxjs';
import { ProgressService } from '../ui/progress.service';

/** Doors to practices, and to what they ask for over many spots. */
@Injectable({ providedIn: 'root' })
export class PracticeService {
  private readonly http = inject(HttpClient);
  private readonly progress = inject(ProgressService);

  practices(): Observable<Practices> {
    return this.http.get('/api/practices').pipe(map((body) => practicesSchema.parse(body)));
  }

  save(practice: Practice): Observable<Practices> {
    return this.http.put('/api/practices', { practice }).pipe(map((body) => practicesSchema.parse(body)));
  }

  /** Every spot is worked out afresh meanwhile; it goes on when nobody listens any more. */
  adopt({ id, version }: Pick<Practice, 'id' | 'version'>): Observable<AdoptProgress> {
    return this.progress
      .post('/api/practices/adopt', { id, version })
      .pipe(map((line) => adoptProgressSchema.parse(line)));
  }

  /** Stops a change of practice where it is, to be gone on with or taken back. */
  stopAdopting(): Observable<Practices> {
    return this.http.post('/api/practices/adopt/stop', {}).pipe(map((body) => practicesSchema.parse(body)));
  }

  /** What measured drops say of fill under balls; `null` while nobody measured one. */
  settlement(): Observable<MeasuredSettlement> {
    return this.http.get('/api/practices/settlement').pipe(map((body) => settlementSchema.parse(body)));
  }

  plantingDays(): Observable<PlantingDays> {
    return this.http.get('/api/planting-days').pipe(map((body) => plantingDaysSchema.parse(body)));
  }

  lists(): Observable<ListHead[]> {
    return this.http.get('/api/lists').pipe(map((body) => listHeadSchema.array().parse(body)));
  }

  materials(params: Record<string, string>): Observable<SeasonMaterials> {
    return this.http.get('/api/materials', { params }).pipe(map((body) => seasonMaterialsSchema.parse(body)));
  }
}
