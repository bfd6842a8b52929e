import type { AdoptPractice, Practices, User } from '@sombra/contract';
import {
  choices,
  choiceValue,
  ConflictError,
  InvalidInputError,
  NotFoundError,
  presetIds,
  requireChoiceValue,
  type Practice,
} from '@sombra/core';
import type { Knex } from 'knex';
import { asActor } from '../platform/db';
import { requireRole } from '../platform/sessions';
import { rebuildAll } from '../record/derive';
import { allPractices, findPractice, insertPractice, newestVersion, setProgrammePractice } from './repository';

/**
 * Keeps a practice as the next version of itself, or as a new one at version 0.
 * @throws InvalidInputError for a shipped practice or a choice outside its limits, ConflictError when somebody
 * changed it since it was read
 */
export async function savePractice(db: Knex, user: User, practice: Practice): Promise<Practices> {
  requireRole(user, ['coordinator'], 'change a practice');
  if (presetIds.has(practice.id)) {
    throw new InvalidInputError('a shipped practice is copied, never changed', 'practice.id', {
      title: 'A shipped practice is copied, never changed',
    });
  }
  for (const choice of choices) requireChoiceValue(choice, choiceValue(practice, choice.path));
  return asActor(db, user.name, async (trx) => {
    const newest = await newestVersion(trx, practice.id);
    const next = { ...practice, version: practice.version + 1 };
    if (newest !== practice.version || !(await insertPractice(trx, next, user.name))) {
      throw new ConflictError(`practice is at version ${newest}`, 'version', {
        title: 'Somebody changed this practice while you were editing it. Nothing of yours was stored yet.',
      });
    }
    return allPractices(trx);
  });
}

/**
 * Makes a practice the programme's, and works out afresh what follows from it for every spot, in one act. Trees keep
 * the version they were planted under.
 */
export async function adoptPractice(db: Knex, user: User, asked: AdoptPractice): Promise<Practices> {
  requireRole(user, ['coordinator'], 'adopt a practice');
  return asActor(db, user.name, async (trx) => {
    const practice = await findPractice(trx, asked.id, asked.version);
    if (!practice) throw new NotFoundError('no such practice', 'id');
    await insertPractice(trx, practice, 'Sombra');
    await setProgrammePractice(trx, asked);
    await rebuildAll(trx);
    return allPractices(trx);
  });
}
