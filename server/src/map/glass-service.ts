import { followWater, glassOf, type ClimateDay, type IsoDate, type ProbeClass } from '@sombra/core';
import type { Db } from '../platform/db';
import { ballsNow, checkpointsOf, lastNight, storedWater, type StoredWater } from '../record/water-repository';

/** Of another day than today a tile of more trees than this shows their last probes: each has to be followed on. */
const mostTrees = 400;

/**
 * How full the balls of trees stand on a day by their balance, as a probe would feel them: of today as they are kept, of
 * another day followed on from the checkpoint before it. Trees that are not followed, or were not yet, have none.
 */
export async function glasses(
  db: Db,
  spotIds: readonly string[],
  { day, today }: { readonly day: IsoDate; readonly today: IsoDate },
): Promise<Map<string, ProbeClass>> {
  if (day === today) {
    const now = await ballsNow(db, spotIds);
    return new Map(now.map(({ spotId, share, drowned }) => [spotId, glassOf({ share, waterlogged: drowned })]));
  }
  const night = await lastNight(db);
  if (!night || spotIds.length === 0 || spotIds.length > mostTrees) return new Map();
  const days = [...night.past, ...night.ahead];
  const stored = await storedWater(db, spotIds);
  const before = day < today ? await checkpointsOf(db, spotIds) : null;
  const glass = new Map<string, ProbeClass>();
  for (const [id, tree] of stored) {
    const from = before ? (before.get(id) ?? []).findLast((one) => one.day <= day) : tree.kept.checkpoint;
    const found = from && endOn(tree, from, days, day);
    if (found) glass.set(id, glassOf(found));
  }
  return glass;
}

function endOn(
  { inputs: { subject, given } }: StoredWater,
  from: StoredWater['kept']['checkpoint'],
  days: readonly ClimateDay[],
  day: IsoDate,
): { readonly share: number; readonly waterlogged: boolean } | null {
  const span = days.filter((one) => one.day > from.day && one.day <= day);
  return followWater(subject, from, span, given).days.at(-1) ?? null;
}
