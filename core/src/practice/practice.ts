import { defaultPercolationLimits, type PercolationLimits, type SoilClass } from '../ground';
import type { RemedyCode } from './remedy';
import {
  defaultLiftingLimits,
  defaultReceivingRules,
  type LiftingLimits,
  type ReceivingRules,
  type StockKind,
} from '../stock';
import type {
  AftercareTime,
  BermPlace,
  DeepTreeRule,
  GirdlingRule,
  HerbicideUse,
  MulchMaterial,
  MulchProfile,
  RingRule,
  RoutineRule,
  SoakRule,
} from './care-options';
import type {
  AllowanceRule,
  Fertiliser,
  FillMaterial,
  FillPlace,
  GypsumUse,
  PitBase,
  PitSides,
  Settling,
  StoneUse,
} from './pit-options';
import type {
  GuardRule,
  NurseryTies,
  PlantingPruning,
  RootCorrection,
  StakeLayout,
  StakeOrder,
  StakeRule,
  StructuralPruning,
  WrapRemoval,
} from './tree-options';

/**
 * A named, versioned set of choices a programme adopts. Every calculation and judgement reads it; no
 * school of planting is built into the code. Lengths are mm, volumes L, times months unless named otherwise.
 */
export interface Practice {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly appliesTo: readonly StockKind[];
  /** What a percolation test says of the ground. */
  readonly percolation: PercolationLimits;
  readonly flareAboveGrade: {
    readonly baseMm: number;
    /** Further height as a share of the ball's, 0–0.3. */
    readonly ballShare: number;
    /** The same in heavy or slow soil; the larger of the two counts there. */
    readonly ballShareHeavy: number;
    readonly heavySoilExtraMm: number;
    readonly heavySoils: readonly SoilClass[];
    readonly stonyExtraMm: number;
    readonly slowSoilExtraMm: number;
    /** Whether soil and drainage allowances add up, or only the largest counts. */
    readonly allowances: AllowanceRule;
    /** A graft union stands at least this far above grade. */
    readonly graftLeastMm: number;
    /** Further height where surplus stays on the ball, to be taken off later. */
    readonly laterExtraMm: number;
    /** Share by which soil put back under the ball still settles, 0–1. */
    readonly settlementFirmed: number;
    readonly settlementLoose: number;
  };
  readonly pitWidth: {
    readonly ballFactor: number;
    readonly ballFactorCompacted: number;
    readonly bareRootMarginMm: number;
    /** The base is this much wider than the ball, so that a crew can reach down beside it. */
    readonly baseMarginMm: number;
    readonly sides: PitSides;
    readonly base: PitBase;
  };
  /** Least depth at the downhill edge; shallower asks for a terrace or a smaller ball. */
  readonly leastDownhillDepthMm: number;
  readonly backfill: {
    /** Mixed into the site soil; `share` of the fill, 0–0.6. */
    readonly material: FillMaterial;
    readonly share: number;
    readonly place: FillPlace;
    readonly settling: Settling;
    readonly stones: StoneUse;
    readonly fertiliser: Fertiliser;
    readonly gypsum: GypsumUse;
    readonly spoilBulking: number;
  };
  readonly roots: {
    readonly correction: RootCorrection;
    /** Share of the ball's face covered by circling roots above which it is shaved. % */
    readonly shaveOverPct: number;
    readonly wrap: WrapRemoval;
    readonly ties: NurseryTies;
    /** Most surplus taken off a ball at planting; the rest is booked for later. */
    readonly clearMostMm: number;
    readonly clearLaterMonths: number;
  };
  readonly mulch: {
    readonly material: MulchMaterial;
    readonly thicknessMm: number;
    readonly gapMm: number;
    readonly ring: RingRule;
    readonly leastRingDiameterMm: number;
    readonly profile: MulchProfile;
    /** Where it tapers. */
    readonly overBallMm: number;
    readonly acceptedDepthMm: { readonly min: number; readonly max: number };
  };
  readonly berm: { readonly where: BermPlace; readonly heightMm: number; readonly notInSlowSoil: boolean };
  readonly firstSoak: {
    readonly rule: SoakRule;
    readonly doses: number;
    /** For a fixed volume, and for each 25 mm of caliper. */
    readonly fixedL: number;
    readonly lPer25Mm: number;
    readonly skipBareRootInSlowSoil: boolean;
  };
  readonly routine: {
    readonly rule: RoutineRule;
    /** A visit's dose for each 25 mm of caliper. */
    readonly lPer25Mm: number;
    readonly visitsPerWeek: number;
    /** Visits where water drains slowly, of the usual, for rules that go by soil. */
    readonly slowVisitsShare: number;
    readonly weeklyL: number;
    /** By which the weekly volume grows in summer. */
    readonly summerFactor: number;
    readonly dormant: boolean;
    readonly time: AftercareTime;
    readonly months: number;
  };
  readonly staking: {
    readonly rule: StakeRule;
    readonly layout: StakeLayout;
    readonly order: StakeOrder;
    /** Shorter trees stand unstaked unless exposed. */
    readonly unstakedUnderM: number;
    readonly offAfterMonths: number;
  };
  readonly guard: GuardRule;
  readonly pruning: { readonly atPlanting: PlantingPruning; readonly structural: StructuralPruning };
  readonly herbicide: HerbicideUse;
  readonly receiving: ReceivingRules;
  readonly lifting: LiftingLimits;
  readonly asBuilt: {
    readonly flareToleranceMm: number;
    readonly flareSpreadMm: number;
    readonly leastWidthShare: number;
    readonly leastWaterShare: number;
  };
  readonly inspection: InspectionRules;
}

