import { ofKind, standing, type FieldRecord } from './record';

/** What somebody is sent out to do, at spots or with a delivery. */
export const assignmentKinds = ['test_holes', 'planting', 'watering', 'looks', 'delivery'] as const;
export type AssignmentKind = (typeof assignmentKinds)[number];

const waterings: ReadonlySet<string> = new Set(['water_now', 'water_soon', 'give_rest_of_soak', 'skip_water']);

/** The records that say of a spot that what was asked there was done. */
const servedBy: Readonly<Record<AssignmentKind, (records: readonly FieldRecord[]) => readonly FieldRecord[]>> = {
  test_holes: (records) => ofKind(records, 'percolation'),
  planting: (records) => ofKind(records, 'planting'),
  watering: (records) => ofKind(records, 'remedy').filter(({ facts }) => waterings.has(facts.remedy)),
  looks: (records) => ofKind(records, 'inspection'),
  delivery: () => [],
};

/**
 * Whether what an assignment asks was done at a spot since it was given; taken back is not done.
 * @param since ISO 8601: when it was given
 */
export function isServed(kind: AssignmentKind, records: readonly FieldRecord[], since: string): boolean {
  const from = Date.parse(since);
  return servedBy[kind](standing(records)).some(({ recordedAt }) => Date.parse(recordedAt) >= from);
}
