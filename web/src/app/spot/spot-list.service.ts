import { HttpClient, HttpParams } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { spotListSchema, type SpotList } from '@sombra/contract';
import { map, type Observable } from 'rxjs';

@Injectable({ providedIn: 'root' })
export class SpotListService {
  private readonly http = inject(HttpClient);

  list(query: { stage?: string; find?: string; after?: string; limit?: number }): Observable<SpotList> {
    const given = Object.entries(query).filter(([, value]) => value !== undefined && value !== '');
    const params = new HttpParams({
      fromObject: Object.fromEntries(given.map(([key, value]) => [key, String(value)])),
    });
    return this.http.get('/api/spots', { params }).pipe(map((body) => spotListSchema.parse(body)));
  }
}
