import type { FingerClass, ProbeClass } from '../inspect';
import type { WaterStore } from './balance';

export interface ReadShare {
  readonly share: number;
  readonly errorShare: number;
}

/** By feel, of what a ball holds at field capacity; what is over it, of the air that is filled then. Estimates. */
const byProbe: Readonly<Record<ProbeClass, ReadShare & { readonly ofAir?: number }>> = {
  dry: { share: 0.1, errorShare: 0.12 },
  slightly_dry: { share: 0.4, errorShare: 0.15 },
  moist: { share: 0.8, errorShare: 0.15 },
  wet: { share: 1, errorShare: 0.15, ofAir: 0.15 },
  saturated: { share: 1, errorShare: 0.2, ofAir: 0.8 },
};
/** A finger reaches the top of the ball alone. */
const byFinger: Readonly<Record<FingerClass, ReadShare>> = {
  finger_dry: { share: 0.3, errorShare: 0.3 },
  finger_moist: { share: 0.8, errorShare: 0.3 },
};

const airOf = ({ saturation, fieldCapacity, wiltingPoint }: WaterStore): number =>
  (saturation - fieldCapacity) / (fieldCapacity - wiltingPoint);

/** What a probe at ball depth says of a ball, as a share of what it holds, with the error of a practised hand. */
export function probeShare(probe: ProbeClass, ball: WaterStore): ReadShare {
  const { share, errorShare, ofAir = 0 } = byProbe[probe];
  return { share: share + ofAir * airOf(ball), errorShare };
}

export const fingerShare = (finger: FingerClass): ReadShare => byFinger[finger];

/** Half way between what two classes stand for. */
const glassUpTo: readonly (readonly [ProbeClass, number])[] = [
  ['dry', 0.25],
  ['slightly_dry', 0.6],
  ['moist', 0.95],
];

/** How a ball would feel to a probe, by what a balance says of it. */
export const glassOf = ({
  share,
  waterlogged,
}: {
  readonly share: number;
  readonly waterlogged: boolean;
}): ProbeClass => (waterlogged ? 'saturated' : (glassUpTo.find(([, most]) => share < most)?.[0] ?? 'wet'));
