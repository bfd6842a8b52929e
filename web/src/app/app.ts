import { ChangeDetectionStrategy, Component, computed, inject, Injector } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterOutlet } from '@angular/router';
import type { SignIn } from '@sombra/contract';
import { filter, firstValueFrom, map } from 'rxjs';
import { ClockNote } from './frame/clock-note';
import { FocusKeeper } from './frame/focus-keeper';
import { NewVersion } from './frame/new-version';
import { PageRow } from './frame/page-row';
import { bindPlaceKeys } from './frame/place-keys';
import { Rail } from './frame/rail';
import { RefusedRecords } from './frame/refused-records';
import { ThumbBar } from './frame/thumb-bar';
import { Toasts } from './frame/toasts';
import { Topbar } from './frame/topbar';
import { SeasonBandView } from './season/season-band-view';
import { readProblem } from './ui/problem';
import { ThemeService } from './ui/theme.service';
import { watchMedia } from './ui/watch-media';
import { whenIdle } from './ui/when-idle';
import { isOpenPage } from './session/open-pages';
import { LockService } from './session/lock.service';
import { alongByItself } from './offline/along-by-itself';
import { OwnQueues } from './offline/own-queues.service';
import { SessionService } from './session/session.service';
import { SignInForm, signInFault } from './people/sign-in-form';
import { LockForm } from './people/lock-form';
import { SetUpPage } from './programme/set-up-page';

@Component({
  selector: 's-root',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    RouterOutlet,
    ClockNote,
    LockForm,
    NewVersion,
    PageRow,
    Rail,
    RefusedRecords,
    SeasonBandView,
    SetUpPage,
    Topbar,
    ThumbBar,
    Toasts,
    SignInForm,
  ],
  template: `
    @if (open) {
      <router-outlet />
    } @else {
      @switch (session.state()) {
        @case ('asking') {
          <p class="opening" role="status">Opening Sombra…</p>
        }
        @case ('unreachable') {
          <main class="opening" role="alert">
            <h1>Sombra cannot be reached</h1>
            <p>The server or its database does not answer. What you typed is kept on this device.</p>
            <button type="button" class="btn btn-primary" (click)="session.ask()">Try again</button>
          </main>
        }
        @case ('out') {
          @if (session.programme()) {
            <s-sign-in-form [programme]="session.programme()" [enter]="enter" />
          } @else {
            @defer (on immediate) {
              <s-set-up-page />
            }
          }
        }
        @default {
          @if (lock.locked()) {
            @defer (on immediate) {
              <s-lock-form />
            }
          } @else {
            <a class="visually-hidden-focusable skip" href="#work" (click)="toWork($event)">Skip to the work</a>
            @if (!small()) {
              @defer (on immediate) {
                <s-rail [inert]="expired()" />
              } @placeholder {
                <div class="rail-room"></div>
              }
            }
            <div class="side" [inert]="expired()">
              <s-topbar />
              @if (!session.away() && !timeless()) {
                @defer (on immediate) {
                  <s-season-band />
                } @placeholder {
                  <div class="season-room"></div>
                }
              }
              <s-clock-note />
              <s-new-version />
              @if (queues.refused() > 0) {
                @defer (on immediate) {
                  <s-refused-records />
                }
              }
              <s-page-row />
              <main id="work" tabindex="-1"><router-outlet /></main>
            </div>
            @if (small()) {
              @defer (on immediate) {
                <s-thumb-bar />
              }
            }
          }
          @if (session.state() === 'expired') {
            <div class="veil" role="dialog" aria-modal="true" aria-label="Sign in again">
              <s-sign-in-form [again]="true" [enter]="enter" />
            </div>
          }
        }
      }
    }
    <s-toasts />
  `,
  styles: `
    :host {
      display: flex;
      min-height: 100%;
    }
    .side {
      flex: 1;
      min-width: 0;
      display: flex;
      flex-direction: column;
      height: 100vh;
    }
    /* As wide and as high as what comes there: nothing moves once it is here. */
    .rail-room {
      flex: 0 0 122px;
      background: var(--pine);
    }
    .season-room {
      height: 85px;
      background: var(--shade);
    }
    main#work {
      flex: 1;
      min-height: 0;
      outline: none;
      overflow-y: auto;
    }
    .opening {
      margin: 20vh auto;
      max-width: 32rem;
    }
    s-sign-in-form {
      flex: 1;
    }
    .skip {
      position: absolute;
      z-index: 20;
      background: var(--sheet);
      padding: 0.5rem;
    }
    .veil {
      position: fixed;
      inset: 0;
      background: rgb(23 51 46 / 55%);
      display: grid;
      place-items: center;
      z-index: 1040;
    }
    @media (max-width: 720px) {
      .season-room {
        height: 25px;
      }
      :host {
        flex-direction: column-reverse;
      }
      .side {
        height: calc(100dvh - 60px);
        min-height: 0;
        flex: none;
        margin-bottom: 60px;
      }
    }
    @media print {
      .side {
        height: auto;
      }
    }
  `,
})
export class App {
  protected readonly session = inject(SessionService);
  protected readonly lock = inject(LockService);
  /** Wide enough for the rail, or navigated at the thumb. */
  protected readonly small = watchMedia('(max-width: 720px)');
  /** Pages a signed link opens: no account, no frame. */
  protected readonly open = isOpenPage();
  // The sign-in page has the theme too.
  protected readonly theme = inject(ThemeService);

  protected readonly queues = inject(OwnQueues);
  /** While somebody has to sign in again nothing behind the dialog takes the focus. */
  protected readonly expired = computed(() => this.session.state() === 'expired');
  private readonly router = inject(Router);
  /** A page on which no day makes a difference has no season above it. */
  protected readonly timeless = toSignal(
    this.router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      map(() => this.router.routerState.root.firstChild?.snapshot.data['timeless'] === true),
    ),
    { initialValue: false },
  );

  constructor() {
    inject(FocusKeeper);
    bindPlaceKeys();
    // What somebody left sealed on this device goes out from any page, whoever is signed in; the first page need not wait.
    const injector = inject(Injector);
    whenIdle(
      () =>
        void import('./offline/sealing.service').then(
          ({ SealingService }) => injector.get(SealingService),
          () => undefined,
        ),
    );
    if (!this.open) alongByItself();
  }

  protected readonly enter = (entry: SignIn): Promise<string | null> =>
    firstValueFrom(this.session.signIn(entry)).then(
      () => null,
      (error: unknown) => signInFault(readProblem(error)),
    );

  protected toWork(event: Event): void {
    event.preventDefault();
    document.getElementById('work')?.focus();
  }
}
