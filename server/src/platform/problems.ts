import { ConflictError, ForbiddenError, InvalidInputError, NotFoundError, SombraError } from '@sombra/core';
import { problemIssues, type Problem, type ProblemIssue } from '@sombra/contract';
import type { ErrorRequestHandler, Request, RequestHandler } from 'express';
import { ZodError, type z } from 'zod';
import { isDatabaseAway } from './db';

/** Nobody is signed in, or the session has run out. */
export class SignedOutError extends SombraError {
  readonly code = 'signed_out';
}

export class TooManyTriesError extends SombraError {
  readonly code = 'too_many_tries';
}

/** The storage folder is full or cannot be written: the operator's to mend, and worth sending again. */
export class StorageError extends SombraError {
  readonly code = 'storage_full';
  constructor(cause: string) {
    super(`the storage folder cannot be written: ${cause}`, 'file', {
      title: 'The storage is full or cannot be written; nothing was stored. Your file is kept and can be sent again.',
    });
  }
}

/**
 * Parses what came over the border.
 * @throws ZodError with the input kept for the message, InvalidInputError for text or a date that no table can hold
 */
export function parse<S extends z.ZodType>(schema: S, input: unknown): z.output<S> {
  requireStorable(input, '');
  return schema.parse(input, { reportInput: true });
}

/** Deeper than anything that is sent. */
const mostDeep = 32;
const firstYear = 1800;
const lastYear = 2199;
/** A date or an instant by itself, not words that hold one. */
const dated = /^(\d{4})-\d{2}-\d{2}(T[\d:.]+(Z|[+-]\d{2}:\d{2}))?$/;

/** Text that PostgreSQL cannot keep and years nobody plants in are refused at their field, wherever they stand. */
export function requireStorable(input: unknown, path: string, deep = 0): void {
  if (deep > mostDeep) throw new InvalidInputError(`must be nested ${mostDeep} levels at most`, path);
  if (typeof input === 'string') {
    const year = Number(dated.exec(input)?.[1] ?? firstYear);
    if (input.includes('\0') || /\p{Surrogate}/u.test(input)) {
      throw new InvalidInputError('must hold whole characters only, no NUL and no half of a pair', path);
    }
    if (year < firstYear || year > lastYear) {
      const range = { received: year, min: firstYear, max: lastYear, unit: 'years' };
      throw new InvalidInputError(`must be within the years ${firstYear}–${lastYear}, got ${year}`, path, range);
    }
  } else if (typeof input === 'object' && input !== null && !ArrayBuffer.isView(input)) {
    for (const [key, value] of Object.entries(input)) {
      requireStorable(key, path);
      requireStorable(value, path ? `${path}.${key}` : key, deep + 1);
    }
  }
}

const problem = (status: number, code: string, title: string, more: Partial<Problem> = {}): Problem => ({
  type: `urn:sombra:problem:${code}`,
  title,
  status,
  code,
  ...more,
});

const statusOf: Readonly<Record<string, number>> = {
  invalid_input: 400,
  not_found: 404,
  conflict: 409,
  forbidden: 403,
  signed_out: 401,
  too_many_tries: 429,
  storage_full: 507,
};

const titleOf: Readonly<Record<string, string>> = {
  invalid_input: 'A value is outside its limits',
  not_found: 'There is no such thing here',
  conflict: 'Someone else changed this first',
  forbidden: 'Your role does not allow this',
  signed_out: 'Sign in to go on',
  too_many_tries: 'Too many sign-in tries; wait a while',
};

/** What a client is told about an error, and whether it is our fault. Unknown errors give only a reference. */
export function problemOf(error: unknown, reference: string): { problem: Problem; ours: boolean } {
  if (error instanceof ZodError) {
    const issues = problemIssues(error);
    return { problem: problem(400, 'invalid_input', titleOf['invalid_input'] ?? '', { issues }), ours: false };
  }
  if (error instanceof SombraError) {
    const status = statusOf[error.code] ?? 400;
    const issues = error instanceof InvalidInputError ? [issueOf(error)] : undefined;
    const current = error instanceof ConflictError ? error.details['current'] : undefined;
    const title =
      typeof error.details['title'] === 'string' ? error.details['title'] : (titleOf[error.code] ?? error.code);
    return { problem: problem(status, error.code, title, { issues, current }), ours: status >= 500 };
  }
  const stored = databaseProblem(error);
  if (stored) return { problem: stored, ours: false };
  if (isDatabaseAway(error)) {
    const title = 'The database cannot be reached; nothing was stored. Your entry is kept and can be sent again.';
    return { problem: problem(503, 'database_unavailable', title), ours: false };
  }
  const known = httpProblem(error);
  if (known) return { problem: known, ours: false };
  return { problem: problem(500, 'unexpected', 'Something went wrong on our side', { reference }), ours: true };
}

function issueOf(error: InvalidInputError): ProblemIssue {
  const { received, min, max, unit } = error.details;
  return {
    path: error.path,
    message: error.message.replace(`${error.path} `, ''),
    ...(typeof received === 'number' ? { received } : {}),
    ...(typeof min === 'number' ? { min } : {}),
    ...(typeof max === 'number' ? { max } : {}),
    ...(typeof unit === 'string' ? { unit } : {}),
  };
}

/** What PostgreSQL itself refuses, where it is the other person's act or the value that was sent. */
function databaseProblem(error: unknown): Problem | undefined {
  const { code } = (error ?? {}) as { code?: unknown };
  if (code === '23505') return problem(409, 'conflict', 'Someone else stored this first; nothing of yours was stored');
  // Numbers, dates and characters out of what a column holds; a thing that is named and not there.
  if (typeof code === 'string' && /^(22003|22007|22008|22021|22P02|22P05|23503|23514)$/.test(code)) {
    return problem(400, 'invalid_input', 'A value is outside what can be stored');
  }
  const busy = ['40001', '40P01', '55P03'];
  if (typeof code === 'string' && busy.includes(code)) {
    return problem(503, 'busy', 'Others are changing the same things just now; nothing was stored. Try again.');
  }
  return undefined;
}

/** Errors of the body parsers, of addresses that cannot be read and the CSRF check carry a status of their own. */
function httpProblem(error: unknown): Problem | undefined {
  if (!(error instanceof Error)) return undefined;
  const { status = error instanceof URIError ? 400 : undefined, type } = error as { status?: unknown; type?: unknown };
  if (status === 413) return problem(413, 'too_large', 'The file or body is larger than the limit');
  if (status === 400 && type === 'entity.parse.failed')
    return problem(400, 'invalid_json', 'The body is not valid JSON');
  if (status === 403) return problem(403, 'csrf', 'This page is out of date; reload it and try again');
  if (typeof status === 'number' && status >= 400 && status < 500) {
    return problem(status, 'unreadable', 'The request cannot be read as it was sent');
  }
  return undefined;
}

export const noSuchDoor: RequestHandler = (request) => {
  throw new NotFoundError(`no ${request.method} here`, 'path');
};

export const answerErrors: ErrorRequestHandler = (error, request: Request, response, next) => {
  const { problem: answer, ours } = problemOf(error, String(request.id));
  if (ours) request.log.error({ err: error as unknown }, 'unexpected error');
  else request.log.info({ code: answer.code }, 'refused');
  if (response.headersSent) {
    next(error);
    return;
  }
  if (answer.status === 503) response.setHeader('retry-after', '2');
  const after = error instanceof TooManyTriesError ? error.details['retryAfterS'] : undefined;
  if (typeof after === 'number') response.setHeader('retry-after', String(after));
  response.status(answer.status).type('application/problem+json').json(answer);
};

export { ForbiddenError };
