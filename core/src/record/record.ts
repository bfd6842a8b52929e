import type { AsBuilt } from '../day';
import type { Assessment, GroundFacts, PercolationTest, SiteVerdict } from '../ground';
import type { Inspection } from '../inspect';
import type { Override } from '../practice';
import type { RemedyCode } from '../practice';
import type { Stock, StockKind } from '../stock';
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

/** Degrees, [longitude, latitude], WGS 84. */
export type Position = readonly [lng: number, lat: number];

/** A spot set elsewhere: both places, so that the record can be read by itself. */
export interface Move {
  readonly movedOn: IsoDate;
  readonly from: Position;
  readonly to: Position;
  readonly reason: string;
}

/** Takes back the record it supersedes: that one was a slip and counts for no date. */
export interface Retraction {
  readonly reason: string;
}

/** What the coordinator decided about a place, after what Sombra proposed. */
export interface VerdictFacts {
  readonly decidedOn: IsoDate;
  readonly verdict: SiteVerdict;
  /** Why; for `plant_if` what must change first, for `move` where to. */
  readonly reason: string;
}

/** The tree to buy for a spot. */
export interface ChoiceFacts {
  readonly chosenOn: IsoDate;
  /** Botanical name. */
  readonly species: string;
  readonly stockKind: StockKind | null;
  readonly caliperMm: number | null;
  readonly reason: string;
}

/** One choice of the practice made otherwise for this spot. */
export interface OverrideFacts extends Override {
  readonly decidedOn: IsoDate;
}

export interface RecordFacts {
  ground: GroundFacts;
  assessment: Assessment;
  percolation: PercolationTest;
  verdict: VerdictFacts;
  choice: ChoiceFacts;
  override: OverrideFacts;
  stock: Stock;
  planting: PlantingFacts;
  inspection: Inspection;
  remedy: RemedyDone;
  move: Move;
  retraction: Retraction;
}

export const recordKinds = [
  'ground',
  'assessment',
  'percolation',
  'verdict',
  'choice',
  'override',
  'stock',
  'planting',
  'inspection',
  'remedy',
  'move',
  'retraction',
] as const;
export type RecordKind = (typeof recordKinds)[number];

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
  const at = (r: R) => Date.parse(r.recordedAt);
  return [...records].sort((a, b) => at(a) - at(b) || (a.id < b.id ? -1 : 1));
}

/** Records that no other record corrects or takes back, in order. */
export function standing(records: readonly FieldRecord[]): FieldRecord[] {
  const replaced = new Set(records.map((r) => r.supersedes).filter((id) => id !== null));
  return inOrder(records.filter((r) => r.kind !== 'retraction' && !replaced.has(r.id)));
}

/** The day a record speaks of; a retraction speaks of all days, hence `null`. */
export function happenedOn(record: FieldRecord): IsoDate | null {
  switch (record.kind) {
    case 'planting':
      return record.facts.plantedOn;
    case 'inspection':
      return record.facts.inspectedOn;
    case 'remedy':
      return record.facts.doneOn;
    case 'move':
      return record.facts.movedOn;
    case 'assessment':
      return record.facts.assessedOn;
    case 'percolation':
      return record.facts.testedOn;
    case 'verdict':
    case 'override':
      return record.facts.decidedOn;
    case 'choice':
      return record.facts.chosenOn;
    case 'ground':
    case 'stock':
      return record.recordedAt.slice(0, 10);
    case 'retraction':
      return null;
  }
}

/** What was on record at the end of a day, less what proved a slip since. */
export function recordsUpTo<R extends FieldRecord>(records: readonly R[], day: IsoDate): R[] {
  return records.filter((record) => (happenedOn(record) ?? day) <= day);
}

export function ofKind<K extends RecordKind>(records: readonly FieldRecord[], kind: K): RecordOfKind<K>[] {
  return records.filter((r): r is RecordOfKind<K> => r.kind === kind);
}