export interface InspectionRules {
  readonly looksAfterMonths: readonly number[];
  readonly flare: { readonly clearFromMm: number; readonly examineFromMm: number; readonly liftOverMm: number };
  /** What is done with a tree over `liftOverMm`. */
  readonly deepTree: DeepTreeRule;
  /** Within this time after planting a tree planted too deep may still be lifted. Months. */
  readonly replantWithinMonths: number;
  /** Most flare that may stand clear of the soil before fine roots dry. */
  readonly exposedMm: number;
  readonly roots: {
    readonly rule: GirdlingRule;
    /** Most root area removed in one season. % */
    readonly seasonCapPct: number;
    readonly stagedFromPct: number;
    readonly referOverPct: number;
    /** A root thicker than this is for a qualified arborist. */
    readonly referRootOverMm: number;
  };
  /** Days until a remedy is due, by how pressing its finding is. */
  readonly remedyDays: { readonly urgent: number; readonly act: number; readonly watch: number };
  /** Remedies that have a time of their own: a season to wait for, somebody to call in. Days. */
  readonly remedyDaysOf: Partial<Readonly<Record<RemedyCode, number>>>;
  /** How soon a tree is looked at again after a finding of this kind; the rest wait for the schedule. Days. */
  readonly followUpDays: Partial<Readonly<Record<RemedyCode, number>>>;
}

export type PracticeChoice = keyof Omit<Practice, 'id' | 'version' | 'name' | 'appliesTo'>;

/** The shipped practice every programme starts from; its choices and reasons are in docs/practice.md. */
export const fieldDefault: Practice = {
  id: 'field-default',
  version: 1,
  name: 'Field default',
  appliesTo: ['container', 'balled', 'bare_root'],
  percolation: defaultPercolationLimits,
  flareAboveGrade: {
    baseMm: 40,
    ballShare: 0,
    ballShareHeavy: 0,
    heavySoilExtraMm: 20,
    heavySoils: ['clay_loam', 'clay'],
    stonyExtraMm: 20,
    slowSoilExtraMm: 35,
    allowances: 'largest',
    graftLeastMm: 50,
    laterExtraMm: 25,
    settlementFirmed: 0.1,
    settlementLoose: 0.25,
  },
  pitWidth: {
    ballFactor: 2.5,
    ballFactorCompacted: 3,
    bareRootMarginMm: 300,
    baseMarginMm: 300,
    sides: 'sloped',
    base: 'undisturbed',
  },
  leastDownhillDepthMm: 100,
  backfill: {
    material: 'site_soil',
    share: 0,
    place: 'in_fill',
    settling: 'tool',
    stones: 'fist_back',
    fertiliser: 'none',
    gypsum: 'by_test',
    spoilBulking: 1.25,
  },
  roots: {
    correction: 'shave_or_slits',
    shaveOverPct: 20,
    wrap: 'top_two_thirds',
    ties: 'off_label_kept',
    clearMostMm: 150,
    clearLaterMonths: 12,
  },
  mulch: {
    material: 'chips',
    thicknessMm: 75,
    gapMm: 75,
    ring: 'least',
    leastRingDiameterMm: 1200,
    profile: 'tapered',
    overBallMm: 25,
    acceptedDepthMm: { min: 25, max: 100 },
  },
  berm: { where: 'ball_edge', heightMm: 90, notInSlowSoil: true },
  firstSoak: { rule: 'ball_store', doses: 2, fixedL: 40, lPer25Mm: 40, skipBareRootInSlowSoil: true },
  routine: {
    rule: 'balance',
    lPer25Mm: 8,
    visitsPerWeek: 1,
    slowVisitsShare: 0.5,
    weeklyL: 40,
    summerFactor: 1.5,
    dormant: false,
    time: 'by_caliper',
    months: 24,
  },
  staking: {
    rule: 'where_needed',
    layout: 'by_size',
    order: 'bare_root_first',
    unstakedUnderM: 2.5,
    offAfterMonths: 12,
  },
  guard: 'where_recorded',
  pruning: { atPlanting: 'broken', structural: 'yearly_light' },
  herbicide: 'no',
  receiving: defaultReceivingRules,
  lifting: defaultLiftingLimits,
  asBuilt: { flareToleranceMm: 15, flareSpreadMm: 30, leastWidthShare: 0.9, leastWaterShare: 0.9 },
  inspection: {
    looksAfterMonths: [1, 3, 6, 12],
    flare: { clearFromMm: 25, examineFromMm: 75, liftOverMm: 150 },
    deepTree: 'by_depth',
    replantWithinMonths: 24,
    exposedMm: 100,
    roots: { rule: 'in_stages', seasonCapPct: 25, stagedFromPct: 25, referOverPct: 50, referRootOverMm: 50 },
    remedyDays: { urgent: 2, act: 14, watch: 365 },
    remedyDaysOf: {
      water_soon: 7,
      skip_water: 14,
      lift_and_replant: 90,
      collar_excavation: 90,
      replace_tree: 180,
      stage_root_cuts: 60,
      refer_arborist: 30,
    },
    followUpDays: {
      water_now: 3,
      water_soon: 7,
      skip_water: 14,
      find_drainage: 7,
      free_tie_now: 30,
      mend_stake: 30,
      remove_stake: 30,
      examine_roots: 30,
      clear_to_flare: 60,
      cut_root: 90,
      lift_and_replant: 120,
      collar_excavation: 120,
      replace_tree: 180,
      stage_root_cuts: 180,
    },
  },
};
