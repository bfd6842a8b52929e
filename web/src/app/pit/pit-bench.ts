import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
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
  stockNames,
  windsOf,
  type NoPitPlan,
  type PlantingPlan,
  type Reason,
  type Stock,
  type StockKind,
} from '@sombra/core';
import { ChoiceField, choicesOf } from '../fields/choice-field';
import { MeasureField } from '../fields/measure-field';
import { BecauseList } from '../ui/because-list';
import { FormDraft } from '../spot/form-draft';
import { FormFoot } from '../spot/form-foot';
import { RecordForm } from '../spot/record-form';
import { RecordSender } from '../spot/record-sender';
import { SpotHead } from '../spot/spot-head';
import { CardsButton } from './cards-button';
import { CarryPanel, type Route } from './carry-panel';
import { OverrideForm } from './override-form';
import { PitNumbers } from './pit-numbers';
import { PlantingNeeds } from './planting-needs';
import { PlantingSteps } from '../drawing/planting-steps';
import { PitSectionView } from '../drawing/pit-section-view';
import { caliperNote } from '../stock/tree-questions';

/** Stock measures on one side, the pit they ask for on the other, live. */
@Component({
  selector: 's-pit-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ReactiveFormsModule,
    RouterLink,
    ChoiceField,
    MeasureField,
    BecauseList,
    FormFoot,
    SpotHead,
    PitNumbers,
    PitSectionView,
    PlantingSteps,
    PlantingNeeds,
    OverrideForm,
    CardsButton,
    CarryPanel,
  ],
  providers: [RecordSender, FormDraft],
  templateUrl: './pit-bench.html',
  styleUrl: './pit-bench.scss',
})
export class PitBench extends RecordForm<'stock'> {
  protected readonly kind = 'stock';
  protected readonly kinds = choicesOf(stockNames);

  protected readonly form = new FormGroup({
    kind: new FormControl<StockKind>('container', { nonNullable: true }),
    caliperMm: new FormControl<number | null>(null),
    heightM: new FormControl<number | null>(null),
    ballDiameterMm: new FormControl<number | null>(null),
    ballHeightMm: new FormControl<number | null>(null),
    topRootsDepthMm: new FormControl<number | null>(null),
    rootSpreadMm: new FormControl<number | null>(null),
    rootDepthMm: new FormControl<number | null>(null),
    surplusLeftMm: new FormControl<number | null>(null),
    firstBranchM: new FormControl<number | null>(null),
    graftHeightMm: new FormControl<number | null>(null),
  });

  protected readonly ground = computed(() => this.store.life()?.ground ?? null);
  protected readonly gaps = computed(() => {
    const life = this.store.life();
    return life ? groundGaps(life.ground, life.drainage) : [];
  });

  protected readonly caliperNote = computed(() => caliperNote(this.session.units()));

  protected readonly deeperThanBall = computed(() => {
    const facts = this.facts();
    if (!facts || facts.kind === 'bare_root' || facts.topRootsDepthMm < facts.ballHeightMm) return null;
    const say = (mm: number) => formatQuantity(mm, 'lengthMm', this.session.units());
    return `Must be less than the ball height, ${say(facts.ballHeightMm)}, got ${say(facts.topRootsDepthMm)}`;
  });

  protected readonly leftTooMuch = computed(() => {
    const facts = this.facts();
    if (!facts || facts.kind === 'bare_root' || (facts.surplusLeftMm ?? 0) <= facts.topRootsDepthMm) return null;
    const say = (mm: number) => formatQuantity(mm, 'lengthMm', this.session.units());
    return `Must be at most the surplus, ${say(facts.topRootsDepthMm)}, got ${say(facts.surplusLeftMm ?? 0)}`;
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

  protected readonly incomplete = computed(() => {
    if (this.deeperThanBall()) return 'The topmost roots cannot lie below the ball.';
    if (this.leftTooMuch()) return 'No more surplus can stay on than there is.';
    return this.facts() ? null : 'A measure above is missing or outside its limits.';
  });

  constructor() {
    super();
    this.start();
  }

  protected stored(): object {
    return { surplusLeftMm: null, firstBranchM: null, graftHeightMm: null, ...this.newest()?.facts };
  }

  protected readFacts(): Stock | null {
    const v = this.form.getRawValue();
    const names =
      v.kind === 'bare_root'
        ? (['rootSpreadMm', 'rootDepthMm'] as const)
        : (['ballDiameterMm', 'ballHeightMm', 'topRootsDepthMm', 'surplusLeftMm'] as const);
    if (
      [...names, 'caliperMm', 'heightM', 'firstBranchM', 'graftHeightMm'].some((name) => this.form.get(name)?.invalid)
    )
      return null;
    const { ballDiameterMm, ballHeightMm, topRootsDepthMm, rootSpreadMm, rootDepthMm, surplusLeftMm } = v;
    if (v.caliperMm === null || v.heightM === null) return null;
    const top = {
      caliperMm: v.caliperMm,
      heightM: v.heightM,
      ...(v.firstBranchM === null ? {} : { firstBranchM: v.firstBranchM }),
      ...(v.graftHeightMm === null ? {} : { graftHeightMm: v.graftHeightMm }),
    };
    if (v.kind === 'bare_root') {
      return rootSpreadMm === null || rootDepthMm === null ? null : { kind: v.kind, ...top, rootSpreadMm, rootDepthMm };
    }
    if (ballDiameterMm === null || ballHeightMm === null || topRootsDepthMm === null) return null;
    const left = surplusLeftMm === null || surplusLeftMm === 0 ? {} : { surplusLeftMm };
    return { kind: v.kind, ...top, ballDiameterMm, ballHeightMm, topRootsDepthMm, ...left };
  }

  protected async submit(): Promise<void> {
    if (this.deeperThanBall() || this.leftTooMuch()) {
      this.tried.set(true);
      return;
    }
    await this.save('Stock measures stored.');
  }
}
