import {
  drainsSlowly,
  isUnsettled,
  type PercolationLimits,
  groundPercolation,
  groundPercolationClass,
  slowestHorizon,
  requireGround,
  type GroundFacts,
  type IrrigationWater,
  type PercolationClass,
} from '../ground';
import { bermPlaces, type BermPlace, levelRules, pitBases, pitSides, ringRules, type Practice } from '../practice';
import type { Reasoned } from '../reason';
import { because, type PitReason } from './reasons';
import {
  ballVolumeL,
  effectiveBallHeightMm,
  largestThatFits,
  liftingTeam,
  requireStock,
  rootsWidthMm as widthOfRoots,
  treeMass,
  type LiftingTeam,
  type Stock,
  type StockOffer,
} from '../stock';
import { crownSpreadM } from '../match';
import { firstSoakL } from '../water';
import { amendmentsOf, type Amendments } from './amendments';
import { soilBalance, soilBecause, type SoilBalance } from './soil-balance';
import { requireWithin } from '../errors';
import { limits } from '../limits';
import { flareHeight } from './flare-height';
import {
  bermStoreL,
  mulchVolumeL,
  pitShape,
  pitVolumeL,
  ringOutsidePitArea,
  ringWithinStripArea,
  stadiumArea,
  type PitShape,
} from './pit-geometry';

export interface PitPlan {
  readonly kind: 'plan';
  readonly practiceId: string;
  readonly practiceVersion: number;
  /** Height of the ball, or depth of spread roots, once the flare is found. */
  readonly rootsHeightMm: number;
  /** Ball diameter, or spread of bare roots. */
  readonly rootsWidthMm: number;
  /** Depth of the hole at the uphill edge of the ball, below grade there. */
  readonly depthMm: Reasoned<PitReason>;
  /** Depth below grade under the centre of the ball. */
  readonly meanDepthMm: number;
  readonly widthMm: Reasoned<PitReason>;
  readonly shape: PitShape;
  /** Flare above grade at the uphill edge. */
  readonly proudMm: Reasoned<PitReason>;
  /** How far the downhill edge of the ball stands above grade. */
  readonly downhillProudMm: Reasoned<PitReason>;
  readonly pitL: Reasoned<PitReason>;
  readonly backfillL: Reasoned<PitReason>;
  /** What is mixed in, each with its place. */
  readonly amendments: Amendments;
  /** Where the soil goes that is moved. */
  readonly soil: SoilBalance;
  /** A hole is bored through the base, because water stands. */
  readonly drainHole: boolean;
  /** Soil dug deeper, put back and firmed under the ball. */
  readonly fillUnderBallMm: number;
  /** Surplus that stays on the ball at planting: its top stands that much above the flare. */
  readonly surplusLeftMm: number;
  /** `null` on own roots or where nobody looked. */
  readonly graftAboveGradeMm: number | null;
  /** Loose soil left over once the pit is filled and berm, mound and bank are built. */
  readonly spoilL: Reasoned<PitReason>;
  readonly mulchL: Reasoned<PitReason>;
  readonly mulchRingMm: number;
  /** Along the strip, where the pit reaches beyond the ring; else the ring. */
  readonly mulchLengthMm: number;
  /** Of the ring, as far as it lies within its strip. m² */
  readonly ringM2: number;
  readonly berm: { readonly where: BermPlace; readonly heightMm: number; readonly storeL: number } | null;
  /** Why it stands where it does, or why there is none. */
  readonly bermBecause: readonly PitReason[];
  readonly firstWaterL: Reasoned<PitReason>;
  readonly massKg: Reasoned<PitReason>;
  readonly lifting: { readonly team: LiftingTeam; readonly because: readonly PitReason[] };
  readonly cautions: readonly PitReason[];
}

export interface NoPitPlan {
  readonly kind: 'no_plan';
  readonly because: readonly PitReason[];
}

export type PitResult = PitPlan | NoPitPlan;

export interface PitInput {
  readonly ground: GroundFacts;
  readonly stock: Stock;
  readonly practice: Practice;
  /** Thickness of soil to be put back and firmed under the ball, where the hole was dug too deep. */
  readonly fillUnderBallMm?: number;
  readonly fillFirmed?: boolean;
  /** Whether the tree rests on its planting day; bare roots do unless somebody knows better. */
  readonly dormant?: boolean;
  /** What nurseries have of its species; left out where nobody asked them. */
  readonly offers?: readonly StockOffer[] | undefined;
  /** Planted while days grow short and frost is ahead; left out where the day is not known. */
  readonly autumn?: boolean | undefined;
  /** As far as the soil was tested. */
  readonly soilPh?: number | null | undefined;
  /** What it will be watered with; left out where nobody tested it. */
  readonly irrigation?: IrrigationWater | undefined;
}

