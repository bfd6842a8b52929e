import { bermPlaces, fillMaterials } from '../practice';
import { soilNames } from '../wording';
import { compassPoint, formatNumber, formatQuantity } from '../units';
import { bermWidthMm, type PitPlan } from '../pit';
import type { Frame, Gutter, PitSectionInput } from './section-frame';
import { layersDrawn, ringFromMm } from './section-parts';
import { branchY, tieY } from './section-stakes';
import { stackApart, textWidthPx, type Point, type Shape } from './shapes';

/** On a phone the drawing needs the room: labels break into short lines, and what the table says too is left to it. */
const compactUnderPx = 400;
const textPx = 13;
const lineGapPx = 15;
/** Room under the drawing for the width. */
const footPx = 52;
/** Room for the dimension line and its tick between a label and the drawing. */
const besideLabelPx = 30;

const isCompact = ({ widthPx }: PitSectionInput): boolean => widthPx < compactUnderPx;
const line = (points: readonly Point[]): Shape => ({ kind: 'line', role: 'note', points });

/** Words in a gutter: the first line strong where it holds a number, and what of the drawing they stand for. */
interface Label {
  readonly lines: readonly string[];
  readonly strong: boolean;
  /** Height it would like to stand at, by its first line. */
  readonly wishY: (f: Frame) => number;
  /** Lines from the words to the thing. */
  readonly marks: (f: Frame, y: number) => Shape[];
}

/** Words for the left gutter, from the top down. */
function leftLabels(input: PitSectionInput): Label[] {
  const { plan, ground, stakes, units, windsDeg = [] } = input;
  const mm = (value: number) => formatQuantity(value, 'lengthMm', units);
  const compact = isCompact(input);
  const sloped = (ground.slopePct ?? 0) > 0;
  const split = (value: string, word: string) => (compact ? [value, word] : [`${value} ${word}`]);
  const wind = windsDeg.length > 0 ? [`wind from ${windsDeg.map(compassPoint).join(', ')}`] : [];
  const tie: Label[] = stakes
    ? [
        {
          lines: [`tie at ${mm(stakes.heightMm)}`, ...wind],
          strong: true,
          wishY: tieY,
          marks: (f) => [
            line([
              [f.gutter.left - 18, tieY(f)],
              [f.at(-stakes.fromTrunkMm, 0)[0] - 6, tieY(f)],
            ]),
          ],
        },
      ]
    : [];
  return [
    ...tie,
    {
      lines: split(mm(plan.proudMm.value), 'proud'),
      strong: true,
      wishY: (f) => Math.min(f.at(0, plan.proudMm.value)[1], f.at(0, 0)[1]) - (compact ? 22 : 7),
      marks: (f) => [
        line([[f.gutter.left - 18, f.at(0, plan.proudMm.value)[1]], f.at(-f.halfBallMm - 70, plan.proudMm.value)]),
      ],
    },
    {
      lines: [...split(mm(plan.depthMm.value), 'deep'), sloped ? 'uphill edge' : 'below grade'],
      strong: true,
      wishY: (f) => (f.at(0, 0)[1] + f.at(0, f.baseMm)[1]) / 2,
      marks: (f) => depthMarks(f),
    },
  ];
}

function depthMarks(f: Frame): Shape[] {
  const x = f.gutter.left - 14;
  const [gradeY, baseY] = [f.at(0, 0)[1], f.at(0, f.baseMm)[1]];
  return [
    line([[x - 4, gradeY], f.at(-f.halfBallMm, 0)]),
    line([[x - 4, baseY], f.at(-f.halfBaseMm, f.baseMm)]),
    ...measured([x, gradeY], [x, baseY]),
  ];
}

/** Words for the right gutter, from the top down. */
function rightLabels(input: PitSectionInput): Label[] {
  const { plan, ground, stock, stakes, units } = input;
  const mm = (value: number) => formatQuantity(value, 'lengthMm', units);
  const compact = isCompact(input);
  const found: Label[] = [];
  if (stakes && stock.firstBranchM !== undefined && !compact) {
    found.push({
      lines: ['first branch', formatQuantity(stock.firstBranchM, 'heightM', units)],
      strong: false,
      wishY: branchY,
      marks: (f, y) => [
        line([
          [rightX(input, f) + 4, y - 4],
          [f.at(0, 0)[0] + 28, branchY(f) - 10],
        ]),
      ],
    });
  }
  if (plan.surplusLeftMm > 0 && !compact) {
    found.push({
      lines: [`${mm(plan.surplusLeftMm)} of surplus`, 'comes off later'],
      strong: false,
      wishY: (f) => f.at(0, f.surfaceAt(0))[1] - 52,
      marks: (f, y) => [
        line([[rightX(input, f) + 4, y - 4], f.at(f.halfBallMm * 0.5, plan.proudMm.value + plan.surplusLeftMm / 2)]),
      ],
    });
  }
  if (!compact) found.push(mulchLabel(input));
  if (plan.berm && !compact) found.push(bermLabel(input, plan.berm));
  if ((ground.slopePct ?? 0) > 0) found.push(downhillLabel(input));
  if (!compact) found.push(fillLabel(input), ...layerLabels(input));
  return found;
}

