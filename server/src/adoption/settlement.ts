import type { MeasuredSettlement } from '@sombra/contract';
import { measuredDrop, trainedSettlement } from '@sombra/core';
import type { Db } from '../platform/db';
import { currentPractice, spotsOnPutBack } from '../practice/repository';
import { recordsOfSpots } from '../record/repository';

/** What the drops that crews measured say of fill under balls, beside what the programme's practice says. */
export async function measuredSettlement(db: Db): Promise<MeasuredSettlement> {
  const records = await recordsOfSpots(db, await spotsOnPutBack(db));
  const drops = [...records.values()].map(measuredDrop).filter((drop) => drop !== null);
  const { settlementFirmed } = (await currentPractice(db)).flareAboveGrade;
  return trainedSettlement(drops, settlementFirmed);
}
