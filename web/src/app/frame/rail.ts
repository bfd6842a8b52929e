import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterLink, RouterLinkActive } from '@angular/router';
import { filter, map, startWith } from 'rxjs';
import { RoomMap } from '../ui/rooms';
import { ViewState } from '../ui/view-state.service';
import { DeskService } from '../desk/desk.service';

/** Work order as navigation: each stage with the decisions that wait in it. */
@Component({
  selector: 's-rail',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, RouterLinkActive],
  template: `
    <nav aria-label="Work order">
      <a class="home" routerLink="/desk" [queryParams]="day()" aria-label="Sombra, to the desk"
        ><img src="mark.svg" alt="" width="44" height="44"
      /></a>
      <a class="stop" routerLink="/desk" [queryParams]="day()" routerLinkActive="here" ariaCurrentWhenActive="page"
        ><span>Desk</span></a
      >
      <a class="stop" routerLink="/town" [queryParams]="day()" routerLinkActive="here" ariaCurrentWhenActive="page"
        ><span>Town</span></a
      >
      @for (stage of stages(); track stage.name) {
        <a
          class="stop"
          [routerLink]="['/', stage.path]"
          [queryParams]="day()"
          [class.here]="stage.path === here()"
          [attr.aria-current]="stage.path === here() ? 'page' : null"
        >
          <span>{{ stage.name }}</span>
          @if (stage.waiting > 0) {
            <b>{{ stage.waiting }}<span class="visually-hidden"> waiting</span></b>
          }
        </a>
      }
    </nav>
  `,
  styles: `
    nav {
      width: 122px;
      height: 100vh;
      overflow-y: auto;
      background: var(--pine);
      display: flex;
      flex-direction: column;
    }
    .home {
      padding: 0.9rem 0;
      text-align: center;
    }
    .stop {
      display: flex;
      align-items: center;
      justify-content: space-between;
      min-height: 52px;
      padding: 0 0.6rem 0 0.85rem;
      color: var(--on-pine);
      text-decoration: none;
      font-size: 1.02rem;
      border-left: 5px solid transparent;
    }
    .stop:hover {
      background: var(--pine-lit);
    }
    .stop.here {
      background: var(--paper);
      color: var(--ink);
      border-left-color: var(--chosen);
      font-weight: 600;
    }
    b {
      font-size: 0.85rem;
      font-weight: 600;
      min-width: 1.7rem;
      text-align: center;
      padding: 0.1rem 0.3rem;
      border: 1px solid currentcolor;
      border-radius: 2px;
    }
    a:focus-visible {
      outline-color: #f0b3dd;
      outline-offset: -4px;
    }
    @media print {
      nav {
        display: none;
      }
    }
  `,
})
export class Rail {
  private readonly desk = inject(DeskService);
  private readonly router = inject(Router);
  private readonly rooms = inject(RoomMap);
  protected readonly day = inject(ViewState).dayParams;
  protected readonly stages = computed(() =>
    this.rooms.stages.map(({ path, name }) => ({ path, name, waiting: this.desk.waiting()[path] ?? 0 })),
  );

  /** The stage of the open page, be it its spots or a page of its own. */
  protected readonly here = toSignal(
    this.router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      startWith(null),
      map(() => this.rooms.roomOf(this.router.url)?.stage ?? null),
    ),
  );
}
