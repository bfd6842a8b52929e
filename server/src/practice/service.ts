import type { KeptPractice, Practices, User } from '@sombra/contract';
import { ConflictError, InvalidInputError, presetIds, presets, requirePractice, type Practice } from '@sombra/core';
import type { Knex } from 'knex';
import { asActor, oneAtATime, type Db } from '../platform/db';
import { groupedByPlace, KeptByPlace, Tally } from '../platform/kept-by-place-service';
import { currentRules } from '../rules/repository';
import { countUpTo } from '../spots/repository';
import {
  findAdoption,
  insertPractice,
  newestVersion,
  ownPractices,
  plantings,
  programmePractice,
  type PlantedUnder,
} from './repository';

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
  await asActor(db, user.name, async (trx) => {
    await oneAtATime(trx, 'practice-names');
    await requireOwnName(trx, practice);
    const newest = await newestVersion(trx, practice.id);
    const next = { ...practice, version: practice.version + 1 };
    if (newest !== practice.version || !(await insertPractice(trx, next, user.name))) {
      throw new ConflictError(`practice is at version ${newest}`, 'version', {
        title: 'Somebody changed this practice while you were editing it. Nothing of yours was stored yet.',
      });
    }
  });
  return allPractices(db);
}

type Plantings = Omit<PlantedUnder, 'placeId'>;
const planted = new KeptByPlace<Plantings[], Tally<Plantings>>(
  async (db, places) => groupedByPlace(await plantings(db, places)),
  () => new Tally(({ practiceId }) => [practiceId]),
);

/** The newest version of each practice, the shipped ones first, with the trees planted under it. */
export async function allPractices(db: Knex): Promise<Practices> {
  const adoption = await findAdoption(db);
  const under = (await planted.read(db, '')).sum.all();
  const kept = (practice: Practice, madeBy: string): KeptPractice => ({
    practice: practice as KeptPractice['practice'],
    madeBy,
    shipped: presetIds.has(practice.id),
    planted: under.find(({ practiceId }) => practiceId === practice.id)?.count ?? 0,
  });
  const { work } = await currentRules(db);
  return {
    work,
    current: await programmePractice(db),
    adoption: adoption
      ? {
          ...(await countUpTo(db, adoption.atSpot)),
          id: adoption.id,
          version: adoption.version,
          running: adoption.alive,
          askedBy: adoption.askedBy,
        }
      : null,
    practices: [
      ...presets.map((practice) => kept(practice, 'Sombra')),
      ...(await ownPractices(db)).map(({ practice, madeBy }) => kept(practice, madeBy)),
    ],
  };
}

const bare = (name: string): string => name.trim().toLowerCase();

/** Two practices of one name could not be told apart where somebody chooses. */
async function requireOwnName(trx: Db, { id, name }: Practice): Promise<void> {
  const practices = [...presets, ...(await ownPractices(trx)).map(({ practice }) => practice)];
  const other = practices.find((practice) => practice.id !== id && bare(practice.name) === bare(name));
  if (!other) return;
  const title = `Another practice is called ${other.name}: give this one a name of its own`;
  throw new InvalidInputError(`must be a name no other practice has, got ${name}`, 'practice.name', { title });
}
