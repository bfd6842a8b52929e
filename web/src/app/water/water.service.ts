import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  droughtSchema,
  tryRulesProgressSchema,
  typicalYearSchema,
  waterListSchema,
  type DroughtWatch,
  weatherReportSchema,
  type RainGauge,
  type TryRules,
  type TryRulesProgress,
  type WaterFilter,
  type WaterList,
  type WeatherReport,
} from '@sombra/contract';
import type { TypicalYear } from '@sombra/core';
import { map, type Observable } from 'rxjs';
import { ProgressService } from '../ui/progress.service';

export interface WaterAsk extends WaterFilter {
  readonly offset: number;
  readonly limit: number;
}

/** Doors of the town's water. */
@Injectable({ providedIn: 'root' })
export class WaterService {
  private readonly http = inject(HttpClient);
  private readonly progress = inject(ProgressService);

  /** Takes a file of measured days; `confirmed` where what hardly ever happens did happen. */
  importWeather(file: File, confirmed: boolean): Observable<WeatherReport> {
    const options = { params: { confirmed: confirmed ? 'yes' : 'no' }, headers: { 'content-type': 'text/csv' } };
    return this.http.post('/api/water/weather', file, options).pipe(map((body) => weatherReportSchema.parse(body)));
  }
  gauge(gauge: RainGauge): Observable<unknown> {
    return this.http.put('/api/water/gauge', gauge);
  }

  /** A year of real months, each as months usually are; `null` where too few years are known. */
  typical(): Observable<TypicalYear | null> {
    return this.http.get('/api/water/typical').pipe(map((body) => typicalYearSchema.parse(body)));
  }
  /** Every rule on every followed tree of a place or a season, line by line. */
  tryRules(asked: TryRules): Observable<TryRulesProgress> {
    return this.progress.post('/api/water/rules', asked).pipe(map((line) => tryRulesProgressSchema.parse(line)));
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
