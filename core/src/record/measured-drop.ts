import type { MeasuredDrop } from '../pit';
import { ofKind, standing, type FieldRecord } from './record';

/**
 * How far a ball that stands on put-back soil has sunk: from the lowest flare before the soak, where somebody measured
 * it, else after it, to the first look that measured the flare, else to after the soak; `null` where nothing was put
 * back or it was measured once only.
 */
export function measuredDrop(records: readonly FieldRecord[]): MeasuredDrop | null {
  const kept = standing(records);
  const built = ofKind(kept, 'planting').at(-1)?.facts;
  if (!built?.putBackMm || built.flareAboveGradeMm.length === 0) return null;
  const looks = ofKind(kept, 'inspection')
    .filter(({ facts }) => facts.flareDepthMm !== null && facts.inspectedOn >= built.plantedOn)
    .sort((a, b) => a.facts.inspectedOn.localeCompare(b.facts.inspectedOn));
  const soakedMm = Math.min(...built.flareAboveGradeMm);
  const before = built.flareBeforeSoakMm ?? [];
  const beforeMm = before.length > 0 ? Math.min(...before) : undefined;
  const depthMm = looks[0]?.facts.flareDepthMm ?? null;
  if (depthMm !== null) return { fillMm: built.putBackMm, dropMm: (beforeMm ?? soakedMm) + depthMm };
  return beforeMm === undefined ? null : { fillMm: built.putBackMm, dropMm: beforeMm - soakedMm };
}
