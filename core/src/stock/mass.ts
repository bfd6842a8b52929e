import { requireWithin } from '../errors';
import { ballVolumeL, type Stock } from './stock';

/** kg per litre of the ball as received: light container mix, moist field soil. */
const ballDensity = { container: 0.8, balled: 1.7 } as const;
/** Trunk diameter at breast height as a share of caliper. */
const dbhPerCaliper = 0.8;
const freshPerDry = 1.9;

export interface TreeMass {
  readonly ballKg: number;
  readonly topKg: number;
  readonly totalKg: number;
}

/**
 * Fresh mass above ground from the diameter at breast height.
 * Jenkins et al. 2003, mixed hardwood: dry kg = exp(−2.4800 + 2.4835·ln(dbh cm)); fresh = 1.9 × dry.
 */
export function topMassKg(dbhMm: number): number {
  return freshPerDry * Math.exp(-2.48 + 2.4835 * Math.log(dbhMm / 10));
}

/** Mass of the tree as received, before any surplus is scraped off: that is what a crew lifts. */
export function treeMass(stock: Stock): TreeMass {
  const topKg = topMassKg(dbhPerCaliper * stock.caliperMm);
  const ballKg =
    stock.kind === 'bare_root'
      ? 0
      : ballVolumeL(stock.kind, stock.ballDiameterMm, stock.ballHeightMm) * ballDensity[stock.kind];
  return { ballKg, topKg, totalKg: ballKg + topKg };
}

/** Where a practice draws the lines of lifting. kg: team capacity does not add up. */
export interface LiftingLimits {
  readonly onePersonKg: number;
  readonly twoPeopleKg: number;
  readonly threePeopleKg: number;
  /** Heavier than this nothing is loaded on a trolley by hand. */
  readonly trolleyMostKg: number;
  /** Steeper than this no trolley is held by hand. % */
  readonly trolleySteepestPct: number;
}

export const defaultLiftingLimits: LiftingLimits = {
  onePersonKg: 23,
  twoPeopleKg: 30,
  threePeopleKg: 34,
  trolleyMostKg: 250,
  trolleySteepestPct: 15,
};

export type LiftingTeam =
  | { readonly kind: 'people'; readonly people: 1 | 2 | 3; readonly limitKg: number }
  | { readonly kind: 'equipment'; readonly limitKg: number };

/**
 * Who lifts a mass by hand, or that trolley, boards or a machine are needed.
 * @throws InvalidInputError for a mass below 0, over 20 t or no number
 */
export function liftingTeam(massKg: number, lifting: LiftingLimits = defaultLiftingLimits): LiftingTeam {
  requireWithin('massKg', massKg, { min: 0, max: 20_000, unit: 'kg' });
  const { onePersonKg: one, twoPeopleKg: two, threePeopleKg: three } = lifting;
  if (massKg <= one) return { kind: 'people', people: 1, limitKg: one };
  if (massKg <= two) return { kind: 'people', people: 2, limitKg: two };
  if (massKg <= three) return { kind: 'people', people: 3, limitKg: three };
  return { kind: 'equipment', limitKg: three };
}
