import { requireWithin } from '../errors';
import { because, type Level, type Reason } from '../reason';
import type { StockKind } from './stock';

export const ballStates = ['firm', 'soft', 'crumbling', 'washed_out'] as const;
export type BallState = (typeof ballStates)[number];
export const wrapKinds = ['none', 'natural', 'treated', 'synthetic'] as const;
export type WrapKind = (typeof wrapKinds)[number];
export const leaderStates = ['single', 'split', 'lost'] as const;
export type LeaderState = (typeof leaderStates)[number];
export const woundGrades = ['none', 'small', 'large'] as const;
export type WoundGrade = (typeof woundGrades)[number];

/** What is looked at on a tree that arrives; `null` for what nobody measured. Lengths mm. */
export interface ReceivedTree {
  readonly caliperMm: number | null;
  readonly heightM: number | null;
  readonly ballDiameterMm: number | null;
  readonly ballHeightMm: number | null;
  readonly rootSpreadMm: number | null;
  readonly rootDepthMm: number | null;
  /** Topmost structural roots below the surface, by probe at several points. */
  readonly topRootsDepthMm: readonly number[];
  /** Share of the ball's face that circling roots cover. % */
  readonly circlingPct: number | null;
  readonly thickestCirclingMm: number | null;
  readonly kinked: boolean | null;
  readonly ball: BallState | null;
  readonly wrap: WrapKind | null;
  readonly graftHeightMm: number | null;
  readonly leader: LeaderState | null;
  readonly wounds: WoundGrade | null;
  readonly brokenBranches: boolean | null;
  readonly firstBranchM: number | null;
  readonly bestFaceDeg: number | null;
}

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
  /** Caliper may fall short of what was ordered by this share. */
  readonly caliperShortShare: number;
  /** A lot may hold this share of bad trees before it has to be found. % */
  readonly lotBadPct: number;
  /** How sure the sample is to find such a lot. % */
  readonly lotSurePct: number;
}

export const defaultReceivingRules: ReceivingRules = {
  circlingCorrectPct: 10,
  circlingReturnPct: 50,
  circlingRootReturnMm: 20,
  deepRootsMm: 25,
  deepRootsReturnShare: 0.35,
  ballPerCaliper: 8,
  caliperShortShare: 0.1,
  lotBadPct: 10,
  lotSurePct: 90,
};

export const receivingVerdicts = ['accept', 'correct', 'hold', 'return'] as const;
export type ReceivingVerdict = (typeof receivingVerdicts)[number];

export interface ReceivingJudgement {
  readonly verdict: ReceivingVerdict;
  readonly because: readonly Reason[];
  readonly level: Level;
}

const levelOf: Readonly<Record<ReceivingVerdict, Level>> = {
  accept: 'good',
  correct: 'watch',
  hold: 'act',
  return: 'urgent',
};

/** Accept, correct at planting, hold or return: the worst finding rules, each with its reason. */
export function judgeReceived(
  tree: ReceivedTree,
  ordered: { readonly kind: StockKind; readonly caliperMm: number },
  rules: ReceivingRules = defaultReceivingRules,
): ReceivingJudgement {
  const found: { verdict: ReceivingVerdict; reason: Reason }[] = [];
  const add = (verdict: ReceivingVerdict, reason: Reason) => found.push({ verdict, reason });
  const deepest = Math.max(0, ...tree.topRootsDepthMm);
  if (tree.circlingPct !== null && tree.circlingPct > rules.circlingReturnPct) {
    add('return', because('stock_pot_bound', { circlingPct: tree.circlingPct, mostPct: rules.circlingReturnPct }));
  } else if (tree.circlingPct !== null && tree.circlingPct > rules.circlingCorrectPct) {
    add('correct', because('stock_circling', { circlingPct: tree.circlingPct, fromPct: rules.circlingCorrectPct }));
  }
  if (tree.thickestCirclingMm !== null && tree.thickestCirclingMm > rules.circlingRootReturnMm) {
    const facts = { rootMm: tree.thickestCirclingMm, mostMm: rules.circlingRootReturnMm };
    add('return', because('stock_thick_circling', facts));
  }
  if (tree.ball === 'crumbling' || tree.ball === 'washed_out') add('return', because('stock_ball_lost', {}));
  if (tree.ball === 'soft') add('hold', because('stock_ball_soft', {}));
  if (tree.kinked) add('return', because('stock_kinked', {}));
  if (tree.ballHeightMm !== null && deepest > rules.deepRootsReturnShare * tree.ballHeightMm) {
    add('return', because('stock_too_deep', { deepMm: deepest, ballHeightMm: tree.ballHeightMm }));
  } else if (deepest > rules.deepRootsMm) {
    add('correct', because('stock_deep', { deepMm: deepest }));
  }
  if (tree.caliperMm !== null && tree.caliperMm < ordered.caliperMm * (1 - rules.caliperShortShare)) {
    add('return', because('stock_caliper_short', { caliperMm: tree.caliperMm, orderedMm: ordered.caliperMm }));
  }
  const ballMm = ordered.kind === 'bare_root' ? tree.rootSpreadMm : tree.ballDiameterMm;
  if (ballMm !== null && tree.caliperMm !== null && ballMm < tree.caliperMm * rules.ballPerCaliper) {
    const leastMm = tree.caliperMm * rules.ballPerCaliper;
    add('hold', because('stock_ball_small', { ballMm, leastMm }));
  }
  if (tree.wounds === 'large') add('return', because('stock_wounded', {}));
  if (tree.leader === 'lost') add('hold', because('stock_no_leader', {}));
  if (tree.leader === 'split') add('correct', because('stock_split_leader', {}));
  if (tree.wrap === 'synthetic') add('correct', because('stock_synthetic_wrap', {}));
  if (tree.brokenBranches) add('correct', because('stock_broken_branches', {}));
  const order: readonly ReceivingVerdict[] = receivingVerdicts;
  const worst = Math.max(0, ...found.map(({ verdict }) => order.indexOf(verdict)));
  const verdict = order[worst] ?? 'accept';
  const reasons = found.map(({ reason }) => reason);
  return { verdict, because: reasons.length > 0 ? reasons : [because('stock_sound', {})], level: levelOf[verdict] };
}

export interface SamplingPlan {
  /** How many trees of the lot to open. */
  readonly open: number;
  /** One bad tree among them: all are opened. */
  readonly openAllFrom: 1;
  /** Chance that the sample finds a lot as bad as the limit. % */
  readonly surePct: number;
}

/**
 * How many trees of a lot to open, so that a lot with the share of bad trees a practice does not bear is found with
 * its certainty: the least n with hypergeometric P(0 bad among n) small enough (single sampling, acceptance number 0).
 * @throws InvalidInputError for a lot that is no whole number of 1–100 000
 */
export function samplingPlan(lot: number, rules: ReceivingRules = defaultReceivingRules): SamplingPlan {
  requireWithin('lot', lot, { min: 1, max: 100_000, unit: 'trees' });
  const bad = Math.max(1, Math.ceil((rules.lotBadPct / 100) * lot - 1e-9));
  const missed = 1 - rules.lotSurePct / 100;
  let none = 1;
  for (let open = 1; open <= lot; open++) {
    // One more tree, and again a good one of those that are left.
    none *= Math.max(0, (lot - bad - (open - 1)) / (lot - (open - 1)));
    if (none <= missed + 1e-12) return { open, openAllFrom: 1, surePct: (1 - none) * 100 };
  }
  return { open: lot, openAllFrom: 1, surePct: 100 };
}
