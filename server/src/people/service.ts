import { hash, verify } from '@node-rs/argon2';
import { passwordFault, type ChangePassword, type Preferences, type SignIn, type User } from '@sombra/contract';
import { InvalidInputError } from '@sombra/core';
import type { Knex } from 'knex';
import type pg from 'pg';
import { asActor } from '../platform/db';
import { countTries, spendTry } from '../platform/tries';
import { findProgramme } from '../programme/repository';
import {
  announceEnd,
  changeUser,
  endSessions,
  findBySignIn,
  noteSignIn,
  passwordHashOf,
  setPassword,
} from './repository';
import { programmeToday } from '../programme/today';

const windowS = 15 * 60;
const byNameTries = { keyPrefix: 'name', points: 8, windowS };
/** Wrong tries from one address, whatever the name: a household or an office behind one address still gets in. */
const byAddressTries = { keyPrefix: 'address', points: 60, windowS };

export const hashPassword = (password: string): Promise<string> => hash(password);

/** @throws InvalidInputError naming what is wrong with a password somebody wants to have */
export function requirePassword(password: string, of: Pick<User, 'signIn' | 'name'>): void {
  const fault = passwordFault(password, of);
  if (fault) throw new InvalidInputError(`password ${fault}`, 'password', { title: `The password ${fault}.` });
}

// Verified against when no such person exists, so that the answer takes as long either way.
let decoy: Promise<string> | undefined;

async function fits(passwordHash: string | null | undefined, password: string): Promise<boolean> {
  decoy ??= hashPassword('no such person');
  return (await verify(passwordHash ?? (await decoy), password)) && !!passwordHash;
}

export function makePeople(db: Knex, pool: pg.Pool) {
  const byName = countTries(pool, byNameTries);
  const byAddress = countTries(pool, byAddressTries);
  const tooMany = (minutes: number) => `Too many sign-in tries; wait ${minutes} min`;

  /** @throws InvalidInputError when name or password do not fit, TooManyTriesError after too many tries. */
  async function signIn({ signIn: name, password }: SignIn, address: string): Promise<User> {
    const key = `${address}:${name.toLowerCase()}`;
    await spendTry(byName, key, 'signIn', tooMany);
    await spendTry(byAddress, address, 'signIn', tooMany);
    const found = await findBySignIn(db, name);
    const right = await fits(found?.passwordHash, password);
    if (!found || !right) throw new InvalidInputError('password does not fit this name', 'password', {});
    await byName.delete(key);
    await byAddress.reward(address);
    await asActor(db, found.name, (trx) => noteSignIn(trx, found.id));
    const { passwordHash: _secret, ...user } = found;
    return user;
  }

  async function change(user: User, preferences: Preferences): Promise<User> {
    await asActor(db, user.name, (trx) => changeUser(trx, user.id, preferences));
    return { ...user, ...definedOf(preferences) };
  }

  /** Gives oneself another password; every other session of one's own ends. @throws as for signing in */
  async function changePassword(user: User, { current, password }: ChangePassword, sid: string): Promise<void> {
    await spendTry(byName, `own:${user.id}`, 'current', tooMany);
    if (!(await fits(await passwordHashOf(db, user.id), current))) {
      throw new InvalidInputError('current is not your password', 'current', { title: 'This is not your password' });
    }
    await byName.delete(`own:${user.id}`);
    requirePassword(password, user);
    const passwordHash = await hashPassword(password);
    await asActor(db, user.name, async (trx) => {
      await setPassword(trx, user.id, passwordHash);
      await endSessions(trx, user.id, sid);
    });
  }

  return {
    signIn,
    change,
    changePassword,
    today: () => programmeToday(db),
    programme: async () => {
      const kept = await findProgramme(db);
      return kept ? { name: kept.name, demo: kept.demo, timeZone: kept.timeZone } : null;
    },
    endStreams: (key: string) => announceEnd(db, key),
  };
}

const definedOf = ({ name, units }: Preferences) => ({
  ...(name === undefined ? {} : { name }),
  ...(units === undefined ? {} : { units }),
});

export type People = ReturnType<typeof makePeople>;
