import type { KeptRules, Rules, User } from '@sombra/contract';
import { addWorkingDays, ConflictError } from '@sombra/core';
import type { Knex } from 'knex';
import { asActor } from '../platform/db';
import { insertRules, keptRules } from './repository';
import { programmeToday } from '../programme/today';

/**
 * Keeps changed rules as the next version. @throws ConflictError when somebody changed them since they were read,
 * InvalidInputError for holidays that leave no working day
 */
export async function saveRules(db: Knex, user: User, rules: Rules): Promise<KeptRules> {
  addWorkingDays(await programmeToday(db), 1, rules.ground.holidays);
  return asActor(db, user.name, async (trx) => {
    const current = await keptRules(trx);
    const version = rules.ground.version + 1;
    const next = { ...rules, ground: { ...rules.ground, version } };
    if (current.rules.ground.version !== rules.ground.version || !(await insertRules(trx, next, user.name))) {
      throw new ConflictError(`rules are at version ${current.rules.ground.version}`, 'version', {
        title: `${current.madeBy} changed the rules while you were editing them. Nothing of yours was stored yet.`,
        current,
      });
    }
    return keptRules(trx);
  });
}
