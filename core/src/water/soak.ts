import { drainsSlowly, soilWater, type PercolationClass, type SoilClass } from '../ground';
import { soakRules, type Practice } from '../practice';
import { because, type Reasoned } from '../reason';
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
  const slow = drainsSlowly(input.percolation);
  const { rule, doses: times, fixedL, lPer25Mm } = practice.firstSoak;
  const { by } = soakRules[rule];
  if (by === 'nothing') return { value: 0, because: [because('soak_none', {})] };
  if (by === 'volume') return { value: fixedL, because: [because('soak_fixed', {})] };
  if (by === 'caliper') {
    const value = (lPer25Mm * stock.caliperMm) / 25;
    return { value, because: [because('soak_by_caliper', { lPer25Mm, caliperMm: stock.caliperMm })] };
  }
  if (by === 'berm') {
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
