import type { ReceivedTree } from './received-tree';
import { judgeReceived, type OrderedTree, type ReceivingRules, type ReceivingVerdict } from './receiving';

export interface ReceivedLot {
  readonly ordered: OrderedTree;
  readonly expected: number;
  /** `null` while nobody counted. */
  readonly arrived: number | null;
  readonly opened: readonly ReceivedTree[];
  readonly verdict: ReceivingVerdict | null;
}

export interface Claim {
  readonly returned: number;
  readonly missing: number;
}

/** What is claimed of a lot: all of one sent back, single bad trees of one that was taken, and what did not come. */
export function claimOf(lot: ReceivedLot, rules: ReceivingRules): Claim {
  const missing = lot.arrived === null ? 0 : Math.max(0, lot.expected - lot.arrived);
  if (lot.verdict === 'return') return { returned: lot.arrived ?? 0, missing };
  const taken = lot.verdict === 'accept' || lot.verdict === 'correct';
  const back = lot.opened.filter((tree) => judgeReceived(tree, lot.ordered, rules).verdict === 'return');
  return { returned: taken ? back.length : 0, missing };
}
