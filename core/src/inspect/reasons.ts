import type { PercolationClass } from '../ground';
import type { RemedyCode } from '../practice';
import { becauseOf, type ReasonOf } from '../reason';

/** What an inspection gives as why. Lengths are millimetres unless the name says otherwise. */
export interface InspectReasonFacts {
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
  finger_dry: Record<string, never>;
  finger_moist: Record<string, never>;
  look_first_weeks: { everyDays: number; weeks: number };
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

export type InspectReason = ReasonOf<InspectReasonFacts>;

export const because = becauseOf<InspectReasonFacts>();
