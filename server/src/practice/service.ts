import type { Practices, User } from '@sombra/contract';
import { ConflictError, InvalidInputError, presetIds, requirePractice, type Practice } from '@sombra/core';
import type { Knex } from 'knex';
import { asActor, oneAtATime, type Db } from '../platform/db';
import { allPractices, insertPractice, newestVersion } from './repository';

/**
 * Keeps a practice as the next version of itself, or as a new one at version 0.
 * @throws InvalidInputError for a shipped practice or a choice outside its limits, ConflictError when somebody
 * changed it since it was read
 */
export async function savePractice(db: Knex, user: User, practice: Practice): Promise<Practices> {
  if (presetIds.has(practice.id)) {
    throw new InvalidInputError('a shipped practice is copied, never changed', 'practice.id', {
      title: 'A shipped practice is copied, never changed',
    });
  }
  requirePractice(practice);
  return asActor(db, user.name, async (trx) => {
    await oneAtATime(trx, 'practice-names');
    await requireOwnName(trx, practice);
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

const bare = (name: string): string => name.trim().toLowerCase();

/** Two practices of one name could not be told apart where somebody chooses. */
async function requireOwnName(trx: Db, { id, name }: Practice): Promise<void> {
  const { practices } = await allPractices(trx);
  const other = practices.find(({ practice }) => practice.id !== id && bare(practice.name) === bare(name));
  if (!other) return;
  const title = `Another practice is called ${other.practice.name}: give this one a name of its own`;
  throw new InvalidInputError(`must be a name no other practice has, got ${name}`, 'practice.name', { title });
}
