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
  DormantWatering,
  GirdlingRule,
  HerbicideUse,
  MulchMaterial,
  MulchProfile,
  RingRule,
  RoutineRule,
  SoakRule,
  SoakTime,
} from './care-options';
import type {
  AllowanceRule,
  FeedPlace,
  Fertiliser,
  GypsumUse,
  LevelRule,
  MixedIn,
  PitBase,
  PitSides,
  Settling,
  Shoulder,
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
  StubUse,
  TieMaterial,
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
    /** The same in heavy, rocky or slow soil; the larger of the two counts there. */
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
    /** Soil drawn up where the ball stands above the ground. */
    readonly shoulder: Shoulder;
    /** What stands that high: the flare, or the surface of the container as it came. */
    readonly measuredFrom: LevelRule;
    /** To the container's surface only where its flare lies no deeper than this. */
    readonly surfaceMostMm: number;
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
  /** Up to three things mixed in; `share` of what each goes into, 0–0.6. */
  readonly backfill: MixedIn & {
    readonly second: MixedIn;
    readonly third: MixedIn;
    /** How deep a whole area is amended. */
    readonly areaDepthMm: number;
    readonly settling: Settling;
    readonly stones: StoneUse;
    /** What is fed in each place. */
    readonly feeds: Readonly<Record<FeedPlace, Fertiliser>>;
    readonly gypsum: GypsumUse;
    readonly spoilBulking: number;
  };
  readonly roots: {
    readonly correction: RootCorrection;
    /** Share of the ball's face covered by circling roots above which it is shaved. % */
    readonly shaveOverPct: number;
    /** Vertical cuts, where some are made. */
    readonly cuts: number;
    readonly cutDepthMm: number;
    /** Adventitious roots up to this thickness are cut at planting; thicker ones, or many, are cut later. */
    readonly adventitiousCutMm: number;
    /** From so many on they are kept for now: the tree may live by them. */
    readonly adventitiousMany: number;
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
    readonly when: SoakTime;
    readonly doses: number;
    /** Over the pit, where it goes by depth. */
    readonly depthMm: number;
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
    /** Visits where water drains fast, times the usual. */
    readonly fastVisitsTimes: number;
    /** The same where roots of another tree were found in the pit. */
    readonly competitionTimes: number;
    /** A week's rain, for rules that go by it. */
    readonly rainMm: number;
    /** How often a probe is asked where nothing else decides. Days. */
    readonly probeEveryDays: number;
    readonly weeklyL: number;
    /** By which the weekly volume grows in summer. */
    readonly summerFactor: number;
    readonly dormant: DormantWatering;
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
    readonly tie: TieMaterial;
  };
  readonly guard: GuardRule;
  /** Bark is thin, and guarded, until the trunk is this thick. */
  readonly guardUntilMm: number;
  readonly pruning: {
    readonly atPlanting: PlantingPruning;
    readonly stubs: StubUse;
    readonly structural: StructuralPruning;
  };
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
  /** The ball is felt so often in the first growing season; 0 for not at all. */
  readonly moistureEveryDays: number;
  /** The first roots are uncovered by hand every so many years; 0 for never. */
  readonly rootsEveryYears: number;
  /** The flare is looked at, and cleared, each spring for so many years; 0 for by the calendar of months alone. */
  readonly springFlareYears: number;
  /** Looks in the first weeks: every so many days, 0 for none. */
  readonly firstLooks: { readonly everyDays: number; readonly weeks: number };
  readonly flare: { readonly clearFromMm: number; readonly examineFromMm: number; readonly liftOverMm: number };
  /** What is done with a tree over `liftOverMm`. */
  readonly deepTree: DeepTreeRule;
  /** Within this time after planting a tree planted too deep may still be lifted. Months. */
  readonly replantWithinMonths: number;
  /** Another tree may be claimed for so long after planting; 0 for no warranty. Months */
  readonly warrantyMonths: number;
  /** Time a tree needs at least to establish, for each 25 mm of its caliper. Months */
  readonly establishMonthsPer25Mm: number;
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

const nothingMixedIn: MixedIn = { material: 'site_soil', share: 0, bags: 0, place: 'in_fill' };

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
    shoulder: 'apron',
    measuredFrom: 'flare',
    surfaceMostMm: 25,
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
    ...nothingMixedIn,
    second: { ...nothingMixedIn },
    third: { ...nothingMixedIn },
    areaDepthMm: 200,
    settling: 'tool',
    stones: 'fist_back',
    feeds: { base: 'none', halfway: 'none', edge: 'none', surface: 'none', drench: 'none' },
    gypsum: 'by_test',
    spoilBulking: 1.25,
  },
  roots: {
    correction: 'shave_or_slits',
    shaveOverPct: 20,
    cuts: 4,
    cutDepthMm: 40,
    adventitiousCutMm: 10,
    adventitiousMany: 6,
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
  firstSoak: {
    rule: 'ball_store',
    when: 'during',
    doses: 2,
    depthMm: 75,
    fixedL: 40,
    lPer25Mm: 40,
    skipBareRootInSlowSoil: true,
  },
  routine: {
    rule: 'balance',
    lPer25Mm: 8,
    visitsPerWeek: 1,
    slowVisitsShare: 0.5,
    fastVisitsTimes: 1.5,
    competitionTimes: 1.25,
    rainMm: 25,
    probeEveryDays: 7,
    weeklyL: 40,
    summerFactor: 1.5,
    dormant: 'none',
    time: 'by_caliper',
    months: 24,
  },
  staking: {
    rule: 'where_needed',
    layout: 'by_size',
    order: 'bare_root_first',
    unstakedUnderM: 2.5,
    offAfterMonths: 12,
    tie: 'wide_strap',
  },
  guard: 'where_recorded',
  guardUntilMm: 100,
  pruning: { atPlanting: 'broken', stubs: 'cut', structural: 'yearly_light' },
  herbicide: 'no',
  receiving: defaultReceivingRules,
  lifting: defaultLiftingLimits,
  asBuilt: { flareToleranceMm: 15, flareSpreadMm: 30, leastWidthShare: 0.9, leastWaterShare: 0.9 },
  inspection: {
    looksAfterMonths: [1, 3, 6, 12],
    moistureEveryDays: 7,
    rootsEveryYears: 3,
    springFlareYears: 0,
    firstLooks: { everyDays: 0, weeks: 8 },
    flare: { clearFromMm: 25, examineFromMm: 75, liftOverMm: 150 },
    deepTree: 'by_depth',
    replantWithinMonths: 24,
    establishMonthsPer25Mm: 6,
    warrantyMonths: 12,
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
