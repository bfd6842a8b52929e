import type { GroundFacts } from '../ground';
import type { PitPlan } from '../pit';
import type { Practice } from '../practice';
import type { Stock } from '../stock';
import { compassPoint, formatQuantity, type UnitSystem } from '../units';
import { spreadApart, type Drawing, type Point, type Role, type Shape } from './shapes';

export interface PitSectionInput {
  readonly plan: PitPlan;
  readonly stock: Stock;
  readonly ground: GroundFacts;
  readonly practice: Practice;
  readonly units: UnitSystem;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Ratio of base to top diameter of a ball, so that the drawn frustum has the volume the plan computes. */
const baseRatio = { container: 0.84, balled: 0.66 } as const;

const gutter = { left: 118, right: 124, top: 34, bottom: 52 };
const shoulderMm = 260;
const trunkAboveMm = 420;
const soilBelowMm = 130;
const textPx = 13;
const lineGapPx = 36;

/**
 * Section through the pit to one scale both ways, uphill on the left; along the strip where the pit is
 * stretched. Labels stand in their own gutters, so that none can cover the drawing or another label.
 */
export function pitSection(input: PitSectionInput): Drawing {
  const frame = sectionFrame(input);
  const shapes = [...earth(input, frame), ...tree(input, frame), ...dressing(input, frame), ...dimensions(input, frame)];
  return { widthPx: input.widthPx, heightPx: input.heightPx, shapes, description: describe(input) };
}

interface Frame {
  readonly scale: number;
  /** Millimetres from the trunk and above grade at the ball's uphill edge, to pixels. */
  readonly at: (xMm: number, yMm: number) => Point;
  readonly gradeAt: (xMm: number) => number;
  readonly halfPitMm: number;
  readonly halfBaseMm: number;
  readonly halfBallMm: number;
  readonly topMm: number;
  readonly baseMm: number;
  readonly edgeMm: number;
}

function sectionFrame({ plan, ground, widthPx, heightPx }: PitSectionInput): Frame {
  const slope = (ground.slopePct ?? 0) / 100;
  const halfBallMm = plan.rootsWidthMm / 2;
  const halfPitMm = plan.shape.lengthMm / 2;
  const edgeMm = Math.max(halfPitMm, plan.mulchRingMm / 2) + shoulderMm;
  const gradeAt = (xMm: number) => -slope * (xMm + halfBallMm);
  const topMm = Math.max(plan.proudMm.value + trunkAboveMm, gradeAt(-edgeMm) + 60);
  const baseMm = -plan.depthMm.value;
  const lowestMm = Math.min(baseMm, gradeAt(edgeMm)) - soilBelowMm;
  const roomX = widthPx - gutter.left - gutter.right;
  const roomY = heightPx - gutter.top - gutter.bottom;
  const scale = Math.min(roomX / (2 * edgeMm), roomY / (topMm - lowestMm));
  const centreX = gutter.left + roomX / 2;
  const spareY = roomY - scale * (topMm - lowestMm);
  const originY = gutter.top + spareY / 2 + scale * topMm;
  const at = (xMm: number, yMm: number): Point => [centreX + xMm * scale, originY - yMm * scale];
  const halfBaseMm = plan.shape.bottomLengthMm / 2;
  return { scale, at, gradeAt, halfPitMm, halfBaseMm, halfBallMm, topMm, baseMm, edgeMm };
}

const polygon = (role: Role, points: readonly Point[]): Shape => ({ kind: 'polygon', role, points });
const line = (role: Role, points: readonly Point[]): Shape => ({ kind: 'line', role, points });

function label(role: Role, at: Point, text: string, options: { align?: 'start' | 'middle' | 'end'; strong?: boolean } = {}): Shape {
  return { kind: 'text', role, at, text, align: options.align ?? 'start', sizePx: textPx, strong: options.strong ?? false };
}

function earth({ heightPx }: PitSectionInput, f: Frame): Shape[] {
  const left = f.at(-f.edgeMm, f.gradeAt(-f.edgeMm));
  const right = f.at(f.edgeMm, f.gradeAt(f.edgeMm));
  const floorY = heightPx - gutter.bottom + 10;
  const pit: Point[] = [
    f.at(-f.halfPitMm, f.gradeAt(-f.halfPitMm)),
    f.at(-f.halfBaseMm, f.baseMm),
    f.at(f.halfBaseMm, f.baseMm),
    f.at(f.halfPitMm, f.gradeAt(f.halfPitMm)),
  ];
  return [
    polygon('ground', [left, right, [right[0], floorY], [left[0], floorY]]),
    polygon('backfill', pit),
    line('pit', pit),
    line('grade', [left, right]),
  ];
}

function tree({ plan, stock }: PitSectionInput, f: Frame): Shape[] {
  const proudMm = plan.proudMm.value;
  const trunkMm = stock.caliperMm / 2;
  const trunk: Point[] = [
    f.at(-trunkMm, f.topMm),
    f.at(-trunkMm, proudMm + 90),
    f.at(-trunkMm * 2.1, proudMm),
    f.at(trunkMm * 2.1, proudMm),
    f.at(trunkMm, proudMm + 90),
    f.at(trunkMm, f.topMm),
  ];
  const flare = line('flare', [f.at(-f.halfBallMm - 70, proudMm), f.at(f.halfBallMm + 70, proudMm)]);
  return [...roots(stock, proudMm, f), polygon('trunk', trunk), flare];
}

function roots(stock: Stock, proudMm: number, f: Frame): Shape[] {
  if (stock.kind !== 'bare_root') {
    const halfBase = f.halfBallMm * baseRatio[stock.kind];
    const ball = polygon('ball', [
      f.at(-f.halfBallMm, proudMm),
      f.at(f.halfBallMm, proudMm),
      f.at(halfBase, f.baseMm),
      f.at(-halfBase, f.baseMm),
    ]);
    const structural = [-1, 1].map((side) =>
      line('root', [f.at(0, proudMm), f.at(side * f.halfBallMm * 0.45, proudMm - 45), f.at(side * f.halfBallMm * 0.92, proudMm - 80)]),
    );
    return [ball, ...structural];
  }
  const cone = polygon('berm', [f.at(-f.halfBallMm * 0.8, f.baseMm), f.at(0, proudMm - 60), f.at(f.halfBallMm * 0.8, f.baseMm)]);
  const spread = [-1, -0.55, 0.55, 1].map((side) => line('root', [f.at(0, proudMm), f.at(side * f.halfBallMm, f.baseMm + 25)]));
  return [cone, ...spread];
}

/** Height of the finished soil surface: the ball's top, falling to grade within a short apron. */
function surfaceAt(xMm: number, plan: PitPlan, f: Frame): number {
  const proudMm = plan.proudMm.value;
  const outside = Math.abs(xMm) - f.halfBallMm;
  if (outside <= 0) return proudMm;
  const grade = f.gradeAt(xMm);
  const apronMm = Math.max(120, 2 * (proudMm - grade));
  return outside >= apronMm ? grade : proudMm + (grade - proudMm) * (outside / apronMm);
}

function dressing({ plan, stock, practice }: PitSectionInput, f: Frame): Shape[] {
  const { gapMm, thicknessMm } = practice.mulch;
  const half = plan.mulchRingMm / 2;
  const inner = stock.caliperMm / 2 + gapMm;
  const shapes: Shape[] = [];
  for (const side of [-1, 1]) {
    const xs = steps(inner, half, 14).map((x) => side * x);
    const under = xs.map((x) => f.at(x, surfaceAt(x, plan, f)));
    const over = xs.map((x) => f.at(x, surfaceAt(x, plan, f) + thicknessMm * taper(Math.abs(x), inner, half, f.halfBallMm)));
    const apron = steps(f.halfBallMm, half, 10).map((x) => side * x);
    shapes.push(
      polygon('backfill', [
        ...apron.map((x) => f.at(x, surfaceAt(x, plan, f))),
        ...[...apron].reverse().map((x) => f.at(x, Math.min(f.gradeAt(x), surfaceAt(x, plan, f)))),
      ]),
    );
    if (plan.berm) shapes.push(bermMound(side, plan.berm.heightMm, plan, f));
    shapes.push(polygon('mulch', [...under, ...over.reverse()]));
  }
  return shapes;
}

function bermMound(side: number, heightMm: number, plan: PitPlan, f: Frame): Shape {
  const from = f.halfBallMm - 20;
  const widthMm = 220;
  const xs = steps(from, from + widthMm, 10);
  const crest = xs.map((x) => {
    const rise = Math.sin((Math.PI * (x - from)) / widthMm) * heightMm;
    return f.at(side * x, surfaceAt(side * x, plan, f) + rise);
  });
  const foot = [...xs].reverse().map((x) => f.at(side * x, surfaceAt(side * x, plan, f)));
  return polygon('berm', [...crest, ...foot]);
}

/** Thin over the ball, full beyond it, feathered at the ring's edge. */
function taper(xMm: number, innerMm: number, outerMm: number, ballEdgeMm: number): number {
  const overBall = xMm < ballEdgeMm ? 0.35 + (0.65 * (xMm - innerMm)) / Math.max(1, ballEdgeMm - innerMm) : 1;
  const toEdge = Math.min(1, (outerMm - xMm) / 80 + 0.1);
  return Math.min(overBall, toEdge);
}

function steps(from: number, to: number, count: number): number[] {
  return Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / count);
}