/**
 * Numbers of a pit for one tree at one spot by one practice, each with its reasons; or the reasons why
 * there can be none (slope, strip, kind of stock, soil not looked at).
 *
 * Geometry: proud p = base + allowance by soil + settlement; depth at the uphill edge d = He − p; on a
 * slope s the downhill edge of a level ball of diameter D stands p + s·D proud and the mean depth is
 * d − s·D/2. Unknown slope counts as level and an unknown strip as open: the reasons in `groundGaps` say so.
 * @throws InvalidInputError for a measure outside `limits`.
 */
export function pitPlan(input: PitInput): PitResult {
  const { ground, stock, practice } = input;
  requireGround(ground);
  requireStock(stock);
  const blocked = noPlanReasons(input);
  if (blocked.length > 0 || ground.soil === null) return { kind: 'no_plan', because: blocked };

  const percolation = groundPercolationClass(ground, practice.percolation);
  const rootsWidthMm = widthOfRoots(stock);
  const rootsHeightMm = stock.kind === 'bare_root' ? stock.rootDepthMm : effectiveBallHeightMm(stock);
  const dugDeeperMm = pitBases[practice.pitWidth.base].fillMm;
  const fillUnderBallMm = requireWithin('fillUnderBallMm', input.fillUnderBallMm ?? dugDeeperMm, limits.putBackMm);
  const surplusLeftMm = surplusLeft(stock, practice);
  const standing = flareHeight(
    {
      ground,
      stock,
      practice,
      fillUnderBallMm,
      dugByPractice: input.fillUnderBallMm === undefined,
      fillFirmed: input.fillFirmed,
      surplusLeftMm,
      stemRootsKept: stemRootsKept(stock, practice),
    },
    { soil: ground.soil, percolation, rootsHeightMm },
  );
  const surface = bySurface(stock, practice, standing.value);
  const proudMm = { value: standing.value - surface.underMm, because: [...standing.because, ...surface.because] };
  const topMm = proudMm.value + Math.max(surplusLeftMm, surface.underMm);
  const depthMm = uphillDepth(stock, rootsHeightMm, proudMm.value);
  const exposureMm = ((ground.slopePct ?? 0) / 100) * rootsWidthMm;
  const downhillDepthMm = depthMm.value - exposureMm;
  if (downhillDepthMm < practice.leastDownhillDepthMm) {
    const leastMm = practice.leastDownhillDepthMm;
    const why =
      exposureMm > 0 && depthMm.value >= leastMm
        ? because('slope_too_steep', { downhillDepthMm, leastMm, slopePct: ground.slopePct ?? 0 })
        : because('ball_too_shallow', { depthMm: depthMm.value, leastMm });
    return { kind: 'no_plan', because: [why] };
  }
  const meanDepthMm = depthMm.value - exposureMm / 2;
  const stripMm = ground.stripWidthMm ?? 'open';
  const { widthMm, shape } = pitWidth(input, rootsWidthMm, stripMm);
  const volumeL = pitVolumeL(shape, meanDepthMm);
  const ballBelowGradeL =
    stock.kind === 'bare_root'
      ? 0
      : ballVolumeL(stock.kind, stock.ballDiameterMm, rootsHeightMm) * (meanDepthMm / rootsHeightMm);
  const pitL = {
    value: volumeL,
    because: [because('pit_volume', { topMm: shape.widthMm, bottomMm: shape.bottomWidthMm, meanDepthMm })],
  };
  const { spoilBulking } = practice.backfill;
  const backfillL = volumeL - ballBelowGradeL;
  const crownMm = ringRules[practice.mulch.ring].dripLine
    ? 1000 * crownSpreadM({ heightAtPlantingM: stock.heightM, years: 0 })
    : 0;
  const mulchRingMm = Math.max(practice.mulch.leastRingDiameterMm, shape.widthMm, crownMm);
  const slow = drainsSlowly(percolation);
  const { berm, bermBecause } = bermOf(practice, { ballMm: rootsWidthMm, shape, slow });
  const outsideM2 = ringOutsidePitArea(mulchRingMm, stripMm, shape) / 1e6;
  const pitM2 = stadiumArea(shape.widthMm, shape.lengthMm) / 1e6;
  const amendments = amendmentsOf(practice, {
    backfillL,
    ringMm: mulchRingMm,
    outsideM2,
    wholeM2: outsideM2 + pitM2,
    pitM2,
    slow,
    fast: percolation === 'fast',
    autumn: input.autumn ?? false,
    soilPh: input.soilPh ?? null,
  });
  const soil = soilBalance({
    practice,
    shape,
    meanDepthMm,
    pitL: volumeL,
    backfillL,
    mixedInL: amendments.inFillL,
    deeperMm: fillUnderBallMm,
    ballMm: rootsWidthMm,
    topMm,
    slopePct: ground.slopePct ?? 0,
    stripMm,
    bermHeightMm: berm?.heightMm ?? null,
    bare: stock.kind === 'bare_root',
  });
  return {
    kind: 'plan',
    practiceId: practice.id,
    practiceVersion: practice.version,
    rootsHeightMm,
    rootsWidthMm,
    depthMm,
    meanDepthMm,
    widthMm,
    shape,
    proudMm,
    downhillProudMm: {
      value: proudMm.value + exposureMm,
      because: [because('downhill_exposure', { slopePct: ground.slopePct ?? 0, ballMm: rootsWidthMm, exposureMm })],
    },
    pitL,
    backfillL: {
      value: backfillL,
      because: [because('backfill_is_pit_less_ball', { pitL: volumeL, ballBelowGradeL })],
    },
    amendments,
    soil,
    drainHole: percolation === 'stands' && pitBases[practice.pitWidth.base].drains,
    fillUnderBallMm,
    surplusLeftMm: topMm - proudMm.value,
    graftAboveGradeMm: stock.graftHeightMm === undefined ? null : stock.graftHeightMm + proudMm.value,
    spoilL: { value: soil.leftL * spoilBulking, because: soilBecause(soil, spoilBulking) },
    mulchL: mulch(input, { ringMm: mulchRingMm, stripMm, pit: shape }),
    mulchRingMm,
    mulchLengthMm: stripMm === 'open' ? mulchRingMm : Math.max(mulchRingMm, shape.lengthMm),
    ringM2: ringWithinStripArea(mulchRingMm, stripMm) / 1e6,
    berm,
    bermBecause,
    firstWaterL: firstSoakL({
      stock,
      soil: ground.soil,
      percolation,
      pitVolumeL: volumeL,
      pitM2,
      waterDsM: input.irrigation?.saltDsM,
      bermStoreL: berm?.storeL ?? null,
      dormant: input.dormant ?? stock.kind === 'bare_root',
      practice,
    }),
    ...weight(stock, practice),
    cautions: cautions(input, proudMm.value),
  };
}

