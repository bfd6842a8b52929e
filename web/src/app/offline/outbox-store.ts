import type { Problem, SendRecord } from '@sombra/contract';
import { Dexie, type EntityTable } from 'dexie';

/** A record on this device that the server has not acknowledged. */
export interface OutboxEntry {
  /** The record's own id. */
  readonly id: string;
  readonly userId: string;
  readonly sent: SendRecord;
  readonly madeAt: number;
  /** Why the server refused it; `null` while it only waits. */
  readonly refused: Problem | null;
}

export class OutboxStore extends Dexie {
  entries!: EntityTable<OutboxEntry, 'id'>;

  constructor(name = 'sombra') {
    super(name);
    this.version(1).stores({ entries: 'id, userId, madeAt' });
  }
}
