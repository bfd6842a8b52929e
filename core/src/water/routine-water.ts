import { drainsSlowly, type PercolationClass } from '../ground';
import { routineRules, type Practice, type WateringPhase } from '../practice';
import { because, type WaterReason } from './reasons';
import type { Stock } from '../stock';

export interface RoutineWater {
  /** Litres a visit; `null` where the balance or the probe decides. */
  readonly perVisitL: number | null;
  /** Over the first growing season, on average where visits thin out. */
  readonly visitsPerWeek: number | null;
  readonly weeklyL: number | null;
  readonly because: readonly WaterReason[];
}

export interface RoutineInput {
  readonly stock: Stock;
  readonly percolation: PercolationClass | undefined;
  /** Of the ring kept free of grass, as far as it lies within its strip. m² */
  readonly ringM2: number;
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
  const { rule, visitsPerWeek: usual, weeklyL, summerFactor, dormant, slowVisitsShare } = input.practice.routine;
  const { by, bySoil, fromGrowth, phases } = routineRules[rule];
  const season = dormant ? [] : [because('routine_dormant', {})];
  const why: WaterReason[] = [because('routine', { rule }), ...season];
  if (by === 'nothing') return { perVisitL: null, visitsPerWeek: null, weeklyL: null, because: why };
  if (by === 'week') {
    const visits = usual > 0 ? usual : 1;
    const summer = summerFactor === 1 ? [] : [because('routine_summer', { weeklyL: weeklyL * summerFactor })];
    return { perVisitL: weeklyL / visits, visitsPerWeek: visits, weeklyL, because: [...why, ...summer] };
  }
  const slow = bySoil && drainsSlowly(input.percolation) && slowVisitsShare < 1;
  const visits = (phases === null ? usual : meanVisits(phases)) * (slow ? slowVisitsShare : 1);
  const perVisitL = doseL(by, input);
  const slower = slow ? [because('routine_slow', { sharePct: slowVisitsShare * 100 })] : [];
  const after = fromGrowth ? [because('routine_from_growth', { perVisitL })] : [];
  return { perVisitL, visitsPerWeek: visits, weeklyL: perVisitL * visits, because: [...why, ...after, ...slower] };
}

function doseL(by: 'caliper' | 'rain_on_ring' | 'rain_on_ball', input: RoutineInput): number {
  const { stock, practice, ringM2 } = input;
  if (by === 'caliper') return (practice.routine.lPer25Mm * stock.caliperMm) / 25;
  const ballMm = stock.kind === 'bare_root' ? stock.rootSpreadMm : stock.ballDiameterMm;
  return weeklyRainMm * (by === 'rain_on_ring' ? ringM2 : discM2(ballMm));
}
