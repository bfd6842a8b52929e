import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NgbDropdown, NgbDropdownItem, NgbDropdownMenu, NgbDropdownToggle } from '@ng-bootstrap/ng-bootstrap/dropdown';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { OwnQueues } from '../offline/own-queues.service';
import { SessionService } from '../session/session.service';
import { FindBox } from './find-box';
import { KeysService } from '../ui/keys.service';
import { sayDate } from '../ui/say-date';
import { ToastsService } from '../ui/toasts.service';
import { ThemeService, themes, type Theme } from '../ui/theme.service';
import { ViewState } from '../ui/view-state.service';

const themeNames: Readonly<Record<Theme, string>> = {
  light: 'Light, for sun',
  dark: 'Dark, for evening',
  system: 'As this device',
};

@Component({
  selector: 's-topbar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, NgbDropdown, NgbDropdownItem, NgbDropdownMenu, NgbDropdownToggle, FindBox],
  template: `
    <header>
      @if (session.programme(); as programme) {
        <a
          class="programme"
          routerLink="/programme"
          [title]="programme.demo ? 'The demo town, invented' : 'The programme you work in'"
          >{{ programme.name }}{{ programme.demo ? ', demo' : '' }}</a
        >
      }
      <button type="button" class="today" title="Show another day" (click)="pickDay()">{{ day() }}</button>
      @if (view.tense() !== 'today') {
        <span class="tense">{{ view.tense() === 'past' ? 'as it was' : 'as forecast' }}</span>
        <button type="button" class="btn btn-sm btn-outline-primary" (click)="view.setDay(view.today())">
          Back to today
        </button>
      }
      <span class="grow"></span>
      @if (session.away()) {
        <a class="waiting" routerLink="/along"
          ><i class="bi bi-wifi-off" aria-hidden="true"></i> <span class="who">No network</span></a
        >
      }
      @if (queues.waiting() > 0) {
        <span class="waiting said" role="status">
          <i class="bi bi-hourglass-split" aria-hidden="true"></i>
          {{ queues.waiting() }} kept on this device, to be sent
          <button type="button" class="btn btn-sm btn-outline-primary" (click)="queues.flush()">Send now</button>
        </span>
      }
      <s-find-box />
      @if (canImport()) {
        <a class="btn btn-sm wide" routerLink="/import"><i class="bi bi-upload" aria-hidden="true"></i> Import</a>
      }
      <div ngbDropdown placement="bottom-end" class="wide">
        <button type="button" class="btn btn-sm" ngbDropdownToggle>Export</button>
        <div ngbDropdownMenu>
          <a ngbDropdownItem href="/api/exports/trees.csv" download>All trees with their records, CSV</a>
          <a ngbDropdownItem href="/api/exports/trees.geojson" download>All trees with their records, GeoJSON</a>
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
          <div class="dropdown-divider"></div>
          @for (one of themes; track one) {
            <button ngbDropdownItem type="button" [attr.aria-pressed]="theme.theme() === one" (click)="theme.set(one)">
              <i class="bi" [class.bi-check-lg]="theme.theme() === one" aria-hidden="true"></i> {{ names[one] }}
            </button>
          }
          <div class="dropdown-divider"></div>
          <a ngbDropdownItem routerLink="/along">Taken along on this device</a>
          <a ngbDropdownItem routerLink="/me">Your name, password and rights</a>
          <div class="dropdown-divider"></div>
          <a ngbDropdownItem class="narrow" routerLink="/programme">Programme</a>
          <a ngbDropdownItem routerLink="/help">Help: first steps and words</a>
          <button ngbDropdownItem type="button" (click)="showKeys()">Keys <kbd>?</kbd></button>
          <button ngbDropdownItem type="button" (click)="session.signOut()">Sign out</button>
        </div>
      </div>
    </header>
  `,
  styles: `
    header {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 0.4rem;
      min-height: 48px;
      padding: 0 1rem;
      background: var(--shade);
    }
    .today {
      font-family: 'Bitter Variable', serif;
      font-weight: 600;
      white-space: nowrap;
      border: 0;
      background: none;
      color: var(--ink);
      padding: 0;
      min-height: 38px;
    }
    .programme {
      color: var(--quiet);
      text-decoration: none;
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
      max-width: 14rem;
    }
    .programme:hover {
      text-decoration: underline;
    }
    .narrow {
      display: none;
    }
    .tense {
      color: var(--chosen);
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
    .btn-sm {
      min-height: 38px;
      padding-block: 0.2rem;
    }
    kbd {
      background: var(--shade);
      color: var(--ink);
      border: 1px solid var(--line);
    }
    .dropdown-item .bi {
      display: inline-block;
      width: 1.2rem;
    }
    @media (max-width: 720px) {
      .programme {
        display: none;
      }
      .narrow {
        display: block;
      }
      header {
        padding: 0 0.5rem;
        flex-wrap: wrap;
        gap: 0.2rem;
      }
      .today {
        font-size: 0.95rem;
        min-height: 48px;
      }
      .wide,
      .said button {
        display: none;
      }
      /* The number stands at the thumb, the ways on behind it. */
      .said,
      .who {
        position: absolute;
        clip-path: inset(50%);
        width: 1px;
        overflow: hidden;
        white-space: nowrap;
      }
      .btn {
        padding-inline: 0.4rem;
        min-height: 48px;
      }
    }
    @media print {
      header {
        display: none;
      }
    }
  `,
})
export class Topbar {
  protected readonly session = inject(SessionService);
  protected readonly queues = inject(OwnQueues);
  protected readonly view = inject(ViewState);
  protected readonly theme = inject(ThemeService);
  private readonly modals = inject(NgbModal);
  private readonly toasts = inject(ToastsService);
  protected readonly themes = themes;
  protected readonly names = themeNames;
  protected readonly day = computed(() => sayDate(this.view.on()));
  protected readonly canImport = computed(() => this.session.may('import_file'));

