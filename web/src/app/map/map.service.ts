import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  bookedSchema,
  extentSchema,
  mapSchema,
  type BaseLayer,
  type Booked,
  type Extent,
  type MapInfo,
  type SpotFilter,
} from '@sombra/contract';
import { catchError, map, Observable, of } from 'rxjs';
import * as z from 'zod';
import { filterParams } from '../ui/view-state.service';

const fixSchema = z.object({
  position: z.tuple([z.number(), z.number()]),
  accuracyM: z.number(),
  simulated: z.boolean(),
});
export type Fix = z.infer<typeof fixSchema>;

@Injectable({ providedIn: 'root' })
export class MapService {
  private readonly http = inject(HttpClient);

  info(): Observable<MapInfo> {
    return this.http.get('/api/map').pipe(map((body) => mapSchema.parse(body)));
  }

  /** Where the spots of a filter lie. */
  extent(filter: SpotFilter): Observable<Extent['bounds']> {
    return this.http
      .get('/api/map/extent', { params: filterParams(filter) })
      .pipe(map((body) => extentSchema.parse(body).bounds));
  }

  booked(on: string): Observable<Booked> {
    return this.http.get('/api/map/booked', { params: { on } }).pipe(map((body) => bookedSchema.parse(body)));
  }

  setLayer(layer: BaseLayer, file: Blob): Observable<MapInfo> {
    return this.http.put(`/api/map/layers/${layer}`, file).pipe(map((body) => mapSchema.parse(body)));
  }

  setPmtiles(file: File): Observable<MapInfo> {
    return this.http
      .put('/api/map/base.pmtiles', file, { params: { fileName: file.name } })
      .pipe(map((body) => mapSchema.parse(body)));
  }

  dropPmtiles(): Observable<MapInfo> {
    return this.http.delete('/api/map/base.pmtiles').pipe(map((body) => mapSchema.parse(body)));
  }

  /** Where this person stands: the programme's position service where it has one, else the device. */
  locate(): Observable<Fix | null> {
    return this.http.get('/api/position').pipe(
      map((body) => fixSchema.parse(body)),
      catchError(() => deviceFix()),
    );
  }
}

function deviceFix(): Observable<Fix | null> {
  if (!('geolocation' in navigator)) return of(null);
  return new Observable((subscriber) => {
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        subscriber.next({
          position: [coords.longitude, coords.latitude],
          accuracyM: coords.accuracy,
          simulated: false,
        });
        subscriber.complete();
      },
      () => {
        subscriber.next(null);
        subscriber.complete();
      },
      { enableHighAccuracy: true, timeout: 8000 },
    );
  });
}