/** What a class of percolation changes in how a tree is planted and watered, by a practice. */
export function percolationConsequences(percolation: PercolationClass, practice: Practice): readonly PitReason[] {
  if (percolation === 'good') return [because('percolation_usual', {})];
  if (percolation === 'fast') return [because('water_fast_soil', {})];
  const { slowSoilExtraMm } = practice.flareAboveGrade;
  const bermed = bermPlaces[practice.berm.where].at !== null;
  return [
    ...(slowSoilExtraMm > 0 ? [because('flare_slow', { extraMm: slowSoilExtraMm, percolation })] : []),
    ...(bermed && practice.berm.notInSlowSoil ? [because('berm_left_out', {})] : []),
    because('water_slow_soil', {}),
  ];
}

/** Facts still missing or doubtful at a spot before its plan can be trusted; drainage by the lines of its practice. */
export function groundGaps(ground: GroundFacts, drainage: PercolationLimits): readonly PitReason[] {
  const gaps: PitReason[] = [];
  if (ground.soil === null) gaps.push(because('soil_missing', {}));
  const percolation = groundPercolation(ground, drainage);
  if (!percolation) gaps.push(because('percolation_missing', {}));
  else if (percolation.kind === 'questioned')
    gaps.push(because('percolation_questioned', { question: percolation.question }));
  else if (isUnsettled(percolation)) {
    const { rateMmPerH, lowMmPerH, highMmPerH } = percolation;
    gaps.push(because('percolation_unsettled', { rateMmPerH, lowMmPerH, highMmPerH }));
  }
  if (ground.slopePct === null) gaps.push(because('slope_missing', {}));
  return gaps;
}

/** How deep the hole is dug at its uphill edge, with what is put back under the ball by plan. mm */
export const digDepthMm = ({ depthMm, fillUnderBallMm }: Pick<PitPlan, 'depthMm' | 'fillUnderBallMm'>): number =>
  depthMm.value + fillUnderBallMm;

/**
 * What to put back when a hole was dug too deep: the whole excess, firmed, and the settlement still to
 * allow for by standing the ball that much prouder. mm
 */
