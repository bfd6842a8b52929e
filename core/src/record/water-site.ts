import type { WaterSubject } from '../water';
import { ofKind, type FieldRecord } from './record';
import type { SpotBasis } from './spot-basis';

/** What a neighbour's roots take from the soil they share, of reference evapotranspiration over it. An estimate */
const neighbourTakes = 0.3;
/** What grass in its ring takes, the same way. An estimate */
const turfTakes = 0.3;
/** Roots of a neighbour further off than this are in other soil. m */
const neighbourWithinM = 5;
/** Without a berm some of a dose runs off beside the ball, more on a slope; estimates. */
const reachesWithout = { level: 0.8, lostPerPct: 0.01, least: 0.6 } as const;
/** Rain begins to run off a slope of so many percent, so much of it for each more; estimates. */
const runOff = { fromPct: 5, perPct: 0.01, most: 0.3 } as const;

type WaterSite = Pick<WaterSubject, 'others' | 'reaches' | 'runsOff'>;

/** What its place does to a tree's water: other roots in its soil, a slope, a dose without a berm; nothing is left out. */
export function waterSite(kept: readonly FieldRecord[], { assessment, ground, plan }: SpotBasis): WaterSite {
  const shared =
    (assessment?.neighbourRoots?.distanceM ?? Infinity) <= neighbourWithinM ||
    ofKind(kept, 'planting').at(-1)?.facts.metRoot !== undefined;
  const others = (shared ? neighbourTakes : 0) + (turfed(kept) ? turfTakes : 0);
  const overPct = Math.max(0, (ground.slopePct ?? 0) - runOff.fromPct);
  const runsOff = Math.min(runOff.most, overPct * runOff.perPct);
  const bermed = plan?.kind !== 'plan' || plan.berm !== null;
  const reaches = Math.max(reachesWithout.least, reachesWithout.level - overPct * reachesWithout.lostPerPct);
  return {
    ...(others > 0 ? { others } : {}),
    ...(bermed ? {} : { reaches }),
    ...(runsOff > 0 ? { runsOff } : {}),
  };
}

/** Whether grass was last seen in its ring, and nobody has cleared it since. */
function turfed(kept: readonly FieldRecord[]): boolean {
  const seen = ofKind(kept, 'inspection')
    .map(({ facts }) => facts)
    .filter(({ turf }) => turf !== undefined)
    .at(-1);
  if (seen?.turf !== 'creeping') return false;
  return !ofKind(kept, 'remedy').some(
    ({ facts: { remedy, doneOn } }) => remedy === 'clear_turf' && doneOn >= seen.inspectedOn,
  );
}
