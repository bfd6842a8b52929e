import { requireWithin } from '../errors';
import { limits } from '../limits';
import {
  percolationClass,
  percolationRate,
  type PercolationClass,
  type PercolationLimits,
  type PercolationReading,
  type PercolationResult,
} from './percolation';
import type { SoilClass } from './soil';

/** One layer of the ground: fill over clay beside buildings, a pan, topsoil over rubble. */
export interface Horizon {
  readonly soil: SoilClass;
  /** Down to this depth; the lowest goes on. mm */
  readonly toMm: number;
  /** Brought here by builders. */
  readonly fill: boolean;
  /** Of a test hole in it; `null` where only the test of the spot was made. */
  readonly rateMmPerH: number | null;
}

/** What was measured at a spot. `null` means not looked at yet; 'none' and 'open' are findings. */
export interface GroundFacts {
  readonly soil: SoilClass | null;
  /** `null` while nobody looked; then nothing is allowed for it. */
  readonly stony: boolean | null;
  readonly compacted: boolean | null;
  readonly percolation: readonly PercolationReading[];
  readonly slopePct: number | null;
  /** Direction the ground falls towards, degrees clockwise from north; `null` on level ground. */
  readonly fallsTowardsDeg: number | null;
  /** Free width between kerb and paving; 'open' where nothing limits it. */
  readonly stripWidthMm: number | 'open' | null;
  /** From the top down, where the ground is layered; left out where it is one soil as deep as anybody looked. */
  readonly horizons?: readonly Horizon[] | undefined;
  /** Lowest overhead wire above the spot; 'none' after looking up. */
  readonly wireHeightM: number | 'none' | null;
}

export const unknownGround: GroundFacts = {
  soil: null,
  stony: null,
  compacted: null,
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
  ground.horizons?.forEach(({ toMm, rateMmPerH }, i, all) => {
    requireWithin(`horizons[${i}].toMm`, toMm, { ...limits.horizonMm, min: (all[i - 1]?.toMm ?? 0) + 1 });
    if (rateMmPerH !== null) requireWithin(`horizons[${i}].rateMmPerH`, rateMmPerH, limits.percolationMmPerH);
  });
  if (typeof ground.stripWidthMm === 'number') requireWithin('stripWidthMm', ground.stripWidthMm, limits.stripWidthMm);
  if (typeof ground.wireHeightM === 'number') requireWithin('wireHeightM', ground.wireHeightM, limits.wireHeightM);
}

/** Of the same readings the same is asked by plan, cautions and verdict: the last answer is remembered beside them. */
const workedOut = new WeakMap<
  GroundFacts['percolation'],
  { readonly classes: PercolationLimits; readonly result: PercolationResult }
>();

/** The percolation result of the facts, or `undefined` when no test was made. */
export function groundPercolation(ground: GroundFacts, classes: PercolationLimits): PercolationResult | undefined {
  const readings = ground.percolation;
  if (readings.length === 0) return undefined;
  const before = workedOut.get(readings);
  if (before?.classes === classes) return before.result;
  const result = percolationRate(readings, classes);
  workedOut.set(readings, { classes, result });
  return result;
}

/** From drained to standing. */
const slowestLast = ['fast', 'good', 'slow', 'stands'] as const satisfies readonly PercolationClass[];
const slower = (a: PercolationClass, b: PercolationClass): PercolationClass =>
  slowestLast.indexOf(a) >= slowestLast.indexOf(b) ? a : b;

/** Water stops where soil gets tighter: clay under anything lighter counts as slow until a test in it says otherwise. */
const tight: readonly SoilClass[] = ['clay', 'clay_loam'];

/** The layer that rules how the ground drains, and its class; `null` where no layer is slower than what was tested. */
export function slowestHorizon(
  ground: GroundFacts,
  classes: PercolationLimits,
): { readonly horizon: Horizon; readonly class: PercolationClass } | null {
  const horizons = ground.horizons ?? [];
  const found = horizons.flatMap((horizon, i) => {
    const above = horizons[i - 1];
    if (horizon.rateMmPerH !== null) return [{ horizon, class: percolationClass(horizon.rateMmPerH, classes) }];
    const stops = above !== undefined && tight.includes(horizon.soil) && !tight.includes(above.soil);
    return stops ? [{ horizon, class: 'slow' as const }] : [];
  });
  const [first, ...rest] = found;
  if (!first) return null;
  return rest.reduce((worst, one) => (slower(worst.class, one.class) === worst.class ? worst : one), first);
}

/**
 * The class of the test, or of the slowest layer of the ground where that is slower; `undefined` when there was no test
 * or it is questioned.
 */
export function groundPercolationClass(ground: GroundFacts, classes: PercolationLimits): PercolationClass | undefined {
  const result = groundPercolation(ground, classes);
  if (result?.kind !== 'rate') return undefined;
  const layer = slowestHorizon(ground, classes);
  return layer ? slower(layer.class, result.class) : result.class;
}
