import type { Assessment, Clearance } from '../ground';
import type { CrownFace } from '../stock';
import { because, type PitReason } from './reasons';

/** How the tree is turned as it goes in. */
export interface Facing {
  /** Where its best face, or the full side of a bare one, looks; `null` where nothing says. Degrees from north. */
  readonly bestFaceDeg: number | null;
  readonly because: readonly PitReason[];
}

export interface FacingInput {
  readonly assessment: Assessment | null;
  /** What the crown is like; left out where nobody looked. */
  readonly face?: CrownFace | undefined;
  /** The side the sun stands on at noon; `null` near the equator or where it is not known. */
  readonly sunDeg?: number | null | undefined;
}

/** Within this a wall or a wire takes room from a crown. m */
const nearM = 6;
const turned = (deg: number): number => (deg + 180) % 360;

/**
 * Best face to where people see it, branches towards room and light, the flat side to the wall. What stands in the way
 * of the crown rules first, then who looks at it, then the sun.
 */
export function facingOf({ assessment, face, sunDeg = null }: FacingInput): Facing {
  const blocked = nearest(assessment);
  if (blocked && (face === 'one_sided' || blocked.thing !== 'tree')) {
    const bestFaceDeg = turned(blocked.towardsDeg);
    const { thing, distanceM, towardsDeg } = blocked;
    return { bestFaceDeg, because: [because('face_from', { thing, distanceM, towardsDeg, bestFaceDeg })] };
  }
  if (face === 'one_sided' && sunDeg !== null) {
    return { bestFaceDeg: sunDeg, because: [because('face_sun', { bestFaceDeg: sunDeg })] };
  }
  const pavementDeg = assessment?.pavementDeg ?? null;
  if (pavementDeg !== null) {
    return { bestFaceDeg: pavementDeg, because: [because('face_pavement', { bestFaceDeg: pavementDeg })] };
  }
  const kerb = assessment?.clearances.find(({ thing }) => thing === 'kerb')?.towardsDeg;
  if (kerb !== undefined) return { bestFaceDeg: kerb, because: [because('face_street', { bestFaceDeg: kerb })] };
  if (sunDeg !== null) return { bestFaceDeg: sunDeg, because: [because('face_sun', { bestFaceDeg: sunDeg })] };
  return { bestFaceDeg: null, because: [because('face_by_eye', {})] };
}

function nearest(assessment: Assessment | null): (Clearance & { readonly towardsDeg: number }) | null {
  const near = (assessment?.clearances ?? []).flatMap((one) =>
    one.towardsDeg !== undefined && one.distanceM <= nearM && ['building', 'wire', 'tree'].includes(one.thing)
      ? [{ ...one, towardsDeg: one.towardsDeg }]
      : [],
  );
  return near.sort((a, b) => a.distanceM - b.distanceM)[0] ?? null;
}