const rightX = ({ widthPx }: PitSectionInput, f: Frame): number => widthPx - f.gutter.right + 14;

function mulchLabel(input: PitSectionInput): Label {
  const { plan, practice, units } = input;
  const mm = (value: number) => formatQuantity(value, 'lengthMm', units);
  return {
    lines: [
      `mulch ${mm(practice.mulch.thicknessMm)},`,
      `${mm(practice.mulch.gapMm)} clear,`,
      `ring ${mm(plan.mulchRingMm)}`,
    ],
    strong: false,
    wishY: (f) => f.at(0, f.surfaceAt(0))[1] - 48,
    marks: (f, y) => {
      const over = f.halfBallMm * 0.9;
      return [line([[rightX(input, f) + 4, y + 2], f.at(over, f.surfaceAt(over) + 30)])];
    },
  };
}

function bermLabel(input: PitSectionInput, { where, heightMm }: NonNullable<PitPlan['berm']>): Label {
  const { at } = bermPlaces[where];
  const height = formatQuantity(heightMm, 'lengthMm', input.units);
  const crestMm = (f: Frame) => ringFromMm(input.plan, f) + bermWidthMm / 2;
  return {
    lines: [`berm ${height}`, `at the ${at ?? 'ball'}`],
    strong: false,
    wishY: (f) => f.at(0, f.surfaceAt(0))[1] - 24,
    marks: (f, y) => {
      const x = crestMm(f);
      return [line([[rightX(input, f) + 4, y - 4], f.at(x, f.surfaceAt(x) + (input.plan.berm?.heightMm ?? 0) * 0.6)])];
    },
  };
}

function downhillLabel(input: PitSectionInput): Label {
  const { plan, ground, units } = input;
  const value = formatQuantity(plan.downhillProudMm.value, 'lengthMm', units);
  const where = ground.fallsTowardsDeg === null ? 'downhill edge' : `downhill, ${compassPoint(ground.fallsTowardsDeg)}`;
  return {
    lines: [...(isCompact(input) ? [value, 'proud'] : [`${value} proud`]), where],
    strong: true,
    wishY: (f) => f.at(0, plan.proudMm.value)[1] - 6,
    marks: (f) => {
      const x = rightX(input, f);
      const [flareY, gradeY] = [f.at(0, plan.proudMm.value)[1], f.at(0, f.gradeAt(f.halfBallMm))[1]];
      return [
        line([f.at(f.halfBallMm + 70, plan.proudMm.value), [x + 4, flareY]]),
        line([f.at(f.halfBallMm, f.gradeAt(f.halfBallMm)), [x + 4, gradeY]]),
        ...measured([x, flareY], [x, gradeY]),
      ];
    },
  };
}

/** Each layer of the ground that begins within what is drawn. */
function layerLabels(input: PitSectionInput): Label[] {
  const { units } = input;
  return layersDrawn(input).map(({ soil, fromMm }): Label => ({
    lines: [`${soilNames[soil]} from`, formatQuantity(fromMm, 'lengthMm', units)],
    strong: false,
    wishY: (f) => f.at(0, -fromMm)[1] + 4,
    marks: (f, y) => [line([[rightX(input, f) + 4, y - 4], f.at(f.edgeMm, f.gradeAt(f.edgeMm) - fromMm)])],
  }));
}

function fillLabel(input: PitSectionInput): Label {
  const { plan } = input;
  const mixed = mixedInFill(plan);
  const lines =
    mixed.length > 0
      ? mixed.flatMap(({ name, sharePct }, i) => [`${i === 0 ? 'fill: ' : '+ '}${formatNumber(sharePct, 0)} %`, name])
      : ['fill: site soil'];
  const middle = (f: Frame): Point =>
    f.at((f.halfBallMm + f.halfBaseMm + (f.halfPitMm - f.halfBaseMm) / 2) / 2, f.baseMm / 2);
  return {
    lines,
    strong: false,
    wishY: (f) => middle(f)[1],
    marks: (f, y) => [line([[rightX(input, f) + 4, y - 4], middle(f)])],
  };
}

/** What of the fill is not site soil, by name. % */
export const mixedInFill = ({ amendments, backfillL }: PitPlan): readonly { name: string; sharePct: number }[] =>
  amendments.each
    .filter(({ inFillL }) => inFillL > 0 && backfillL.value > 0)
    .map(({ material, inFillL }) => ({
      name: fillMaterials[material].name,
      sharePct: (100 * inFillL) / backfillL.value,
    }));

