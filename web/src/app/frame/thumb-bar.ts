import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterLink } from '@angular/router';
import type { Role } from '@sombra/contract';
import { filter, map, startWith } from 'rxjs';
import { OwnQueues } from '../offline/own-queues.service';
import { SessionService } from '../session/session.service';
import { RoomMap } from '../ui/rooms';

type PlaceName = 'desk' | 'town' | 'round' | 'day' | 'tree' | 'map' | 'waiting';

/** The few places each role goes to with one hand; all the rest stands under More. */
const placesOf: Readonly<Record<Role, readonly PlaceName[]>> = {
  administrator: ['desk', 'town', 'waiting'],
  coordinator: ['desk', 'town', 'waiting'],
  crew_lead: ['day', 'tree', 'map', 'waiting'],
  inspector: ['round', 'tree', 'map', 'waiting'],
  waterer: ['round', 'map', 'waiting'],
  viewer: ['town', 'desk'],
};

interface Place {
  readonly name: string;
  readonly icon: string;
  readonly path: string;
  readonly query?: Readonly<Record<string, string>>;
}
const places: Readonly<Record<Exclude<PlaceName, 'tree'>, Place>> = {
  desk: { name: 'Desk', icon: 'bi-inboxes', path: '/desk' },
  town: { name: 'Town', icon: 'bi-map', path: '/town' },
  round: { name: 'Round', icon: 'bi-signpost-split', path: '/along' },
  day: { name: 'Day', icon: 'bi-signpost-split', path: '/along' },
  map: { name: 'Map', icon: 'bi-map', path: '/along', query: { map: 'yes' } },
  waiting: { name: 'Waiting', icon: 'bi-hourglass-split', path: '/waiting' },
};
const ofTree = /^\/(?:tree|town|ground|match|stock|pit|day|inspect)\/[0-9a-f-]{36}/;

/** Navigation at the thumb, on a phone. */
@Component({
  selector: 's-thumb-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    @if (more()) {
      <div class="all" role="dialog" aria-label="All places">
        @for (group of all(); track group.name) {
          <h2>{{ group.name }}</h2>
          @for (link of group.links; track link.path) {
            <a [routerLink]="link.path" (click)="more.set(false)">{{ link.name }}</a>
          }
        }
      </div>
    }
    <nav aria-label="Work order">
      @for (place of shown(); track place.name) {
        <a
          [routerLink]="place.path"
          [queryParams]="place.query ?? {}"
          [class.here]="place.name === here()"
          [attr.aria-current]="place.name === here() ? 'page' : null"
          (click)="more.set(false)"
        >
          <i class="bi {{ place.icon }}" aria-hidden="true"></i>
          <span>{{ place.name }}</span>
          @if (place.path === '/waiting' && waiting() > 0) {
            <b>{{ waiting() }}</b>
          }
        </a>
      }
      <button type="button" [attr.aria-expanded]="more()" [class.here]="more()" (click)="more.set(!more())">
        <i class="bi bi-list" aria-hidden="true"></i>
        <span>More</span>
      </button>
    </nav>
  `,
  styles: `
    :host {
      display: none;
    }
    @media (max-width: 720px) {
      :host {
        display: block;
      }
    }
    @media print {
      :host {
        display: none;
      }
    }
    nav {
      position: fixed;
      inset: auto 0 0 0;
      z-index: 15;
      display: flex;
      height: 60px;
      background: var(--pine);
    }
    nav a,
    nav button {
      position: relative;
      flex: 1 1 0;
      min-width: 0;
      display: flex;
      flex-direction: column;
      align-items: center;
      justify-content: center;
      gap: 0.1rem;
      color: var(--on-pine);
      background: none;
      border: 0;
      border-top: 5px solid transparent;
      text-decoration: none;
      /* As large as five of them fit beside each other. */
      font-size: min(1rem, 5.6vw);
      line-height: 1.1;
      padding: 0;
    }
    nav i {
      font-size: min(1rem, 24px);
    }
    .here {
      border-top-color: var(--on-pine) !important;
      background: var(--pine-lit) !important;
      font-weight: 700;
    }
    b {
      position: absolute;
      top: 2px;
      right: 12%;
      min-width: 1.4rem;
      padding: 0 0.25rem;
      border-radius: 0.7rem;
      background: var(--on-pine);
      color: var(--pine);
      text-align: center;
      font-size: 0.95rem;
    }
    a:focus-visible,
    button:focus-visible {
      outline: 3px solid #f0b3dd;
      outline-offset: -4px;
    }
    .all {
      position: fixed;
      inset: 0 0 60px 0;
      z-index: 14;
      overflow-y: auto;
      background: var(--paper);
      padding: 0.8rem 1.2rem 1.5rem;
    }
    .all h2 {
      font-size: 1.05rem;
      margin: 0.8rem 0 0.1rem;
    }
    .all a {
      display: flex;
      align-items: center;
      min-height: 52px;
      border-bottom: 1px solid var(--line);
      color: var(--ink);
      text-decoration: none;
      font-size: 1.1rem;
    }
  `,
})
export class ThumbBar {
  private readonly session = inject(SessionService);
  private readonly router = inject(Router);
  private readonly rooms = inject(RoomMap);
  protected readonly more = signal(false);
  protected readonly waiting = inject(OwnQueues).waiting;
  private readonly url = toSignal(
    this.router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      startWith(null),
      map(() => this.router.url),
    ),
    { initialValue: '/' },
  );
  private lastTree: string | null = null;

  protected readonly shown = computed<readonly Place[]>(() => {
    const role = this.session.user()?.role ?? 'viewer';
    const url = this.url();
    this.lastTree = ofTree.exec(url)?.[0] ?? this.lastTree;
    const tree: Place = {
      name: 'Tree',
      icon: 'bi-tree',
      path: this.lastTree ?? (role === 'crew_lead' ? '/day' : '/inspect'),
    };
    return placesOf[role].map((name) => (name === 'tree' ? tree : places[name]));
  });

  protected readonly here = computed(() => {
    const url = this.url();
    if (ofTree.test(url)) return 'Tree';
    if (url.startsWith('/along') && url.includes('map=yes')) return 'Map';
    const first = `/${url.split(/[/?#]/)[1] ?? ''}`;
    if (first === '/walk') return this.shown().find(({ path }) => path === '/along')?.name ?? '';
    return this.shown().find(({ path }) => path === first)?.name ?? '';
  });

  protected readonly all = computed(() => {
    const stages = this.rooms.stages.map(({ path, name }) => ({ path: `/${path}`, name }));
    const pages = this.rooms.pages
      .filter(({ act }) => act === undefined || this.session.may(act))
      .map(({ path, name }) => ({ path, name }));
    return [
      {
        name: 'Field',
        links: [
          { path: '/along', name: 'Taken along' },
          { path: '/waiting', name: 'Waiting on this device' },
        ],
      },
      { name: 'Work order', links: [{ path: '/desk', name: 'Desk' }, { path: '/town', name: 'Town' }, ...stages] },
      { name: 'Pages', links: [...pages, { path: '/me', name: 'Your name, password and code' }] },
    ];
  });
}
