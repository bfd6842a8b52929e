import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  openToldSchema,
  placeLinkMadeSchema,
  placeLinksSchema,
  toldSchema,
  toldWaitingSchema,
  type MakePlaceLink,
  type OpenTold,
  type PlaceLinks,
  type TellOfTree,
  type Told,
  type ToldWaiting,
} from '@sombra/contract';
import { map, type Observable } from 'rxjs';

/** Doors of residents, who tell of a tree by a link of their place, and of the programme that sees to it. */
@Injectable({ providedIn: 'root' })
export class ToldService {
  private readonly http = inject(HttpClient);

  open(token: string): Observable<OpenTold> {
    return this.http.get(`/api/open/told/${token}`).pipe(map((body) => openToldSchema.parse(body)));
  }
  tell(token: string, told: TellOfTree): Observable<unknown> {
    return this.http.post(`/api/open/told/${token}`, told);
  }
  photo(token: string, id: string, picture: Blob): Observable<unknown> {
    return this.http.put(`/api/open/told/${token}/${id}/photo`, picture);
  }

  reports(): Observable<Told> {
    return this.http.get('/api/told').pipe(map((body) => toldSchema.parse(body)));
  }
  waiting(): Observable<ToldWaiting> {
    return this.http.get('/api/told/waiting').pipe(map((body) => toldWaitingSchema.parse(body)));
  }
  look(id: string, spotId: string): Observable<unknown> {
    return this.http.post(`/api/told/${id}/look`, { spotId });
  }
  drop(id: string, reason: string): Observable<unknown> {
    return this.http.post(`/api/told/${id}/drop`, { reason });
  }

  links(): Observable<PlaceLinks> {
    return this.http.get('/api/told/links').pipe(map((body) => placeLinksSchema.parse(body)));
  }
  /** The address of the link, known this once. */
  make(ask: MakePlaceLink): Observable<string> {
    return this.http.post('/api/told/links', ask).pipe(map((body) => placeLinkMadeSchema.parse(body).path));
  }
  revoke(id: string): Observable<unknown> {
    return this.http.post(`/api/told/links/${id}/revoke`, {});
  }
}
