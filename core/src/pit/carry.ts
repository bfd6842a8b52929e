import { clearanceOf, type Assessment, type GroundFacts } from '../ground';
import type { Practice } from '../practice';
import { liftingPlan, type LiftingPlan } from '../stock';
import { because, type PitReason } from './reasons';

export interface CarryPlan extends Omit<LiftingPlan, 'because'> {
  /** From the kerb, measured or a usual one. */
  readonly distanceM: number;
  readonly because: readonly PitReason[];
}

interface CarryInput {
  readonly practice: Practice;
  readonly ground: GroundFacts;
  readonly assessment: Assessment | null;
  readonly route?: { readonly distanceM?: number | undefined; readonly slopePct?: number | undefined } | undefined;
}

/** Taken where nobody measured the way from the kerb. m */
const usualCarryM = 5;

/** How the tree comes from the kerb to its pit, by the measured way or a usual one. */
export function carryOf({ practice, ground, assessment, route }: CarryInput, massKg: number): CarryPlan {
  const measured = route?.distanceM ?? clearanceOf(assessment, 'kerb');
  const distanceM = measured ?? usualCarryM;
  const slopePct = route?.slopePct ?? ground.slopePct ?? 0;
  const plan = liftingPlan({ massKg, distanceM, slopePct }, practice.lifting);
  const assumed = measured === null ? [because('lift_route_assumed', { distanceM })] : [];
  return { ...plan, distanceM, because: [...plan.because, ...assumed] };
}