function dimensions(input: PitSectionInput, f: Frame): Shape[] {
  const { plan, ground, units, heightPx, widthPx } = input;
  const mm = (value: number) => formatQuantity(value, 'lengthMm', units);
  const sloped = (ground.slopePct ?? 0) > 0;
  const proudMm = plan.proudMm.value;
  const leftX = gutter.left - 12;
  const rightX = widthPx - gutter.right + 12;
  const flareY = f.at(0, proudMm)[1];
  const gradeY = f.at(0, 0)[1];
  const baseY = f.at(0, f.baseMm)[1];
  const [proudY = flareY, depthY = baseY] = spreadApart([Math.min(flareY, gradeY) - 14, (gradeY + baseY) / 2], lineGapPx);
  const downhillGradeY = f.at(0, f.gradeAt(f.halfBallMm))[1];
  const shapes: Shape[] = [
    line('note', [[leftX - 4, flareY], f.at(-f.halfBallMm - 70, proudMm)]),
    line('note', [[leftX - 4, gradeY], f.at(-f.halfBallMm, 0)]),
    line('note', [[leftX - 4, baseY], f.at(-f.halfBaseMm, f.baseMm)]),
    ...measure([leftX, gradeY], [leftX, baseY]),
    label('label', [leftX - 10, proudY], `${mm(proudMm)} proud`, { align: 'end', strong: true }),
    label('label', [leftX - 10, depthY], `${mm(plan.depthMm.value)} deep`, { align: 'end', strong: true }),
    label('note', [leftX - 10, depthY + 15], sloped ? 'uphill edge' : 'below grade', { align: 'end' }),
  ];
  if (sloped) {
    shapes.push(
      line('note', [f.at(f.halfBallMm + 70, proudMm), [rightX + 4, flareY]]),
      line('note', [f.at(f.halfBallMm, f.gradeAt(f.halfBallMm)), [rightX + 4, downhillGradeY]]),
      ...measure([rightX, flareY], [rightX, downhillGradeY]),
      label('label', [rightX + 10, flareY - 6], `${mm(plan.downhillProudMm.value)} proud`, { strong: true }),
      label('note', [rightX + 10, flareY + 9], downhillWord(ground)),
    );
  }
  const [ballY, wideY] = [baseY + 16, heightPx - 26];
  const across = plan.shape.lengthMm > plan.shape.widthMm ? 'long, along the strip' : 'wide at grade';
  shapes.push(
    ...measure([f.at(-f.halfPitMm, 0)[0], wideY], [f.at(f.halfPitMm, 0)[0], wideY]),
    label('label', [f.at(0, 0)[0], wideY + 17], `${mm(plan.shape.lengthMm)} ${across}`, { align: 'middle', strong: true }),
    label('note', [f.at(0, 0)[0], ballY], baseWord(input), { align: 'middle' }),
    label('note', [rightX + 10, f.at(0, proudMm + 0.6 * trunkAboveMm)[1]], `mulch ${mm(input.practice.mulch.thicknessMm)},`),
    label('note', [rightX + 10, f.at(0, proudMm + 0.6 * trunkAboveMm)[1] + 15], `${mm(input.practice.mulch.gapMm)} clear`),
    line('note', [
      [rightX + 6, f.at(0, proudMm + 0.6 * trunkAboveMm)[1] + 2],
      f.at(f.halfBallMm * 0.9, surfaceAt(f.halfBallMm * 0.9, plan, f) + 30),
    ]),
  );
  return shapes;
}

const downhillWord = (ground: GroundFacts): string =>
  ground.fallsTowardsDeg === null ? 'downhill edge' : `downhill, ${compassPoint(ground.fallsTowardsDeg)}`;

const baseWord = ({ stock }: PitSectionInput): string =>
  stock.kind === 'bare_root' ? 'soil cone on firm base' : 'firm, undisturbed base';

/** A measuring line with a tick at each end. */
function measure(from: Point, to: Point): Shape[] {
  const upright = from[0] === to[0];
  const tick = ([x, y]: Point): Shape =>
    line('dimension', upright ? [[x - 4, y], [x + 4, y]] : [[x, y - 4], [x, y + 4]]);
  return [line('dimension', [from, to]), tick(from), tick(to)];
}

function describe({ plan, units }: PitSectionInput): string {
  const mm = (value: number) => formatQuantity(value, 'lengthMm', units);
  return (
    `Section of the pit: ${mm(plan.depthMm.value)} deep at the uphill edge, ${mm(plan.widthMm.value)} wide, ` +
    `flare ${mm(plan.proudMm.value)} above grade, ${mm(plan.downhillProudMm.value)} at the downhill edge.`
  );
}
