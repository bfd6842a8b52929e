import { InvalidInputError, requireWithin } from '../errors';
import { limits } from '../limits';

export const stockKinds = ['container', 'balled', 'bare_root'] as const;
export type StockKind = (typeof stockKinds)[number];

/** Which way a crown can point: any, its best face marked with tape, or bare on one side. */
export const crownFaces = ['even', 'marked', 'one_sided'] as const;
export type CrownFace = (typeof crownFaces)[number];

/** How a tree came and what it was used to, as ticked at the gate; `null` for what nobody asked. */
export interface Arrival {
  readonly covered: boolean | null;
  readonly moist: boolean | null;
  /** The nursery watered it every so many days. */
  readonly wateredEveryDays: number | null;
}

interface TopMeasures {
  /** Trunk diameter 150 mm above the flare, or at 300 mm once it exceeds 100 mm. */
  readonly caliperMm: number;
  readonly heightM: number;
  /** Left out where nobody looked. */
  readonly firstBranchM?: number | undefined;
  /** Graft union above the flare; left out on own roots or where nobody looked. */
  readonly graftHeightMm?: number | undefined;
  /** Which way its crown can point; left out where nobody looked. */
  readonly face?: CrownFace | undefined;
  /** Left out where it was not received here. */
  readonly arrival?: Arrival | undefined;
}

/** Roots from a buried stem: how many there are, and the thickest. */
export interface AdventitiousRoots {
  readonly count: number;
  readonly thickestMm: number;
}

export interface BallStock extends TopMeasures {
  readonly kind: 'container' | 'balled';
  readonly ballDiameterMm: number;
  /** As received, surplus on top included. */
  readonly ballHeightMm: number;
  /** Topmost structural roots below the surface of the ball; adventitious roots do not count. */
  readonly topRootsDepthMm: number;
  /** Of that, what cannot come off at planting without breaking the ball; left out where all of it can. */
  readonly surplusLeftMm?: number | undefined;
  /** Of the ball's face, what circling roots covered as it came; left out where nobody opened it. % */
  readonly circlingPct?: number | undefined;
  /** Left out where there are none, or nobody looked. */
  readonly adventitious?: AdventitiousRoots | undefined;
}

export interface BareRootStock extends TopMeasures {
  readonly kind: 'bare_root';
  readonly rootSpreadMm: number;
  /** Flare to the lowest root, roots spread. */
  readonly rootDepthMm: number;
}

export type Stock = BallStock | BareRootStock;

/**
 * @throws InvalidInputError for a measure outside `limits`, or topmost roots as deep as the ball is high.
 */
export function requireStock(stock: Stock): void {
  requireWithin('caliperMm', stock.caliperMm, limits.caliperMm);
  requireWithin('heightM', stock.heightM, limits.treeHeightM);
  const rhythm = stock.arrival?.wateredEveryDays ?? null;
  if (rhythm !== null) requireWithin('arrival.wateredEveryDays', rhythm, limits.wateredEveryDays);
  if (stock.firstBranchM !== undefined) requireWithin('firstBranchM', stock.firstBranchM, limits.firstBranchM);
  if (stock.graftHeightMm !== undefined) requireWithin('graftHeightMm', stock.graftHeightMm, limits.graftHeightMm);
  if (stock.kind === 'bare_root') {
    requireWithin('rootSpreadMm', stock.rootSpreadMm, limits.rootSpreadMm);
    requireWithin('rootDepthMm', stock.rootDepthMm, limits.rootDepthMm);
    return;
  }
  requireWithin('ballDiameterMm', stock.ballDiameterMm, limits.ballDiameterMm);
  requireWithin('ballHeightMm', stock.ballHeightMm, limits.ballHeightMm);
  requireWithin('topRootsDepthMm', stock.topRootsDepthMm, limits.topRootsDepthMm);
  if (stock.topRootsDepthMm >= stock.ballHeightMm) {
    throw new InvalidInputError(
      `topRootsDepthMm must be less than the ball height ${stock.ballHeightMm} mm, got ${stock.topRootsDepthMm}`,
      'topRootsDepthMm',
      { received: stock.topRootsDepthMm, max: stock.ballHeightMm, unit: 'mm' },
    );
  }
  if (stock.adventitious) {
    requireWithin('adventitious.count', stock.adventitious.count, limits.rootCount);
    requireWithin('adventitious.thickestMm', stock.adventitious.thickestMm, limits.rootDiameterMm);
  }
  if (stock.circlingPct !== undefined) requireWithin('circlingPct', stock.circlingPct, limits.sharePct);
  if (stock.surplusLeftMm !== undefined) {
    requireWithin('surplusLeftMm', stock.surplusLeftMm, { min: 0, max: stock.topRootsDepthMm, unit: 'mm' });
  }
}

/** Shape factor of a ball against the cylinder around it: containers taper little, balled stock more. */
const ballTaper = { container: 0.85, balled: 0.7 } as const;

/** Volume in litres of a ball of this diameter and height, π/4·D²·H·τ. */
export function ballVolumeL(kind: BallStock['kind'], diameterMm: number, heightMm: number): number {
  return ((Math.PI / 4) * diameterMm ** 2 * heightMm * ballTaper[kind]) / 1e6;
}

/** Ball height once the surplus over the topmost structural root is scraped away. */
export const effectiveBallHeightMm = (stock: BallStock): number => stock.ballHeightMm - stock.topRootsDepthMm;
