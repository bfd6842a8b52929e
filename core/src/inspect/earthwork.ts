import type { Practice } from '../practice';

/** A bowl rises so gently from the flare that soil does not wash back: so many across for each one up. */
const taper = 4;
/** Across a young trunk at its flare, where nobody measured it. mm */
const trunkMm = 80;

export interface Bowl {
  /** Soil to take off. L */
  readonly litres: number;
  /** Across its upper edge. mm */
  readonly widthMm: number;
}

/**
 * The bowl that lays a buried flare open and tapers out to the surface: a cone cut off at the trunk, less the trunk.
 * Example: 60 mm deep, round a trunk of 80 mm: 560 mm across, 5.4 L.
 * @param depthMm flare below the surface, ≥ 0
 */
export function clearingBowl(depthMm: number): Bowl {
  const inner = trunkMm / 2;
  const outer = inner + taper * depthMm;
  const cone = (Math.PI * depthMm * (outer ** 2 + outer * inner + inner ** 2)) / 3;
  return { litres: (cone - Math.PI * inner ** 2 * depthMm) / 1e6, widthMm: 2 * outer };
}

/** Mulch that a ring lacks of the practice's thickness; less than nothing where it has too much. L, over its least ring */
export function mulchLacks(depthMm: number, { mulch }: Practice): number {
  const ringM2 = (Math.PI / 4) * (mulch.leastRingDiameterMm / 1000) ** 2;
  return (mulch.thicknessMm - depthMm) * ringM2;
}
