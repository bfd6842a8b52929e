import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import type { Problem } from '@sombra/contract';
import {
  addDaysTo,
  because,
  fieldDefault,
  mildWinterWindows,
  percolationPlot,
  pitPlan,
  seasonBand,
  seasonWeeks,
  stakeNames,
  windowSpans,
  type GroundFacts,
  type PitPlan,
  type Stock,
} from '@sombra/core';
import { DrawingView } from '../drawing/drawing-view';
import { ChoiceField, choicesOf } from '../fields/choice-field';
import { DayField } from '../fields/day-field';
import { MeasureField } from '../fields/measure-field';
import { BecauseList } from '../ui/because-list';
import { LevelMark } from '../ui/level-mark';
import { StateNote } from '../ui/state-note';
import { ThemeService } from '../ui/theme.service';
import { ToastsService } from '../ui/toasts.service';
import { allMarks, markName, markPicture } from '../map/marks';
import { readPalette } from '../map/palette';
import { SessionService } from '../session/session.service';
import { PitSectionView, type PlannedPit } from '../drawing/pit-section-view';

const problem = (status: number, title: string): Problem => ({
  type: 'urn:sombra:problem:x',
  code: 'x',
  title,
  status,
});
const day = (on: string, i: number) => ({
  day: on,
  rainMm: i % 11,
  tMinC: 12,
  tMaxC: 19 + (i % 5),
  humidityMinPct: null,
  humidityMaxPct: null,
  windMs: null,
  radiationMj: null,
});
const ground: GroundFacts = {
  soil: 'loam',
  stony: false,
  compacted: false,
  percolation: [0, 30, 60, 90].map((minute, i) => ({ minute, levelMm: 300 - 22 * i })),
  slopePct: 9,
  fallsTowardsDeg: 180,
  stripWidthMm: 'open',
  wireHeightM: 'none',
};
const stock: Stock = {
  kind: 'container',
  caliperMm: 50,
  heightM: 3.2,
  ballDiameterMm: 450,
  ballHeightMm: 400,
  topRootsDepthMm: 60,
};

/** Every component in every state, on one page, in both themes. */
@Component({
  selector: 's-gallery-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ReactiveFormsModule,
    DrawingView,
    ChoiceField,
    DayField,
    MeasureField,
    BecauseList,
    LevelMark,
    StateNote,
    PitSectionView,
  ],
  template: `
    <h1>Gallery</h1>
    <p>
      <button type="button" class="btn btn-sm btn-outline-primary" (click)="theme.set(theme.dark() ? 'light' : 'dark')">
        Other theme
      </button>
    </p>
    <h2>Levels</h2>
    <p class="row">
      @for (level of levels; track level) {
        <s-level-mark [level]="level" />
      }
    </p>
    <h2>Marks of the map</h2>
    <p class="row">
      @for (mark of marks(); track mark.name) {
        <span class="mark-one"
          ><img [src]="mark.picture" alt="" width="26" height="26" /><small>{{ mark.name }}</small></span
        >
      }
    </p>
    <h2>States</h2>
    <div class="pair">
      <s-state-note kind="empty" title="No tree is planted yet." text="Plant one, or import what was planted." />
      <s-state-note kind="loading" text="Opening the spot…" />
      <s-state-note [problem]="failed" />
      <s-state-note [problem]="offline" />
      <s-state-note [problem]="denied" />
    </div>
    <h2>Buttons</h2>
    <p class="row">
      <button type="button" class="btn btn-primary">Main act</button>
      <button type="button" class="btn btn-outline-primary">Other act</button>
      <button type="button" class="btn btn-link">Aside</button>
      <button type="button" class="btn btn-primary" disabled>Not now</button>
      <button type="button" class="btn btn-outline-primary" (click)="toasts.say('Something was done.', undo)">
        Toast
      </button>
    </p>
    <h2>Notes</h2>
    <p class="caution">A caution: no digging without a valid locate ticket.</p>
    <p class="problem">A fault: slope must be within 0–60 %, got 140.</p>
    <s-because [reasons]="reasons" />
    <h2>Fields</h2>
    <div class="pair">
      <s-measure-field [formControl]="filled" fact="caliperMm" />
      <s-measure-field [formControl]="wrong" fact="caliperMm" fault="Must be within 8–400 mm, got 9 000" />
      <s-choice-field [formControl]="choice" label="Stake and tie" [choices]="stakes" />
      <s-day-field [formControl]="on" label="Inspected on" />
    </div>
    <h2>Drawings</h2>
    <s-drawing [drawing]="band()" />
    <div class="drawn"><s-drawing [drawing]="plot()" /></div>
    <div class="drawn">
      <s-pit-section [planned]="planned" />
    </div>
  `,
  styles: `
    :host {
      display: block;
      padding: 1rem 1.5rem 4rem;
    }
    h2 {
      margin-top: 1.5rem;
    }
    .drawn {
      max-width: 36rem;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 1rem;
      align-items: center;
    }
    .mark-one {
      display: grid;
      justify-items: center;
      width: 6.4rem;
      font-size: 0.75rem;
    }
    .pair {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 0 2rem;
    }
  `,
})
export class GalleryPage {
  protected readonly theme = inject(ThemeService);
  protected readonly toasts = inject(ToastsService);
  private readonly session = inject(SessionService);
  protected readonly levels = ['good', 'watch', 'act', 'urgent'] as const;
  protected readonly failed = { ...problem(500, 'Something went wrong on our side'), reference: '4f1c' };
  protected readonly offline = problem(0, 'The server cannot be reached.');
  protected readonly denied = problem(403, 'Your role, viewer, does not allow this: import a file');
  protected readonly undo = { name: 'Undo', run: () => this.toasts.say('Taken back.') };
  protected readonly reasons = [
    because('width_times_ball', { factor: 2.5, ballMm: 450, compacted: false }),
    because('stake_overdue', { monthsSincePlanting: 19, offAfterMonths: 12 }),
  ];
  protected readonly filled = new FormControl(52);
  protected readonly wrong = new FormControl(9000);
  protected readonly choice = new FormControl('tight');
  protected readonly on = new FormControl('2026-11-23');
  protected readonly stakes = choicesOf(stakeNames);
  protected readonly planned: PlannedPit = {
    plan: pitPlan({ ground, stock, practice: fieldDefault }) as PitPlan,
    stock,
    ground,
    practice: fieldDefault,
  };

  protected readonly marks = computed(() => {
    this.theme.dark();
    const colours = readPalette();
    return allMarks().map((mark) => ({ name: markName(mark), picture: markPicture(mark, colours) }));
  });

  protected readonly band = computed(() => {
    const today = '2026-11-23';
    const from = addDaysTo(today, -364);
    const recorded = Array.from({ length: 800 }, (_, i) => day(addDaysTo(today, i - 800), i));
    const weather = { recorded, forecast: [], station: { latDeg: 36.9, elevationM: 40 } };
    const windows = windowSpans(mildWinterWindows, { from, to: addDaysTo(today, 180) });
    const marks = [{ kind: 'planting_day', from: '2026-11-28', to: '2026-11-28', title: 'Planting day' }] as const;
    const weeks = seasonWeeks(weather, { from, weeks: 78 });
    return seasonBand({ weeks, windows, marks, today, units: this.session.units(), widthPx: 1100, heightPx: 84 });
  });

  protected readonly plot = computed(() =>
    percolationPlot({ readings: ground.percolation, units: this.session.units(), widthPx: 520, heightPx: 200 }),
  );
}