  constructor() {
    inject(KeysService).bind([
      { keys: '?', where: 'Everywhere', does: 'show these keys', run: () => this.showKeys() },
      { keys: 'c', where: 'Everywhere', does: 'calendar: show another day', run: () => void this.pickDay() },
      {
        keys: 'u',
        where: 'Everywhere',
        does: 'undo what was just stored',
        run: () => {
          if (!this.toasts.undo()) this.toasts.say('Nothing was stored within the last minute that can be undone.');
        },
      },
      { keys: 'e', where: 'Everywhere', does: 'into the form of what is open', run: () => this.toForm() },
      { keys: 't', where: 'Everywhere', does: 'back to today', run: () => this.view.setDay(this.view.today()) },
    ]);
  }

  /** The first field of the bench, or its first act. */
  private toForm(): void {
    const bench = document.querySelector<HTMLElement>('.bench') ?? document.getElementById('work');
    const fields = 'input:not([type=hidden]):not(:disabled), select:not(:disabled), textarea:not(:disabled)';
    const field =
      bench?.querySelector<HTMLElement>(fields) ?? bench?.querySelector<HTMLElement>('button:not(:disabled)');
    field?.focus();
  }

  protected async pickDay(): Promise<void> {
    const { DayPicker } = await import('../ui/day-picker');
    const dialog = this.modals.open(DayPicker, { size: 'sm', ariaLabelledBy: 'day-picker-title' });
    (dialog.componentInstance as InstanceType<typeof DayPicker>).ask({
      title: 'Show another day',
      day: this.view.on(),
      note: 'Days before today show what was on record, days after it what falls due.',
    });
    const day: unknown = await dialog.result.catch(() => null);
    if (typeof day === 'string') this.view.setDay(day);
  }

  protected showKeys(): void {
    // Opened now and then: its words need not come with the first page.
    void import('../ui/key-map').then(({ KeyMap }) =>
      this.modals.open(KeyMap, { size: 'lg', ariaLabelledBy: 'key-map-title' }),
    );
  }
}
