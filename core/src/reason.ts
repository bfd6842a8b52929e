import type { WindExposure } from './ground/assessment';
import type { SiteThing, SizeClass } from './ground/ground-rules';
import type { BallMedium, SoilClass } from './ground/soil';
import type { PercolationClass } from './ground/percolation';
import type { BermPlace, FillMaterial, GuardRule, RoutineRule, StakeRule } from './practice';
import type { FitPart } from './match/match-rules';
import type { Grade, WetGrade } from './match/species';
import type { WrapKind } from './stock/received-tree';
import type { StockKind } from './stock/stock';

/**
 * Why a number or a verdict is what it is: which rule, with which inputs. Reasons are data; `wording`
 * turns them into a sentence in the reader's units. Lengths are millimetres unless the name says otherwise.
 */
export interface ReasonFacts {
  // pit
  ball_height_less_surplus: { ballHeightMm: number; surplusMm: number; effectiveMm: number };
  flare_base: { baseMm: number; practice: string };
  flare_heavy_soil: { extraMm: number; soil: SoilClass };
  flare_stony: { extraMm: number };
  flare_slow: { extraMm: number; percolation: PercolationClass };
  flare_larger_allowance_rules: { extraMm: number };
  flare_settlement: { fillUnderBallMm: number; sharePct: number; settlementMm: number; firmed: boolean };
  flare_for_graft: { graftMm: number; leastMm: number; extraMm: number };
  flare_for_later: { leftMm: number; extraMm: number; months: number };
  clear_later: { leftMm: number; months: number };
  graft_above_grade: { aboveMm: number };
  flare_percolation_unknown: Record<string, never>;
  depth_is_ball_less_proud: { effectiveMm: number; proudMm: number; depthMm: number };
  depth_bare_root: { rootDepthMm: number; proudMm: number; depthMm: number };
  downhill_exposure: { slopePct: number; ballMm: number; exposureMm: number };
  slope_too_steep: { downhillDepthMm: number; leastMm: number; slopePct: number };
  strip_under_ball: { stripWidthMm: number; ballMm: number };
  strip_takes: { stock: StockKind; largestMm: number };
  strip_offer: { nursery: string; stock: StockKind; caliperMm: number; ballMm: number };
  strip_no_offer: { stock: StockKind };
  width_times_ball: { factor: number; ballMm: number; compacted: boolean };
  width_bare_root: { spreadMm: number; marginMm: number };
  width_stretched: { stripWidthMm: number; fullWidthMm: number; lengthMm: number };
  pit_volume: { topMm: number; bottomMm: number; meanDepthMm: number };
  backfill_is_pit_less_ball: { pitL: number; ballBelowGradeL: number };
  amendment_none: Record<string, never>;
  amendment_share: { material: FillMaterial; sharePct: number };
  amendment_area: { material: FillMaterial; sharePct: number; ringMm: number; depthMm: number };
  amendment_refused: { material: FillMaterial };
  base_put_back: { fillMm: number };
  flare_ball_share: { sharePct: number; ballHeightMm: number; extraMm: number };
  ball_too_shallow: { depthMm: number; leastMm: number };
  soak_fill_berm: { times: number; storeL: number };
  soak_by_caliper: { lPer25Mm: number; caliperMm: number };
  soak_no_berm: Record<string, never>;
  soak_by_pit_air: { doses: number; doseL: number; soil: SoilClass };
  soak_fixed: Record<string, never>;
  soak_none: Record<string, never>;
  routine: { rule: RoutineRule };
  routine_from_growth: { perVisitL: number };
  routine_slow: { sharePct: number };
  routine_summer: { weeklyL: number };
  routine_dormant: Record<string, never>;
  stake_rule: { rule: StakeRule };
  stake_short: { heightM: number; underM: number };
  stake_bare_root: Record<string, never>;
  dig_rate: { soil: SoilClass; stony: boolean; compacted: boolean; litresPerH: number };
  need_guard: { rule: GuardRule };
  need_tie: { eachM: number };
  need_buckets: { eachL: number; litres: number };
  need_gypsum_sodium: { sodiumSar: number; sodicFromSar: number; kgPerM2: number };
  need_gypsum_salt: { saltDsM: number; saltyFromDsM: number; kgPerM2: number };
  need_gypsum_untested: Record<string, never>;
  stake_firm: { overturnNm: number; holdNm: number };
  stake_outweighed: { overturnNm: number; holdNm: number };
  stake_wind_unknown: Record<string, never>;
  stake_under_branch: { firstBranchM: number };
  stake_no_room: { mostMm: number; leastMm: number };
  stake_along_strip: { stripWidthMm: number };
  stake_off: { months: number };
  spoil_bulks: { ballBelowGradeL: number; bulking: number };
  mulch_ring: { ringMm: number; thicknessMm: number; gapMm: number; cutByStrip: boolean; lengthMm: number };
  mulch_no_room: { ringMm: number; gapMm: number };
  soak_by_ball_store: { doses: number; doseL: number; medium: BallMedium };
  soak_dormant_wet: Record<string, never>;
  mass_ball_and_top: { ballKg: number; topKg: number };
  lift_people: { people: number; limitKg: number };
  lift_equipment: { limitKg: number };
  lift_route_assumed: { distanceM: number };
  lift_carry: { massKg: number; distanceM: number };
  lift_trolley: { massKg: number; slopePct: number; people: number };
  lift_machine: { massKg: number; slopePct: number };
  stock_sound: Record<string, never>;
  stock_wrong_kind: { came: StockKind; ordered: StockKind };
  stock_pot_bound: { circlingPct: number; mostPct: number };
  stock_circling: { circlingPct: number; fromPct: number };
  stock_thick_circling: { rootMm: number; mostMm: number };
  stock_ball_lost: Record<string, never>;
  stock_ball_soft: Record<string, never>;
  stock_no_soil_shows: Record<string, never>;
  stock_no_structural: Record<string, never>;
  stock_surplus_stays: { leftMm: number };
  stock_ball_flat: { ballHeightMm: number; leastMm: number };
  stock_one_sided: Record<string, never>;
  stock_treated_wrap: Record<string, never>;
  stock_ties: { ties: WrapKind };
  lot_bad: { bad: number; opened: number; mostPct: number };
  lot_none_arrived: Record<string, never>;
  lot_open_all: { bad: number; more: number };
  lot_open_more: { more: number; open: number };
  lot_roots_unseen: { trees: number };
  lot_sampled: { opened: number; arrived: number; surePct: number };
  lot_single_bad: { bad: number };
  stock_kinked: Record<string, never>;
  stock_too_deep: { deepMm: number; ballHeightMm: number };
  stock_deep: { deepMm: number };
  stock_caliper_short: { caliperMm: number; orderedMm: number };
  stock_ball_small: { ballMm: number; leastMm: number };
  stock_wounded: Record<string, never>;
  stock_no_leader: Record<string, never>;
  stock_split_leader: Record<string, never>;
  stock_synthetic_wrap: Record<string, never>;
  stock_broken_branches: Record<string, never>;
  stock_kind_not_covered: { stock: StockKind; practice: string };
  // ground
  soil_missing: Record<string, never>;
  percolation_missing: Record<string, never>;
  percolation_questioned: { question: PercolationQuestion };
  percolation_unsettled: { rateMmPerH: number; lowMmPerH: number; highMmPerH: number };
  percolation_stands: { rateMmPerH: number };
  wires_over_spot: { wireHeightM: number };
  slope_missing: Record<string, never>;
  percolation_rate: { rateMmPerH: number; class: PercolationClass };
  berm_placed: { where: BermPlace; heightMm: number; storeL: number };
  berm_by_practice: Record<string, never>;
  berm_left_out: Record<string, never>;
  water_slow_soil: Record<string, never>;
  water_fast_soil: Record<string, never>;
  percolation_usual: Record<string, never>;
  presoak_short: { minutes: number; leastMin: number };
  site_unmeasured: { thing: SiteThing };
  site_clear: { thing: SiteThing; distanceM: number; leastM: number };
  site_allows: { thing: SiteThing; distanceM: number; size: SizeClass; next: SizeClass; leastM: number };
  site_too_near: { thing: SiteThing; distanceM: number; leastM: number };
  wire_unmeasured: Record<string, never>;
  wire_none: Record<string, never>;
  wire_limits_height: { wireHeightM: number; headroomM: number; tallestM: number };
  wire_beside: {
    wireHeightM: number;
    distanceM: number;
    size: SizeClass;
    tallestM: number;
    next: SizeClass;
    leastM: number;
  };
  wire_too_low: { wireHeightM: number; headroomM: number; tallestM: number };
  strip_unmeasured: Record<string, never>;
  strip_wide: { stripWidthMm: number; leastMm: number };
  strip_allows: { stripWidthMm: number; size: SizeClass; next: SizeClass; leastMm: number };
  strip_too_narrow: { stripWidthMm: number; leastMm: number };
  soil_volume_unknown: Record<string, never>;
  soil_volume: { volumeM3: number; widestM: number; neededM3: number };
  soil_volume_short: { volumeM3: number; widestM: number; neededM3: number };
  ground_compacted: { stopsMm: number | null; leastMm: number };
  building_planned: Record<string, never>;
  private_lines_unasked: Record<string, never>;
  private_lines_found: Record<string, never>;
  salt_high: { saltDsM: number; mostDsM: number; testedOn: string };
  rock_in_pit: { rockAtMm: number; depthMm: number };
  ticket_room: { roomM: number };
  rock_shallow: { rockAtMm: number; leastMm: number };
  sun_short: { sunHours: number; leastH: number };
  owner_unknown: Record<string, never>;
  owner_consent_needed: Record<string, never>;
  road_permit_needed: Record<string, never>;
  assessment_missing: Record<string, never>;
  verdict_missing: Record<string, never>;
  verdict_move: { reason: string };
  verdict_plant_if: { reason: string };
  // tickets
  ticket_withdrawn: Record<string, never>;
  ticket_unsent: Record<string, never>;
  ticket_expired: { validUntil: string; days: number };
  ticket_conflict: { utilities: string };
  ticket_waits: { utilities: string; validFrom: string };
  ticket_reply_missing: { utilities: string; validFrom: string };
  ticket_not_yet: { validFrom: string };
  ticket_valid: { validUntil: string };
  ticket_renew: { validUntil: string; workingDays: number };
  hand_dig_zone: { toleranceMm: number };
  clearance_attached: { document: string; clearedBy: string; validUntil: string };
  no_ticket: { raiseBy: string };
  // match
  species_missing: Record<string, never>;
  fit_too_tall: { heightM: number; tallestM: number };
  fit_no_room: Record<string, never>;
  fit_too_large: { size: SizeClass; allows: SizeClass; heightM: number };
  fit_frost: { bearsC: number; lowestC: number };
  fit_soil_short: { volumeM3: number; neededM3: number; leastPct: number };
  fit_drowns: { percolation: PercolationClass };
  fit_salt: { saltDsM: number; bearsDsM: number };
  fit_ph: { ph: number; min: number; max: number };
  fit_shade: { sunHours: number; askedH: number };
  fit_thorns: Record<string, never>;
  fit_toxic: Record<string, never>;
  fit_unknown: { part: FitPart };
  fit_soil: { volumeM3: number; neededM3: number };
  fit_water: { percolation: PercolationClass; drought: Grade; dry: boolean; wet: WetGrade };
  fit_chemistry: { ph: number | null; min: number; max: number; saltDsM: number | null; bearsDsM: number };
  fit_light: { sunHours: number; askedH: number };
  fit_wind: { wind: WindExposure; windFirm: Grade };
  fit_paving: { stripWidthMm: number | 'open'; roots: Grade };
  fit_upkeep: { litter: Grade; pollen: Grade };
  fit_no_wishes: Record<string, never>;
  fit_wishes: { met: number; asked: number };
  fit_shade_given: { spreadM: number; wideM: number };
  fit_nature: { native: boolean; pollinators: Grade; birds: Grade };
  window_open: { stock: StockKind };
  window_closed: { stock: StockKind };
  forecast_frost: { coldC: number };
  forecast_heat: { warmC: number };
  forecast_rain: { rainMm: number; days: number };
  // stock
  stock_missing: Record<string, never>;
  // day
  ready_to_plant: Record<string, never>;
  flare_as_planned: { actualMm: number; plannedMm: number; toleranceMm: number };
  flare_below_grade: { actualMm: number; plannedMm: number };
  flare_lower_than_plan: { actualMm: number; plannedMm: number; toleranceMm: number };
  flare_higher_than_plan: { actualMm: number; plannedMm: number; toleranceMm: number };
  flare_uneven: { spreadMm: number; limitMm: number };
  hole_as_planned: { actualMm: number; plannedMm: number };
  hole_narrow: { actualMm: number; plannedMm: number; leastMm: number };
  first_water_given: { actualL: number; plannedL: number };
  first_water_short: { actualL: number; plannedL: number; missingL: number };
  first_water_unasked: { actualL: number };
  no_plan_to_compare: Record<string, never>;
  // inspect
  flare_visible: { depthMm: number; limitMm: number };
  flare_covered: { depthMm: number; limitMm: number };
  flare_buried: { depthMm: number; limitMm: number };
  flare_deep: { depthMm: number; limitMm: number; monthsSincePlanting: number; replantMonths: number };
  flare_exposed: { aboveMm: number };
  mulch_in_range: { depthMm: number; minMm: number; maxMm: number };
  mulch_thin: { depthMm: number; minMm: number };
  mulch_thick: { depthMm: number; maxMm: number };
  mulch_touching: Record<string, never>;
  mulch_heaped: Record<string, never>;
  stake_none: Record<string, never>;
  stake_in_place: { monthsSincePlanting: number; offAfterMonths: number };
  stake_overdue: { monthsSincePlanting: number; offAfterMonths: number };
  stake_tight: Record<string, never>;
  stake_biting: Record<string, never>;
  stake_broken: Record<string, never>;
  probe_good: Record<string, never>;
  probe_slightly_dry: Record<string, never>;
  probe_dry: Record<string, never>;
  probe_wet: Record<string, never>;
  probe_saturated: { percolation: PercolationClass | 'unknown' };
  roots_none_circling: Record<string, never>;
  roots_pressing: { sharePct: number; thickestMm: number; limitPct: number };
  roots_staged: { sharePct: number; thickestMm: number; limitPct: number; toPct: number; capPct: number };
  roots_past_correction: { sharePct: number; thickestMm: number; limitPct: number };
  roots_thick: { thickestMm: number; limitMm: number };
  look_scheduled: { monthAfterPlanting: number };
  look_follow_up: { inDays: number; remedy: RemedyCode };
  look_yearly: Record<string, never>;
}

