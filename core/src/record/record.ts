import type { AsBuilt } from '../day';
import type { GroundFacts } from '../ground';
import type { Inspection } from '../inspect';
import type { RemedyCode } from '../reason';
import type { Stock } from '../stock';
import type { IsoDate } from '../calendar';

/** The planting keeps the practice it was planned under, so that outcomes can be told apart by school. */
export interface PlantingFacts extends AsBuilt {
  readonly practiceId: string;
  readonly practiceVersion: number;
}

export interface RemedyDone {
  readonly remedy: RemedyCode;
  readonly doneOn: IsoDate;
}

export interface RecordFacts {
  ground: GroundFacts;
  stock: Stock;
  planting: PlantingFacts;
  inspection: Inspection;
  remedy: RemedyDone;
}

export const recordKinds = ['ground', 'stock', 'planting', 'inspection', 'remedy'] as const;
export type RecordKind = (typeof recordKinds)[number];

interface RecordOf<K extends RecordKind> {
  /** Made by the device (UUIDv7): the same record sent twice is kept once. */
  readonly id: string;
  readonly kind: K;
  /** Instant on the device, ISO 8601 with offset or Z. */
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
  const at = (r: R) => Date.parse(r.recordedAt);
  return [...records].sort((a, b) => at(a) - at(b) || (a.id < b.id ? -1 : 1));
}

/** Records that no other record corrects, in order. */
export function standing(records: readonly FieldRecord[]): FieldRecord[] {
  const corrected = new Set(records.map((r) => r.supersedes).filter((id) => id !== null));
  return inOrder(records.filter((r) => !corrected.has(r.id)));
}

export function ofKind<K extends RecordKind>(records: readonly FieldRecord[], kind: K): RecordOfKind<K>[] {
  return records.filter((r): r is RecordOfKind<K> => r.kind === kind);
}
