import type { DayReasonFacts, PlantingFinding } from '../day';
import type { GroundReasonFacts } from '../ground';
import type { IsoDate } from '../calendar';
import type { InspectReasonFacts, LookAspect, LookFinding, ProbeClass } from '../inspect';
import type { MatchReasonFacts } from '../match';
import type { RemedyCode, StructuralPruning } from '../practice';
import type { PitReasonFacts } from '../pit';
import type { StockReasonFacts } from '../stock';
import type { WaterReasonFacts } from '../water';
import type { HazardKind } from './hazard-facts';
import { becauseOf, type ReasonOf } from '../reason';

/** What a place's life so far gives as why it waits. */
export interface LifeReasonFacts {
  species_missing: Record<string, never>;
  assessment_missing: Record<string, never>;
  verdict_missing: Record<string, never>;
  verdict_move: { reason: string };
  verdict_plant_if: { reason: string };
  stock_missing: Record<string, never>;
  ready_to_plant: Record<string, never>;
  clear_later: { leftMm: number; months: number };
  stem_roots_later: { count: number; thickestMm: number; months: number };
  stubs_later: { months: number };
  remedy_unshown: { doneOn: IsoDate };
  roots_next_season: { cutOn: IsoDate; months: number };
  established_floor: { on: IsoDate; caliperMm: number; monthsPer25Mm: number };
  established_caliper_unknown: Record<string, never>;
  established_growth: { shootMm: number; beforeMm: number; on: IsoDate; sharePct: number };
  established_growth_unknown: Record<string, never>;
  established_firm: Record<string, never>;
  established_staked: Record<string, never>;
  established_firm_unknown: Record<string, never>;
  established_by_soil: { on: IsoDate; days: number };
  established_still_dries: { on: IsoDate };
  established_water_unknown: { days: number };
  established_clean: { on: IsoDate };
  established_open: { remedy: RemedyCode };
  established_no_look: Record<string, never>;
  established_look_old: { on: IsoDate };
  established_not_looked: { on: IsoDate; missing: readonly LookAspect[] };
  arborist_take_out: { on: IsoDate; arborist: string };
  warranty_runs: { endsOn: IsoDate; remedy: RemedyCode };
  guard_on: { caliperMm: number; untilMm: number };
  guard_off: Record<string, never>;
  prune_young: { rule: StructuralPruning; fromMonths: number; everyMonths: number; prunedOn: IsoDate | undefined };
  guard_refit: { caliperMm: number; untilMm: number };
  planted_twice: { firstOn: IsoDate; secondOn: IsoDate };
  looks_differ_flare: { firstMm: number; secondMm: number };
  looks_differ_probe: { first: ProbeClass; second: ProbeClass };
  looks_differ_stake: Record<string, never>;
  looks_differ_mulch: Record<string, never>;
  hazard_open: { hazard: HazardKind; seenOn: IsoDate; called: string; cordoned: boolean };
}

/** The facts of every reason there is: a stage adds itself here. */
export interface ReasonFacts
  extends
    GroundReasonFacts,
    MatchReasonFacts,
    StockReasonFacts,
    PitReasonFacts,
    DayReasonFacts,
    WaterReasonFacts,
    InspectReasonFacts,
    LifeReasonFacts {}

export type ReasonCode = keyof ReasonFacts;
export type Reason = ReasonOf<ReasonFacts>;

/** Builds any reason; within a stage use the stage's own. */
export const because = becauseOf<ReasonFacts>();

/** What was found at a planting or at a look. */
export type Finding = PlantingFinding | LookFinding;
