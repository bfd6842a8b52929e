import type { WindExposure } from '../ground';
import { stakeLayouts, stakeOrders, stakeRules, type Practice } from '../practice';
import { because, type PitReason } from './reasons';
import { treeMass, type Stock } from '../stock';

export interface StakePlan {
  readonly stakes: number;
  /** Where each stands, seen from the trunk, degrees from north; empty where the winds are not recorded. */
  readonly bearingsDeg: readonly number[];
  /** In a strip without room for a stake across it. */
  readonly alongStrip: boolean;
  /** From the trunk: outside the ball. mm */
  readonly fromTrunkMm: number;
  /** Height of the tie, and of the stake above grade. mm */
  readonly heightMm: number;
  /** To be bought: with what goes into firm ground. mm */
  readonly lengthMm: number;
  readonly offAfterMonths: number;
  /** The stake goes in before the tree; else after it, outside the ball. */
  readonly before: boolean;
  readonly because: readonly PitReason[];
}

export interface StakeInput {
  readonly practice: Practice;
  readonly stock: Stock;
  readonly exposure: WindExposure | null;
  /** Bearings the winds come from. */
  readonly winterWindDeg: number | null;
  readonly summerWindDeg: number | null;
  readonly firstBranchM: number | null;
  readonly stripWidthMm: number | 'open' | null;
  /** Which way the pavement lies: a strip runs along it. */
  readonly pavementDeg: number | null;
  readonly wind: WindRules;
}

/** What a tree of the place has to stand. Estimates, to be corrected by what falls over and what does not. */
export interface WindRules {
  /** Gust that comes about once a year, by exposure. m/s */
  readonly gustMs: Readonly<Record<WindExposure, number>>;
  /** A crown in leaf streams in a gust: drag of the area it shows at rest. */
  readonly crownDrag: number;
  /** A freshly planted ball is held by its own weight and a little by the fill around it: times its weight alone. */
  readonly fillHelps: number;
}

export const defaultWindRules: WindRules = {
  gustMs: { sheltered: 14, open: 19, exposed: 25 },
  crownDrag: 0.25,
  fillHelps: 1.3,
};

const airKgM3 = 1.23;
const gravity = 9.81;

/** Moment of a gust on the crown about the base, and the moment the ball holds it with. Nm */
export function standingMoments(
  stock: Stock,
  exposure: WindExposure,
  { gustMs, crownDrag, fillHelps }: WindRules,
): { overturnNm: number; holdNm: number } {
  const crownM2 = 0.35 * stock.heightM * 0.6 * stock.heightM * 0.7;
  const pressure = 0.5 * airKgM3 * gustMs[exposure] ** 2 * crownDrag;
  const overturnNm = pressure * crownM2 * 0.65 * stock.heightM;
  const { totalKg } = treeMass(stock);
  const armM = (stock.kind === 'bare_root' ? stock.rootSpreadMm : stock.ballDiameterMm) / 2000;
  return { overturnNm, holdNm: totalKg * gravity * armM * fillHelps };
}

/** Whether a tree is staked by a practice, and how; `null` with its reasons where it is not. */
export function stakePlan(input: StakeInput): { plan: StakePlan | null; because: readonly PitReason[] } {
  const { practice, stock } = input;
  const { rule, unstakedUnderM } = practice.staking;
  const { when } = stakeRules[rule];
  if (when === 'never') return { plan: null, because: [because('stake_rule', { rule })] };
  if (when === 'always') return layOut(input, [because('stake_rule', { rule })]);
  const exposure = input.exposure ?? 'open';
  const unknown: PitReason[] = input.exposure === null ? [because('stake_wind_unknown', {})] : [];
  if (stock.heightM < unstakedUnderM && exposure !== 'exposed') {
    const short = because('stake_short', { heightM: stock.heightM, underM: unstakedUnderM });
    return { plan: null, because: [short, ...unknown] };
  }
  if (stock.kind === 'bare_root') return layOut(input, [because('stake_bare_root', {}), ...unknown]);
  const moments = standingMoments(stock, exposure, input.wind);
  if (moments.overturnNm <= moments.holdNm)
    return { plan: null, because: [because('stake_firm', moments), ...unknown] };
  return layOut(input, [because('stake_outweighed', moments), ...unknown]);
}

