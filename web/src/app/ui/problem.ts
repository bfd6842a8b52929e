import { HttpErrorResponse } from '@angular/common/http';
import { neverArrived } from '../session/never-arrived';
import { problemSchema, type Problem } from '@sombra/contract';
import { sayIsoDay } from '@sombra/core';

const local = (code: string, title: string, status: number): Problem => ({
  type: `urn:sombra:problem:${code}`,
  code,
  title,
  status,
});

/** What went wrong, from any error of an HTTP call; a call that never arrived is `offline`. */
export function readProblem(error: unknown): Problem {
  if (!(error instanceof HttpErrorResponse))
    return local('unexpected', 'Something went wrong in this page. Reload it.', 0);
  const parsed = problemSchema.safeParse(typeof error.error === 'string' ? safeJson(error.error) : error.error);
  if (parsed.success) return inWords(parsed.data);
  return neverArrived(error)
    ? local('offline', 'The server cannot be reached.', 0)
    : local('unexpected', `The server answered with an error (${error.status}).`, error.status);
}

/** Faults name their limits as the server holds them: days are said as everywhere else. */
function inWords(problem: Problem): Problem {
  const say = (text: string) => text.replace(/\b\d{4}-\d{2}-\d{2}\b(?!T)/g, sayIsoDay);
  return {
    ...problem,
    title: say(problem.title),
    ...(problem.issues ? { issues: problem.issues.map((issue) => ({ ...issue, message: say(issue.message) })) } : {}),
  };
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

/** Worth sending again by itself: the record may well be fine. */
export const passes = (problem: Problem): boolean =>
  problem.status === 0 ||
  problem.status === 401 ||
  problem.status === 429 ||
  problem.status >= 500 ||
  problem.code === 'csrf';

/** The server fell over this one thing; others may well be taken. */
export const stumbled = (problem: Problem): boolean => problem.status === 500;

/** A problem in one or two sentences, with the reference to quote where there is one. */
export function sayProblem(problem: Problem): string {
  const title = /[.!?]$/.test(problem.title) ? problem.title : `${problem.title}.`;
  return problem.reference ? `${title} Quote reference ${problem.reference}.` : title;
}
