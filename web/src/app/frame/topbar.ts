import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NgbDropdown, NgbDropdownItem, NgbDropdownMenu, NgbDropdownToggle } from '@ng-bootstrap/ng-bootstrap/dropdown';
import { OutboxService } from '../offline/outbox.service';
import { SessionService } from '../people/session.service';
import { sayDate } from './say-date';

@Component({
  selector: 's-topbar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, NgbDropdown, NgbDropdownItem, NgbDropdownMenu, NgbDropdownToggle],
  template: `
    <header>
      <span class="today">{{ today() }}</span>
      <span class="grow"></span>
      @if (outbox.waiting().length > 0) {
        <span class="waiting" role="status">
          <i class="bi bi-hourglass-split" aria-hidden="true"></i>
          {{ outbox.waiting().length }} kept on this device, to be sent
          <button type="button" class="btn btn-sm btn-outline-primary" (click)="outbox.flush()">Send now</button>
        </span>
      }
      @if (canImport()) {
        <a class="btn btn-sm" routerLink="/import"><i class="bi bi-upload" aria-hidden="true"></i> Import</a>
      }
      <div ngbDropdown placement="bottom-end">
        <button type="button" class="btn btn-sm" ngbDropdownToggle>Export</button>
        <div ngbDropdownMenu>
          <a ngbDropdownItem href="/api/exports/trees.csv" download>Trees as CSV</a>
          <a ngbDropdownItem href="/api/exports/trees.geojson" download>Trees as GeoJSON</a>
        </div>
      </div>
      <div ngbDropdown placement="bottom-end">
        <button type="button" class="btn btn-sm" ngbDropdownToggle>
          <i class="bi bi-person-circle" aria-hidden="true"></i> <span class="who">{{ session.user()?.name }}</span>
        </button>
        <div ngbDropdownMenu>
          <button
            ngbDropdownItem
            type="button"
            (click)="session.setUnits(session.units() === 'metric' ? 'us' : 'metric')"
          >
            {{ session.units() === 'metric' ? 'Use US customary units' : 'Use metric units' }}
          </button>
          <button ngbDropdownItem type="button" (click)="session.signOut()">Sign out</button>
        </div>
      </div>
    </header>
  `,
  styles: `
    header {
      display: flex;
      align-items: center;
      gap: 0.4rem;
      min-height: 52px;
      padding: 0 1rem;
      background: var(--shade);
      border-bottom: 1px solid var(--line);
    }
    .today {
      font-family: 'Bitter Variable', serif;
      font-weight: 600;
      white-space: nowrap;
    }
    .who {
      margin-left: 0.2rem;
    }
    .grow {
      flex: 1;
    }
    .waiting {
      color: var(--act);
      font-weight: 600;
    }
    @media (max-width: 720px) {
      header {
        padding: 0 0.5rem;
        flex-wrap: wrap;
        gap: 0;
      }
      .today {
        font-size: 0.95rem;
      }
      .who {
        position: absolute;
        clip-path: inset(50%);
        width: 1px;
        overflow: hidden;
        white-space: nowrap;
      }
      .btn {
        padding-inline: 0.4rem;
      }
    }
  `,
})
export class Topbar {
  protected readonly session = inject(SessionService);
  protected readonly outbox = inject(OutboxService);
  protected readonly today = computed(() => sayDate(this.session.today()));
  protected readonly canImport = computed(() =>
    ['coordinator', 'administrator'].includes(this.session.user()?.role ?? ''),
  );
}
