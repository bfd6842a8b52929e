import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChild } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  clearanceOf,
  compassPoint,
  digCover,
  formatQuantity,
  groundGaps,
  InvalidInputError,
  percolationNames,
  groundPercolation,
  basisWith,
  wholePlan,
  soilNames,
  windsOf,
  type NoPitPlan,
  type PlantingPlan,
  type Reason,
} from '@sombra/core';
import { BecauseList } from '../ui/because-list';
import { SessionService } from '../session/session.service';
import { SpotHead } from '../spot/spot-head';
import { SpotStore } from '../spot/spot-store';
import { StockForm } from '../stock/stock-form';
import { CardsButton } from './cards-button';
import { CarryPanel, type Route } from './carry-panel';
import { OverrideForm } from './override-form';
import { PitNumbers } from './pit-numbers';
import { PlantingNeeds } from './planting-needs';
import { PlantingSteps } from '../drawing/planting-steps';
import { PitConflictView } from '../drawing/pit-conflict-view';
import { PitSectionView, type PlannedPit } from '../drawing/pit-section-view';

/** Stock measures on one side, the pit they ask for on the other, live. */
@Component({
  selector: 's-pit-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    RouterLink,
    BecauseList,
    SpotHead,
    StockForm,
    PitNumbers,
    PitConflictView,
    PitSectionView,
    PlantingSteps,
    PlantingNeeds,
    OverrideForm,
    CardsButton,
    CarryPanel,
  ],
  templateUrl: './pit-bench.html',
  styleUrl: './pit-bench.scss',
})
export class PitBench {
  protected readonly store = inject(SpotStore);
  private readonly session = inject(SessionService);
  private readonly form = viewChild(StockForm);
  /** The measures as they are typed. */
  protected readonly facts = computed(() => this.form()?.facts() ?? null);

  protected readonly ground = computed(() => this.store.life()?.ground ?? null);
  protected readonly gaps = computed(() => {
    const life = this.store.life();
    return life ? groundGaps(life.ground, life.drainage) : [];
  });

  protected readonly practice = computed(() => this.store.life()?.practice ?? null);
  /** The way from the kerb as said here: it is looked at, not kept. */
  protected readonly route = signal<Route>({});
  protected readonly kerbM = computed(() => clearanceOf(this.store.life()?.assessment ?? null, 'kerb'));
  protected readonly whole = computed<PlantingPlan | NoPitPlan | null>(() => {
    const [life, stock] = [this.store.life(), this.facts()];
    const work = this.store.detail()?.rules.work;
    if (!life || !stock || !work) return null;
    try {
      return wholePlan(basisWith(life, { stock }), { work, route: this.route() });
    } catch (error) {
      // A value just typed out of range: its field says so.
      if (error instanceof InvalidInputError) return null;
      throw error;
    }
  });

  protected readonly plan = computed(() => {
    const whole = this.whole();
    return whole?.kind === 'plan' ? whole.pit : null;
  });
  protected readonly noPlan = computed(() => {
    const whole = this.whole();
    return whole?.kind === 'no_plan' ? whole : null;
  });
  protected readonly planting = computed(() => {
    const whole = this.whole();
    return whole?.kind === 'plan' ? whole : null;
  });
  /** Rock in the way stands beside how far today's ticket lets the spot move. */
  protected readonly warnings = computed<readonly Reason[]>(() => {
    const [all, detail] = [this.planting(), this.store.detail()];
    if (!all || !detail) return [];
    const { obstacles, pit } = all;
    if (obstacles.length === 0) return pit.cautions;
    const cover = digCover(detail.leave, this.session.today(), detail.rules.ground);
    const room = cover.because.filter(({ code }) => cover.kind !== 'ticket' || code === 'ticket_room');
    return [...obstacles, ...room, ...pit.cautions];
  });
  protected readonly winds = computed(() => windsOf(this.store.life()?.assessment ?? null));
  protected readonly planned = computed<PlannedPit | null>(() => {
    const [plan, stock, ground, practice] = [this.plan(), this.facts(), this.ground(), this.practice()];
    if (!plan || !stock || !ground || !practice) return null;
    return { plan, stock, ground, practice, stakes: this.planting()?.stakes ?? null, windsDeg: this.winds() };
  });
  protected readonly spots = computed(() => {
    const id = this.store.detail()?.spot.id;
    return id ? { spots: [id] } : {};
  });

  protected readonly heading = computed(() => {
    const plan = this.plan();
    if (!plan) return '';
    const say = (mm: number) => formatQuantity(mm, 'lengthMm', this.session.units());
    return `Dig ${say(plan.depthMm.value)} deep, ${say(plan.widthMm.value)} wide`;
  });

  protected readonly groundWords = computed(() => {
    const ground = this.ground();
    if (!ground?.soil) return null;
    const units = this.session.units();
    const percolation = groundPercolation(ground, this.store.drainage());
    return [
      soilNames[ground.soil],
      ground.stony ? 'stony' : '',
      ground.compacted ? 'compacted' : '',
      percolation?.kind === 'rate'
        ? `percolation ${percolationNames[percolation.class]}, ${formatQuantity(percolation.rateMmPerH, 'rateMmPerH', units)}`
        : '',
      ground.slopePct
        ? `slope ${ground.slopePct} %${ground.fallsTowardsDeg === null ? '' : ` to ${compassPoint(ground.fallsTowardsDeg)}`}`
        : 'level',
      typeof ground.stripWidthMm === 'number'
        ? `strip ${formatQuantity(ground.stripWidthMm, 'lengthMm', units)}`
        : 'open',
    ]
      .filter((word) => word !== '')
      .join(' · ');
  });
}
