import type { Delivery, Lot } from '@sombra/contract';
import { claimOf, type Claim } from '@sombra/core';

export interface ClaimedLot extends Claim {
  readonly lot: Lot;
}

/** What is claimed of a delivery, lot by lot. */
export function claimedLots({ lots, rules }: Pick<Delivery, 'lots' | 'rules'>): ClaimedLot[] {
  return lots
    .map((lot) => {
      const { stockKind: kind, caliperMm, expected, arrived, verdict } = lot;
      const opened = lot.trees.map(({ tree }) => tree);
      return { lot, ...claimOf({ ordered: { kind, caliperMm }, expected, arrived, opened, verdict }, rules) };
    })
    .filter(({ returned, missing }) => returned > 0 || missing > 0);
}
