import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, signal, viewChild } from '@angular/core';
import { addDaysTo, bandScale, dayAt, dayX, seasonBand } from '@sombra/core';
import { DrawingView } from '../drawing/drawing-view';
import { elementWidth } from '../drawing/element-width';
import { sayDate, sayDay } from '../ui/say-date';
import { ViewState } from '../ui/view-state.service';
import { whenIdle } from '../ui/when-idle';
import { SessionService } from '../session/session.service';
import { bandWeeks, SeasonService } from './season.service';

const foldedKey = 'sombra.seasonFolded';
const isSmall = window.innerWidth <= 720;
/** Lower where the screen is small: the thread matters there more than the depths. */
const heightPx = isSmall ? 58 : 84;
/** The first view is drawn before the season above it, which has a hundred parts. */
let rested = false;

/** The year's weeks across the top, with a thread at the chosen day that can be dragged or keyed. */
@Component({
  selector: 's-season-band',
  host: { role: 'region', 'aria-label': 'Season' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView],
  template: `
    <button
      type="button"
      class="line"
      aria-controls="season-band"
      [class.beside]="!small"
      [attr.aria-expanded]="open()"
      [title]="open() ? 'Fold the season away' : 'Show the season'"
      (click)="fold()"
    >
      <span class="visually-hidden">Season</span>
      <i class="bi" [class.bi-chevron-down]="!open()" [class.bi-chevron-up]="open()" aria-hidden="true"></i>
    </button>
    <div
      id="season-band"
      [hidden]="!open()"
      class="band"
      [class.moving]="dragged() !== null"
      #band
      (pointerdown)="grab($event)"
      (pointermove)="drag($event)"
      (pointerup)="drop($event)"
      (pointercancel)="dragged.set(null)"
      [style.height.px]="heightPx"
    >
      @if (drawing(); as picture) {
        <s-drawing [drawing]="picture" />
      } @else {
        <p class="quiet" role="status">
          {{ seasons.problem() ? 'The season cannot be shown now.' : 'Reading the season…' }}
        </p>
      }
      @if (drawing()) {
        <span class="today" [style.left.px]="x(view.today())" aria-hidden="true"></span>
        <span
          class="thread"
          role="slider"
          tabindex="0"
          aria-label="Chosen day"
          [class.elsewhere]="view.tense() !== 'today'"
          [style.left.px]="x(shownDay())"
          [attr.aria-valuemin]="0"
          [attr.aria-valuemax]="weeks * 7 - 1"
          [attr.aria-valuenow]="valueNow()"
          [attr.aria-valuetext]="say(shownDay())"
          (keydown)="key($event)"
        >
          <span class="flag" [class.left]="x(shownDay()) > width() - 90">{{ day(shownDay()) }}</span>
        </span>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      background: var(--shade);
      border-bottom: 1px solid var(--line);
    }
    .band {
      position: relative;
      overflow: hidden;
      touch-action: pan-y;
      cursor: ew-resize;
    }
    /* A thin line; a finger finds it by what it reaches over below and above. */
    .line {
      position: relative;
      display: block;
      width: 100%;
      height: 16px;
      padding: 0;
      border: 0;
      background: none;
      color: var(--quiet);
      font-size: 0.75rem;
      line-height: 16px;
    }
    .line::before {
      content: '';
      position: absolute;
      inset: -8px 0;
      z-index: 1;
    }
    @media (max-width: 720px) {
      .line {
        height: 24px;
        line-height: 24px;
      }
    }
    :host {
      position: relative;
    }
    .line.beside {
      position: absolute;
      z-index: 2;
      right: 0;
      bottom: 0;
      width: 28px;
      height: 28px;
      line-height: 28px;
    }
    :host:has(.band[hidden]) .line.beside {
      position: relative;
      width: 100%;
      height: 16px;
      line-height: 16px;
    }
    p {
      margin: 0;
      padding: 1.7rem 1rem;
    }
    .today,
    .thread {
      position: absolute;
      top: 0;
      bottom: 15px;
      width: 2px;
      margin-left: -1px;
    }
    .today {
      border-left: 2px dotted var(--quiet);
      pointer-events: none;
    }
    .thread {
      background: var(--chosen);
    }
    .thread::before {
      content: '';
      position: absolute;
      inset: 0 -22px;
    }
    .flag {
      position: absolute;
      bottom: -15px;
      left: 0;
      padding: 0 0.4rem;
      background: var(--chosen);
      color: var(--on-chosen);
      font-size: 0.78rem;
      line-height: 15px;
      font-weight: 600;
      white-space: nowrap;
      pointer-events: none;
      visibility: hidden;
    }
    /* The day stands in the top bar; here it is said while it is moved, and covers no month else. */
    .thread:hover .flag,
    .thread:focus-visible .flag,
    .moving .flag {
      visibility: visible;
    }
    .flag.left {
      left: auto;
      right: 0;
    }
    @media print {
      :host {
        display: none;
      }
    }
  `,
})
export class SeasonBandView {
  protected readonly seasons = inject(SeasonService);
  protected readonly view = inject(ViewState);
  private readonly session = inject(SessionService);
  private readonly band = viewChild<ElementRef<HTMLElement>>('band');
  protected readonly width = elementWidth(this.band, 1100);
  protected readonly weeks = bandWeeks;
  protected readonly heightPx = heightPx;
  protected readonly small = isSmall;
  /** On a phone the work has the room: the band is a thin line until it is asked for. */
  protected readonly open = signal(!isSmall && localStorage.getItem(foldedKey) === null);
  /** The day under the finger while dragging: the address follows when it rests. */
  protected readonly dragged = signal<string | null>(null);
  protected readonly shownDay = computed(() => this.dragged() ?? this.view.on());
  protected readonly day = sayDay;
  private readonly rested = signal(rested);

