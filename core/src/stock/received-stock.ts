import { structuralDepthMm, type ReceivedTree } from './received-tree';
import type { OrderedTree } from './receiving';
import type { Stock } from './stock';

/** The measures of an opened tree as stock, or `null` while one is missing. */
export function stockOfTree(tree: ReceivedTree, kind: Stock['kind']): Stock | null {
  const { caliperMm, heightM, ballDiameterMm, ballHeightMm, rootSpreadMm, rootDepthMm } = tree;
  if (caliperMm === null || heightM === null) return null;
  const top = {
    caliperMm,
    heightM,
    ...(tree.firstBranchM === null ? {} : { firstBranchM: tree.firstBranchM }),
    ...(tree.graftHeightMm === null ? {} : { graftHeightMm: tree.graftHeightMm }),
    ...(tree.face === null ? {} : { face: tree.face }),
  };
  if (kind === 'bare_root') {
    return rootSpreadMm === null || rootDepthMm === null ? null : { kind, ...top, rootSpreadMm, rootDepthMm };
  }
  const topRootsDepthMm = structuralDepthMm(tree);
  if (ballDiameterMm === null || ballHeightMm === null || topRootsDepthMm === null) return null;
  if (topRootsDepthMm >= ballHeightMm) return null;
  const left = Math.min(tree.surplusLeftMm ?? 0, topRootsDepthMm);
  const { stemRoots, stemRootMm } = tree;
  const rooted = stemRoots !== null && stemRoots > 0 && stemRootMm !== null;
  return {
    kind,
    ...top,
    ballDiameterMm,
    ballHeightMm,
    topRootsDepthMm,
    ...(left > 0 ? { surplusLeftMm: left } : {}),
    ...(tree.circlingPct === null ? {} : { circlingPct: tree.circlingPct }),
    ...(rooted ? { adventitious: { count: stemRoots, thickestMm: stemRootMm } } : {}),
  };
}

/**
 * One stock for the trees of a lot nobody opened: the middle of each measure, and the deepest roots, since a hole
 * dug too shallow is soon deeper and one dug too deep stays loose. `null` while no tree was measured whole.
 */
export function stockOfLot(trees: readonly ReceivedTree[], kind: Stock['kind']): Stock | null {
  const whole = trees.map((tree) => stockOfTree(tree, kind)).filter((stock) => stock !== null);
  const [first] = whole;
  if (!first) return null;
  const middle = (read: (stock: Stock) => number | undefined): number | undefined => {
    const values = whole.map(read).filter((value) => value !== undefined);
    return values.sort((a, b) => a - b)[Math.floor((values.length - 1) / 2)];
  };
  const top = {
    caliperMm: middle((one) => one.caliperMm) ?? first.caliperMm,
    heightM: middle((one) => one.heightM) ?? first.heightM,
    ...optional(
      'firstBranchM',
      middle((one) => one.firstBranchM),
    ),
    ...optional(
      'graftHeightMm',
      middle((one) => one.graftHeightMm),
    ),
  };
  if (first.kind === 'bare_root') {
    const bare = <K extends 'rootSpreadMm' | 'rootDepthMm'>(key: K) =>
      middle((one) => (one.kind === 'bare_root' ? one[key] : undefined)) ?? first[key];
    return { kind: first.kind, ...top, rootSpreadMm: bare('rootSpreadMm'), rootDepthMm: bare('rootDepthMm') };
  }
  const ball = <K extends 'ballDiameterMm' | 'ballHeightMm'>(key: K) =>
    middle((one) => (one.kind === 'bare_root' ? undefined : one[key])) ?? first[key];
  const deepest = (key: 'topRootsDepthMm' | 'surplusLeftMm') =>
    Math.max(0, ...whole.map((one) => (one.kind === 'bare_root' ? 0 : (one[key] ?? 0))));
  const ballHeightMm = ball('ballHeightMm');
  const topRootsDepthMm = Math.min(deepest('topRootsDepthMm'), ballHeightMm - 1);
  const left = Math.min(deepest('surplusLeftMm'), topRootsDepthMm);
  return {
    kind: first.kind,
    ...top,
    ballDiameterMm: ball('ballDiameterMm'),
    ballHeightMm,
    topRootsDepthMm,
    ...(left > 0 ? { surplusLeftMm: left } : {}),
  };
}

const optional = <K extends string>(key: K, value: number | undefined): Partial<Record<K, number>> =>
  value === undefined ? {} : ({ [key]: value } as Partial<Record<K, number>>);

/** A line of a nursery's list. */
export interface StockOffer extends OrderedTree {
  readonly nursery: string;
  readonly species: string;
  readonly available: number;
}

/** Across: a ball's diameter, or the spread of bare roots. mm */
export const rootsWidthMm = (stock: Stock): number =>
  stock.kind === 'bare_root' ? stock.rootSpreadMm : stock.ballDiameterMm;

/** The largest tree on offer whose roots fit between these edges, of the same kind first; `null` where none does. */
export function largestThatFits(
  offers: readonly StockOffer[],
  asked: { readonly widestMm: number; readonly kind: Stock['kind'] },
): { readonly offer: StockOffer; readonly ballMm: number } | null {
  const fitting = offers
    .map((offer) => ({ offer, ballMm: rootsWidthMm(expectedStock(offer)) }))
    .filter(({ offer, ballMm }) => offer.available > 0 && ballMm <= asked.widestMm);
  const alike = ({ offer }: { offer: StockOffer }) => Number(offer.kind === asked.kind);
  const [best] = fitting.sort((a, b) => alike(b) - alike(a) || b.offer.caliperMm - a.offer.caliperMm);
  return best ?? null;
}

/**
 * What a tree that is only ordered will probably come with, so that a list can be costed before anything arrives: a
 * ball of ten times the caliper, balled stock two thirds as high as wide and containers nine tenths, no surplus, and
 * sixty times as high as it is thick, at most 6 m. Replaced by measures as soon as there are some.
 */
export function expectedStock(ordered: OrderedTree): Stock {
  const { kind, caliperMm } = ordered;
  const heightM = Math.min(6, Math.max(1.2, Math.round((caliperMm / 1000) * 600) / 10));
  const widthMm = Math.max(200, 10 * caliperMm);
  if (kind === 'bare_root') {
    return { kind, caliperMm, heightM, rootSpreadMm: Math.max(300, 14 * caliperMm), rootDepthMm: 250 };
  }
  const ballHeightMm = Math.round(widthMm * (kind === 'balled' ? 2 / 3 : 0.9));
  return { kind, caliperMm, heightM, ballDiameterMm: widthMm, ballHeightMm, topRootsDepthMm: 0 };
}
