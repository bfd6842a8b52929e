import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  droughtSchema,
  waterListSchema,
  type DroughtWatch,
  weatherReportSchema,
  type RainGauge,
  type WaterFilter,
  type WaterList,
  type WeatherReport,
} from '@sombra/contract';
import { map, type Observable } from 'rxjs';

export interface WaterAsk extends WaterFilter {
  readonly offset: number;
  readonly limit: number;
}

/** Doors of the town's water. */
@Injectable({ providedIn: 'root' })
export class WaterService {
  private readonly http = inject(HttpClient);

  /** Takes a file of measured days; `confirmed` where what hardly ever happens did happen. */
  importWeather(file: File, confirmed: boolean): Observable<WeatherReport> {
    const options = { params: { confirmed: confirmed ? 'yes' : 'no' }, headers: { 'content-type': 'text/csv' } };
    return this.http.post('/api/water/weather', file, options).pipe(map((body) => weatherReportSchema.parse(body)));
  }
  gauge(gauge: RainGauge): Observable<unknown> {
    return this.http.put('/api/water/gauge', gauge);
  }

  drought(): Observable<DroughtWatch> {
    return this.http.get('/api/water/drought').pipe(map((body) => droughtSchema.parse(body)));
  }

  list({ group, place, unread, offset, limit }: WaterAsk): Observable<WaterList> {
    const params = {
      offset,
      limit,
      ...(group ? { group } : {}),
      ...(place ? { place } : {}),
      ...(unread ? { unread } : {}),
    };
    return this.http.get('/api/water/trees', { params }).pipe(map((body) => waterListSchema.parse(body)));
  }
}

/** Where the same list is to be had as a file. */
export function waterCsvUrl({ group, place, unread }: WaterFilter): string {
  const params = new URLSearchParams({
    ...(group ? { group } : {}),
    ...(place ? { place } : {}),
    ...(unread ? { unread } : {}),
  });
  return `/api/water/trees.csv?${params.toString()}`;
}
