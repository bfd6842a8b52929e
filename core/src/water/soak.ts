import { soilWater, type PercolationClass, type SoilClass } from '../ground';
import type { Practice } from '../practice';
import { because, type Reason, type Reasoned } from '../reason';
import { ballVolumeL, effectiveBallHeightMm, type Stock } from '../stock';

/** Water a ball takes from wilting point to saturation, litres: what one soaking dose must bring. */
export function ballStoreL(stock: Exclude<Stock, { kind: 'bare_root' }>, soil: SoilClass): number {
  const medium = soilWater[stock.kind === 'container' ? 'container_mix' : soil];
  const volume = ballVolumeL(stock.kind, stock.ballDiameterMm, effectiveBallHeightMm(stock));
  return volume * (medium.saturation - medium.wiltingPoint);
}

/**
 * Litres for the soak at planting: the practice's number of doses, each filling the ball's store. A
 * bare-root tree holds no store of its own: its dose fills the pit's air once, except where the practice
 * skips it in soil that drains slowly.
 */
export function firstSoakL(input: {
  stock: Stock;
  soil: SoilClass;
  percolation: PercolationClass | undefined;
  pitVolumeL: number;
  /** What the berm holds once filled; what it would hold, where soil or practice leaves it out. */
  bermStoreL: number;
  practice: Practice;
}): Reasoned {
  const { stock, soil, practice } = input;
  const slow = input.percolation === 'slow' || input.percolation === 'stands';
  const { rule, doses: times, fixedL, lPer25Mm } = practice.firstSoak;
  if (rule === 'none') return { value: 0, because: [because('soak_none', {})] };
  if (rule === 'fixed') return { value: fixedL, because: [because('soak_fixed', {})] };
  if (rule === 'by_caliper') {
    const value = (lPer25Mm * stock.caliperMm) / 25;
    return { value, because: [because('soak_by_caliper', { lPer25Mm, caliperMm: stock.caliperMm })] };
  }
  if (rule === 'fill_berm') {
    return {
      value: times * input.bermStoreL,
      because: [because('soak_fill_berm', { times, storeL: input.bermStoreL })],
    };
  }
  if (stock.kind === 'bare_root') {
    if (slow && practice.firstSoak.skipBareRootInSlowSoil)
      return { value: 0, because: [because('soak_dormant_wet', {})] };
    const { saturation, fieldCapacity } = soilWater[soil];
    const value = input.pitVolumeL * (saturation - fieldCapacity);
    return { value, because: [because('soak_by_ball_store', { doses: 1, doseL: value, medium: 'site_soil' })] };
  }
  const doseL = ballStoreL(stock, soil);
  const { doses } = practice.firstSoak;
  const medium = stock.kind === 'container' ? 'container_mix' : 'site_soil';
  return { value: doses * doseL, because: [because('soak_by_ball_store', { doses, doseL, medium })] };
}

export interface RoutineWater {
  /** Litres a visit; `null` where the balance or the probe decides. */
  readonly perVisitL: number | null;
  readonly visitsPerWeek: number | null;
  readonly weeklyL: number | null;
  readonly because: readonly Reason[];
}

/** What a practice asks for each week of the first growing season, as far as it is a rule and not a balance. */
export function routineWater(input: {
  stock: Stock;
  percolation: PercolationClass | undefined;
  mulchRingMm: number;
  practice: Practice;
}): RoutineWater {
  const { rule, lPer25Mm, visitsPerWeek, weeklyL } = input.practice.routine;
  const why = because('routine', { rule });
  const perVisit = (perVisitL: number, visits: number, more: readonly Reason[] = []): RoutineWater => ({
    perVisitL,
    visitsPerWeek: visits,
    weeklyL: perVisitL * visits,
    because: [why, ...more],
  });
  const byCaliperL = (lPer25Mm * input.stock.caliperMm) / 25;
  switch (rule) {
    case 'small_by_caliper': {
      const slow = input.percolation === 'slow' || input.percolation === 'stands';
      return slow
        ? perVisit(byCaliperL, visitsPerWeek / 2, [because('routine_slow', {})])
        : perVisit(byCaliperL, visitsPerWeek);
    }
    case 'large_by_caliper':
      return perVisit(byCaliperL, 1);
    case 'weekly_volume':
      return perVisit(visitsPerWeek > 0 ? weeklyL / visitsPerWeek : weeklyL, visitsPerWeek > 0 ? visitsPerWeek : 1);
    case 'rain_equal':
      // A millimetre on a square metre is a litre.
      return perVisit(25 * (Math.PI / 4) * (input.mulchRingMm / 1000) ** 2, 1);
    case 'until_growth':
      return { perVisitL: 0, visitsPerWeek: 0, weeklyL: 0, because: [why] };
    case 'balance':
    case 'probe_only':
      return { perVisitL: null, visitsPerWeek: null, weeklyL: null, because: [why] };
  }
}
