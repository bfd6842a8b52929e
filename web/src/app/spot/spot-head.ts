import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';
import { RoomMap } from '../ui/rooms';
import { LevelMark } from '../ui/level-mark';
import { HazardNow } from './hazard-now';
import { BulkActs } from './bulk-acts.service';
import { sayDay, sayMoment } from '../ui/say-date';
import { SessionService } from '../session/session.service';
import { SpotStore } from './spot-store';

/** Which spot this is and the stages of its life, with the one it waits in marked. */
@Component({
  selector: 's-spot-head',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [HazardNow, RouterLink, RouterLinkActive, LevelMark],
  template: `
    @if (store.detail(); as detail) {
      <div class="title">
        <h1>{{ heading() || detail.spot.ref }}</h1>
        @if (store.life()?.planting) {
          <s-level-mark [level]="store.life()?.level ?? 'good'" />
        }
      </div>
      <div class="where">
        <p class="quiet">
          @if (heading()) {
            {{ detail.spot.ref }} ·
          }
          {{ detail.spot.place }}
          @if (detail.tree?.species; as species) {
            · <i>{{ species }}</i>
          }
        </p>
        <s-hazard-now />
      </div>
      @if (store.asOf(); as at) {
        <p class="caution" role="status">As this device kept it, {{ moment(at) }}: no server is reached.</p>
      }
      @if (detail.spot.withdrawnOn; as day) {
        <p class="caution">
          Withdrawn from the programme on {{ say(day) }}; its records stay.
          @if (mayBringBack()) {
            <button
              type="button"
              class="btn btn-sm btn-outline-primary"
              [disabled]="acts.busy()"
              (click)="bringBack(detail.spot)"
            >
              Bring it back
            </button>
          }
        </p>
      }
      <nav aria-label="Stages of this spot">
        @for (stage of stages; track stage.path) {
          <a
            [routerLink]="['/', stage.path, detail.spot.id]"
            queryParamsHandling="preserve"
            routerLinkActive="here"
            ariaCurrentWhenActive="page"
          >
            {{ stage.name }}
            @if (stage.path === waitsIn()) {
              <span class="waits">waits</span>
            }
          </a>
        }
        @if (detail.tree; as tree) {
          <a [routerLink]="['/tree', tree.id]" routerLinkActive="here" ariaCurrentWhenActive="page">History</a>
        }
      </nav>
    }
  `,
  styles: `
    .title {
      display: flex;
      gap: 1rem;
      align-items: baseline;
      justify-content: space-between;
    }
    p {
      margin: 0.1rem 0 0.6rem;
    }
    .where {
      display: flex;
      flex-wrap: wrap;
      gap: 0 1rem;
      align-items: center;
      justify-content: space-between;
    }
    nav {
      display: flex;
      flex-wrap: wrap;
      gap: 0 0.25rem;
      border-bottom: 1px solid var(--line);
      margin-bottom: 0.75rem;
    }
    a {
      display: inline-flex;
      align-items: center;
      gap: 0.35rem;
      min-height: 40px;
      padding: 0 0.6rem;
      color: var(--ink);
      text-decoration: none;
      border-bottom: 3px solid transparent;
    }
    a.here {
      border-bottom-color: var(--chosen);
      font-weight: 600;
    }
    .waits {
      font-size: 0.8rem;
      color: var(--act);
      font-weight: 600;
    }
    @media (max-width: 720px) {
      a {
        min-height: 48px;
      }
    }
    @media print {
      nav {
        display: none;
      }
    }
  `,
})
export class SpotHead {
  /** What the bench found, where it has something to say. */
  readonly heading = input('');
  protected readonly store = inject(SpotStore);
  protected readonly acts = inject(BulkActs);
  protected readonly say = sayDay;
  protected readonly moment = (at: number): string => sayMoment(new Date(at).toISOString());
  private readonly session = inject(SessionService);
  protected readonly mayBringBack = computed(() => this.session.may('withdraw_spots'));
  protected readonly stages = inject(RoomMap).spotStages;
  protected readonly waitsIn = computed(() => (this.store.life()?.decisions.length ? this.store.life()?.stage : null));

  protected async bringBack({ id, ref }: { id: string; ref: string }): Promise<void> {
    if (await this.acts.withdraw([{ spotId: id, ref }], false)) this.store.reload();
  }
}
