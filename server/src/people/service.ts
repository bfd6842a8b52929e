import { hash, verify } from '@node-rs/argon2';
import type { SignIn, User } from '@sombra/contract';
import { TZDate } from '@date-fns/tz';
import { InvalidInputError, type IsoDate } from '@sombra/core';
import { formatISO } from 'date-fns';
import type { Knex } from 'knex';
import type pg from 'pg';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { asActor, type Db } from '../platform/db';
import { TooManyTriesError } from '../platform/problems';
import { announceEnd, findBySignIn, findUser, programmeTimeZone, setUnits } from './repository';

const triesPerWindow = 8;
/** Wrong tries from one address, whatever the name: a household or an office behind one address still gets in. */
const triesPerAddress = 60;
const windowS = 15 * 60;

export const hashPassword = (password: string): Promise<string> => hash(password);

// Verified against when no such person exists, so that the answer takes as long either way.
let decoy: Promise<string> | undefined;

export function makePeople(db: Knex, pool: pg.Pool) {
  const limiterOf = (keyPrefix: string, points: number) =>
    new RateLimiterPostgres({
      storeClient: pool,
      storeType: 'pool',
      tableName: 'sign_in_limit',
      tableCreated: true,
      keyPrefix,
      points,
      duration: windowS,
      // Done with the other work that comes round: see pruneLimits.
      clearExpiredByTimeout: false,
    });
  const byName = limiterOf('name', triesPerWindow);
  const byAddress = limiterOf('address', triesPerAddress);

  /** @throws InvalidInputError when name or password do not fit, TooManyTriesError after too many tries. */
  async function signIn({ signIn: name, password }: SignIn, address: string): Promise<User> {
    const key = `${address}:${name.toLowerCase()}`;
    await spendTry(byName, key);
    await spendTry(byAddress, address);
    const found = await findBySignIn(db, name);
    decoy ??= hashPassword('no such person');
    const fits = await verify(found?.passwordHash ?? (await decoy), password);
    if (!found || !fits) throw new InvalidInputError('password does not fit this name', 'password', {});
    await byName.delete(key);
    await byAddress.reward(address);
    const { passwordHash: _secret, ...user } = found;
    return user;
  }

  async function spendTry(limiter: RateLimiterPostgres, key: string): Promise<void> {
    try {
      await limiter.consume(key);
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error;
      const retryAfterS = Math.ceil(error.msBeforeNext / 1000);
      throw new TooManyTriesError('too many sign-in tries', 'signIn', {
        retryAfterS,
        title: `Too many sign-in tries; wait ${Math.ceil(retryAfterS / 60)} min`,
      });
    }
  }

  async function changeUnits(user: User, units: User['units']): Promise<User> {
    await asActor(db, user.name, (trx) => setUnits(trx, user.id, units));
    return { ...user, units };
  }

  return {
    signIn,
    changeUnits,
    today: () => programmeToday(db),
    find: (userId: string) => findUser(db, userId),
    endStreams: (key: string) => announceEnd(db, key),
  };
}

export type People = ReturnType<typeof makePeople>;

/** Today's date where the programme is. */
export async function programmeToday(db: Db): Promise<IsoDate> {
  const now = TZDate.tz(await programmeTimeZone(db));
  return formatISO(now, { representation: 'date' });
}