/** What to do about a finding; `wording` holds the sentence and the caution of each. */
export type RemedyCode =
  | 'none'
  | 'replant_higher'
  | 'widen_hole'
  | 'give_rest_of_soak'
  | 'level_the_ball'
  | 'watch_yearly_clear'
  | 'clear_to_flare'
  | 'examine_roots'
  | 'lift_and_replant'
  | 'collar_excavation'
  | 'replace_tree'
  | 'cover_roots'
  | 'top_up_mulch'
  | 'thin_mulch'
  | 'pull_back_mulch'
  | 'remove_stake'
  | 'loosen_tie'
  | 'free_tie_now'
  | 'mend_stake'
  | 'water_now'
  | 'water_soon'
  | 'skip_water'
  | 'find_drainage'
  | 'cut_root'
  | 'stage_root_cuts'
  | 'refer_arborist';

export type PercolationQuestion =
  'too_few_readings' | 'clock_backwards' | 'level_rises' | 'refilled' | 'hole_empty_too_soon';

export type ReasonCode = keyof ReasonFacts;

export type Reason = {
  [C in ReasonCode]: { readonly code: C; readonly facts: Readonly<ReasonFacts[C]> };
}[ReasonCode];

/** Builds a reason with its facts checked against its code. */
export function because<C extends ReasonCode>(code: C, facts: ReasonFacts[C]): Reason {
  // The pair (code, facts) is checked by the signature; TypeScript cannot rebuild the union from it.
  return { code, facts } as unknown as Reason;
}

/** A computed number and why. The unit is in the name of the property that holds it. */
export interface Reasoned {
  readonly value: number;
  readonly because: readonly Reason[];
}

export type Level = 'good' | 'watch' | 'act' | 'urgent';

const order: readonly Level[] = ['good', 'watch', 'act', 'urgent'];

/** The worst of several levels; `good` when there is none. */
export function worstLevel(levels: readonly Level[]): Level {
  return levels.reduce<Level>((worst, level) => (order.indexOf(level) > order.indexOf(worst) ? level : worst), 'good');
}
