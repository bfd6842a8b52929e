import type { SendRecord } from '@sombra/contract';
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
}

export class OutboxStore extends Dexie {
  entries!: EntityTable<OutboxEntry, 'id'>;
  parcels!: EntityTable<Parcel, 'id'>;

  constructor(name = 'sombra') {
    super(name);
    this.version(1).stores({ entries: 'id, userId, madeAt' });
    this.version(2).stores({ entries: 'id, userId, madeAt', parcels: 'id, userId, madeAt' });
  }
}
