import type { CrownFace, StockKind } from './stock';

export const ballStates = ['firm', 'soft', 'crumbling', 'washed_out'] as const;
export type BallState = (typeof ballStates)[number];
export const wrapKinds = ['none', 'natural', 'treated', 'synthetic'] as const;
export type WrapKind = (typeof wrapKinds)[number];
export const leaderStates = ['single', 'split', 'lost'] as const;
export type LeaderState = (typeof leaderStates)[number];
export const woundGrades = ['none', 'small', 'large'] as const;
export type WoundGrade = (typeof woundGrades)[number];
/** Adventitious roots grow from a buried stem, fine ones carry nothing: neither sets the depth. */
export const rootNatures = ['structural', 'adventitious', 'fine'] as const;
export type RootNature = (typeof rootNatures)[number];

/** What the label says of the tree: the name that was ordered, another, one of the trade alone, or nothing. */
export const labelKinds = ['as_ordered', 'other', 'trade', 'none'] as const;
export type LabelKind = (typeof labelKinds)[number];
/** Whether the sign that tells the species from those sold under its name is there. */
export const signStates = ['agrees', 'differs', 'unsure'] as const;
export type SignState = (typeof signStates)[number];

/** One push of the probe beside the stem: how deep the topmost root lies there, and what kind of root it is. */
export interface RootProbe {
  readonly depthMm: number;
  readonly nature: RootNature;
}

/** What is looked at on a tree that arrives; `null` for what nobody looked at. Lengths mm. */
export interface ReceivedTree {
  /** How it was grown, whatever was ordered. */
  readonly kind: StockKind | null;
  readonly caliperMm: number | null;
  readonly heightM: number | null;
  readonly ballDiameterMm: number | null;
  readonly ballHeightMm: number | null;
  readonly rootSpreadMm: number | null;
  readonly rootDepthMm: number | null;
  readonly probes: readonly RootProbe[];
  /** Surplus over the topmost roots that cannot come off at planting without breaking the ball. */
  readonly surplusLeftMm: number | null;
  /** Share of the ball's face that circling roots cover. % */
  readonly circlingPct: number | null;
  readonly thickestCirclingMm: number | null;
  /** Whether any soil shows between the roots of the face. */
  readonly soilShows: boolean | null;
  readonly kinked: boolean | null;
  readonly ball: BallState | null;
  readonly wrap: WrapKind | null;
  readonly ties: WrapKind | null;
  /** Graft union above the flare. */
  readonly graftHeightMm: number | null;
  readonly leader: LeaderState | null;
  readonly wounds: WoundGrade | null;
  readonly brokenBranches: boolean | null;
  readonly firstBranchM: number | null;
  readonly face: CrownFace | null;
  readonly label: LabelKind | null;
  readonly sign: SignState | null;
  /** Roots that grow from the buried stem, and the thickest of them. */
  readonly stemRoots: number | null;
  readonly stemRootMm: number | null;
}

export const unseenTree: ReceivedTree = {
  kind: null,
  caliperMm: null,
  heightM: null,
  ballDiameterMm: null,
  ballHeightMm: null,
  rootSpreadMm: null,
  rootDepthMm: null,
  probes: [],
  surplusLeftMm: null,
  circlingPct: null,
  thickestCirclingMm: null,
  soilShows: null,
  kinked: null,
  ball: null,
  wrap: null,
  ties: null,
  graftHeightMm: null,
  leader: null,
  wounds: null,
  brokenBranches: null,
  firstBranchM: null,
  face: null,
  label: null,
  sign: null,
  stemRoots: null,
  stemRootMm: null,
};

/** Depth of the topmost structural roots, the deepest of several probes; `null` where none was found. mm */
export function structuralDepthMm(tree: Pick<ReceivedTree, 'probes'>): number | null {
  const depths = tree.probes.filter(({ nature }) => nature === 'structural').map(({ depthMm }) => depthMm);
  return depths.length > 0 ? Math.max(...depths) : null;
}
