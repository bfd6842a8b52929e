import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Problem } from '@sombra/contract';
import { recordTable } from '@sombra/core';
import { OwnQueues } from '../offline/own-queues.service';
import { OutboxService } from '../offline/outbox.service';
import { ParcelsService } from '../offline/parcels.service';
import { sayProblem } from '../ui/problem';

/** Something sent late was not taken: what, why, and where the ways on are. */
@Component({
  selector: 's-refused-records',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    @if (first(); as one) {
      <p class="problem" role="alert">
        <b>{{ one.name }} was not taken.</b> {{ one.why }}
        @if (count() > 1) {
          {{ count() - 1 }} more.
        }
        <a class="btn btn-outline-primary btn-sm" routerLink="/waiting">See what can be done</a>
      </p>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 0 1rem;
      background: var(--shade);
    }
    p {
      margin: 0.2rem 0;
    }
  `,
})
export class RefusedRecords {
  private readonly outbox = inject(OutboxService);
  private readonly parcels = inject(ParcelsService);
  protected readonly count = inject(OwnQueues).refused;
  protected readonly first = computed(() => {
    const [record] = this.outbox.refused();
    if (record) return { name: said(record.about, recordTable[record.sent.record.kind].name), why: whyOf(record) };
    const [parcel] = this.parcels.refused();
    return parcel ? { name: parcel.name, why: whyOf(parcel) } : null;
  });
}

const said = (about: string | undefined, name: string): string => (about ? `${about}: ${name}` : name);
const whyOf = ({ refused }: { readonly refused: Problem | null }): string => (refused ? sayProblem(refused) : '');
