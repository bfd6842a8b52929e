import { requireWithin } from '../errors';
import { because, type StockReason } from './reasons';
import { defaultLiftingLimits, liftingTeam, type LiftingLimits } from './mass';

export type LiftingMeans = 'people' | 'trolley' | 'machine';

export interface LiftingPlan {
  readonly means: LiftingMeans;
  /** For lifting, or to push and hold a trolley. */
  readonly people: number;
  /** Off the truck at the kerb, before it is carried. */
  readonly unload: { readonly means: 'people' | 'machine'; readonly people: number };
  readonly because: readonly StockReason[];
}

/** Rolling resistance of a ball trolley on soft ground, and the push one person keeps up. */
const rolling = 0.08;
const pushN = 200;
const gravity = 9.81;

/**
 * How a tree comes from the kerb to its pit: by hand as far as people may lift, then on a trolley with as many as the
 * slope asks for, then by machine.
 * @throws InvalidInputError for a mass, a distance or a slope outside its range
 */
export function liftingPlan(
  route: { readonly massKg: number; readonly distanceM: number; readonly slopePct: number },
  limits: LiftingLimits = defaultLiftingLimits,
): LiftingPlan {
  const massKg = requireWithin('massKg', route.massKg, { min: 0, max: 20_000, unit: 'kg' });
  const distanceM = requireWithin('distanceM', route.distanceM, { min: 0, max: 2000, unit: 'm' });
  const slopePct = requireWithin('slopePct', route.slopePct, { min: 0, max: 100, unit: '%' });
  const { unload, why } = unloading(massKg, limits);
  const team = liftingTeam(massKg, limits);
  // Nobody carries to the limit over a distance: half of it from ten metres on.
  const carried = liftingTeam(distanceM > 10 ? massKg * 2 : massKg, limits);
  if (team.kind === 'people' && carried.kind === 'people') {
    return {
      means: 'people',
      people: carried.people,
      unload,
      because: [why, because('lift_carry', { massKg, distanceM })],
    };
  }
  if (massKg <= limits.trolleyMostKg && slopePct <= limits.trolleySteepestPct) {
    const pushedN = massKg * gravity * (rolling + slopePct / 100);
    const people = Math.max(2, Math.ceil(pushedN / pushN));
    return { means: 'trolley', people, unload, because: [why, because('lift_trolley', { massKg, slopePct, people })] };
  }
  return { means: 'machine', people: 2, unload, because: [why, because('lift_machine', { massKg, slopePct })] };
}

/** From the tail of a truck a load is held away from the body: half of what a team lifts from the ground. */
const tailShare = 0.5;

function unloading(massKg: number, limits: LiftingLimits) {
  const team = liftingTeam(massKg / tailShare, limits);
  if (team.kind === 'people') {
    const people = Math.max(2, team.people);
    return { unload: { means: 'people' as const, people }, why: because('unload_people', { people }) };
  }
  const why = because('unload_machine', { massKg, limitKg: limits.threePeopleKg * tailShare });
  return { unload: { means: 'machine' as const, people: 2 }, why };
}
