import { requireWithin } from '../errors';
import { limits } from '../limits';
import {
  percolationRate,
  type PercolationClass,
  type PercolationLimits,
  type PercolationReading,
  type PercolationResult,
} from './percolation';
import type { SoilClass } from './soil';

/** What was measured at a spot. `null` means not looked at yet; 'none' and 'open' are findings. */
export interface GroundFacts {
  readonly soil: SoilClass | null;
  readonly stony: boolean;
  readonly compacted: boolean;
  readonly percolation: readonly PercolationReading[];
  readonly slopePct: number | null;
  /** Direction the ground falls towards, degrees clockwise from north; `null` on level ground. */
  readonly fallsTowardsDeg: number | null;
  /** Free width between kerb and paving; 'open' where nothing limits it. */
  readonly stripWidthMm: number | 'open' | null;
  /** Lowest overhead wire above the spot; 'none' after looking up. */
  readonly wireHeightM: number | 'none' | null;
}

export const unknownGround: GroundFacts = {
  soil: null,
  stony: false,
  compacted: false,
  percolation: [],
  slopePct: null,
  fallsTowardsDeg: null,
  stripWidthMm: null,
  wireHeightM: null,
};

/** @throws InvalidInputError for a value outside `limits`. */
export function requireGround(ground: GroundFacts): void {
  if (ground.slopePct !== null) requireWithin('slopePct', ground.slopePct, limits.slopePct);
  if (ground.fallsTowardsDeg !== null) requireWithin('fallsTowardsDeg', ground.fallsTowardsDeg, limits.bearingDeg);
  if (typeof ground.stripWidthMm === 'number') requireWithin('stripWidthMm', ground.stripWidthMm, limits.stripWidthMm);
  if (typeof ground.wireHeightM === 'number') requireWithin('wireHeightM', ground.wireHeightM, limits.wireHeightM);
}

/** The percolation result of the facts, or `undefined` when no test was made. */
export function groundPercolation(ground: GroundFacts, classes: PercolationLimits): PercolationResult | undefined {
  return ground.percolation.length > 0 ? percolationRate(ground.percolation, classes) : undefined;
}

/** The class of the test, or `undefined` when there was none or it is questioned. */
export function groundPercolationClass(ground: GroundFacts, classes: PercolationLimits): PercolationClass | undefined {
  const result = groundPercolation(ground, classes);
  return result?.kind === 'rate' ? result.class : undefined;
}