  constructor() {
    whenIdle(() => this.rested.set((rested = true)));
  }

  private readonly scale = computed(() => {
    const first = this.seasons.season()?.weeks[0]?.monday;
    return first ? bandScale(first, bandWeeks, this.width()) : null;
  });

  protected readonly drawing = computed(() => {
    const season = this.rested() ? this.seasons.season() : null;
    if (!season) return null;
    const units = this.session.units();
    return seasonBand({ ...season, today: this.view.today(), units, widthPx: this.width(), heightPx });
  });

  protected readonly valueNow = computed(() => {
    const scale = this.scale();
    const first = scale?.firstDay;
    if (!first) return 0;
    return Math.round((Date.parse(this.shownDay()) - Date.parse(first)) / 86_400_000);
  });

  /** Whoever needs its room folds it away; this device keeps it so. */
  protected fold(): void {
    this.open.update((open) => !open);
    if (isSmall) return;
    if (this.open()) localStorage.removeItem(foldedKey);
    else localStorage.setItem(foldedKey, 'yes');
  }

  protected x(day: string): number {
    const scale = this.scale();
    return scale ? dayX(scale, day) : 0;
  }

  protected say(day: string): string {
    const tense = { past: 'as it was', today: 'today', ahead: 'as forecast' }[this.view.tense()];
    return `${sayDate(day)}, ${tense}`;
  }

  protected grab(event: PointerEvent): void {
    if (event.button !== 0) return;
    (event.currentTarget as HTMLElement).setPointerCapture?.(event.pointerId);
    this.follow(event);
  }

  protected drag(event: PointerEvent): void {
    if (this.dragged() !== null) this.follow(event);
  }

  protected drop(event: PointerEvent): void {
    if (this.dragged() === null) return;
    this.follow(event);
    const day = this.dragged();
    this.dragged.set(null);
    if (day) this.view.setDay(day);
  }

  private follow(event: PointerEvent): void {
    const scale = this.scale();
    const left = this.band()?.nativeElement.getBoundingClientRect().left ?? 0;
    if (scale) this.dragged.set(dayAt(scale, event.clientX - left));
  }

  protected key(event: KeyboardEvent): void {
    const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: -28, PageDown: 28 }[event.key];
    if (step === undefined && event.key !== 'Home') return;
    event.preventDefault();
    if (step === undefined) return this.view.setDay(this.view.today());
    this.view.setDay(addDaysTo(this.view.on(), event.shiftKey ? step * 7 : step));
  }
}
