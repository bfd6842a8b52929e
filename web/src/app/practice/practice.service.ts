import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { practicesSchema, seasonMaterialsSchema, type Practices, type SeasonMaterials } from '@sombra/contract';
import type { Practice } from '@sombra/core';
import { map, type Observable } from 'rxjs';

/** Doors to practices, and to what they ask for over many spots. */
@Injectable({ providedIn: 'root' })
export class PracticeService {
  private readonly http = inject(HttpClient);

  practices(): Observable<Practices> {
    return this.http.get('/api/practices').pipe(map((body) => practicesSchema.parse(body)));
  }

  save(practice: Practice): Observable<Practices> {
    return this.http.put('/api/practices', { practice }).pipe(map((body) => practicesSchema.parse(body)));
  }

  adopt({ id, version }: Practice): Observable<Practices> {
    return this.http.post('/api/practices/adopt', { id, version }).pipe(map((body) => practicesSchema.parse(body)));
  }

  materials(params: Record<string, string>): Observable<SeasonMaterials> {
    return this.http.get('/api/materials', { params }).pipe(map((body) => seasonMaterialsSchema.parse(body)));
  }
}
