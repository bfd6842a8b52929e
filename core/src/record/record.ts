import type { IsoDate } from '../calendar';
import { recordTable, type RecordFacts, type RecordKind } from './kinds';

interface RecordOf<K extends RecordKind> {
  /** Made by the device (UUIDv7): the same record sent twice is kept once. */
  readonly id: string;
  readonly kind: K;
  /** When it was made, ISO 8601 with offset or Z: by the device's clock until the server has corrected it. */
  readonly recordedAt: string;
  /** Record this one corrects; the corrected one is kept. */
  readonly supersedes: string | null;
  readonly facts: RecordFacts[K];
}

/** A field fact: written once, never changed. */
export type FieldRecord = { [K in RecordKind]: RecordOf<K> }[RecordKind];
export type RecordOfKind<K extends RecordKind> = Extract<FieldRecord, { kind: K }>;

/** Records in the order they were made; ids are time ordered and break ties. */
export function inOrder<R extends FieldRecord>(records: readonly R[]): R[] {
  return [...records].sort((a, b) => momentsApart(a.recordedAt, b.recordedAt) || (a.id < b.id ? -1 : 1));
}

/** Moments in one form stand in their order as they are written, and are not read. */
function momentsApart(a: string, b: string): number {
  if (a.length === b.length && a.endsWith('Z') && b.endsWith('Z')) return a < b ? -1 : Number(a > b);
  return Date.parse(a) - Date.parse(b);
}

/**
 * Records that no other record corrects or takes back, in order; of the tree that stands, or is to come, alone: what was
 * said of one that was taken out speaks of no other.
 */
export function standing(records: readonly FieldRecord[]): FieldRecord[] {
  const replaced = new Set(records.map((r) => r.supersedes).filter((id) => id !== null));
  const kept = inOrder(records.filter((r) => r.kind !== 'retraction' && !replaced.has(r.id)));
  const gone = kept.findLastIndex(({ kind }) => kind === 'removal');
  return gone < 0 ? kept : kept.filter(({ kind }, i) => i >= gone || recordTable[kind].of !== 'tree');
}

/** The day a record speaks of; a retraction speaks of all days, hence `null`. */
export function happenedOn(record: FieldRecord): IsoDate | null {
  const { day } = recordTable[record.kind];
  if (day === 'none') return null;
  if (day === 'recorded') return record.recordedAt.slice(0, 10);
  // The table names a fact of its own kind; the pair is lost where kinds are mixed.
  return (record.facts as unknown as Readonly<Record<string, IsoDate>>)[day] ?? null;
}

/** What was on record at the end of a day, less what proved a slip since. */
export function recordsUpTo<R extends FieldRecord>(records: readonly R[], day: IsoDate): R[] {
  return records.filter((record) => (happenedOn(record) ?? day) <= day);
}

export function ofKind<K extends RecordKind>(records: readonly FieldRecord[], kind: K): RecordOfKind<K>[] {
  return records.filter((r): r is RecordOfKind<K> => r.kind === kind);
}
