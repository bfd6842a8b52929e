import type { GroundFacts } from '../ground';
import { shoulderRunMm, type PitPlan, type StakePlan } from '../pit';
import { shoulders, type Practice } from '../practice';
import type { Stock } from '../stock';
import type { UnitSystem } from '../units';
import type { Point } from './shapes';

export interface PitSectionInput {
  readonly plan: PitPlan;
  readonly stock: Stock;
  readonly ground: GroundFacts;
  readonly practice: Practice;
  /** Left out, or `null`, where the tree stands by itself. */
  readonly stakes?: StakePlan | null;
  /** Bearings the winds come from; empty where nobody recorded them. */
  readonly windsDeg?: readonly number[];
  readonly units: UnitSystem;
  readonly widthPx: number;
  /** The most height the drawing may take; it takes no more than its scale needs. */
  readonly heightPx: number;
}

export interface Gutter {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** Where millimetres of the section lie on the drawing. */
export interface Frame {
  readonly gutter: Gutter;
  readonly scale: number;
  readonly heightPx: number;
  /** Millimetres from the trunk and above grade at the ball's uphill edge, to pixels. */
  readonly at: (xMm: number, yMm: number) => Point;
  readonly gradeAt: (xMm: number) => number;
  /** Height of the finished soil surface: the ball's top, falling to grade within a short apron. */
  readonly surfaceAt: (xMm: number) => number;
  readonly halfPitMm: number;
  readonly halfBaseMm: number;
  readonly halfBallMm: number;
  /** Where the trunk is cut off, or broken where stakes rise beyond it. */
  readonly topMm: number;
  /** Underside of the ball. */
  readonly baseMm: number;
  readonly edgeMm: number;
  /** Upper end of the drawing above a break in trunk and stakes; `null` where nothing is broken. px */
  readonly breakY: number | null;
}

const shoulderMm = 180;
const trunkAboveMm = 420;
export const soilBelowMm = 130;
/** Room above the break for the tie, the tops of the stakes and the first branch. */
export const headPx = 84;

/** How deep a stake stands in firm ground. mm */
export const stakeFootMm = ({ lengthMm, heightMm }: StakePlan): number => lengthMm - heightMm;

/** Uphill is on the left; one scale both ways, but for the part of trunk and stakes above a break. */
export function sectionFrame(input: PitSectionInput, gutter: Gutter, leastHeightPx: number): Frame {
  const { plan, ground, stakes, widthPx, heightPx: mostPx } = input;
  const slope = (ground.slopePct ?? 0) / 100;
  const halfBallMm = plan.rootsWidthMm / 2;
  const halfPitMm = plan.shape.lengthMm / 2;
  const edgeMm = Math.max(halfPitMm, plan.mulchLengthMm / 2, (stakes?.fromTrunkMm ?? 0) + 60) + shoulderMm;
  const gradeAt = (xMm: number) => -slope * (xMm + halfBallMm);
  const ballTopMm = plan.proudMm.value + plan.surplusLeftMm;
  const surfaceAt = (xMm: number) => {
    const outside = Math.abs(xMm) - halfBallMm;
    if (outside <= 0) return ballTopMm;
    const grade = gradeAt(xMm);
    // As the soil balance counts it: so high as the ball stands over the ground at its edge, evenly down to nothing.
    const heightMm = ballTopMm - gradeAt(Math.sign(xMm) * halfBallMm);
    const runMm = shoulderRunMm(heightMm, shoulders[input.practice.flareAboveGrade.shoulder]);
    return outside >= runMm ? grade : grade + heightMm * (1 - outside / runMm);
  };
  const topMm = Math.max(ballTopMm + trunkAboveMm, gradeAt(-edgeMm) + 60);
  const baseMm = -plan.depthMm.value;
  const footMm = stakes ? stakeFootMm(stakes) + 40 - gradeAt(stakes.fromTrunkMm) : 0;
  const lowestMm = Math.min(baseMm - plan.fillUnderBallMm, gradeAt(edgeMm), -footMm + soilBelowMm) - soilBelowMm;
  const head = stakes ? headPx : 0;
  const roomX = widthPx - gutter.left - gutter.right;
  const roomY = mostPx - gutter.top - gutter.bottom - head;
  const scale = Math.min(roomX / (2 * edgeMm), roomY / (topMm - lowestMm));
  const centreX = gutter.left + roomX / 2;
  const top = gutter.top + head;
  const originY = top + scale * topMm;
  return {
    gutter,
    scale,
    heightPx: Math.ceil(Math.max(leastHeightPx, top + scale * (topMm - lowestMm) + gutter.bottom)),
    at: (xMm, yMm) => [centreX + xMm * scale, originY - yMm * scale],
    gradeAt,
    surfaceAt,
    halfPitMm,
    halfBaseMm: plan.shape.bottomLengthMm / 2,
    halfBallMm,
    topMm,
    baseMm,
    edgeMm,
    breakY: stakes ? top : null,
  };
}

/** `count` + 1 values from one to another. */
export const along = (from: number, to: number, count: number): number[] =>
  Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count);
