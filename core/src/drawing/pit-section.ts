import type { GroundFacts } from '../ground';
import type { PitPlan } from '../pit';
import type { Practice } from '../practice';
import type { Stock } from '../stock';
import { compassPoint, formatQuantity, type UnitSystem } from '../units';
import { spreadApart, textWidthPx, type Drawing, type Point, type Role, type Shape } from './shapes';

export interface PitSectionInput {
  readonly plan: PitPlan;
  readonly stock: Stock;
  readonly ground: GroundFacts;
  readonly practice: Practice;
  readonly units: UnitSystem;
  readonly widthPx: number;
  /** The most height the drawing may take; it takes no more than its scale needs. */
  readonly heightPx: number;
}

/** Ratio of base to top diameter of a ball, so that the drawn frustum has the volume the plan computes. */
const baseRatio = { container: 0.84, balled: 0.66 } as const;

interface Gutter {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** On a phone the drawing needs the room: labels break into short lines and the mulch is left to the table. */
const compactUnderPx = 460;
const isCompact = (widthPx: number): boolean => widthPx < compactUnderPx;

const shoulderMm = 180;
const trunkAboveMm = 420;
const soilBelowMm = 130;
const textPx = 13;
const lineGapPx = 17;

/**
 * Section through the pit to one scale both ways, uphill on the left; along the strip where the pit is
 * stretched. Labels stand in their own gutters, so that none can cover the drawing or another label.
 */
export function pitSection(input: PitSectionInput): Drawing {
  const frame = sectionFrame(input);
  const shapes = [
    ...earth(input, frame),
    ...tree(input, frame),
    ...dressing(input, frame),
    flareLine(input, frame),
    ...dimensions(input, frame),
  ];
  return { widthPx: input.widthPx, heightPx: frame.heightPx, shapes, description: describe(input) };
}

interface Frame {
  readonly gutter: Gutter;
  readonly scale: number;
  readonly heightPx: number;
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

function sectionFrame(input: PitSectionInput): Frame {
  const { plan, ground, widthPx, heightPx: mostPx } = input;
  const gutter = gutterFor(input);
  const slope = (ground.slopePct ?? 0) / 100;
  const halfBallMm = plan.rootsWidthMm / 2;
  const halfPitMm = plan.shape.lengthMm / 2;
  const edgeMm = Math.max(halfPitMm, plan.mulchRingMm / 2) + shoulderMm;
  const gradeAt = (xMm: number) => -slope * (xMm + halfBallMm);
  const topMm = Math.max(plan.proudMm.value + trunkAboveMm, gradeAt(-edgeMm) + 60);
  const baseMm = -plan.depthMm.value;
  const lowestMm = Math.min(baseMm, gradeAt(edgeMm)) - soilBelowMm;
  const roomX = widthPx - gutter.left - gutter.right;
  const roomY = mostPx - gutter.top - gutter.bottom;
  const scale = Math.min(roomX / (2 * edgeMm), roomY / (topMm - lowestMm));
  const centreX = gutter.left + roomX / 2;
  const heightPx = Math.round(gutter.top + scale * (topMm - lowestMm) + gutter.bottom);
  const originY = gutter.top + scale * topMm;
  const at = (xMm: number, yMm: number): Point => [centreX + xMm * scale, originY - yMm * scale];
  const halfBaseMm = plan.shape.bottomLengthMm / 2;
  return { gutter, scale, heightPx, at, gradeAt, halfPitMm, halfBaseMm, halfBallMm, topMm, baseMm, edgeMm };
}

const polygon = (role: Role, points: readonly Point[]): Shape => ({ kind: 'polygon', role, points });
const line = (role: Role, points: readonly Point[]): Shape => ({ kind: 'line', role, points });

function label(
  role: Role,
  at: Point,
  text: string,
  options: { align?: 'start' | 'middle' | 'end'; strong?: boolean } = {},
): Shape {
  return {
    kind: 'text',
    role,
    at,
    text,
    align: options.align ?? 'start',
    sizePx: textPx,
    strong: options.strong ?? false,
  };
}

function earth({ plan }: PitSectionInput, f: Frame): Shape[] {
  const left = f.at(-f.edgeMm, f.gradeAt(-f.edgeMm));
  const right = f.at(f.edgeMm, f.gradeAt(f.edgeMm));
  const floorY = f.heightPx - f.gutter.bottom + 6;
  const pit: Point[] = [
    f.at(-f.halfPitMm, f.gradeAt(-f.halfPitMm)),
    f.at(-f.halfBaseMm, f.baseMm),
    f.at(f.halfBaseMm, f.baseMm),
    f.at(f.halfPitMm, f.gradeAt(f.halfPitMm)),
  ];
  return [
    polygon('ground', [left, right, [right[0], floorY], [left[0], floorY]]),
    polygon('backfill', pit),
    ...[-1, 1].map((side) => apron(side, plan, f)),
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
  return [...roots(stock, proudMm, f), polygon('trunk', trunk)];
}

function flareLine({ plan }: PitSectionInput, f: Frame): Shape {
  const proudMm = plan.proudMm.value;
  return line('flare', [f.at(-f.halfBallMm - 70, proudMm), f.at(f.halfBallMm + 70, proudMm)]);
}

/** Fill drawn up from grade to the ball's shoulder, begun under the ball so that its taper leaves no gap. */
function apron(side: number, plan: PitPlan, f: Frame): Shape {
  const xs = steps(f.halfBallMm * 0.6, f.halfPitMm, 16).map((x) => side * x);
  const top = xs.map((x) => f.at(x, surfaceAt(x, plan, f)));
  const foot = [...xs].reverse().map((x) => f.at(x, Math.min(f.gradeAt(x), surfaceAt(x, plan, f))));
  return polygon('backfill', [...top, ...foot]);
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
      line('root', [
        f.at(0, proudMm),
        f.at(side * f.halfBallMm * 0.45, proudMm - 45),
        f.at(side * f.halfBallMm * 0.92, proudMm - 80),
      ]),
    );
    return [ball, ...structural];
  }
  const cone = polygon('berm', [
    f.at(-f.halfBallMm * 0.8, f.baseMm),
    f.at(0, proudMm - 60),
    f.at(f.halfBallMm * 0.8, f.baseMm),
  ]);
  const spread = [-1, -0.55, 0.55, 1].map((side) =>
    line('root', [f.at(0, proudMm), f.at(side * f.halfBallMm, f.baseMm + 25)]),
  );
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
    const over = xs.map((x) =>
      f.at(x, surfaceAt(x, plan, f) + thicknessMm * taper(Math.abs(x), inner, half, f.halfBallMm)),
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

/** A number with the word beside it, and words that go below. */
interface Legend {
  readonly value: string;
  readonly word: string;
  readonly below: string | null;
}

interface Legends {
  readonly proud: Legend;
  readonly depth: Legend;
  /** Only where the ground falls. */
  readonly downhill: Legend | null;
  /** Left out where room is short. */
  readonly mulch: readonly [string, string] | null;
}

function legendsOf({ plan, ground, practice, units, widthPx }: PitSectionInput): Legends {
  const mm = (value: number) => formatQuantity(value, 'lengthMm', units);
  const sloped = (ground.slopePct ?? 0) > 0;
  return {
    proud: { value: mm(plan.proudMm.value), word: 'proud', below: null },
    depth: { value: mm(plan.depthMm.value), word: 'deep', below: sloped ? 'uphill edge' : 'below grade' },
    downhill: sloped ? { value: mm(plan.downhillProudMm.value), word: 'proud', below: downhillWord(ground) } : null,
    mulch: isCompact(widthPx)
      ? null
      : [`mulch ${mm(practice.mulch.thicknessMm)},`, `${mm(practice.mulch.gapMm)} clear`],
  };
}

const headOf = (legend: Legend, compact: boolean): string =>
  compact ? legend.value : `${legend.value} ${legend.word}`;
const linesBelow = (legend: Legend, compact: boolean): string[] =>
  [compact ? legend.word : null, legend.below].filter((text) => text !== null);

/** Room for the dimension line and its tick between a label and the drawing. */
const besideLabelPx = 30;

/** Gutters as wide as the labels that stand in them. */
function gutterFor(input: PitSectionInput): Gutter {
  const compact = isCompact(input.widthPx);
  const { proud, depth, downhill, mulch } = legendsOf(input);
  const widest = (texts: readonly string[]) => Math.max(0, ...texts.map((text) => textWidthPx(text, textPx)));
  const texts = (legend: Legend | null) => (legend ? [headOf(legend, compact), ...linesBelow(legend, compact)] : []);
  const left = widest([...texts(proud), ...texts(depth)]);
  const right = widest([...texts(downhill), ...(mulch ?? [])]);
  return { left: left + besideLabelPx, right: right === 0 ? 12 : right + besideLabelPx, top: 8, bottom: 52 };
}

function dimensions(input: PitSectionInput, f: Frame): Shape[] {
  const { plan, widthPx } = input;
  const compact = isCompact(widthPx);
  const legends = legendsOf(input);
  const proudMm = plan.proudMm.value;
  const leftX = f.gutter.left - 14;
  const rightX = widthPx - f.gutter.right + 14;
  const flareY = f.at(0, proudMm)[1];
  const gradeY = f.at(0, 0)[1];
  const baseY = f.at(0, f.baseMm)[1];
  const apart = legendHeightPx(legends.proud, compact);
  const [proudY = flareY, depthY = baseY] = spreadApart(
    [Math.max(14, Math.min(flareY, gradeY) - apart + 12), (gradeY + baseY) / 2],
    apart,
  );
  return [
    line('note', [[leftX - 4, flareY], f.at(-f.halfBallMm - 70, proudMm)]),
    line('note', [[leftX - 4, gradeY], f.at(-f.halfBallMm, 0)]),
    line('note', [[leftX - 4, baseY], f.at(-f.halfBaseMm, f.baseMm)]),
    ...measure([leftX, gradeY], [leftX, baseY]),
    ...stacked([leftX - 8, proudY], legends.proud, { align: 'end', compact }),
    ...stacked([leftX - 8, depthY], legends.depth, { align: 'end', compact }),
    ...rightLabels(input, f, { legends, rightX, flareY }),
    ...acrossLabels(input, f, baseY),
  ];
}

function rightLabels(
  input: PitSectionInput,
  f: Frame,
  at: { legends: Legends; rightX: number; flareY: number },
): Shape[] {
  const { legends, rightX, flareY } = at;
  const compact = isCompact(input.widthPx);
  const shapes: Shape[] = [];
  const mulchY = Math.max(14, flareY - 48);
  const [, downhillY = flareY] = spreadApart([legends.mulch ? mulchY + 15 : 0, Math.max(14, flareY - 6)], lineGapPx);
  if (legends.downhill) {
    const downhillGradeY = f.at(0, f.gradeAt(f.halfBallMm))[1];
    shapes.push(
      line('note', [f.at(f.halfBallMm + 70, input.plan.proudMm.value), [rightX + 4, flareY]]),
      line('note', [f.at(f.halfBallMm, f.gradeAt(f.halfBallMm)), [rightX + 4, downhillGradeY]]),
      ...measure([rightX, flareY], [rightX, downhillGradeY]),
      ...stacked([rightX + 8, downhillY], legends.downhill, { align: 'start', compact }),
    );
  }
  if (legends.mulch) {
    const touches = f.at(f.halfBallMm * 0.9, surfaceAt(f.halfBallMm * 0.9, input.plan, f) + 30);
    shapes.push(
      label('note', [rightX + 8, mulchY], legends.mulch[0]),
      label('note', [rightX + 8, mulchY + 15], legends.mulch[1]),
      line('note', [[rightX + 4, mulchY + 2], touches]),
    );
  }
  return shapes;
}

function acrossLabels(input: PitSectionInput, f: Frame, baseY: number): Shape[] {
  const { shape } = input.plan;
  const wideY = f.heightPx - 28;
  const across = shape.lengthMm > shape.widthMm ? 'long, along the strip' : 'wide at grade';
  const words = `${formatQuantity(shape.lengthMm, 'lengthMm', input.units)} ${across}`;
  return [
    ...measure([f.at(-f.halfPitMm, 0)[0], wideY], [f.at(f.halfPitMm, 0)[0], wideY]),
    label('label', [f.at(0, 0)[0], wideY + 17], words, { align: 'middle', strong: true }),
    label('note', [f.at(0, 0)[0], baseY + 16], baseWord(input), { align: 'middle' }),
  ];
}

/** From the first line of a legend to where the next may begin. */
const legendHeightPx = (legend: Legend, compact: boolean): number => 15 * (1 + linesBelow(legend, compact).length) + 4;

/** A number with its word beside it, or under it where room is short; further words below. */
function stacked(at: Point, legend: Legend, style: { align: 'start' | 'end'; compact: boolean }): Shape[] {
  const head = label('label', at, headOf(legend, style.compact), { align: style.align, strong: true });
  const below = linesBelow(legend, style.compact);
  return [head, ...below.map((text, i) => label('note', [at[0], at[1] + 15 * (i + 1)], text, { align: style.align }))];
}

const downhillWord = (ground: GroundFacts): string =>
  ground.fallsTowardsDeg === null ? 'downhill edge' : `downhill, ${compassPoint(ground.fallsTowardsDeg)}`;

const baseWord = ({ stock }: PitSectionInput): string =>
  stock.kind === 'bare_root' ? 'soil cone on firm base' : 'firm, undisturbed base';

/** A measuring line with a tick at each end. */
function measure(from: Point, to: Point): Shape[] {
  const upright = from[0] === to[0];
  const tick = ([x, y]: Point): Shape =>
    line(
      'dimension',
      upright
        ? [
            [x - 4, y],
            [x + 4, y],
          ]
        : [
            [x, y - 4],
            [x, y + 4],
          ],
    );
  return [line('dimension', [from, to]), tick(from), tick(to)];
}

function describe({ plan, units }: PitSectionInput): string {
  const mm = (value: number) => formatQuantity(value, 'lengthMm', units);
  return (
    `Section of the pit: ${mm(plan.depthMm.value)} deep at the uphill edge, ${mm(plan.widthMm.value)} wide, ` +
    `flare ${mm(plan.proudMm.value)} above grade, ${mm(plan.downhillProudMm.value)} at the downhill edge.`
  );
}
