import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';
import { stageNames } from '@sombra/core';
import { openStages } from './open-stages';
import { DeskService } from '../desk/desk.service';

/** Work order as navigation: each stage with the decisions that wait in it. */
@Component({
  selector: 's-rail',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, RouterLinkActive],
  template: `
    <nav aria-label="Work order">
      <a class="home" routerLink="/desk" aria-label="Sombra, to the desk"
        ><img src="mark.svg" alt="" width="44" height="44"
      /></a>
      <a class="stop" routerLink="/desk" routerLinkActive="here" ariaCurrentWhenActive="page"><span>Desk</span></a>
      @for (stage of stages(); track stage.name) {
        <a class="stop" [routerLink]="['/', stage.path]" routerLinkActive="here" ariaCurrentWhenActive="page">
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
      min-height: 56px;
      padding: 0 0.6rem 0 0.85rem;
      color: #f4efe0;
      text-decoration: none;
      font-size: 1.02rem;
      border-left: 5px solid transparent;
    }
    .stop:hover {
      background: #24483f;
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
    @media (max-width: 720px) {
      nav {
        position: fixed;
        bottom: 0;
        left: 0;
        right: 0;
        z-index: 15;
        width: auto;
        height: 60px;
        flex-direction: row;
        overflow-x: auto;
      }
      .home {
        display: none;
      }
      .stop {
        flex: 1 0 auto;
        flex-direction: column;
        justify-content: center;
        padding: 0 0.4rem;
        min-width: 56px;
        min-height: 60px;
        font-size: 0.9rem;
        border-left: 0;
        border-top: 5px solid transparent;
      }
      .stop.here {
        border-top-color: var(--chosen);
      }
      b {
        font-size: 0.75rem;
        border: 0;
        padding: 0;
      }
    }
  `,
})
export class Rail {
  private readonly desk = inject(DeskService);
  protected readonly stages = computed(() =>
    openStages.map((path) => ({ path, name: stageNames[path], waiting: this.desk.waiting()[path] ?? 0 })),
  );
}
