import { becauseOf, type ReasonOf } from '../reason';

/** What the planting as built gives as why. Lengths are millimetres unless the name says otherwise. */
export interface DayReasonFacts {
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
  weather_thunder: { hour: number; km: number; limitKm: number };
  weather_heat_stops: { hour: number; feelsC: number; limitC: number };
  weather_heat_breaks: { hour: number; feelsC: number; limitC: number };
  weather_gusts: { hour: number; gustMs: number; limitMs: number };
  weather_heavy_rain: { hour: number; rainMm: number; limitMm: number };
  weather_rain: { hour: number; rainMm: number; limitMm: number };
  weather_frozen: { hour: number; soilC: number };
  weather_fair: { hours: number };
  weather_not_forecast: { hours: number; ofHours: number };
  weather_begin_later: { fromHour: number; toHour: number; neededH: number };
  weather_no_run: { neededH: number; latestEndHour: number };
  ready_no_spots: Record<string, never>;
  ready_covered: { spots: number };
  ready_uncovered: { count: number; spots: number };
  ready_leave: Record<string, never>;
  ready_leave_missing: { count: number };
  ready_stock: { trees: number };
  ready_stock_missing: { notHere: number; refused: number; unmeasured: number };
  ready_plans: Record<string, never>;
  ready_no_plan: { count: number };
  ready_people: { confirmed: number; capacity: number; needed: number };
  ready_leads_short: { leads: number; needed: number };
  ready_waivers: { count: number };
  ready_no_teams: Record<string, never>;
  ready_teams: { teams: number; spotsLeft: number; peopleLeft: number };
  ready_tools: { kinds: number };
  ready_tools_short: { what: string };
  ready_materials: Record<string, never>;
  ready_materials_short: { what: string };
  ready_cards: { changed: number; none: number };
  ready_arrangements: Record<string, never>;
  ready_arrangements_missing: { what: string };
  ready_weather: { advice: 'go' | 'delay' | 'call_off' | 'unknown' };
  pace_by_rules: Record<string, never>;
  pace_learnt: { days: number; changePct: number };
  pace_heavy_soil: { changePct: number };
  pace_heavy_stock: { changePct: number };
}

export type DayReason = ReasonOf<DayReasonFacts>;

export const because = becauseOf<DayReasonFacts>();
