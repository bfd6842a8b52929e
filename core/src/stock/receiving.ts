import type { Level } from '../reason';
import { because, type StockReason } from './reasons';
import { structuralDepthMm, type ReceivedTree } from './received-tree';
import type { StockKind } from './stock';

/** A container ball whose soil was washed off: `verdict` is what is done with it. */
export const washedOutRules = {
  return: {
    name: 'sent back',
    held: 'Buyers: fine roots were dry before anybody saw them.',
    verdict: 'return',
  },
  loosen: {
    name: 'roots loosened out, planted at once',
    held: 'Planters who treat it as bare-root stock while it rests: the roots are seen, and lie where they are laid.',
    verdict: 'correct',
  },
} as const satisfies Record<string, { name: string; held: string; verdict: 'return' | 'correct' }>;
export type WashedOutRule = keyof typeof washedOutRules;

/** Where a practice draws its lines on what arrives. */
export interface ReceivingRules {
  /** Circling roots above these shares of the ball's face: corrected at planting, sent back. % */
  readonly circlingCorrectPct: number;
  readonly circlingReturnPct: number;
  /** A circling root thicker than this cannot be cut without harm. mm */
  readonly circlingRootReturnMm: number;
  /** Topmost roots deeper than this are noted; deeper than the share of the ball they leave too little of it. */
  readonly deepRootsMm: number;
  readonly deepRootsReturnShare: number;
  /** Least ball for each millimetre of caliper. */
  readonly ballPerCaliper: number;
  /** Least height of a ball as a share of its diameter. */
  readonly ballHeightLeastShare: number;
  /** Caliper may fall short of what was ordered by this share. */
  readonly caliperShortShare: number;
  /** A lot may hold this share of bad trees before it has to be found. % */
  readonly lotBadPct: number;
  /** How sure the sample is to find such a lot. % */
  readonly lotSurePct: number;
  /** Balled stock that is washed out always goes back: its roots were cut to fit the ball. */
  readonly washedOut: WashedOutRule;
}

export const defaultReceivingRules: ReceivingRules = {
  circlingCorrectPct: 10,
  circlingReturnPct: 50,
  circlingRootReturnMm: 20,
  deepRootsMm: 25,
  deepRootsReturnShare: 0.35,
  ballPerCaliper: 8,
  ballHeightLeastShare: 0.5,
  caliperShortShare: 0.1,
  lotBadPct: 10,
  lotSurePct: 90,
  washedOut: 'return',
};

export const receivingVerdicts = ['accept', 'correct', 'hold', 'return'] as const;
export type ReceivingVerdict = (typeof receivingVerdicts)[number];

export interface ReceivingJudgement {
  readonly verdict: ReceivingVerdict;
  readonly because: readonly StockReason[];
  readonly level: Level;
}

/** What was ordered: what arrives is held against it. */
export interface OrderedTree {
  readonly kind: StockKind;
  readonly caliperMm: number;
}

export const levelOfVerdict: Readonly<Record<ReceivingVerdict, Level>> = {
  accept: 'good',
  correct: 'watch',
  hold: 'act',
  return: 'urgent',
};

export const worstVerdict = (verdicts: readonly ReceivingVerdict[]): ReceivingVerdict =>
  receivingVerdicts[Math.max(0, ...verdicts.map((verdict) => receivingVerdicts.indexOf(verdict)))] ?? 'accept';

type Found = readonly [ReceivingVerdict, StockReason];

/** Accept, correct at planting, hold or return: the worst finding rules, each with its reason. */
export function judgeReceived(tree: ReceivedTree, ordered: OrderedTree, rules: ReceivingRules): ReceivingJudgement {
  const found = [
    ...judgeKind(tree, ordered),
    ...judgeCircling(tree, rules),
    ...judgeBall(tree, ordered, rules),
    ...judgeDepth(tree, rules),
    ...judgeTop(tree, ordered, rules),
    ...judgeTies(tree),
    ...judgeName(tree),
    ...judgeStemRoots(tree),
  ];
  const verdict = worstVerdict(found.map(([one]) => one));
  const reasons = found.map(([, reason]) => reason);
  return {
    verdict,
    because: reasons.length > 0 ? reasons : [because('stock_sound', {})],
    level: levelOfVerdict[verdict],
  };
}

/** Another kind than was ordered has another season, another pit and other care: somebody decides. */
function judgeKind({ kind }: ReceivedTree, ordered: OrderedTree): Found[] {
  if (kind === null || kind === ordered.kind) return [];
  return [['hold', because('stock_wrong_kind', { came: kind, ordered: ordered.kind })]];
}

function judgeCircling({ circlingPct, thickestCirclingMm, soilShows, kinked }: ReceivedTree, rules: ReceivingRules) {
  const found: Found[] = [];
  if (circlingPct !== null && circlingPct > rules.circlingReturnPct) {
    found.push(['return', because('stock_pot_bound', { circlingPct, mostPct: rules.circlingReturnPct })]);
  } else if (circlingPct !== null && circlingPct > rules.circlingCorrectPct) {
    found.push(['correct', because('stock_circling', { circlingPct, fromPct: rules.circlingCorrectPct })]);
  }
  if (thickestCirclingMm !== null && thickestCirclingMm > rules.circlingRootReturnMm) {
    const facts = { rootMm: thickestCirclingMm, mostMm: rules.circlingRootReturnMm };
    found.push(['return', because('stock_thick_circling', facts)]);
  }
  if (soilShows === false) found.push(['hold', because('stock_no_soil_shows', {})]);
  if (kinked) found.push(['return', because('stock_kinked', {})]);
  return found;
}

