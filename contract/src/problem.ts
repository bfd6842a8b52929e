import { limits, type Measure } from '@sombra/core';
import * as z from 'zod';

/** One thing wrong with one field. Numbers are echoed; free text and personal data are not. */
export const problemIssueSchema = z.object({
  /** Dotted path of the field in the body, query or file. */
  path: z.string(),
  message: z.string(),
  received: z.union([z.number(), z.string()]).optional(),
  min: z.number().optional(),
  max: z.number().optional(),
  unit: z.string().optional(),
});
export type ProblemIssue = z.infer<typeof problemIssueSchema>;

/** The one shape of every refusal, after RFC 9457. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number(),
  code: z.string(),
  issues: z.array(problemIssueSchema).optional(),
  /** Number to quote when the fault is ours. */
  reference: z.string().optional(),
  /** For conflicts: what is stored now. */
  current: z.unknown().optional(),
});
export type Problem = z.infer<typeof problemSchema>;

const lastName = (path: string): string =>
  path
    .replace(/\[\d+\]|\.\d+/g, '')
    .split('.')
    .at(-1) ?? path;

const isMeasure = (name: string): name is Measure => name in limits;

/** Fields named shorter than the measure they hold. */
const measureOf = (name: string): Measure | undefined =>
  name === 'heightM' ? 'treeHeightM' : isMeasure(name) ? name : undefined;

/** Short enough to show in a message, and a number rather than somebody's words. */
function echo(input: unknown): number | string | undefined {
  if (typeof input === 'number' && Number.isFinite(input)) return input;
  return undefined;
}

/** Turns the issues of a failed parse (made with `reportInput`) into the fields of a problem. */
export function problemIssues(error: z.ZodError): ProblemIssue[] {
  return error.issues.map((issue) => {
    const path = issue.path.map(String).join('.');
    const name = lastName(path);
    const named = measureOf(name);
    const range = named ? limits[named] : undefined;
    const received = echo(issue.input);
    if (range && received !== undefined && (issue.code === 'too_big' || issue.code === 'too_small')) {
      const message = `must be within ${range.min}–${range.max} ${range.unit}, got ${received}`;
      return { path, message, received, ...range };
    }
    const message =
      range && issue.code === 'invalid_type'
        ? `must be a number of ${range.unit === '°' ? 'degrees' : range.unit}`
        : issue.message;
    return received === undefined ? { path, message, ...range } : { path, message, received, ...range };
  });
}
