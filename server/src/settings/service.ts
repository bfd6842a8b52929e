import type { Programme, SaveProgramme, SetUp, User } from '@sombra/contract';
import { addWorkingDays, ConflictError, InvalidInputError, NotFoundError, presets } from '@sombra/core';
import type { Knex } from 'knex';
import { randomInt, timingSafeEqual } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { insertUser } from '../people/repository';
import { hashPassword, requirePassword } from '../people/service';
import { hashOf } from '../platform/secrets';
import { asActor, type Db } from '../platform/db';
import { currentPractice, insertPractice } from '../practice/repository';
import { askForRenewal, renewal } from '../record/derive';
import { currentRules, insertRules } from '../rules/repository';
import {
  dropSetUpCode,
  findProgramme,
  insertProgramme,
  keepSetUpCode,
  lockSetUpCode,
  updateProgramme,
} from '../programme/repository';
import { programmeToday } from '../programme/today';

/** @throws NotFoundError before the programme was set up */
export async function programme(db: Db): Promise<Programme> {
  const kept = await findProgramme(db);
  if (!kept) throw new NotFoundError('no programme yet', 'programme');
  const { ground, match } = await currentRules(db);
  const working = await renewal(db);
  const { id, version, name } = await currentPractice(db);
  const practice = { id, version, name };
  return { ...kept, practice, currency: match.currency, holidays: [...ground.holidays], working };
}

/**
 * Changes what the programme goes by. Other planting windows change what follows from the records of every spot: that
 * is worked out again behind this answer, and, should the server end meanwhile, at its next start.
 * @throws ConflictError where somebody changed it since it was read
 */
export async function saveProgramme(
  db: Knex,
  user: User,
  { version, ...settings }: SaveProgramme,
  beginRenewal: () => void,
): Promise<Programme> {
  addWorkingDays(await programmeToday(db), 1, settings.holidays);
  const anew = await asActor(db, user.name, async (trx) => {
    const before = await programme(trx);
    if (!(await updateProgramme(trx, settings, version))) {
      throw new ConflictError(`the programme is at version ${before.version}`, 'version', {
        title: 'Somebody changed the programme while you were editing it. Nothing of yours was stored yet.',
        current: before,
      });
    }
    await keepRules(trx, user.name, settings);
    if (isDeepStrictEqual(before.windows, settings.windows)) return false;
    await askForRenewal(trx);
    return true;
  });
  // The page does not wait: a quarter of a million spots take minutes.
  if (anew) beginRenewal();
  return programme(db);
}

/** Holidays and the currency are rules, kept in versions: another value is the next version. */
async function keepRules(
  trx: Db,
  by: string,
  { holidays, currency }: Pick<SaveProgramme, 'holidays' | 'currency'>,
): Promise<void> {
  const rules = await currentRules(trx);
  const next = {
    ...rules,
    ground: { ...rules.ground, holidays, version: rules.ground.version + 1 },
    match: { ...rules.match, currency },
  };
  const same = isDeepStrictEqual([...rules.ground.holidays], holidays) && rules.match.currency === currency;
  if (same || (await insertRules(trx, next, by))) return;
  throw new ConflictError('the rules were changed since', 'version', {
    title: 'Somebody changed the rules of the programme just now. Nothing of yours was stored yet.',
  });
}

// Set-up

/** Without letters and digits that are taken for each other. */
const signs = '23456789ABCDEFGHJKMNPQRSTUVWXYZ';
const plain = (code: string): string => code.replace(/[^0-9A-Z]/g, '');

/**
 * A code that opens the set-up once, for whoever sees what the start command prints; `null` where the programme is set
 * up. One that was made before opens nothing from then on.
 */
export async function makeSetUpCode(db: Knex): Promise<string | null> {
  if (await findProgramme(db)) return null;
  const code = Array.from({ length: 12 }, () => signs.charAt(randomInt(signs.length))).join('');
  await asActor(db, 'start', (trx) => keepSetUpCode(trx, hashOf(code)));
  return (code.match(/.{4}/g) ?? []).join('-');
}

/**
 * Makes the programme and its first administrator, once, by the code.
 * @throws InvalidInputError for a wrong code or a password that will not do, ConflictError where it is set up already
 */
export async function setUp(db: Knex, { code, person, programme: settings, practice: asked }: SetUp): Promise<void> {
  const { password, ...named } = person;
  const practice = presets.find(({ id, version }) => id === asked.id && version === asked.version);
  if (!practice) throw new InvalidInputError('practice is no shipped practice', 'practice');
  requirePassword(password, named);
  addWorkingDays(await programmeToday(db), 1, settings.holidays);
  const passwordHash = await hashPassword(password);
  await asActor(db, named.name, async (trx) => {
    const expected = await lockSetUpCode(trx);
    if (await findProgramme(trx)) {
      throw new ConflictError('the programme is set up already', 'code', {
        title: 'This programme is set up already; sign in to it',
      });
    }
    if (!expected || !timingSafeEqual(Buffer.from(expected), Buffer.from(hashOf(plain(code))))) {
      throw new InvalidInputError('code is not the one the start command printed last', 'code', {
        title: 'This is not the code that the start command printed last',
      });
    }
    await insertPractice(trx, practice, 'Sombra');
    await insertProgramme(trx, { ...settings, demo: false }, practice);
    await keepRules(trx, named.name, settings);
    await insertUser(trx, { ...named, role: 'administrator', passwordHash, addedBy: null });
    await dropSetUpCode(trx);
  });
}