function judgeBall(tree: ReceivedTree, ordered: OrderedTree, rules: ReceivingRules): Found[] {
  const found: Found[] = [];
  const { ball, ballDiameterMm, ballHeightMm, caliperMm } = tree;
  const washed = ball === 'washed_out' && (tree.kind ?? ordered.kind) === 'container' ? rules.washedOut : 'return';
  if (ball === 'washed_out' && washed === 'loosen') found.push(['correct', because('stock_washed_out', {})]);
  else if (ball === 'crumbling' || ball === 'washed_out') found.push(['return', because('stock_ball_lost', {})]);
  if (ball === 'soft') found.push(['hold', because('stock_ball_soft', {})]);
  const bare = (tree.kind ?? ordered.kind) === 'bare_root';
  const ballMm = bare ? tree.rootSpreadMm : ballDiameterMm;
  if (ballMm !== null && caliperMm !== null && ballMm < caliperMm * rules.ballPerCaliper) {
    found.push(['hold', because('stock_ball_small', { ballMm, leastMm: caliperMm * rules.ballPerCaliper })]);
  }
  if (bare || ballDiameterMm === null || ballHeightMm === null) return found;
  const leastMm = ballDiameterMm * rules.ballHeightLeastShare;
  if (ballHeightMm < leastMm) found.push(['hold', because('stock_ball_flat', { ballHeightMm, leastMm })]);
  return found;
}

function judgeDepth(tree: ReceivedTree, rules: ReceivingRules): Found[] {
  const deepMm = structuralDepthMm(tree);
  if (deepMm === null) return tree.probes.length > 0 ? [['hold', because('stock_no_structural', {})]] : [];
  const { ballHeightMm, surplusLeftMm } = tree;
  if (ballHeightMm !== null && deepMm > rules.deepRootsReturnShare * ballHeightMm) {
    return [['return', because('stock_too_deep', { deepMm, ballHeightMm })]];
  }
  if (deepMm <= rules.deepRootsMm) return [];
  const left: Found[] =
    surplusLeftMm !== null && surplusLeftMm > 0
      ? [['correct', because('stock_surplus_stays', { leftMm: surplusLeftMm })]]
      : [];
  return [['correct', because('stock_deep', { deepMm })], ...left];
}

function judgeTop(tree: ReceivedTree, ordered: OrderedTree, rules: ReceivingRules): Found[] {
  const found: Found[] = [];
  const { caliperMm, leader, wounds, brokenBranches, face } = tree;
  if (caliperMm !== null && caliperMm < ordered.caliperMm * (1 - rules.caliperShortShare)) {
    found.push(['return', because('stock_caliper_short', { caliperMm, orderedMm: ordered.caliperMm })]);
  }
  if (wounds === 'large') found.push(['return', because('stock_wounded', {})]);
  if (leader === 'lost') found.push(['hold', because('stock_no_leader', {})]);
  if (leader === 'split') found.push(['correct', because('stock_split_leader', {})]);
  if (brokenBranches) found.push(['correct', because('stock_broken_branches', {})]);
  if (face === 'one_sided') found.push(['correct', because('stock_one_sided', {})]);
  return found;
}

function judgeTies({ wrap, ties }: ReceivedTree): Found[] {
  const found: Found[] = [];
  if (wrap === 'synthetic') found.push(['correct', because('stock_synthetic_wrap', {})]);
  if (wrap === 'treated') found.push(['correct', because('stock_treated_wrap', {})]);
  if (ties !== null && ties !== 'none') {
    found.push([ties === 'natural' ? 'accept' : 'correct', because('stock_ties', { ties })]);
  }
  return found;
}

/** A trade name may mean two species: in doubt the tree is held until somebody who knows both has seen it. */
function judgeName({ label, sign }: ReceivedTree): Found[] {
  if (label === 'other') return [['hold', because('stock_other_name', {})]];
  if (sign === 'differs') return [['hold', because('stock_sign_differs', {})]];
  const unnamed = label === 'trade' || label === 'none';
  if (sign === 'unsure' || (unnamed && sign !== 'agrees')) {
    return [['hold', because('stock_name_doubt', { label: label ?? 'none' })]];
  }
  return unnamed ? [['accept', because('stock_name_by_sign', { label })]] : [];
}

/** Roots of the buried stem are dealt with at planting and after it, as the practice says. */
function judgeStemRoots({ stemRoots, stemRootMm }: ReceivedTree): Found[] {
  if (stemRoots === null || stemRoots === 0) return [];
  return [['correct', because('stock_stem_roots', { count: stemRoots, thickestMm: stemRootMm ?? 0 })]];
}
