import type { MeasuredDrop } from '../pit';
import { ofKind, standing, type FieldRecord } from './record';

/**
 * How far a ball that stands on put-back soil has sunk: the lowest flare as built less the flare of the first look
 * that measured it; `null` where nothing was put back or nobody measured since.
 */
export function measuredDrop(records: readonly FieldRecord[]): MeasuredDrop | null {
  const kept = standing(records);
  const built = ofKind(kept, 'planting').at(-1)?.facts;
  if (!built?.putBackMm) return null;
  const looks = ofKind(kept, 'inspection')
    .filter(({ facts }) => facts.flareDepthMm !== null && facts.inspectedOn >= built.plantedOn)
    .sort((a, b) => a.facts.inspectedOn.localeCompare(b.facts.inspectedOn));
  const depthMm = looks[0]?.facts.flareDepthMm ?? null;
  if (depthMm === null) return null;
  return { fillMm: built.putBackMm, dropMm: Math.min(...built.flareAboveGradeMm) + depthMm };
}
