import type { IsoDate } from '@sombra/core';
import type { DemoRecord } from './tree-history';

/** One place of the demo town and everything recorded of it. */
export interface DemoSpot {
  readonly id: string;
  readonly treeId: string;
  readonly ref: string;
  readonly place: string;
  readonly species: string | null;
  readonly addedOn: IsoDate;
  readonly lng: number;
  readonly lat: number;
  readonly records: readonly DemoRecord[];
}
