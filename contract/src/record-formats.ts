/**
 * The version of the shapes of records, which each carries as it is sent. Raise it where facts of before must be read
 * otherwise, with a step below that does so and stored samples of the one before.
 */
export const recordFormat = 3;

/** What turns a record as it was sent in one format into the next, by the format it comes from. */
const steps: Readonly<Record<number, (sent: Readonly<Record<string, unknown>>) => Readonly<Record<string, unknown>>>> =
  {
    // Every fact that came since may be missing: only the number of the format and the clock are new.
    1: (sent) => sent,
    // A kind that came since, and facts of a planting that may be missing.
    2: (sent) => sent,
  };

/** Reads a sent record of any format this version knows as one of today's; what is none is left to the schema. */
export function readFormat(sent: unknown): unknown {
  if (typeof sent !== 'object' || sent === null || Array.isArray(sent)) return sent;
  const given = sent as Readonly<Record<string, unknown>>;
  const from = given['format'] ?? 1;
  if (typeof from !== 'number' || !Number.isInteger(from) || from < 1) return sent;
  let read = given;
  for (let at = from, step = steps[at]; step; step = steps[++at]) read = step(read);
  return read;
}