export function overDug(input: { dugDepthMm: number; plannedDepthMm: number; practice: Practice }): {
  readonly putBackMm: number;
  readonly settlementMm: number;
} {
  const putBackMm = Math.max(
    0,
    requireWithin('dugDepthMm', input.dugDepthMm, { min: 0, max: 3000, unit: 'mm' }) - input.plannedDepthMm,
  );
  return { putBackMm, settlementMm: putBackMm * input.practice.flareAboveGrade.settlementFirmed };
}

/**
 * How far the flare lies under what the practice sets at its height: 0 by the flare; by the container's surface as
 * deep as it was potted, unless that is deeper than the practice bears, or would put the flare under grade.
 */
function bySurface(
  stock: Stock,
  { flareAboveGrade: { measuredFrom, surfaceMostMm } }: Practice,
  heightMm: number,
): { readonly underMm: number; readonly because: readonly PitReason[] } {
  if (levelRules[measuredFrom].fromFlare || stock.kind !== 'container') return { underMm: 0, because: [] };
  const underMm = stock.topRootsDepthMm;
  const mostMm = Math.min(surfaceMostMm, heightMm);
  if (underMm > mostMm) return { underMm: 0, because: [because('surface_refused', { underMm, mostMm })] };
  return { underMm, because: [because('surface_kept', { underMm })] };
}

/** What stays on the ball at planting: what cannot come off, or is more than the practice clears at once. mm */
export function surplusLeft(stock: Stock, practice: Practice): number {
  if (stock.kind === 'bare_root') return 0;
  const overMostMm = stock.topRootsDepthMm - practice.roots.clearMostMm;
  return Math.max(0, overMostMm, stock.surplusLeftMm ?? 0);
}

/** Roots of the buried stem that stay at planting, many or thick ones; `null` where all are cut, or there are none. */
export function stemRootsKept(
  stock: Stock,
  { roots: { adventitiousCutMm, adventitiousMany } }: Practice,
): { readonly count: number; readonly thickestMm: number } | null {
  if (stock.kind === 'bare_root' || !stock.adventitious) return null;
  const { count, thickestMm } = stock.adventitious;
  return count >= adventitiousMany || thickestMm > adventitiousCutMm ? { count, thickestMm } : null;
}

function noPlanReasons({ ground, stock, practice, offers }: PitInput): PitReason[] {
  const reasons: PitReason[] = [];
  if (!practice.appliesTo.includes(stock.kind)) {
    reasons.push(because('stock_kind_not_covered', { stock: stock.kind, practice: practice.name }));
  }
  if (ground.soil === null) reasons.push(because('soil_missing', {}));
  const ballMm = widthOfRoots(stock);
  const { stripWidthMm } = ground;
  if (typeof stripWidthMm === 'number' && stripWidthMm < ballMm) {
    reasons.push(because('strip_under_ball', { stripWidthMm, ballMm }));
    reasons.push(because('strip_takes', { stock: stock.kind, largestMm: stripWidthMm }));
    if (offers) reasons.push(onOffer(offers, { kind: stock.kind, widestMm: stripWidthMm }));
  }
  return reasons;
}

function onOffer(offers: readonly StockOffer[], asked: { kind: Stock['kind']; widestMm: number }): PitReason {
  const found = largestThatFits(offers, asked);
  if (!found) return because('strip_no_offer', { stock: asked.kind });
  const { nursery, kind, caliperMm } = found.offer;
  return because('strip_offer', { nursery, stock: kind, caliperMm, ballMm: found.ballMm });
}

/** The ring that holds the dose, or why there is none. */
function bermOf(
  { berm: { where, heightMm, notInSlowSoil } }: Practice,
  of: { readonly ballMm: number; readonly shape: PitShape; readonly slow: boolean },
): Pick<PitPlan, 'berm' | 'bermBecause'> {
  const { at } = bermPlaces[where];
  if (at === null) return { berm: null, bermBecause: [because('berm_by_practice', {})] };
  if (of.slow && notInSlowSoil) return { berm: null, bermBecause: [because('berm_left_out', {})] };
  const storeL =
    at === 'pit' ? bermStoreL(of.shape.widthMm, heightMm, of.shape.lengthMm) : bermStoreL(of.ballMm, heightMm);
  const berm = { where, heightMm, storeL };
  return { berm, bermBecause: [because('berm_placed', berm)] };
}

