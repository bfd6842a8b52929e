import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import {
  deliveryListSchema,
  deliverySchema,
  type Delivery,
  type DeliveryList,
  type DeliveryState,
  type LotTree,
  type NewDelivery,
  type NewLotTree,
  type ReceiveLot,
} from '@sombra/contract';
import { catchError, filter, map, of, tap, throwError, type Observable } from 'rxjs';
import { passes, readProblem } from '../ui/problem';
import { ParcelsService } from '../offline/parcels.service';
import { SessionService } from '../session/session.service';

/** Doors of the stock stage: what is awaited, what came, and what is decided about it. */
@Injectable({ providedIn: 'root' })
export class StockService {
  private readonly http = inject(HttpClient);
  private readonly parcels = inject(ParcelsService);
  private readonly session = inject(SessionService);
  /** Deliveries as last read: what a yard without network goes on with. */
  private readonly known = new Map<string, Delivery>();
  /** Deliveries in a new state, told by the answers to what was sent late. */
  readonly changed$: Observable<Delivery> = this.parcels.answered$.pipe(
    map((answer) => deliverySchema.safeParse(answer).data),
    filter((delivery) => delivery !== undefined),
    tap((delivery) => this.known.set(delivery.id, delivery)),
    map((delivery) => this.withWaiting(delivery)),
  );

  list(): Observable<DeliveryList> {
    return this.http.get('/api/deliveries').pipe(map((body) => deliveryListSchema.parse(body)));
  }
  open(delivery: NewDelivery): Observable<Delivery> {
    return this.keep(this.http.post('/api/deliveries', delivery));
  }
  /** As the server has it, or as it was last read where the server cannot be reached. */
  delivery(id: string): Observable<Delivery> {
    return this.keep(this.http.get(`/api/deliveries/${id}`)).pipe(
      catchError((error: unknown) => {
        const known = this.known.get(id);
        return known && passes(readProblem(error)) ? of(known) : throwError(() => error);
      }),
      map((delivery) => this.withWaiting(delivery)),
    );
  }
  keepState(id: string, state: DeliveryState): Observable<Delivery> {
    return this.keep(this.http.put(`/api/deliveries/${id}`, state));
  }
  water(id: string, onDay: string): Observable<Delivery> {
    return this.keep(this.http.post(`/api/deliveries/${id}/water`, { onDay }));
  }
  receive(lotId: string, lot: ReceiveLot): Observable<Delivery> {
    return this.keep(this.http.put(`/api/lots/${lotId}`, lot));
  }

  private keep(answer: Observable<unknown>): Observable<Delivery> {
    return answer.pipe(
      map((body) => deliverySchema.parse(body)),
      tap((delivery) => this.known.set(delivery.id, delivery)),
    );
  }

  /** With the trees that were opened on this device and are not sent yet. */
  private withWaiting(delivery: Delivery): Delivery {
    const waiting = this.parcels.waiting();
    const lots = delivery.lots.map((lot) => {
      const mine = waiting
        .filter(({ url }) => url === `/api/lots/${lot.id}/trees`)
        .map(({ body }) => body as NewLotTree);
      const replaced = new Set(mine.map(({ supersedes }) => supersedes));
      const known = new Set(lot.trees.map(({ id }) => id));
      const added = mine.filter(({ id }) => !known.has(id)).map((seen) => this.unsent(seen));
      return { ...lot, trees: [...lot.trees.filter(({ id }) => !replaced.has(id)), ...added] };
    });
    return { ...delivery, lots };
  }

  private unsent({ id, tree, seenAt }: NewLotTree): LotTree {
    return { id, tree, seenAt, seenBy: this.session.user()?.name ?? '', hasPhoto: false, photoAt: null };
  }
}
