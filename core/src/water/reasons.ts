import type { IsoDate } from '../calendar';
import type { BallMedium, SoilClass } from '../ground';
import type { DormantWatering, RoutineRule } from '../practice';
import { becauseOf, type ReasonOf } from '../reason';

/** What watering at planting gives as why. Lengths are millimetres unless the name says otherwise. */
export interface WaterReasonFacts {
  soak_fill_berm: { times: number; storeL: number };
  soak_by_caliper: { lPer25Mm: number; caliperMm: number };
  soak_no_berm: Record<string, never>;
  soak_by_pit_air: { doses: number; doseL: number; soil: SoilClass };
  soak_fixed: Record<string, never>;
  soak_none: Record<string, never>;
  routine: { rule: RoutineRule };
  routine_from_growth: { perVisitL: number };
  routine_slow: { sharePct: number };
  routine_fast: { times: number };
  routine_competition: { times: number; distanceM: number; species: string };
  routine_rain: { rainMm: number };
  routine_wean: { everyDays: number; weeks: number; gapDays: number };
  routine_came_dry: { everyDays: number; weeks: number };
  routine_probe: { everyDays: number };
  routine_summer: { weeklyL: number };
  routine_dormant: { watering: DormantWatering };
  soak_by_depth: { depthMm: number; pitM2: number };
  soak_leaches: { saltDsM: number; morePct: number };
  soak_by_ball_store: { doses: number; doseL: number; medium: BallMedium };
  soak_dormant_wet: Record<string, never>;
  ball_half_by: { day: IsoDate; holdsL: number; perDayL: number };
  ball_half_now: { sharePct: number; errorPct: number };
  ball_after_forecast: { until: IsoDate };
  ball_keeps: { withinDays: number };
  ball_not_forecast: Record<string, never>;
  ball_drowned: { since: IsoDate };
  ball_found_drier: { day: IsoDate; foundPct: number; expectedPct: number };
  ball_found_wetter: { day: IsoDate; foundPct: number; expectedPct: number };
  device_run_once: Record<string, never>;
  device_runs: { runs: number; spreadPct: number };
  device_unsteady: { mostPct: number };
  device_holds: { count: number; volumeL: number; fills: number; doseL: number };
  device_flow_unknown: Record<string, never>;
  device_labelled: { lPerH: number };
  device_measured: { lPerH: number };
  device_label_off: { lPerH: number; timesOff: number };
  device_floods: { lPerH: number; takesLPerH: number };
  device_soaks: { minutes: number };
  device_glaring: Record<string, never>;
  device_off_after: { months: number };
  device_low_branch: { clearMm: number; neededMm: number };
  device_steep: { slopePct: number; mostPct: number };
  device_compacted: Record<string, never>;
  device_ponds: Record<string, never>;
  restricted_day: { nextOn: string };
  restricted_hours: { fromHour: number; untilHour: number };
  device_off: { name: string; since: IsoDate };
  hose_places: { places: number; spreadMm: number };
  hose_uphill: { slopePct: number };
  hose_in_turns: { minutes: number; longestMinutes: number };
  zone_gets: { runL: number; emitters: number };
  zone_drowns: { from: IsoDate; waterloggedDays: number; anywayDays: number; days: number };
  zone_thirsts: { stressDays: number; days: number };
  zone_suits: { stressDays: number; days: number };
}

export type WaterReason = ReasonOf<WaterReasonFacts>;

export const because = becauseOf<WaterReasonFacts>();
