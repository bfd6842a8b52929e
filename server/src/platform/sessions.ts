import { csrfHeader, may, permissions, type Act, type User } from '@sombra/contract';
import { ForbiddenError } from '@sombra/core';
import connectPgSimple from 'connect-pg-simple';
import { csrfSync } from 'csrf-sync';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import pg from 'pg';
import type { Config } from './config';
import { SignedOutError } from './problems';
import { hashOf } from './secrets';

/** Whose session it is, as read with it; part of no session that is stored. */
class Known {
  constructor(readonly person: User | null) {}

  toJSON(): undefined {
    return undefined;
  }
}

declare module 'express-session' {
  interface SessionData {
    known?: Known;
    /** Who they are is read anew with each request: another role holds from that moment on. */
    userId: string;
    renewedAt: number;
  }
}
declare module 'express-serve-static-core' {
  interface Request {
    person?: User;
  }
}

const minutes = 60_000;
const hours = 60 * minutes;
/** A session in use is renewed no more often than this: reading writes nothing. */
const renewEveryMs = 10 * minutes;
/** Nobody signed in yet: kept for as long as somebody may look for their password. */
const strangerMs = hours;

export const csrf = csrfSync({ getTokenFromRequest: (request) => request.get(csrfHeader) });

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

/** A session as it is kept, and whose it is; `undefined` where there is none, or it has run out. */
export type ReadSession = (
  sid: string,
) => Promise<{ readonly session: session.SessionData; readonly person: User | null } | undefined>;

export function sessions(config: Config, pool: pg.Pool, read: ReadSession): RequestHandler {
  class Store extends connectPgSimple(session) {
    /** With whose it is, in one question: every request asks both. */
    override get(sid: string, done: (error: unknown, session?: session.SessionData | null) => void): void {
      read(sid).then(
        (found) => done(null, found ? { ...found.session, known: new Known(found.person) } : null),
        (error: unknown) => done(error),
      );
    }
  }
  return session({
    name: 'sombra.sid',
    secret: config.sessionSecret,
    store: new Store({ pool, tableName: 'session', pruneSessionInterval: false, disableTouch: true }),
    resave: false,
    saveUninitialized: false,
    rolling: false,
    cookie: { httpOnly: true, sameSite: 'strict', secure: config.secureCookies, maxAge: 12 * hours, path: '/' },
  });
}

/** Says who the session belongs to, and keeps a session that is in use from running out. */
export const knowPerson: RequestHandler = (request, _response, next) => {
  const { session: kept } = request;
  if (kept.userId === undefined) {
    kept.cookie.maxAge = strangerMs;
    next();
    return;
  }
  const person = kept.known?.person;
  if (person) request.person = person;
  if (Date.now() - (kept.renewedAt ?? 0) > renewEveryMs) {
    kept.renewedAt = Date.now();
    kept.touch();
  }
  next();
};

/** Names a session where others may read it, without saying its id. */
export const keyOfSession = hashOf;
export const sessionKey = (request: Request): string => keyOfSession(request.sessionID);

/** The signed-in person. @throws SignedOutError */
export function userOf(request: Request): User {
  if (!request.person) throw new SignedOutError('no session', 'session');
  return request.person;
}

export const requireUser: RequestHandler = (request, _response, next) => {
  userOf(request);
  next();
};

/** @throws ForbiddenError where the table of permissions does not give the act to the person's role */
export function requireMay(user: User, act: Act): void {
  if (!may(user.role, act)) {
    const { words } = permissions[act];
    throw new ForbiddenError(`the role ${user.role} may not ${words}`, 'role', {
      title: `Your role, ${user.role.replace('_', ' ')}, does not allow this: ${words}`,
    });
  }
}

/** Shuts a door to everybody whose role may not do what it does, before a body is read. */
export const forAct =
  (act: Act): RequestHandler =>
  (request, _response, next) => {
    requireMay(userOf(request), act);
    next();
  };
