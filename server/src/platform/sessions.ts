import { type Role, type User } from '@sombra/contract';
import { ForbiddenError } from '@sombra/core';
import connectPgSimple from 'connect-pg-simple';
import { csrfSync } from 'csrf-sync';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import pg from 'pg';
import type { Config } from './config';
import { SignedOutError } from './problems';

declare module 'express-session' {
  interface SessionData {
    user: User;
  }
}

const hours = 3_600_000;

export const csrf = csrfSync({ getTokenFromRequest: (request) => request.get('x-csrf-token') });

/** A small pool for sessions and sign-in limits; a cut connection is reported, never fatal. */
export function openSessionPool(config: Config, onError: (error: Error) => void): pg.Pool {
  const pool = new pg.Pool({
    connectionString: config.databaseUrl,
    application_name: 'sombra-sessions',
    max: 4,
    connectionTimeoutMillis: 4000,
  });
  pool.on('error', onError);
  return pool;
}

export function sessions(config: Config, pool: pg.Pool): RequestHandler {
  const Store = connectPgSimple(session);
  return session({
    name: 'sombra.sid',
    secret: config.sessionSecret,
    store: new Store({ pool, tableName: 'session', pruneSessionInterval: 15 * 60 }),
    resave: false,
    saveUninitialized: false,
    rolling: true,
    cookie: { httpOnly: true, sameSite: 'strict', secure: config.secureCookies, maxAge: 12 * hours, path: '/' },
  });
}

/** The signed-in person. @throws SignedOutError */
export function userOf(request: Request): User {
  const { user } = request.session;
  if (!user) throw new SignedOutError('no session', 'session');
  return user;
}

export const requireUser: RequestHandler = (request, _response, next) => {
  userOf(request);
  next();
};

/** @throws ForbiddenError where the person's role is not among those the act allows. */
export function requireRole(user: User, allowed: readonly Role[], act: string): void {
  if (user.role !== 'administrator' && !allowed.includes(user.role)) {
    throw new ForbiddenError(`${act} is not open to the role ${user.role}`, 'role', {
      title: `Your role, ${user.role.replace('_', ' ')}, does not allow this: ${act}`,
    });
  }
}
