import type { IsoDate } from '../calendar';
import { restingUse, type ClimateDay } from './follow';

/**
 * Water that the ground under an established crown gives before its leaves wilt. mm, a middling soil over the upper metre
 * its roots drink from; an estimate, for a watch and no more.
 */
export const rootZoneMm = 120;
/** Past this share of it the tree is watched; past the other, for so many days, it comes back into rounds. */
const [watchShare, waterShare, waterAfterDays] = [0.5, 0.85, 14] as const;
/** Rain under this wets the crown and its litter alone. mm */
const leastRainMm = 3;

export type DroughtLevel = 'none' | 'watch' | 'water';

export interface Drought {
  /** What the ground lacks, mm; never more than `rootZoneMm`. */
  readonly deficitMm: number;
  /** Of what it gives. */
  readonly share: number;
  readonly level: DroughtLevel;
  /** Since when it has been at this level or over it without a break; `null` at none. */
  readonly since: IsoDate | null;
}

/**
 * A coarse watch over trees that are established, by weather alone: what they drink, less the rain, gathered day by day
 * between a full ground and an empty one.
 * @param use of reference evapotranspiration, what such a tree asks for in leaf
 */
export function droughtOf(climate: readonly ClimateDay[], use: number): Drought {
  let deficitMm = 0;
  let watchSince: IsoDate | null = null;
  let drySince: IsoDate | null = null;
  let dryDays = 0;
  for (const { day, etMm, rainMm, resting } of climate) {
    const reaching = rainMm >= leastRainMm ? rainMm : 0;
    // Leaves close as the ground empties: the last of it is drunk slowly.
    const left = 1 - deficitMm / rootZoneMm;
    const drinks = etMm * use * (resting ? restingUse : 1) * Math.min(1, left / (1 - watchShare));
    deficitMm = Math.min(rootZoneMm, Math.max(0, deficitMm + drinks - reaching));
    const share = deficitMm / rootZoneMm;
    watchSince = share >= watchShare ? (watchSince ?? day) : null;
    dryDays = share >= waterShare ? dryDays + 1 : 0;
    drySince = share >= waterShare ? (drySince ?? day) : null;
  }
  const level = dryDays >= waterAfterDays ? 'water' : watchSince !== null ? 'watch' : 'none';
  const since = level === 'water' ? drySince : watchSince;
  return { deficitMm, share: deficitMm / rootZoneMm, level, since };
}

/** For an established tree in a drought: once, slowly, over its crown. L, an estimate by caliper at planting */
export const droughtDoseL = (caliperMm: number): number =>
  Math.min(400, Math.max(80, Math.round((caliperMm * 2) / 10) * 10));
