import type { LabelKind, WrapKind } from './received-tree';
import type { StockKind } from './stock';
import { becauseOf, type ReasonOf } from '../reason';

/** What received stock gives as why. Lengths are millimetres unless the name says otherwise. */
export interface StockReasonFacts {
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
  stock_washed_out: Record<string, never>;
  stock_other_name: Record<string, never>;
  stock_sign_differs: Record<string, never>;
  stock_name_doubt: { label: LabelKind };
  stock_name_by_sign: { label: LabelKind };
  stock_stem_roots: { count: number; thickestMm: number };
  unload_people: { people: number };
  unload_machine: { massKg: number; limitKg: number };
}

export type StockReason = ReasonOf<StockReasonFacts>;

export const because = becauseOf<StockReasonFacts>();