const inGroundMm = 600;
/** From the middle of a stake to its outside, with the hand that drives it. mm */
const stakeHalfMm = 50;

/** A tie is never over a third of the tree's height nor above its first branch; under this it holds nothing. mm */
const lowestTieMm = 200;
const highestTieMm = 1500;

function layOut(
  input: StakeInput,
  why: readonly PitReason[],
): { plan: StakePlan | null; because: readonly PitReason[] } {
  const { practice, stock, firstBranchM } = input;
  const { layout, order, offAfterMonths } = practice.staking;
  const rootsMm = stock.kind === 'bare_root' ? stock.rootSpreadMm : stock.ballDiameterMm;
  const large = stock.caliperMm > 100;
  const asked = stakeLayouts[layout].stakes ?? (large ? 3 : rootsMm > 600 || stock.heightM > 4 ? 2 : 1);
  // A bare-root stake stands among the spread roots, close to the stem.
  const fromTrunkMm = stock.kind === 'bare_root' ? 100 : Math.round(rootsMm / 2 + 50);
  const stripMm = typeof input.stripWidthMm === 'number' ? input.stripWidthMm : Infinity;
  const narrow = stripMm / 2 < fromTrunkMm + stakeHalfMm;
  const stakes = narrow ? Math.min(2, asked) : asked;
  const thirdMm = (stock.heightM * 1000) / 3;
  const underBranchMm = firstBranchM === null ? Infinity : firstBranchM * 1000 - 100;
  const heightMm = Math.floor(Math.min(thirdMm, underBranchMm, highestTieMm) / 10) * 10;
  if (heightMm < lowestTieMm) {
    return { plan: null, because: [...why, because('stake_no_room', { mostMm: heightMm, leastMm: lowestTieMm })] };
  }
  const because_ = [
    ...why,
    ...(narrow ? [because('stake_along_strip', { stripWidthMm: stripMm })] : []),
    ...(firstBranchM !== null && underBranchMm < thirdMm ? [because('stake_under_branch', { firstBranchM })] : []),
    because('stake_off', { months: offAfterMonths }),
  ];
  const plan: StakePlan = {
    stakes,
    bearingsDeg: narrow ? alongStrip(input, stakes) : bearings(input, stakes),
    alongStrip: narrow,
    fromTrunkMm,
    heightMm,
    lengthMm: heightMm + inGroundMm,
    offAfterMonths,
    before: (stakeOrders[order].first as readonly string[]).includes(stock.kind),
    because: because_,
  };
  return { plan, because: because_ };
}

const round360 = (deg: number): number => ((Math.round(deg) % 360) + 360) % 360;

/** The ends of a strip too narrow for a stake across it; one stake stands at the end nearer to the wind. */
function alongStrip({ pavementDeg, winterWindDeg, summerWindDeg }: StakeInput, stakes: number): number[] {
  if (pavementDeg === null) return [];
  const ends = [round360(pavementDeg + 90), round360(pavementDeg - 90)];
  if (stakes === 2) return ends;
  const wind = winterWindDeg ?? summerWindDeg;
  if (wind === null) return [];
  const away = (deg: number) => Math.abs(((deg - wind + 540) % 360) - 180);
  return [...ends].sort((a, b) => away(a) - away(b)).slice(0, 1);
}

function bearings({ practice, winterWindDeg, summerWindDeg }: StakeInput, stakes: number): number[] {
  const wind = winterWindDeg ?? summerWindDeg;
  if (wind === null) return [];
  const { stand } = stakeLayouts[practice.staking.layout];
  if (stakes === 1) return [round360(wind)];
  if (stakes === 3) return [0, 120, 240].map((turn) => round360(wind + turn));
  if (stand === 'in_line' && winterWindDeg !== null && summerWindDeg !== null) {
    return [round360(winterWindDeg), round360(summerWindDeg)];
  }
  return [round360(wind - 90), round360(wind + 90)];
}
