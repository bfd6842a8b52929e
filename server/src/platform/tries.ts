import type { RequestHandler } from 'express';
import type pg from 'pg';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { TooManyTriesError } from './problems';

export interface Tries {
  readonly keyPrefix: string;
  readonly points: number;
  readonly windowS: number;
}

/** Counts tries in the database, for every server on it; rows that ran out are dropped by `pruneLimits`. */
export const countTries = (pool: pg.Pool, { keyPrefix, points, windowS }: Tries): RateLimiterPostgres =>
  new RateLimiterPostgres({
    storeClient: pool,
    storeType: 'pool',
    tableName: 'sign_in_limit',
    tableCreated: true,
    keyPrefix,
    points,
    duration: windowS,
    clearExpiredByTimeout: false,
  });

/** @throws TooManyTriesError with the wait in `details.retryAfterS`, said by `title` */
export async function spendTry(
  limiter: RateLimiterPostgres,
  key: string,
  field: string,
  title: (minutes: number) => string,
): Promise<void> {
  try {
    await limiter.consume(key);
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error;
    const retryAfterS = Math.ceil(error.msBeforeNext / 1000);
    const said = title(Math.ceil(retryAfterS / 60));
    throw new TooManyTriesError('too many tries', field, { retryAfterS, title: said });
  }
}

/** Doors for people without an account let one address try so often. */
export function limitTries(pool: pg.Pool): RequestHandler {
  const limiter = countTries(pool, { keyPrefix: 'open', points: 40, windowS: 5 * 60 });
  return async (request, _response, next) => {
    await spendTry(limiter, request.ip ?? 'unknown', 'token', (minutes) => `Too many tries; wait ${minutes} min`);
    next();
  };
}
