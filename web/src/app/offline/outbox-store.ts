import { Injectable } from '@angular/core';
import type { Problem, Sealed, SendRecord } from '@sombra/contract';
import { Dexie, type EntityTable } from 'dexie';
import type { Queued } from './send-queue';

/** A record on this device that the server has not acknowledged; its id is the record's own. */
export interface OutboxEntry extends Queued {
  readonly sent: SendRecord;
}

/** Anything else on its way: a tree that was received, a photo. Sent again it must do no harm. */
export interface Parcel extends Queued {
  readonly method: 'POST' | 'PUT';
  readonly url: string;
  /** JSON, or a picture. */
  readonly body: unknown;
  /** What it is, in words, for when it is refused. */
  readonly name: string;
  /** Where the server takes the rest of a picture that was cut. */
  readonly resumeAt?: string;
}

/** Something unsent of somebody who left this device: only the server opens it, whoever brings it there. */
export interface SealedEntry {
  readonly id: string;
  readonly madeAt: number;
  readonly sealed: Sealed;
  /** Why the server does not open it; it stays. */
  readonly refused: Problem | null;
}

/** All that is on this device alone: nothing of it may be lost. One for the page: each of its own opens the database anew. */
@Injectable({ providedIn: 'root', useFactory: () => new OutboxStore() })
export class OutboxStore extends Dexie {
  entries!: EntityTable<OutboxEntry, 'id'>;
  parcels!: EntityTable<Parcel, 'id'>;
  sealed!: EntityTable<SealedEntry, 'id'>;

  constructor(name = 'sombra') {
    // On the disk before anybody is told that it is kept.
    super(name, { chromeTransactionDurability: 'strict' });
    this.version(1).stores({ entries: 'id, userId, madeAt' });
    this.version(2).stores({ entries: 'id, userId, madeAt', parcels: 'id, userId, madeAt' });
    this.version(3).stores({
      entries: 'id, userId, madeAt',
      parcels: 'id, userId, madeAt',
      sealed: 'id, madeAt',
    });
  }
}
