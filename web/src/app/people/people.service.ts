import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  peopleSchema,
  peopleWithLinkSchema,
  type AddPerson,
  type ChangePerson,
  type PeopleWithLink,
  type Person,
} from '@sombra/contract';
import { map, type Observable } from 'rxjs';

/** Doors to the people of the programme; open to administrators. */
@Injectable({ providedIn: 'root' })
export class PeopleService {
  private readonly http = inject(HttpClient);

  all(): Observable<Person[]> {
    return this.http.get('/api/people').pipe(map((body) => peopleSchema.parse(body)));
  }

  add(person: AddPerson): Observable<PeopleWithLink> {
    return this.http.post('/api/people', person).pipe(map((body) => peopleWithLinkSchema.parse(body)));
  }

  link(id: string): Observable<PeopleWithLink> {
    return this.http.post(`/api/people/${id}/link`, {}).pipe(map((body) => peopleWithLinkSchema.parse(body)));
  }

  change(id: string, change: ChangePerson): Observable<Person[]> {
    return this.http.put(`/api/people/${id}`, change).pipe(map((body) => peopleSchema.parse(body)));
  }

  endSessions(id: string): Observable<Person[]> {
    return this.http.delete(`/api/people/${id}/sessions`).pipe(map((body) => peopleSchema.parse(body)));
  }
}
