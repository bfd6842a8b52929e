import type { PercolationClass, SizeClass, WindExposure } from '../ground';
import type { StockKind } from '../stock';
import type { FitPart } from './match-rules';
import type { Grade, WetGrade } from './species';
import { becauseOf, type ReasonOf } from '../reason';

/** What the choice of species and its planting time give as why. Lengths are millimetres unless the name says otherwise. */
export interface MatchReasonFacts {
  fit_too_tall: { heightM: number; tallestM: number };
  fit_no_room: Record<string, never>;
  fit_too_large: { size: SizeClass; allows: SizeClass; heightM: number };
  fit_frost: { bearsC: number; lowestC: number };
  fit_soil_short: { volumeM3: number; neededM3: number; leastPct: number };
  fit_drowns: { percolation: PercolationClass };
  came_well: Record<string, never>;
  came_dry: { covered: boolean | null; moist: boolean | null };
  came_unasked: Record<string, never>;
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
}

export type MatchReason = ReasonOf<MatchReasonFacts>;

export const because = becauseOf<MatchReasonFacts>();
