import { drainsSlowly, soilWater, type BallMedium, type PercolationClass, type SoilClass } from '../ground';
import { soakRules, type Practice } from '../practice';
import type { Reasoned } from '../reason';
import { because, type WaterReason } from './reasons';
import { ballVolumeL, effectiveBallHeightMm, type BallStock, type Stock } from '../stock';

const mediumOf = ({ kind }: BallStock): BallMedium => (kind === 'container' ? 'container_mix' : 'nursery_soil');

/** Water a ball takes from wilting point to saturation, litres: what one soaking dose must bring. */
export function ballStoreL(stock: BallStock): number {
  const { saturation, wiltingPoint } = soilWater[mediumOf(stock)];
  const volume = ballVolumeL(stock.kind, stock.ballDiameterMm, effectiveBallHeightMm(stock));
  return volume * (saturation - wiltingPoint);
}

export interface SoakInput {
  readonly stock: Stock;
  readonly soil: SoilClass;
  readonly percolation: PercolationClass | undefined;
  readonly pitVolumeL: number;
  /** At grade. */
  readonly pitM2: number;
  /** Salt of the water it is given; left out where nobody tested it. */
  readonly waterDsM?: number | null | undefined;
  /** What the berm holds once filled; `null` where none is built. */
  readonly bermStoreL: number | null;
  /** Whether the tree rests on its planting day. */
  readonly dormant: boolean;
  readonly practice: Practice;
}

/**
 * Litres for the soak at planting, by the practice's rule. Doses of the ball's store: from wilting to saturation of
 * what the ball is made of. A bare-root tree holds no store of its own: a dose fills the pit's air, and there is none
 * for dormant roots in slow soil where the practice skips it. Where a berm was to be filled and none is built, doses of
 * the store are given instead.
 */
export function firstSoakL(input: SoakInput): Reasoned<WaterReason> {
  const soak = soakByRule(input);
  const saltDsM = input.waterDsM ?? 0;
  if (saltDsM < leachFromDsM || soak.value === 0) return soak;
  const share = leachingShare(saltDsM);
  const more = 1 / (1 - share) - 1;
  const why = because('soak_leaches', { saltDsM, morePct: more * 100 });
  return { value: soak.value * (1 + more), because: [...soak.because, why] };
}

/** Water under this asks for nothing. dS/m */
const leachFromDsM = 0.7;
/** What the soil may come to in the end: saline from here on. dS/m */
const soilMostDsM = 4;
const mostShare = 0.4;

/**
 * Share of the water that has to run through, so that salt does not gather: LR = ECw / (5·ECe − ECw).
 * Source: Ayers and Westcot, Water quality for agriculture, FAO 29 (1985), eq. 9; no trouble under 0.7 dS/m, table 1.
 */
export const leachingShare = (waterDsM: number): number => {
  const under = 5 * soilMostDsM - waterDsM;
  return under <= 0 ? mostShare : Math.min(mostShare, waterDsM / under);
};

function soakByRule(input: SoakInput): Reasoned<WaterReason> {
  const { stock, practice, bermStoreL: storeL } = input;
  const { rule, doses: times, fixedL, lPer25Mm, depthMm } = practice.firstSoak;
  const { by } = soakRules[rule];
  if (by === 'nothing') return { value: 0, because: [because('soak_none', {})] };
  if (by === 'volume') return { value: fixedL, because: [because('soak_fixed', {})] };
  if (by === 'caliper') {
    const value = (lPer25Mm * stock.caliperMm) / 25;
    return { value, because: [because('soak_by_caliper', { lPer25Mm, caliperMm: stock.caliperMm })] };
  }
  if (by === 'depth') {
    const { pitM2 } = input;
    return { value: depthMm * pitM2, because: [because('soak_by_depth', { depthMm, pitM2 })] };
  }
  if (by === 'berm' && storeL !== null) {
    return { value: times * storeL, because: [because('soak_fill_berm', { times, storeL })] };
  }
  return dosesOfStore(input, by === 'berm' ? [because('soak_no_berm', {})] : []);
}

function dosesOfStore(
  { stock, soil, percolation, pitVolumeL, dormant, practice }: SoakInput,
  why: readonly WaterReason[],
) {
  const { doses, skipBareRootInSlowSoil } = practice.firstSoak;
  if (stock.kind === 'bare_root') {
    if (dormant && skipBareRootInSlowSoil && drainsSlowly(percolation)) {
      return { value: 0, because: [because('soak_dormant_wet', {})] };
    }
    const { saturation, fieldCapacity } = soilWater[soil];
    const doseL = pitVolumeL * (saturation - fieldCapacity);
    return { value: doses * doseL, because: [...why, because('soak_by_pit_air', { doses, doseL, soil })] };
  }
  const doseL = ballStoreL(stock);
  const facts = { doses, doseL, medium: mediumOf(stock) };
  return { value: doses * doseL, because: [...why, because('soak_by_ball_store', facts)] };
}
