import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  listHeadSchema,
  offersSchema,
  outlookSchema,
  rowReportSchema,
  seasonListSchema,
  speciesListSchema,
  type AskList,
  type KeptSpecies,
  type ListHead,
  type Offers,
  type Outlook,
  type RowReport,
  type SaveSpecies,
  type SeasonList,
} from '@sombra/contract';
import { map, shareReplay, startWith, Subject, switchMap, tap, type Observable } from 'rxjs';

const csv = { headers: { 'content-type': 'text/csv' } };

/** Doors of the match stage: the library, the nurseries' lists and the season's lists. */
@Injectable({ providedIn: 'root' })
export class MatchService {
  private readonly http = inject(HttpClient);
  private readonly changed = new Subject<void>();
  /** Read once and kept while somebody looks; read again after a change. */
  private readonly library$ = this.changed.pipe(
    startWith(undefined),
    switchMap(() => this.http.get('/api/species')),
    map((body): KeptSpecies[] => speciesListSchema.parse(body)),
    shareReplay({ bufferSize: 1, refCount: true }),
  );

  species(): Observable<readonly KeptSpecies[]> {
    return this.library$;
  }

  saveSpecies(save: SaveSpecies): Observable<KeptSpecies[]> {
    return this.http.put('/api/species', save).pipe(
      map((body) => speciesListSchema.parse(body)),
      tap(() => this.changed.next()),
    );
  }

  importSpecies(file: File): Observable<RowReport> {
    return this.http.post('/api/species/import', file, csv).pipe(
      map((body) => rowReportSchema.parse(body)),
      tap(() => this.changed.next()),
    );
  }

  offers(): Observable<Offers> {
    return this.http.get('/api/offers').pipe(map((body) => offersSchema.parse(body)));
  }

  /** Asks the nursery service for every list it has. */
  readNurseries(): Observable<Offers> {
    return this.http.post('/api/offers/read', null).pipe(map((body) => offersSchema.parse(body)));
  }

  importOffers(nursery: string, file: File): Observable<RowReport> {
    return this.http
      .post('/api/offers/import', file, { ...csv, params: { nursery } })
      .pipe(map((body) => rowReportSchema.parse(body)));
  }

  outlook(): Observable<Outlook> {
    return this.http.get('/api/season/outlook').pipe(map((body) => outlookSchema.parse(body)));
  }

  lists(): Observable<ListHead[]> {
    return this.http.get('/api/lists').pipe(map((body) => listHeadSchema.array().parse(body)));
  }

  askList(ask: AskList): Observable<SeasonList> {
    return this.http.post('/api/lists', ask).pipe(map((body) => seasonListSchema.parse(body)));
  }

  list(id: string): Observable<SeasonList> {
    return this.http.get(`/api/lists/${id}`).pipe(map((body) => seasonListSchema.parse(body)));
  }

  actOnList(id: string, act: 'cancel' | 'accept'): Observable<SeasonList> {
    return this.http.post(`/api/lists/${id}/${act}`, null).pipe(map((body) => seasonListSchema.parse(body)));
  }
}
