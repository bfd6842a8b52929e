import { soilWater, type BallMedium, type PercolationClass, type SoilClass } from '../ground';
import { ballVolumeL, effectiveBallHeightMm, type Stock } from '../stock';
import type { WaterStore } from './balance';

/** What the ground takes down in a day, by drainage class. mm; the middle of each class, and for no test that of a good one. */
const downMm: Readonly<Record<PercolationClass, number>> = { stands: 5, slow: 120, good: 600, fast: 3000 };

/** Roots of the new season go this far for each degree-day over `rootBaseC`. mm, an estimate: some 0.6 m in a warm year. */
const reachMmPerDegreeDay = 0.25;
export const rootBaseC = 8;
/** Into the fill right beside the ball, from the first day on. mm */
const firstReachMm = 30;
const mostReachMm = 1500;
/** Fine roots of a young tree lie in the upper half metre. mm */
const rootDepthMm = { least: 300, most: 600 };
/** At this reach half of what a tree drinks comes from beside the ball. mm, an estimate */
const halfReachMm = 450;
const mostSoilShare = 0.9;

const shares = (medium: SoilClass | BallMedium) => {
  const { wiltingPoint, fieldCapacity, saturation } = soilWater[medium];
  return { wiltingPoint, fieldCapacity, saturation };
};

const circleM2 = (diameterMm: number): number => (Math.PI / 4) * (diameterMm / 1000) ** 2;

/** What a ball is as a block of roots: a bare root has none, and drinks from the fill its roots lie in. */
export interface RootBlock {
  readonly diameterMm: number;
  readonly heightMm: number;
  readonly volumeL: number;
}

export function rootBlock(stock: Stock): RootBlock {
  if (stock.kind === 'bare_root') {
    const { rootSpreadMm: diameterMm, rootDepthMm: heightMm } = stock;
    return { diameterMm, heightMm, volumeL: circleM2(diameterMm) * heightMm };
  }
  const heightMm = effectiveBallHeightMm(stock);
  return {
    diameterMm: stock.ballDiameterMm,
    heightMm,
    volumeL: ballVolumeL(stock.kind, stock.ballDiameterMm, heightMm),
  };
}

/** What the two stores of a tree are made of. */
export interface RootGround {
  readonly block: RootBlock;
  readonly kind: Stock['kind'];
  /** Of the site; `null` is taken for loam. */
  readonly soil: SoilClass | null;
  /** `null` without a sound test. */
  readonly percolation: PercolationClass | null;
}

/** Into the ground in a day; `null`, nobody tested it, is taken for good. mm */
export const downMmOf = (percolation: PercolationClass | null): number => downMm[percolation ?? 'good'];

const downL = ({ percolation }: RootGround, areaM2: number): number => areaM2 * downMmOf(percolation);

/**
 * The ball's own store, for dose, stress and ribbon alike: a container's mix or the nursery's field soil, never silently
 * the site's; a bare root lies in the site's. It drains as the ground below takes it.
 */
export function ballStore(ground: RootGround): WaterStore {
  const { block, kind, soil } = ground;
  const medium = { container: 'container_mix', balled: 'nursery_soil', bare_root: soil ?? 'loam' } as const;
  const areaM2 = circleM2(block.diameterMm);
  return { volumeL: block.volumeL, ...shares(medium[kind]), areaM2, drainsL: downL(ground, areaM2) };
}

/** How far roots have gone beyond the ball. mm */
export const rootReachMm = (degreeDays: number): number =>
  Math.min(mostReachMm, firstReachMm + Math.max(0, degreeDays) * reachMmPerDegreeDay);

/** The soil around the ball that roots have reached: a ring as deep as they lie. */
export function reachedSoil(ground: RootGround, reachMm: number): WaterStore {
  const { diameterMm, heightMm } = ground.block;
  const depthMm = Math.min(rootDepthMm.most, Math.max(rootDepthMm.least, heightMm));
  const areaM2 = circleM2(diameterMm + 2 * reachMm) - circleM2(diameterMm);
  const { wiltingPoint, fieldCapacity, saturation } = soilWater[ground.soil ?? 'loam'];
  return {
    volumeL: areaM2 * depthMm,
    wiltingPoint,
    fieldCapacity,
    saturation,
    areaM2,
    drainsL: downL(ground, areaM2),
  };
}

/** Of what a tree drinks, the part its roots beside the ball are asked for: half at `halfReachMm`, never all. */
export const soilShareAt = (reachMm: number): number => (mostSoilShare * reachMm) / (reachMm + halfReachMm * 0.8);
