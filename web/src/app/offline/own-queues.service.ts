import { computed, inject, Injectable } from '@angular/core';
import { OutboxService } from './outbox.service';
import { ParcelsService } from './parcels.service';

/** Records and parcels of the signed-in person together: how many wait, how many were not taken. */
@Injectable({ providedIn: 'root' })
export class OwnQueues {
  private readonly outbox = inject(OutboxService);
  private readonly parcels = inject(ParcelsService);
  readonly waiting = computed(() => this.outbox.waiting().length + this.parcels.waiting().length);
  readonly refused = computed(() => this.outbox.refused().length + this.parcels.refused().length);
  /** Whether both were read: until then nobody can say that nothing waits. */
  readonly isRead = computed(() => this.outbox.isRead() && this.parcels.isRead());

  /** Sends all that waits, now. */
  flush(): void {
    this.outbox.flush();
    this.parcels.flush();
  }
}
