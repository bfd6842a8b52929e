import { HttpClient, HttpParams } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  facetsSchema,
  nearSchema,
  rankSchema,
  spotListSchema,
  type AddSpot,
  type Facets,
  type Near,
  type SpotFilter,
  type SpotList,
  type SpotSort,
  type Withdraw,
} from '@sombra/contract';
import { catchError, map, of, type Observable } from 'rxjs';
import { filterParams } from '../ui/view-state.service';
import { readSpotDetail } from './spot-context';

export interface ListPage {
  readonly filter: SpotFilter;
  readonly sort?: SpotSort;
  readonly down?: boolean;
  readonly offset?: number;
  readonly limit?: number;
}

@Injectable({ providedIn: 'root' })
export class SpotListService {
  private readonly http = inject(HttpClient);

  list({ filter, ...page }: ListPage): Observable<SpotList> {
    return this.http
      .get('/api/spots', { params: paramsOf({ ...filterParams(filter), ...page }) })
      .pipe(map((body) => spotListSchema.parse(body)));
  }

  facets(filter: SpotFilter): Observable<Facets> {
    return this.http
      .get('/api/spots/facets', { params: paramsOf(filterParams(filter)) })
      .pipe(map((body) => facetsSchema.parse(body) as Facets));
  }

  /** Place of a spot in a list, from 0; `null` where the filter leaves it out. */
  rank({ filter, sort, down }: ListPage, spotId: string): Observable<number | null> {
    return this.http.get('/api/spots/rank', { params: paramsOf({ ...filterParams(filter), sort, down, spotId }) }).pipe(
      map((body) => rankSchema.parse(body).index),
      catchError(() => of(null)),
    );
  }

  /** The number of a spot. */
  detailRef(spotId: string): Observable<string> {
    return this.http.get(`/api/spots/${spotId}`).pipe(map((body) => readSpotDetail(body).spot.ref));
  }

  near([lng, lat]: readonly [number, number]): Observable<Near> {
    return this.http.get('/api/spots/near', { params: { lng, lat } }).pipe(map((body) => nearSchema.parse(body)));
  }

  add(spot: AddSpot): Observable<unknown> {
    return this.http.post('/api/spots', spot);
  }

  withdraw(act: Withdraw): Observable<unknown> {
    return this.http.post('/api/spots/withdraw', act);
  }

  /** Where the list as seen can be had as a file. */
  csvAddress(page: ListPage, columns: readonly SpotSort[]): string {
    const { filter, sort, down } = page;
    const params = paramsOf({ ...filterParams(filter), sort, down, columns: columns.join(',') });
    return `/api/spots.csv?${params.toString()}`;
  }
}

function paramsOf(values: object): HttpParams {
  const given = Object.entries(values).filter(([, value]) => value !== undefined && value !== '');
  return new HttpParams({ fromObject: Object.fromEntries(given.map(([key, value]) => [key, String(value)])) });
}
