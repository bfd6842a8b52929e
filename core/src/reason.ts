import type { SoilClass } from './ground/soil';
import type { PercolationClass } from './ground/percolation';
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
  flare_percolation_unknown: Record<string, never>;
  depth_is_ball_less_proud: { effectiveMm: number; proudMm: number; depthMm: number };
  depth_bare_root: { rootDepthMm: number; proudMm: number; depthMm: number };
  downhill_exposure: { slopePct: number; ballMm: number; exposureMm: number };
  slope_too_steep: { downhillDepthMm: number; leastMm: number; slopePct: number };
  strip_under_ball: { stripWidthMm: number; ballMm: number };
  width_times_ball: { factor: number; ballMm: number; compacted: boolean };
  width_bare_root: { spreadMm: number; marginMm: number };
  width_stretched: { stripWidthMm: number; fullWidthMm: number; lengthMm: number };
  pit_volume: { topMm: number; bottomMm: number; meanDepthMm: number };
  backfill_is_pit_less_ball: { pitL: number; ballBelowGradeL: number; material: 'site_soil' };
  spoil_bulks: { ballBelowGradeL: number; bulking: number };
  mulch_ring: { ringMm: number; thicknessMm: number; gapMm: number; cutByStrip: boolean };
  soak_by_ball_store: { doses: number; doseL: number; medium: 'container_mix' | 'site_soil' };
  soak_dormant_wet: Record<string, never>;
  mass_ball_and_top: { ballKg: number; topKg: number };
  lift_people: { people: number; limitKg: number };
  lift_equipment: { limitKg: number };
  stock_kind_not_covered: { stock: StockKind; practice: string };
  // ground
  soil_missing: Record<string, never>;
  percolation_missing: Record<string, never>;
  percolation_questioned: { question: PercolationQuestion };
  percolation_stands: { rateMmPerH: number };
  wires_over_spot: { wireHeightM: number };
  slope_missing: Record<string, never>;
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
  roots_staged: { sharePct: number; thickestMm: number; limitPct: number; toPct: number };
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