const widest = (labels: readonly Label[]): number =>
  Math.max(0, ...labels.flatMap(({ lines }) => lines.map((text) => textWidthPx(text, textPx))));

/** Gutters as wide as the labels that stand in them. */
export function gutterFor(input: PitSectionInput): Gutter {
  const words = widest(rightLabels(input));
  const left = widest(leftLabels(input)) + besideLabelPx;
  const right = words === 0 ? 12 : words + besideLabelPx;
  // Words too wide to stand under the pit, or that stakes would run through, get a line of their own at the foot.
  const fits = !input.stakes && textWidthPx(baseWord(input), textPx) < input.widthPx - left - right;
  return { left, right, top: 8, bottom: fits ? footPx : footPx + lineGapPx };
}

/** The least height that leaves every label its line. px */
export function leastHeightPx(input: PitSectionInput): number {
  const heights = [leftLabels(input), rightLabels(input)].map((found) =>
    found.reduce((sum, label) => sum + blockPx(label), 0),
  );
  return Math.max(...heights) + firstLineY + gutterFor(input).bottom;
}

const firstLineY = 14;
const blockPx = ({ lines }: Label): number => lines.length * lineGapPx + 3;

/** All words and numbers, in gutters of their own: none can cover the drawing or another. */
export function labels(input: PitSectionInput, f: Frame): Shape[] {
  return [
    ...gutterText(leftLabels(input), f, { x: f.gutter.left - 22, align: 'end' }),
    ...gutterText(rightLabels(input), f, { x: rightX(input, f) + 8, align: 'start' }),
    ...below(input, f),
  ];
}

function gutterText(found: readonly Label[], f: Frame, { x, align }: { x: number; align: 'start' | 'end' }): Shape[] {
  // The strip below belongs to the width.
  const ys = stackApart(
    found.map((label) => ({ wish: label.wishY(f), height: blockPx(label) })),
    { from: firstLineY, to: f.heightPx - f.gutter.bottom + 8 },
  );
  return found.flatMap((label, i) => {
    const y = ys[i] ?? 0;
    return [
      ...label.marks(f, y),
      ...label.lines.map((text, at): Shape => {
        const strong = label.strong && at === 0;
        return {
          kind: 'text',
          role: strong ? 'label' : 'note',
          at: [x, y + at * lineGapPx],
          text,
          align,
          sizePx: textPx,
          strong,
        };
      }),
    ];
  });
}

function below(input: PitSectionInput, f: Frame): Shape[] {
  const { shape } = input.plan;
  const wideY = f.heightPx - f.gutter.bottom + 24;
  const [middle] = f.at(0, 0);
  const across = shape.lengthMm > shape.widthMm ? 'long, along the strip' : 'wide at grade';
  const text = (role: 'label' | 'note', y: number, words: string): Shape => ({
    kind: 'text',
    role,
    at: [within(middle, textWidthPx(words, textPx) / 2, input.widthPx), y],
    text: words,
    align: 'middle',
    sizePx: textPx,
    strong: role === 'label',
  });
  const atFoot = f.gutter.bottom > footPx;
  const underBaseY = f.at(0, f.baseMm - input.plan.fillUnderBallMm)[1] + 16;
  const baseY = atFoot ? f.heightPx - 10 : Math.min(underBaseY, wideY - 8);
  return [
    ...measured([f.at(-f.halfPitMm, 0)[0], wideY], [f.at(f.halfPitMm, 0)[0], wideY]),
    text('label', wideY + 17, `${formatQuantity(shape.lengthMm, 'lengthMm', input.units)} ${across}`),
    text('note', baseY, baseWord(input)),
  ];
}

/** As near to the middle as keeps words of this half width on the drawing. */
const within = (x: number, half: number, widthPx: number): number => Math.max(half, Math.min(widthPx - half, x));

function baseWord({ plan, stock, units }: PitSectionInput): string {
  if (plan.fillUnderBallMm > 0) return `${formatQuantity(plan.fillUnderBallMm, 'lengthMm', units)} put back, firmed`;
  return stock.kind === 'bare_root' ? 'soil cone on firm base' : 'firm, undisturbed base';
}

/** A measuring line with a tick at each end. */
function measured(from: Point, to: Point): Shape[] {
  const upright = from[0] === to[0];
  const tick = ([x, y]: Point): Shape => ({
    kind: 'line',
    role: 'dimension',
    points: upright
      ? [
          [x - 4, y],
          [x + 4, y],
        ]
      : [
          [x, y - 4],
          [x, y + 4],
        ],
  });
  return [{ kind: 'line', role: 'dimension', points: [from, to] }, tick(from), tick(to)];
}
