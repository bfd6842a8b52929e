import { seenAsLook, type IsoDate, type RemedySeen } from '@sombra/core';
import { container, loam, planting, sending, type TestTown, type Visitor } from './test-town';

/** A tree planted on a day after its ground and stock were measured, and looked at on another, if anybody did. */
export async function plantedTree(
  town: TestTown,
  by: Visitor,
  { ref, plantedOn, look }: { ref: string; plantedOn: IsoDate; look?: { on: IsoDate; seen: RemedySeen } },
): Promise<{ spotId: string; treeId: string }> {
  const { spotId, treeId } = await town.addSpot(ref);
  const version = async () => (await by.spot(spotId)).spot.version;
  const kept = [
    await by.record(sending(spotId, { kind: 'ground', facts: loam }, await version())),
    await by.record(sending(spotId, { kind: 'stock', facts: container }, await version())),
    await by.record(sending(spotId, planting(plantedOn))),
    ...(look ? [await by.record(sending(spotId, { kind: 'inspection', facts: seenAsLook(look.seen, look.on) }))] : []),
  ];
  const refused = kept.find(({ status }) => status !== 201);
  if (refused) throw new Error(`${ref} was not planted: ${JSON.stringify(refused.body)}`);
  return { spotId, treeId };
}
