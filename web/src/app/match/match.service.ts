import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { speciesListSchema, type KeptSpecies } from '@sombra/contract';
import { map, shareReplay, type Observable } from 'rxjs';

/** Doors of the match stage. The library is read once and kept while the page lives. */
@Injectable({ providedIn: 'root' })
export class MatchService {
  private readonly http = inject(HttpClient);
  private readonly library$ = this.http.get('/api/species').pipe(
    map((body): KeptSpecies[] => speciesListSchema.parse(body)),
    shareReplay({ bufferSize: 1, refCount: true }),
  );

  species(): Observable<readonly KeptSpecies[]> {
    return this.library$;
  }
}
