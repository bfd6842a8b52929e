import { requireWhole } from '../errors';
import { because, type StockReason } from './reasons';
import type { ReceivedTree } from './received-tree';
import type { StockKind } from './stock';
import {
  judgeReceived,
  levelOfVerdict,
  worstVerdict,
  type OrderedTree,
  type ReceivingJudgement,
  type ReceivingRules,
} from './receiving';

export interface SamplingPlan {
  /** How many trees of the lot to open. */
  readonly open: number;
  /** Chance that the sample finds a lot as bad as the limit. % */
  readonly surePct: number;
}

/**
 * How many trees of a lot to open, so that a lot with the share of bad trees a practice does not bear is found with
 * its certainty: the least n with hypergeometric P(0 bad among n) small enough (single sampling, acceptance number 0).
 * @throws InvalidInputError for a lot that is no whole number of 1–100 000
 */
export function samplingPlan(lot: number, rules: ReceivingRules): SamplingPlan {
  requireWhole('lot', lot, { min: 1, max: 100_000, unit: 'trees' });
  const bad = Math.max(1, Math.ceil((rules.lotBadPct / 100) * lot - 1e-9));
  const missed = 1 - rules.lotSurePct / 100;
  let none = 1;
  for (let open = 1; open <= lot; open++) {
    // One more tree, and again a good one of those that are left.
    none *= Math.max(0, (lot - bad - (open - 1)) / (lot - (open - 1)));
    if (none <= missed + 1e-12) return { open, surePct: (1 - none) * 100 };
  }
  return { open: lot, surePct: 100 };
}

/** A tree that cannot be planted as it came: held or sent back. */
export const isBad = ({ verdict }: Pick<ReceivingJudgement, 'verdict'>): boolean =>
  verdict === 'hold' || verdict === 'return';

/** Whether the roots of an opened tree were looked at: only then does it speak for those nobody opened. */
export function rootsSeen(tree: ReceivedTree, ordered: StockKind): boolean {
  const kind = tree.kind ?? ordered;
  if (kind === 'container') return tree.circlingPct !== null;
  return kind === 'balled' ? tree.probes.length > 0 || tree.ball !== null : tree.kinked !== null;
}

export interface LotJudgement extends ReceivingJudgement {
  readonly bad: number;
  /** How many more to open before the lot can be decided. */
  readonly openMore: number;
  readonly each: readonly ReceivingJudgement[];
}

/**
 * What the trees opened so far say of their lot: one bad tree has all of them opened, more of a whole sample than the
 * practice bears holds or returns the lot; otherwise the lot is as its good trees are, and single bad ones go back.
 * A lot of which nothing arrived is held.
 * @throws InvalidInputError for more trees opened than arrived, or an arrival that is no whole number of 0–100 000
 */
export function judgeLot(
  lot: { readonly arrived: number; readonly opened: readonly ReceivedTree[]; readonly ordered: OrderedTree },
  rules: ReceivingRules,
): LotJudgement {
  const { arrived, opened, ordered } = lot;
  requireWhole('arrived', arrived, { min: 0, max: 100_000, unit: 'trees' });
  requireWhole('opened', opened.length, { min: 0, max: arrived, unit: 'trees' });
  const each = opened.map((tree) => judgeReceived(tree, ordered, rules));
  const bad = each.filter(isBad);
  const sample = samplingPlan(Math.max(1, arrived), rules);
  const isBadAt = (i: number) => each.slice(i, i + 1).some(isBad);
  // A bad tree is decided whatever its roots are; of the others only those whose roots were seen.
  const decided = opened.filter((tree, i) => isBadAt(i) || rootsSeen(tree, ordered.kind)).length;
  const openMore = Math.max(0, (bad.length > 0 ? arrived : sample.open) - decided);
  const judged = (verdict: ReceivingJudgement['verdict'], reasons: readonly StockReason[]): LotJudgement => ({
    verdict,
    because: reasons,
    level: levelOfVerdict[verdict],
    bad: bad.length,
    openMore,
    each,
  });
  const worstOfBad = worstVerdict(bad.map(({ verdict }) => verdict));
  if (arrived === 0) return judged('hold', [because('lot_none_arrived', {})]);
  // A hair of slack: 29 of 100 are 29 %, whatever the floating point says.
  const tooMany = bad.length > (rules.lotBadPct / 100) * decided + 1e-9;
  if (tooMany && decided >= sample.open) {
    const why = because('lot_bad', { bad: bad.length, opened: decided, mostPct: rules.lotBadPct });
    return judged(worstOfBad, [why, ...distinct(bad)]);
  }
  if (openMore > 0) {
    const why =
      bad.length > 0
        ? because('lot_open_all', { bad: bad.length, more: openMore })
        : because('lot_open_more', { more: openMore, open: sample.open });
    const unseen = opened.length - decided;
    const rootless = unseen > 0 ? [because('lot_roots_unseen', { trees: unseen })] : [];
    return judged('hold', [why, ...rootless, ...distinct(each)]);
  }
  const good = each.filter((one) => !isBad(one));
  const sampled = because('lot_sampled', { opened: decided, arrived, surePct: sample.surePct });
  const back = bad.length > 0 ? [because('lot_single_bad', { bad: bad.length })] : [];
  return judged(worstVerdict(good.map(({ verdict }) => verdict)), [sampled, ...back, ...distinct(good)]);
}

/** Each finding once, however many trees show it: the first of its kind stands for them. */
function distinct(judged: readonly ReceivingJudgement[]): StockReason[] {
  const byCode = new Map<string, StockReason>();
  for (const reason of judged.flatMap(({ because: reasons }) => reasons)) {
    if (reason.code !== 'stock_sound' && !byCode.has(reason.code)) byCode.set(reason.code, reason);
  }
  return [...byCode.values()];
}
