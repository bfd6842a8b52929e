import { ofWatering } from '../practice';
import type { AssignmentKind } from './assignment-kinds';
import { ofKind, standing, type FieldRecord } from './record';

/** The records that say of a spot that what was asked there was done. */
const servedBy: Readonly<Record<AssignmentKind, (records: readonly FieldRecord[]) => readonly FieldRecord[]>> = {
  test_holes: (records) => ofKind(records, 'percolation'),
  planting: (records) => ofKind(records, 'planting'),
  watering: (records) => [
    ...ofKind(records, 'watering'),
    ...ofKind(records, 'remedy').filter(({ facts }) => ofWatering.includes(facts.remedy)),
  ],
  looks: (records) => ofKind(records, 'inspection'),
  remedies: (records) => ofKind(records, 'remedy').filter(({ facts }) => !ofWatering.includes(facts.remedy)),
  delivery: () => [],
};

/**
 * Whether what an assignment asks was done at a spot since it was given; taken back is not done. A tree is planted once:
 * it counts whoever was sent for it before.
 * @param since ISO 8601: when it was given
 */
export function isServed(kind: AssignmentKind, records: readonly FieldRecord[], since: string): boolean {
  const serving = servedBy[kind](standing(records));
  return (kind === 'planting' ? serving : recordedSince(serving, since)).length > 0;
}

const recordedSince = <R extends FieldRecord>(records: readonly R[], since: string): R[] =>
  records.filter(({ recordedAt }) => Date.parse(recordedAt) >= Date.parse(since));

/** Why it could not be done there since it was given, said last; `null` where nobody said so, or it was done after. */
export function couldNot(kind: AssignmentKind, records: readonly FieldRecord[], since: string): string | null {
  if (isServed(kind, records, since)) return null;
  const said = recordedSince(ofKind(standing(records), 'not_done'), since).filter(({ facts }) => facts.task === kind);
  return said.at(-1)?.facts.reason ?? null;
}
