import { drainsSlowly, type NeighbourRoots, type PercolationClass } from '../ground';
import { routineRules, type Practice, type WateringPhase } from '../practice';
import { because, type WaterReason } from './reasons';
import type { Stock } from '../stock';

export interface RoutineWater {
  /** Litres a visit; `null` where the balance or the probe decides. */
  readonly perVisitL: number | null;
  /** Over the first growing season, on average where visits thin out. */
  readonly visitsPerWeek: number | null;
  readonly weeklyL: number | null;
  /** Visits in the first weeks, where they are closer than the rule's: what it was used to, or had to bear. */
  readonly firstWeeks: { readonly everyDays: number; readonly weeks: number } | null;
  readonly because: readonly WaterReason[];
}

export interface RoutineInput {
  readonly stock: Stock;
  readonly percolation: PercolationClass | undefined;
  /** Of the ring kept free of grass, as far as it lies within its strip. m² */
  readonly ringM2: number;
  readonly practice: Practice;
  /** Roots of another tree in its pit; left out where none were found. */
  readonly neighbourRoots?: NeighbourRoots | undefined;
}

const discM2 = (diameterMm: number): number => (Math.PI / 4) * (diameterMm / 1000) ** 2;

/** Visits a week over all phases, on average. */
export const meanVisits = (phases: readonly WateringPhase[]): number => {
  const weeks = phases.reduce((sum, phase) => sum + phase.weeks, 0);
  return phases.reduce((sum, phase) => sum + phase.weeks * phase.visitsPerWeek, 0) / weeks;
};

/** What a practice asks for each week of the first growing season, as far as it is a rule and not a balance. */
export function routineWater(input: RoutineInput): RoutineWater {
  const rule = byRule(input);
  const first = firstWeeks(input, rule.visitsPerWeek);
  return { ...rule, firstWeeks: first && first.span, because: [...rule.because, ...(first ? [first.why] : [])] };
}

/** A tree that came dry is watered this often at first. Days, weeks. */
const afterDryTransport = { everyDays: 2, weeks: 3 };

/**
 * The first weeks go on from the nursery's rhythm: each week the gap between visits doubles until it is the rule's. A
 * tree that came dry or uncovered begins closer, whatever it was used to.
 */
function firstWeeks(
  { stock: { arrival } }: RoutineInput,
  visitsPerWeek: number | null,
): { readonly span: { readonly everyDays: number; readonly weeks: number }; readonly why: WaterReason } | null {
  if (!arrival) return null;
  // No rule, or none in its weeks: to once a week, from where the balance or the probe goes on.
  const gapDays = visitsPerWeek ? 7 / visitsPerWeek : 7;
  const dried = arrival.covered === false || arrival.moist === false;
  if (dried && gapDays > afterDryTransport.everyDays) {
    return { span: afterDryTransport, why: because('routine_came_dry', afterDryTransport) };
  }
  const everyDays = arrival.wateredEveryDays;
  if (everyDays === null || everyDays >= gapDays) return null;
  const span = { everyDays, weeks: Math.ceil(Math.log2(gapDays / everyDays)) };
  return { span, why: because('routine_wean', { ...span, gapDays }) };
}

type ByRule = Omit<RoutineWater, 'firstWeeks'>;
function byRule(input: RoutineInput): ByRule {
  const { rule, visitsPerWeek: usual, weeklyL, summerFactor, dormant, probeEveryDays } = input.practice.routine;
  const { by, bySoil, fromGrowth, phases, probeDecides } = routineRules[rule];
  const season = [because('routine_dormant', { watering: dormant })];
  const why: WaterReason[] = [because('routine', { rule }), ...season];
  if (by === 'nothing') {
    const probe = probeDecides ? [because('routine_probe', { everyDays: probeEveryDays })] : [];
    return { perVisitL: null, visitsPerWeek: null, weeklyL: null, because: [...why, ...probe] };
  }
  if (by === 'week') {
    const visits = usual > 0 ? usual : 1;
    const summer = summerFactor === 1 ? [] : [because('routine_summer', { weeklyL: weeklyL * summerFactor })];
    return { perVisitL: weeklyL / visits, visitsPerWeek: visits, weeklyL, because: [...why, ...summer] };
  }
  const place = byPlace(input, bySoil);
  const visits = (phases === null ? usual : meanVisits(phases)) * place.times;
  const perVisitL = doseL(by, input);
  const { rainMm } = input.practice.routine;
  const rain = by === 'caliper' ? [] : [because('routine_rain', { rainMm })];
  const after = fromGrowth ? [because('routine_from_growth', { perVisitL })] : [];
  return {
    perVisitL,
    visitsPerWeek: visits,
    weeklyL: perVisitL * visits,
    because: [...why, ...rain, ...after, ...place.because],
  };
}

/** How much more or less often than usual, by how the ground drains and who drinks beside the tree. */
function byPlace(
  { practice, percolation, neighbourRoots }: RoutineInput,
  bySoil: boolean,
): { readonly times: number; readonly because: readonly WaterReason[] } {
  const { slowVisitsShare, fastVisitsTimes, competitionTimes } = practice.routine;
  const found: WaterReason[] = [];
  let times = 1;
  if (bySoil && drainsSlowly(percolation) && slowVisitsShare < 1) {
    times *= slowVisitsShare;
    found.push(because('routine_slow', { sharePct: slowVisitsShare * 100 }));
  }
  if (bySoil && percolation === 'fast' && fastVisitsTimes > 1) {
    times *= fastVisitsTimes;
    found.push(because('routine_fast', { times: fastVisitsTimes }));
  }
  if (neighbourRoots && competitionTimes > 1) {
    times *= competitionTimes;
    const { distanceM, species } = neighbourRoots;
    found.push(because('routine_competition', { times: competitionTimes, distanceM, species }));
  }
  return { times, because: found };
}

function doseL(by: 'caliper' | 'rain_on_ring' | 'rain_on_ball', input: RoutineInput): number {
  const { stock, practice, ringM2 } = input;
  if (by === 'caliper') return (practice.routine.lPer25Mm * stock.caliperMm) / 25;
  const ballMm = stock.kind === 'bare_root' ? stock.rootSpreadMm : stock.ballDiameterMm;
  // A millimetre on a square metre is a litre.
  return practice.routine.rainMm * (by === 'rain_on_ring' ? ringM2 : discM2(ballMm));
}
