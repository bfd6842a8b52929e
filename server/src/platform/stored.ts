import type { z } from 'zod';

/** What the database holds is not what was put there: our fault, never the client's. */
export class StoredDataError extends Error {}

/**
 * Reads what the database keeps as JSON by the schema it was kept under.
 * @throws StoredDataError naming the thing and where in it, never its values
 */
export function readStored<S extends z.ZodType>(schema: S, stored: unknown, what: string): z.output<S> {
  const read = schema.safeParse(stored);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new StoredDataError(
    `stored ${what} does not fit its schema at ${issue?.path.join('.') || 'its root'}: ${issue?.message}`,
  );
}
