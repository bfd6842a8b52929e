import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  consentLinkSchema,
  leaveSchema,
  surroundingsSchema,
  ticketListSchema,
  ticketSchema,
  type ConsentLink,
  type KeptRules,
  type Leave,
  type NewClearance,
  type NewPermit,
  type RaiseTicket,
  type Rules,
  type Surroundings,
  type Ticket,
  type TicketList,
} from '@sombra/contract';
import { map, type Observable } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';

/** Doors of the ground stage: surroundings, leave to dig, tickets and rules. */
@Injectable({ providedIn: 'root' })
export class GroundService {
  private readonly http = inject(HttpClient);

  surroundings(spotId: string): Observable<Surroundings> {
    return this.http.get(`/api/spots/${spotId}/surroundings`).pipe(map((body) => surroundingsSchema.parse(body)));
  }

  attachClearance(spotId: string, clearance: NewClearance, file: File): Observable<Leave> {
    const query = new URLSearchParams({ ...clearance });
    return this.http.put(`/api/spots/${spotId}/clearances?${query}`, file).pipe(map((body) => leaveSchema.parse(body)));
  }

  addPermit(permit: NewPermit): Observable<unknown> {
    return this.http.post('/api/permits', permit);
  }

  askConsent(spotId: string, owner: string): Observable<ConsentLink> {
    const ask = { id: uuidv7(), owner };
    return this.http.post(`/api/spots/${spotId}/consents`, ask).pipe(map((body) => consentLinkSchema.parse(body)));
  }

  revokeConsent(id: string): Observable<unknown> {
    return this.http.post(`/api/consents/${id}/revoke`, {});
  }

  tickets(): Observable<TicketList> {
    return this.http.get('/api/tickets').pipe(map((body) => ticketListSchema.parse(body)));
  }

  raise(ask: Omit<RaiseTicket, 'id'> & { id?: string }): Observable<Ticket> {
    return this.http
      .post('/api/tickets', { ...ask, id: ask.id ?? uuidv7() })
      .pipe(map((body) => ticketSchema.parse(body)));
  }

  act(id: string, act: 'retry' | 'withdraw'): Observable<Ticket> {
    return this.http.post(`/api/tickets/${id}/${act}`, {}).pipe(map((body) => ticketSchema.parse(body)));
  }

  remind(id: string, utility: string): Observable<Ticket> {
    return this.http.post(`/api/tickets/${id}/remind`, { utility }).pipe(map((body) => ticketSchema.parse(body)));
  }

  rules(): Observable<KeptRules> {
    return this.http.get<KeptRules>('/api/rules');
  }

  saveRules(rules: Rules): Observable<KeptRules> {
    return this.http.put<KeptRules>('/api/rules', rules);
  }
}
