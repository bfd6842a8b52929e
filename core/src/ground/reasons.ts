import type { SiteThing, SizeClass } from './ground-rules';
import type { PercolationClass, PercolationQuestion } from './percolation';
import type { SoilClass } from './soil';
import { becauseOf, type ReasonOf } from '../reason';

/** What the ground and its leave to dig give as why. Lengths are millimetres unless the name says otherwise. */
export interface GroundReasonFacts {
  soil_missing: Record<string, never>;
  percolation_missing: Record<string, never>;
  percolation_questioned: { question: PercolationQuestion };
  percolation_unsettled: { rateMmPerH: number; lowMmPerH: number; highMmPerH: number };
  percolation_stands: { rateMmPerH: number };
  slope_missing: Record<string, never>;
  percolation_rate: { rateMmPerH: number; class: PercolationClass };
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
  ticket_room: { roomM: number };
  horizon_slow: { soil: SoilClass; fromMm: number; class: PercolationClass; fill: boolean };
  rock_shallow: { rockAtMm: number; leastMm: number };
  sun_short: { sunHours: number; leastH: number };
  owner_unknown: Record<string, never>;
  owner_consent_needed: Record<string, never>;
  road_permit_needed: Record<string, never>;
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
}

export type GroundReason = ReasonOf<GroundReasonFacts>;

export const because = becauseOf<GroundReasonFacts>();
