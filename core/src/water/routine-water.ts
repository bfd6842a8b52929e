import { drainsSlowly, type PercolationClass } from '../ground';
import { routineRules, type Practice, type WateringPhase } from '../practice';
import { because, type Reason } from '../reason';
import type { Stock } from '../stock';

export interface RoutineWater {
  /** Litres a visit; `null` where the balance or the probe decides. */
  readonly perVisitL: number | null;
  /** Over the first growing season, on average where visits thin out. */
  readonly visitsPerWeek: number | null;
  readonly weeklyL: number | null;
  readonly because: readonly Reason[];
}

export interface RoutineInput {
  readonly stock: Stock;
  readonly percolation: PercolationClass | undefined;
  readonly mulchRingMm: number;
  readonly practice: Practice;
}

const discM2 = (diameterMm: number): number => (Math.PI / 4) * (diameterMm / 1000) ** 2;
/** A millimetre on a square metre is a litre. */
const weeklyRainMm = 25;

const meanVisits = (phases: readonly WateringPhase[]): number => {
  const weeks = phases.reduce((sum, phase) => sum + phase.weeks, 0);
  return phases.reduce((sum, phase) => sum + phase.weeks * phase.visitsPerWeek, 0) / weeks;
};

/** What a practice asks for each week of the first growing season, as far as it is a rule and not a balance. */
export function routineWater(input: RoutineInput): RoutineWater {
  const { rule, visitsPerWeek: usual, weeklyL, summerFactor, dormant } = input.practice.routine;
  const { by, slowShare, phases } = routineRules[rule];
  const season = dormant ? [] : [because('routine_dormant', {})];
  const why: Reason[] = [because('routine', { rule }), ...season];
  if (by === 'nothing') return { perVisitL: null, visitsPerWeek: null, weeklyL: null, because: why };
  if (by === 'zero') return { perVisitL: 0, visitsPerWeek: 0, weeklyL: 0, because: [because('routine', { rule })] };
  if (by === 'week') {
    const visits = usual > 0 ? usual : 1;
    const summer = summerFactor === 1 ? [] : [because('routine_summer', { weeklyL: weeklyL * summerFactor })];
    return { perVisitL: weeklyL / visits, visitsPerWeek: visits, weeklyL, because: [...why, ...summer] };
  }
  const slow = drainsSlowly(input.percolation) && slowShare < 1;
  const visits = (phases === null ? usual : meanVisits(phases)) * (slow ? slowShare : 1);
  const perVisitL = doseL(by, input);
  const slower = slow ? [because('routine_slow', { sharePct: slowShare * 100 })] : [];
  return { perVisitL, visitsPerWeek: visits, weeklyL: perVisitL * visits, because: [...why, ...slower] };
}

function doseL(by: 'caliper' | 'rain_on_ring' | 'rain_on_ball', input: RoutineInput): number {
  const { stock, practice, mulchRingMm } = input;
  if (by === 'caliper') return (practice.routine.lPer25Mm * stock.caliperMm) / 25;
  const ballMm = stock.kind === 'bare_root' ? stock.rootSpreadMm : stock.ballDiameterMm;
  return weeklyRainMm * discM2(by === 'rain_on_ring' ? mulchRingMm : ballMm);
}
