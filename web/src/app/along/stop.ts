import type { SpotDetail } from '@sombra/contract';
import type { FieldRecord, SpotLife } from '@sombra/core';

/** A spot as this device keeps it, worked out. */
export interface Stop {
  readonly id: string;
  readonly treeId: string | null;
  readonly ref: string;
  readonly place: string;
  readonly position: readonly [number, number];
  readonly species: string;
  /** Those of the server and those that wait on this device. */
  readonly records: readonly FieldRecord[];
  /** Checked and worked out when somebody looks: `null` where another version kept it, and this one does not read it. */
  readonly detail: SpotDetail | null;
  readonly life: SpotLife | null;
  /** The first thing that waits there, in words. */
  readonly waits: string;
}
