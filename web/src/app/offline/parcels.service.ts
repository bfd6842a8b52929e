import { HttpClient } from '@angular/common/http';
import { inject, Injectable, signal } from '@angular/core';
import { from, Subject, type Observable } from 'rxjs';
import { SessionService } from '../session/session.service';
import { AlongStore } from './along-store';
import { OutboxStore, type Parcel } from './outbox-store';
import { SendQueue, type Sent } from './send-queue';

export type NewParcel = Pick<Parcel, 'id' | 'method' | 'url' | 'body' | 'name' | 'about'>;

/** Over which networks pictures leave: `not_mobile` where the browser tells the kind of its network. */
export type PhotosLeave = 'always' | 'not_mobile' | 'never';
const preferenceKey = 'sombra.photos';

interface NetworkKind {
  readonly type?: string;
}
/** What kind of network this device is on, where its browser tells. */
export const networkKind = (): string | null => (navigator as { connection?: NetworkKind }).connection?.type ?? null;

/** Photos and received trees go to this device first and then to the server, in the order made. */
@Injectable({ providedIn: 'root' })
export class ParcelsService {
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  private readonly store = inject(OutboxStore);
  private readonly answers = new Subject<unknown>();
  private readonly leaves = signal<PhotosLeave>(keptPreference());
  private readonly queue = new SendQueue<Parcel, unknown>({
    table: this.store.parcels,
    session: this.session,
    post: (parcel) => this.post(parcel),
    understood: () => Promise.resolve(true),
    stored: (answer) => this.answers.next(answer),
    lane: laneOf,
    giveUpAfterMs: 600_000,
    mayLeave: ({ body }) => !(body instanceof Blob) || this.photosMayLeave(),
    makeRoom: () => AlongStore.makeRoom(),
  });

  readonly waiting = this.queue.waiting;
  readonly refused = this.queue.refused;
  readonly binned = this.queue.binned;
  /** Whether what lies here was read at all. */
  readonly isRead = this.queue.isRead;
  /** What the server answered to each, also to those sent later. */
  readonly answered$: Observable<unknown> = this.answers.asObservable();
  readonly photosLeave = this.leaves.asReadonly();

  setPhotosLeave(when: PhotosLeave): void {
    this.leaves.set(when);
    try {
      localStorage.setItem(preferenceKey, when);
    } catch {
      // It holds until the page is closed.
    }
    this.flush();
  }

  private photosMayLeave(): boolean {
    return this.leaves() === 'always' || (this.leaves() === 'not_mobile' && networkKind() !== 'cellular');
  }

  send(parcel: NewParcel): Promise<Sent<unknown>> {
    const userId = this.session.user()?.id ?? '';
    return this.queue.deliver({ ...parcel, userId, madeAt: Date.now(), refused: null });
  }

  /** A picture goes in parts and is gone on with where the line was cut; anything else in one piece. */
  private post({ id, method, url, body, resumeAt }: Parcel): Observable<unknown> {
    if (!(body instanceof Blob)) return this.http.request(method, url, { body });
    const begun = (at: string) => this.store.parcels.update(id, { resumeAt: at });
    const part = { id, url, picture: body, resumeAt, csrfToken: this.session.csrfToken(), begun };
    return from(import('./send-in-parts').then(({ sendInParts }) => sendInParts(part)));
  }

  drop(id: string): Promise<void> {
    return this.queue.drop(id);
  }

  bin(id: string, into = true): Promise<void> {
    return this.queue.bin(id, into);
  }

  /** Sends once more what the server fell over too often, or what was taken out of the bin. */
  again(parcel: Parcel): Promise<void> {
    return this.queue.again(parcel);
  }

  flush(): void {
    this.queue.flush();
  }
}

/** A received tree comes before its picture; whatever else goes by its address, `/api/deliveries/ID`. */
function laneOf({ url, body, id }: Parcel): string {
  if (/^\/api\/lots\/[^/]+\/trees$/.test(url)) return `/api/lot-trees/${(body as { id?: string } | null)?.id ?? id}`;
  return url.split(/[/?]/).slice(0, 4).join('/');
}

function keptPreference(): PhotosLeave {
  try {
    const kept = localStorage.getItem(preferenceKey);
    return kept === 'always' || kept === 'never' ? kept : 'not_mobile';
  } catch {
    return 'not_mobile';
  }
}
