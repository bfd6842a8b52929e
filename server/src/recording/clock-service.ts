import type { ClockQuestion, User } from '@sombra/contract';
import { ConflictError, InvalidInputError, NotFoundError } from '@sombra/core';
import type { Knex } from 'knex';
import { bumpSpot, lockSpot } from '../spots/repository';
import { asActor, isoMoment } from '../platform/db';
import { deriveAndKeep } from '../record/derive';
import { askedRecords, findRecord, insertClockAnswer } from '../record/repository';

/** Records that stand where they arrived because nobody knows when they were made, the oldest first. */
export const clockQuestions = (db: Knex): Promise<ClockQuestion[]> => askedRecords(db);

/**
 * Says when a record was made; what follows from the order of the spot's records is worked out again.
 * @throws InvalidInputError for a moment after the record arrived, ConflictError where it was answered before
 */
export async function answerClock(db: Knex, user: User, id: string, happenedAt: string): Promise<ClockQuestion[]> {
  await asActor(db, user.name, async (trx) => {
    const record = await findRecord(trx, id);
    if (record?.clock !== 'asked') throw new NotFoundError('nothing is asked about this record', 'id');
    const most = isoMoment(record.received_at);
    if (new Date(happenedAt) > new Date(most)) {
      throw new InvalidInputError(`happenedAt must not be after the record arrived, ${most}`, 'happenedAt', {
        title: 'A record cannot have been made after it arrived',
      });
    }
    await lockSpot(trx, record.spot_id);
    if (!(await insertClockAnswer(trx, { recordId: id, happenedAt, by: user.name }))) {
      throw new ConflictError('somebody said so already', 'id', { title: 'Somebody answered this first' });
    }
    await bumpSpot(trx, record.spot_id, user.name);
    await deriveAndKeep(trx, [record.spot_id]);
  });
  return clockQuestions(db);
}