function uphillDepth(stock: Stock, rootsHeightMm: number, proudMm: number): Reasoned<PitReason> {
  const depthMm = rootsHeightMm - proudMm;
  if (stock.kind === 'bare_root') {
    return { value: depthMm, because: [because('depth_bare_root', { rootDepthMm: rootsHeightMm, proudMm, depthMm })] };
  }
  return {
    value: depthMm,
    because: [
      because('ball_height_less_surplus', {
        ballHeightMm: stock.ballHeightMm,
        surplusMm: stock.topRootsDepthMm,
        effectiveMm: rootsHeightMm,
      }),
      because('depth_is_ball_less_proud', { effectiveMm: rootsHeightMm, proudMm, depthMm }),
    ],
  };
}

function pitWidth(
  input: PitInput,
  rootsWidthMm: number,
  stripMm: number | 'open',
): { widthMm: Reasoned<PitReason>; shape: PitShape } {
  const rule = input.practice.pitWidth;
  if (input.stock.kind === 'bare_root') {
    const full = rootsWidthMm + rule.bareRootMarginMm;
    // Straight sides: the base is as wide as the top.
    const shape = pitShape({ ballMm: full, fullWidthMm: full, baseMarginMm: 0, stripMm });
    const why = because('width_bare_root', { spreadMm: rootsWidthMm, marginMm: rule.bareRootMarginMm });
    return { widthMm: { value: shape.widthMm, because: [why, ...stretched(shape, full)] }, shape };
  }
  const { compacted } = input.ground;
  const factor = compacted ? rule.ballFactorCompacted : rule.ballFactor;
  const full = factor * rootsWidthMm;
  // Straight sides: the base is as wide as the top.
  const baseMarginMm = pitSides[rule.sides].straight ? full : rule.baseMarginMm;
  const shape = pitShape({ ballMm: rootsWidthMm, fullWidthMm: full, baseMarginMm, stripMm });
  const why = because('width_times_ball', { factor, ballMm: rootsWidthMm, compacted: compacted ?? false });
  return { widthMm: { value: shape.widthMm, because: [why, ...stretched(shape, full)] }, shape };
}

function stretched(shape: PitShape, fullWidthMm: number): PitReason[] {
  if (shape.widthMm >= fullWidthMm) return [];
  return [because('width_stretched', { stripWidthMm: shape.widthMm, fullWidthMm, lengthMm: shape.lengthMm })];
}

function mulch(
  input: PitInput,
  { ringMm, stripMm, pit }: { ringMm: number; stripMm: number | 'open'; pit: PitShape },
): Reasoned<PitReason> {
  const { thicknessMm, gapMm } = input.practice.mulch;
  const trunkMm = input.stock.caliperMm;
  const value = mulchVolumeL({ ringDiameterMm: ringMm, trunkMm, gapMm, thicknessMm, stripMm, pit });
  if (value === 0 && thicknessMm > 0) return { value, because: [because('mulch_no_room', { ringMm, gapMm })] };
  const cutByStrip = stripMm !== 'open' && stripMm < ringMm;
  const lengthMm = stripMm === 'open' ? ringMm : Math.max(ringMm, pit.lengthMm);
  return { value, because: [because('mulch_ring', { ringMm, thicknessMm, gapMm, cutByStrip, lengthMm })] };
}

function weight(stock: Stock, practice: Practice): Pick<PitPlan, 'massKg' | 'lifting'> {
  const { ballKg, topKg, totalKg } = treeMass(stock);
  const team = liftingTeam(totalKg, practice.lifting);
  const why =
    team.kind === 'people'
      ? because('lift_people', { people: team.people, limitKg: team.limitKg })
      : because('lift_equipment', { limitKg: team.limitKg });
  return {
    massKg: { value: totalKg, because: [because('mass_ball_and_top', { ballKg, topKg })] },
    lifting: { team, because: [why] },
  };
}

function cautions({ ground, stock, practice }: PitInput, proudMm: number): PitReason[] {
  const found: PitReason[] = [];
  if (stock.graftHeightMm !== undefined) {
    found.push(because('graft_above_grade', { aboveMm: stock.graftHeightMm + proudMm }));
  }
  if (typeof ground.wireHeightM === 'number')
    found.push(because('wires_over_spot', { wireHeightM: ground.wireHeightM }));
  const percolation = groundPercolation(ground, practice.percolation);
  const layer = slowestHorizon(ground, practice.percolation);
  if (layer) {
    const i = ground.horizons?.indexOf(layer.horizon) ?? 0;
    const fromMm = ground.horizons?.[i - 1]?.toMm ?? 0;
    const { soil, fill } = layer.horizon;
    found.push(because('horizon_slow', { soil, fromMm, class: layer.class, fill }));
  }
  if (percolation?.kind === 'rate' && percolation.class === 'stands') {
    found.push(because('percolation_stands', { rateMmPerH: percolation.rateMmPerH }));
  }
  return found;
}
