import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { recordTable, sayFacts } from '@sombra/core';
import { format } from 'date-fns';
import { OutboxService } from '../offline/outbox.service';
import { ParcelsService } from '../offline/parcels.service';
import type { OutboxEntry } from '../offline/outbox-store';
import { SessionService } from '../session/session.service';
import { readProblem, sayProblem, stumbled } from '../ui/problem';

/** Records sent late that the server would not take: why, and the three ways on. */
@Component({
  selector: 's-refused-records',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    @for (line of lines(); track line.entry.id) {
      <div class="problem" role="alert">
        <b>{{ line.name }}, entered {{ line.made }}, was not taken.</b> {{ line.why }}
        <p class="quiet">{{ line.facts }}</p>
        @if (line.setAside) {
          <button type="button" class="btn btn-outline-primary btn-sm" (click)="outbox.again(line.entry)">
            Send it again
          </button>
        } @else {
          <button type="button" class="btn btn-outline-primary btn-sm" (click)="sendOver(line.entry)">
            Store it over what is there
          </button>
        }
        <a class="btn btn-link btn-sm" [routerLink]="['/', line.bench, line.entry.sent.spotId]">Look at the spot</a>
        <button type="button" class="btn btn-link btn-sm" (click)="outbox.withdraw(line.entry.id)">Drop it</button>
      </div>
    }
    @for (parcel of parcels.refused(); track parcel.id) {
      <div class="problem" role="alert">
        <b>{{ parcel.name }} was not taken.</b> {{ parcel.refused ? say(parcel.refused) : '' }}
        @if (parcel.refused && stumbled(parcel.refused)) {
          <button type="button" class="btn btn-outline-primary btn-sm" (click)="parcels.again(parcel)">
            Send it again
          </button>
        }
        <button type="button" class="btn btn-link btn-sm" (click)="parcels.drop(parcel.id)">Drop it</button>
      </div>
    }
    @if (fault(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
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
  protected readonly outbox = inject(OutboxService);
  protected readonly parcels = inject(ParcelsService);
  protected readonly say = sayProblem;
  protected readonly stumbled = stumbled;
  private readonly session = inject(SessionService);
  protected readonly fault = signal<string | null>(null);
  protected readonly lines = computed(() =>
    this.outbox.refused().map((entry) => {
      const { kind, facts } = entry.sent.record;
      const said = sayFacts(facts, this.session.units());
      return {
        entry,
        name: recordTable[kind].name,
        made: format(entry.madeAt, 'd MMM HH:mm'),
        setAside: entry.refused !== null && stumbled(entry.refused),
        why: entry.refused ? sayProblem(entry.refused) : '',
        facts: said.map(({ name, value }) => `${name} ${value}`).join(' · '),
        bench: recordTable[kind].stage,
      };
    }),
  );

  protected async sendOver(entry: OutboxEntry): Promise<void> {
    this.fault.set(null);
    try {
      await this.outbox.sendOver(entry);
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    }
  }
}
