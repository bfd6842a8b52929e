import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { Subject, type Observable } from 'rxjs';
import { SessionService } from '../session/session.service';
import { OutboxStore, type Parcel } from './outbox-store';
import { SendQueue, type Sent } from './send-queue';

export type NewParcel = Pick<Parcel, 'id' | 'method' | 'url' | 'body' | 'name'>;

/** Photos and received trees go to this device first and then to the server, in the order made. */
@Injectable({ providedIn: 'root' })
export class ParcelsService {
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  private readonly answers = new Subject<unknown>();
  private readonly queue = new SendQueue<Parcel, unknown>({
    table: new OutboxStore().parcels,
    session: this.session,
    post: ({ method, url, body }) => this.http.request(method, url, { body, headers: headersOf(body) }),
    understood: () => true,
    stored: (answer) => this.answers.next(answer),
    // `/api/deliveries/ID`: a tree names its pictures, which come before it.
    lane: ({ url }) => url.split('/').slice(0, 4).join('/'),
  });

  readonly waiting = this.queue.waiting;
  readonly refused = this.queue.refused;
  /** What the server answered to each, also to those sent later. */
  readonly answered$: Observable<unknown> = this.answers.asObservable();

  send(parcel: NewParcel): Promise<Sent<unknown>> {
    const userId = this.session.user()?.id ?? '';
    return this.queue.deliver({ ...parcel, userId, madeAt: Date.now(), refused: null });
  }

  drop(id: string): Promise<void> {
    return this.queue.drop(id);
  }

  /** Sends once more what the server fell over too often. */
  again(parcel: Parcel): Promise<void> {
    return this.queue.again(parcel);
  }

  flush(): void {
    this.queue.flush();
  }
}

const headersOf = (body: unknown): Record<string, string> =>
  body instanceof Blob ? { 'content-type': body.type || 'image/jpeg' } : {};
