import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  deliveryListSchema,
  deliverySchema,
  type Delivery,
  type DeliveryList,
  type DeliveryState,
  type NewDelivery,
  type ReceiveLot,
} from '@sombra/contract';
import { map, type Observable } from 'rxjs';

const read = map((body: unknown): Delivery => deliverySchema.parse(body));

/** Doors of the stock stage: what is awaited, what came, and what is decided about it. */
@Injectable({ providedIn: 'root' })
export class StockService {
  private readonly http = inject(HttpClient);

  list(): Observable<DeliveryList> {
    return this.http.get('/api/deliveries').pipe(map((body) => deliveryListSchema.parse(body)));
  }
  open(delivery: NewDelivery): Observable<Delivery> {
    return this.http.post('/api/deliveries', delivery).pipe(read);
  }
  delivery(id: string): Observable<Delivery> {
    return this.http.get(`/api/deliveries/${id}`).pipe(read);
  }
  keepState(id: string, state: DeliveryState): Observable<Delivery> {
    return this.http.put(`/api/deliveries/${id}`, state).pipe(read);
  }
  water(id: string, onDay: string): Observable<Delivery> {
    return this.http.post(`/api/deliveries/${id}/water`, { onDay }).pipe(read);
  }
  receive(lotId: string, lot: ReceiveLot): Observable<Delivery> {
    return this.http.put(`/api/lots/${lotId}`, lot).pipe(read);
  }
  photo(lotId: string, photo: Blob): Observable<Delivery> {
    return this.http
      .put(`/api/lots/${lotId}/photo`, photo, { headers: { 'content-type': photo.type || 'image/jpeg' } })
      .pipe(read);
  }
}
