import type { GroundReason, GroundReasonFacts, PercolationClass, SoilClass } from '../ground';
import type { BermPlace, FillMaterial, GuardRule, StakeRule } from '../practice';
import type { StockKind, StockReason } from '../stock';
import type { WaterReason } from '../water';
import { becauseOf, type ReasonOf } from '../reason';

/** What the pit plan, its stakes, materials and hours give as why. Lengths are millimetres unless the name says otherwise. */
export interface PitReasonFacts {
  ball_height_less_surplus: { ballHeightMm: number; surplusMm: number; effectiveMm: number };
  flare_base: { baseMm: number; practice: string };
  flare_heavy_soil: { extraMm: number; soil: SoilClass };
  flare_stony: { extraMm: number };
  flare_slow: { extraMm: number; percolation: PercolationClass };
  flare_larger_allowance_rules: { extraMm: number };
  flare_settlement: { fillUnderBallMm: number; sharePct: number; settlementMm: number; firmed: boolean };
  flare_for_graft: { graftMm: number; leastMm: number; extraMm: number };
  flare_for_later: { leftMm: number; extraMm: number; months: number };
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
  mass_ball_and_top: { ballKg: number; topKg: number };
  lift_people: { people: number; limitKg: number };
  lift_equipment: { limitKg: number };
  lift_route_assumed: { distanceM: number };
  stock_kind_not_covered: { stock: StockKind; practice: string };
  wires_over_spot: { wireHeightM: number };
  berm_placed: { where: BermPlace; heightMm: number; storeL: number };
  berm_by_practice: Record<string, never>;
  berm_left_out: Record<string, never>;
  water_slow_soil: Record<string, never>;
  water_fast_soil: Record<string, never>;
  percolation_usual: Record<string, never>;
  rock_in_pit: { rockAtMm: number; depthMm: number };
}

/** A plan also passes on why the ground, the stock and the water are what they are. */
export type PitReason = ReasonOf<PitReasonFacts> | GroundReason | StockReason | WaterReason;

export const because = becauseOf<PitReasonFacts & GroundReasonFacts>();
