import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterLink, RouterLinkActive } from '@angular/router';
import { filter, map, startWith } from 'rxjs';
import { SessionService } from '../session/session.service';
import { KeysService } from '../ui/keys.service';
import { RoomMap } from '../ui/rooms';
import { ViewState } from '../ui/view-state.service';

/** The pages that belong with the one that is open, in one row. */
@Component({
  selector: 's-page-row',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, RouterLinkActive],
  template: `
    @if (row(); as shown) {
      <nav [attr.aria-label]="shown.name + ', its pages'" [class.deep]="deep()">
        @for (page of shown.pages; track page.path) {
          <a
            [routerLink]="page.path"
            [queryParams]="day()"
            routerLinkActive="here"
            ariaCurrentWhenActive="page"
            [attr.title]="page.key ? page.name + ' (g ' + page.key + ')' : null"
            >{{ page.name }}</a
          >
        }
      </nav>
    }
  `,
  styles: `
    nav {
      display: flex;
      gap: 0.25rem;
      padding: 0 1rem;
      background: var(--paper);
      border-bottom: 1px solid var(--line);
      overflow-x: auto;
    }
    a {
      display: inline-flex;
      align-items: center;
      min-height: 38px;
      padding: 0 0.6rem;
      color: var(--ink);
      text-decoration: none;
      white-space: nowrap;
      border-bottom: 3px solid transparent;
    }
    a:hover {
      background: var(--shade);
    }
    .here {
      border-bottom-color: var(--chosen);
      font-weight: 600;
    }
    @media (max-width: 720px) {
      nav {
        padding: 0 0.3rem;
      }
      a {
        min-height: 48px;
      }
      /* One thing is open: it needs the room. */
      .deep {
        display: none;
      }
    }
    @media print {
      nav {
        display: none;
      }
    }
  `,
})
export class PageRow {
  private readonly router = inject(Router);
  private readonly rooms = inject(RoomMap);
  private readonly view = inject(ViewState);
  private readonly session = inject(SessionService);
  private readonly url = toSignal(
    this.router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      map(() => this.router.url),
      startWith(this.router.url),
    ),
    { requireSync: true },
  );
  protected readonly day = this.view.dayParams;
  protected readonly deep = computed(() => (this.url().split(/[?#]/)[0] ?? '').split('/').length > 2);
  protected readonly row = computed(() => {
    const room = this.rooms.roomOf(this.url());
    if (!room || room.pages.length === 0) return null;
    const name = 'home' in room ? room.home.name : 'Spots';
    const spots = room.stage ? [{ path: `/${room.stage}`, name, key: '' }] : [];
    const pages = room.pages.filter(({ act }) => !act || this.session.may(act));
    return { name: this.rooms.nameOf(room), pages: [...spots, ...pages] };
  });

  constructor() {
    inject(KeysService).bind(
      this.rooms.pages.map((page) => ({
        keys: `g ${page.key}`,
        where: 'Go to',
        does: page.name,
        run: () => void this.router.navigate([page.path], { queryParams: this.day() }),
      })),
    );
  }
}
