import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  carePathSchema,
  careWaitingSchema,
  keepersSchema,
  openCareSchema,
  type CareWaiting,
  type CareWishes,
  type GiveCare,
  type Keeper,
  type NameDeputy,
  type OpenCare,
  type TellWatered,
  type TellWord,
} from '@sombra/contract';
import { map, type Observable } from 'rxjs';

/** Doors of those who keep a tree, and of the programme that gave it to them. */
@Injectable({ providedIn: 'root' })
export class CareService {
  private readonly http = inject(HttpClient);

  all(): Observable<Keeper[]> {
    return this.http.get('/api/care').pipe(map((body) => keepersSchema.parse(body)));
  }
  waiting(): Observable<CareWaiting> {
    return this.http.get('/api/care/waiting').pipe(map((body) => careWaitingSchema.parse(body)));
  }
  of(spotId: string): Observable<Keeper[]> {
    return this.http.get(`/api/spots/${spotId}/care`).pipe(map((body) => keepersSchema.parse(body)));
  }
  /** The address of the link, known this once. */
  give(spotId: string, ask: GiveCare): Observable<string> {
    return this.http.post(`/api/spots/${spotId}/care`, ask).pipe(map((body) => carePathSchema.parse(body).path));
  }
  renew(id: string): Observable<string> {
    return this.http.post(`/api/care/${id}/link`, {}).pipe(map((body) => carePathSchema.parse(body).path));
  }
  revoke(id: string): Observable<unknown> {
    return this.http.post(`/api/care/${id}/revoke`, {});
  }
  answer(wordId: string, answer: string): Observable<unknown> {
    return this.http.post(`/api/care/words/${wordId}/answer`, { answer });
  }

  open(token: string): Observable<OpenCare> {
    return this.http.get(`/api/open/care/${token}`).pipe(map((body) => openCareSchema.parse(body)));
  }
  watered(token: string, told: TellWatered): Observable<OpenCare> {
    return this.tell(token, 'watered', told).pipe(map((body) => openCareSchema.parse(body)));
  }
  word(token: string, told: TellWord): Observable<OpenCare> {
    return this.tell(token, 'words', told).pipe(map((body) => openCareSchema.parse(body)));
  }
  wish(token: string, wishes: CareWishes): Observable<OpenCare> {
    return this.tell(token, 'wishes', wishes).pipe(map((body) => openCareSchema.parse(body)));
  }
  deputy(token: string, named: NameDeputy): Observable<{ path: string; care: OpenCare }> {
    return this.tell(token, 'deputies', named).pipe(
      map((body) => carePathSchema.extend({ care: openCareSchema }).parse(body)),
    );
  }
  private tell(token: string, door: string, body: object): Observable<unknown> {
    return this.http.post(`/api/open/care/${token}/${door}`, body);
  }
}
