import type { GroundFacts } from '../ground';
import type { NoPitPlan, PitReason } from '../pit';
import { effectiveBallHeightMm, rootsWidthMm, type Stock } from '../stock';
import { formatQuantity, type UnitSystem } from '../units';
import { box, line, polygon, textWidthPx, type Drawing, type Point, type Shape } from './shapes';

export interface PitConflictInput {
  readonly none: NoPitPlan;
  readonly stock: Stock;
  readonly ground: GroundFacts;
  readonly units: UnitSystem;
  readonly widthPx: number;
  readonly heightPx: number;
}

type Facts<C extends PitReason['code']> = Extract<PitReason, { code: C }>['facts'];

/** What of a tree and a place cannot be, as far as it can be drawn. */
type Conflict =
  | { readonly kind: 'strip'; readonly facts: Facts<'strip_under_ball'> }
  | { readonly kind: 'slope'; readonly facts: Facts<'slope_too_steep'> }
  | { readonly kind: 'shallow'; readonly facts: Facts<'ball_too_shallow'> };

function conflictOf({ because }: NoPitPlan): Conflict | null {
  for (const reason of because) {
    if (reason.code === 'strip_under_ball') return { kind: 'strip', facts: reason.facts };
    if (reason.code === 'slope_too_steep') return { kind: 'slope', facts: reason.facts };
    if (reason.code === 'ball_too_shallow') return { kind: 'shallow', facts: reason.facts };
  }
  return null;
}

const trunkMm = 420;
const soilMm = 160;
const besideMm = 320;
const pavementMm = 90;
const labelPx = 13;
const gutterPx = 26;

/**
 * A tree at a place it cannot stand at, to one scale both ways: its ball over the strip, or out of the ground at the
 * downhill edge, with what is in the way marked and measured. `null` where what is missing is no matter of measures.
 */
export function pitConflict(input: PitConflictInput): Drawing | null {
  const conflict = conflictOf(input.none);
  if (!conflict) return null;
  const { stock, ground, units, widthPx } = input;
  const halfMm = rootsWidthMm(stock) / 2;
  const deepMm = stock.kind === 'bare_root' ? stock.rootDepthMm : effectiveBallHeightMm(stock);
  const slope = conflict.kind === 'slope' ? conflict.facts.slopePct / 100 : 0;
  const halfStripMm = typeof ground.stripWidthMm === 'number' ? ground.stripWidthMm / 2 : null;
  const edgeMm = Math.max(halfMm, conflict.kind === 'strip' ? (halfStripMm ?? 0) : 0) + besideMm;
  // The uphill edge of the ball is at grade; how proud it would stand changes nothing of why it cannot.
  const gradeAt = (x: number) => -slope * (x + halfMm);
  const [topMm, lowMm] = [Math.max(trunkMm, gradeAt(-edgeMm) + 60), Math.min(-deepMm, gradeAt(edgeMm)) - soilMm];
  const scale = Math.min(widthPx / (2 * edgeMm), (input.heightPx - 2 * gutterPx) / (topMm - lowMm));
  const heightPx = Math.ceil((topMm - lowMm) * scale + 2 * gutterPx);
  const at = (x: number, y: number): Point => [widthPx / 2 + x * scale, gutterPx + (topMm - y) * scale];
  const mm = (value: number) => formatQuantity(value, 'lengthMm', units);
  const [left, right] = [at(-edgeMm, gradeAt(-edgeMm)), at(edgeMm, gradeAt(edgeMm))];
  const floor = heightPx - gutterPx;
  const shapes: Shape[] = [
    polygon('ground', [left, right, [right[0], floor], [left[0], floor]]),
    polygon('ball', [at(-halfMm, 0), at(halfMm, 0), at(0.75 * halfMm, -deepMm), at(-0.75 * halfMm, -deepMm)]),
    polygon('trunk', [at(-30, topMm), at(30, topMm), at(42, 0), at(-42, 0)]),
    line('grade', [left, right]),
  ];
  let says: string;
  if (conflict.kind === 'strip') {
    const { stripWidthMm, ballMm } = conflict.facts;
    const half = stripWidthMm / 2;
    for (const side of [-1, 1]) {
      shapes.push(polygon('pavement', boxMm(at, side * half, side * edgeMm, pavementMm / 2, -pavementMm / 2)));
      shapes.push(polygon('crown_conflict', boxMm(at, side * half, side * halfMm, 0, -deepMm)));
    }
    shapes.push(...across(at, halfMm, trunkMm / 2, `ball ${mm(ballMm)}`, -1));
    shapes.push(...across(at, half, -deepMm - soilMm / 2, `strip ${mm(stripWidthMm)}`, 1));
    says = `The ball, ${mm(ballMm)} wide, over a strip of ${mm(stripWidthMm)}: ${mm(ballMm - stripWidthMm)} too wide.`;
  } else {
    const [inGroundMm, leastMm] =
      conflict.kind === 'slope'
        ? [conflict.facts.downhillDepthMm, conflict.facts.leastMm]
        : [conflict.facts.depthMm, conflict.facts.leastMm];
    const grade = gradeAt(halfMm);
    const wedge = [at(-halfMm, 0), at(halfMm, 0), at(halfMm, grade)];
    if (slope > 0) shapes.push(polygon('crown_conflict', wedge));
    const least = grade - leastMm;
    shapes.push(line('flare', [at(0, least), at(halfMm + besideMm * 0.6, least)]));
    const where = slope > 0 ? ' at the downhill edge' : '';
    const words = `${mm(inGroundMm)} in the ground${where}, least ${mm(leastMm)}`;
    shapes.push(text(words, [widthPx - 4, heightPx - 6], 'end'));
    shapes.push(...across(at, halfMm, trunkMm / 2, `ball ${mm(2 * halfMm)} × ${mm(deepMm)}`, -1));
    says = `The ball would be ${words}.`;
  }
  return { widthPx, heightPx, shapes, description: `No pit plan. ${says}` };
}

const boxMm = (at: (x: number, y: number) => Point, x1: number, x2: number, y1: number, y2: number): Point[] => {
  const [a, b] = [at(Math.min(x1, x2), y1), at(Math.max(x1, x2), y2)];
  return box(a[0], a[1], b[0], b[1]);
};

const text = (words: string, at: Point, align: 'start' | 'middle' | 'end'): Shape => ({
  kind: 'text',
  role: 'label',
  at,
  text: words,
  align,
  sizePx: labelPx,
  strong: true,
});

/** A measure across, from edge to edge, with its words over it (`side` −1) or under it. */
function across(
  at: (x: number, y: number) => Point,
  halfMm: number,
  yMm: number,
  words: string,
  side: -1 | 1,
): Shape[] {
  const [from, to] = [at(-halfMm, yMm), at(halfMm, yMm)];
  const tick = ([x, y]: Point): Shape =>
    line('dimension', [
      [x, y - 5],
      [x, y + 5],
    ]);
  // Beside the trunk where there is room, so that it is not written over.
  const beside = side === -1 && (to[0] - from[0]) / 2 > textWidthPx(words, labelPx) + 24;
  const x = beside ? (from[0] + to[0]) / 2 + 18 : (from[0] + to[0]) / 2;
  return [
    line('dimension', [from, to]),
    tick(from),
    tick(to),
    text(words, [x, from[1] + (side === -1 ? -7 : 17)], beside ? 'start' : 'middle'),
  ];
}
