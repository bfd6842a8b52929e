import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { programmeSchema, type Programme, type SaveProgramme, type SetUp } from '@sombra/contract';
import { map, type Observable } from 'rxjs';

/** Doors to what the programme goes by. */
@Injectable({ providedIn: 'root' })
export class ProgrammeService {
  private readonly http = inject(HttpClient);

  read(): Observable<Programme> {
    return this.http.get('/api/programme').pipe(map((body) => programmeSchema.parse(body)));
  }

  save(programme: SaveProgramme): Observable<Programme> {
    return this.http.put('/api/programme', programme).pipe(map((body) => programmeSchema.parse(body)));
  }

  setUp(entry: SetUp): Observable<unknown> {
    return this.http.post('/api/open/set-up', entry);
  }
}
