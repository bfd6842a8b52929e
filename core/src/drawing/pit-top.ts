import type { GroundFacts } from '../ground';
import type { PitPlan, StakePlan } from '../pit';
import { compassPoint, formatQuantity, type UnitSystem } from '../units';
import { textWidthPx, type Drawing, type Point, type Shape } from './shapes';

export interface PitTopInput {
  readonly plan: PitPlan;
  readonly stakes: StakePlan | null;
  readonly ground: GroundFacts;
  /** Bearings the winds come from; `null` where nobody recorded them. */
  readonly windsDeg: readonly number[];
  /** Which way the pavement lies from the spot; `null` where nobody recorded it. A strip runs along it. */
  readonly pavementDeg: number | null;
  /** Where its best face looks; left out where nothing says. */
  readonly bestFaceDeg?: number | null | undefined;
  readonly units: UnitSystem;
  readonly widthPx: number;
}

const textPx = 13;
const linePx = 17;
const roundSteps = 36;
/** A stake is seen at any scale. */
const stakeLeastPx = 5;

/**
 * The pit from above, to scale: outline, ball, mulch ring, stakes, winds. North is up. A strip lies across the drawing,
 * its pavement above it, with an arrow to the north; where nobody recorded which way the pavement lies, words alone say
 * to which side of the compass the stakes stand.
 */
export function pitTop(input: PitTopInput): Drawing {
  const { plan, stakes, ground, windsDeg, pavementDeg, units, widthPx } = input;
  const { widthMm, lengthMm } = plan.shape;
  const strip = typeof ground.stripWidthMm === 'number' ? ground.stripWidthMm : null;
  const reachMm = Math.max(lengthMm, plan.mulchRingMm, 2 * (stakes?.fromTrunkMm ?? 0) + 200) / 2 + 120;
  const neededMm = Math.max(widthMm, plan.mulchRingMm, 2 * (stakes?.fromTrunkMm ?? 0)) / 2 + 200;
  // Kerbs far from the pit say nothing about it, and would make it small.
  const edgeMm = strip !== null && strip / 2 < 1.3 * neededMm ? strip / 2 : null;
  /** By how much the compass is turned against the drawing; `null` where that is not known. */
  const turnDeg = edgeMm === null ? 0 : pavementDeg === null ? null : -pavementDeg;
  const upMm = Math.max(neededMm, edgeMm === null ? 0 : edgeMm + 120);
  const caption = captionOf(input);
  const room = { side: 14, top: 22, bottom: 6 + linePx * (caption.length + 1) };
  const scale = Math.min((widthPx - 2 * room.side) / (2 * reachMm), 260 / (2 * upMm));
  const heightPx = Math.round(room.top + 2 * upMm * scale + room.bottom);
  const [cx, cy] = [widthPx / 2, room.top + upMm * scale];
  const at = (xMm: number, yMm: number): Point => [cx + xMm * scale, cy - yMm * scale];
  const round = (radiusMm: number, xMm = 0, yMm = 0): Point[] =>
    Array.from({ length: roundSteps }, (_, i) => {
      const turn = (2 * Math.PI * i) / roundSteps;
      return at(xMm + radiusMm * Math.cos(turn), yMm + radiusMm * Math.sin(turn));
    });
  const ring = round(plan.mulchRingMm / 2).map(([x, y]): Point => {
    if (strip === null) return [x, y];
    const edge = (strip / 2) * scale;
    return [x, Math.min(cy + edge, Math.max(cy - edge, y))];
  });
  const edges: Shape[] =
    edgeMm === null
      ? []
      : [1, -1].map((side) => ({
          kind: 'line',
          role: 'grade',
          points: [at(-reachMm, side * edgeMm), at(reachMm, side * edgeMm)],
        }));
  const shapes: Shape[] = [
    { kind: 'polygon', role: 'mulch', points: ring },
    { kind: 'polygon', role: 'backfill', points: stadium(widthMm, lengthMm, at) },
    { kind: 'polygon', role: 'ball', points: round(plan.rootsWidthMm / 2) },
    { kind: 'polygon', role: 'trunk', points: round(Math.max(25, plan.rootsWidthMm / 16)) },
    {
      kind: 'line',
      role: 'pit',
      points: [...stadium(widthMm, lengthMm, at), stadium(widthMm, lengthMm, at)[0] ?? at(0, 0)],
    },
    ...edges,
    ...stakeMarks(stakes, turnDeg, at, (x, y) => round(Math.max(38, stakeLeastPx / scale), x, y)),
    ...(turnDeg === null
      ? []
      : windMarks(
          windsDeg.map((deg) => deg + turnDeg),
          { at, reachMm, upMm },
        )),
    ...faceMark(input, turnDeg, at),
    ...(turnDeg === null || edgeMm === null ? [] : northMark(turnDeg, [room.side + 14, room.top])),
    ...caption.map((line, i) =>
      text('label', [widthPx / 2, heightPx - 7 - linePx * (caption.length - i)], line, 'middle', true),
    ),
    text(
      'note',
      [widthPx / 2, heightPx - 7],
      seenFrom(stakes, edgeMm === null ? 'open' : turnDeg === null ? 'strip' : 'pavement'),
      'middle',
    ),
  ];
  return {
    widthPx,
    heightPx,
    shapes,
    description: `The pit from above: ${words(input)}, ball ${formatQuantity(plan.rootsWidthMm, 'lengthMm', units)} across.`,
  };
}

/** Which way the drawing lies; where nobody recorded the winds it says that a stake's side is not known. */
function seenFrom(stakes: StakePlan | null, lies: 'open' | 'strip' | 'pavement'): string {
  if (lies === 'strip') return 'from above, along the strip';
  if (lies === 'pavement') return 'from above, the pavement at the top';
  if (stakes === null || stakes.bearingsDeg.length > 0) return 'from above, north up';
  return `from above; the site shows where the ${stakes.stakes === 1 ? 'stake stands' : 'stakes stand'}`;
}

/** The words under the drawing, on as many lines as they need. */
function captionOf(input: PitTopInput): string[] {
  const lines: string[] = [];
  for (const part of parts(input)) {
    const longer = lines.length > 0 ? `${lines.at(-1)}, ${part}` : part;
    // Bold letters run wider than they are measured.
    if (lines.length > 0 && textWidthPx(longer, textPx) * 1.1 <= input.widthPx) lines[lines.length - 1] = longer;
    else lines.push(part);
  }
  return lines;
}

const words = (input: PitTopInput): string => parts(input).join(', ');

function parts({ plan, stakes, units, windsDeg, bestFaceDeg = null }: PitTopInput): string[] {
  const mm = (value: number) => formatQuantity(value, 'lengthMm', units);
  const { widthMm, lengthMm } = plan.shape;
  const pit = lengthMm > widthMm + 1 ? `${mm(widthMm)} by ${mm(lengthMm)}` : `${mm(widthMm)} across`;
  const face = bestFaceDeg === null ? [] : [`best face to ${compassPoint(bestFaceDeg)}`];
  if (!stakes) return [pit, ...face, 'no stake'];
  const to = stakes.bearingsDeg.length > 0 ? ` to ${stakes.bearingsDeg.map(compassPoint).join(' and ')}` : '';
  const stood = `${stakes.stakes === 1 ? '1 stake' : `${stakes.stakes} stakes`}${to}`;
  return [
    pit,
    ...face,
    stood,
    ...(windsDeg.length > 0 ? [`wind from ${windsDeg.map(compassPoint).join(' and ')}`] : []),
  ];
}

function text(
  role: 'label' | 'note',
  at: Point,
  words_: string,
  align: 'start' | 'middle' | 'end',
  strong = false,
): Shape {
  return { kind: 'text', role, at, text: words_, align, sizePx: textPx, strong };
}

function stadium(widthMm: number, lengthMm: number, at: (x: number, y: number) => Point): Point[] {
  const [r, half] = [widthMm / 2, (lengthMm - widthMm) / 2];
  return Array.from({ length: roundSteps }, (_, i) => {
    const turn = (2 * Math.PI * (i + 0.5)) / roundSteps;
    return at(Math.sign(Math.cos(turn)) * half + r * Math.cos(turn), r * Math.sin(turn));
  });
}

/** Stakes where the winds ask for them; side by side where nobody recorded the winds, or which way the strip runs. */
function stakeMarks(
  stakes: StakePlan | null,
  turnDeg: number | null,
  at: (x: number, y: number) => Point,
  mark: (xMm: number, yMm: number) => Point[],
): Shape[] {
  if (!stakes) return [];
  const bearings =
    turnDeg !== null && stakes.bearingsDeg.length > 0
      ? stakes.bearingsDeg.map((deg) => deg + turnDeg)
      : Array.from({ length: stakes.stakes }, (_, i) => 90 + (360 / stakes.stakes) * i);
  return bearings.flatMap((deg): Shape[] => {
    const turn = (deg * Math.PI) / 180;
    const [x, y] = [Math.sin(turn) * stakes.fromTrunkMm, Math.cos(turn) * stakes.fromTrunkMm];
    return [
      { kind: 'line', role: 'tie', points: [at(0, 0), at(x, y)] },
      { kind: 'polygon', role: 'stake', points: mark(x, y) },
    ];
  });
}

/** A small arrow to the north, where north is not up. */
function northMark(turnDeg: number, [x, y]: Point): Shape[] {
  const turn = (turnDeg * Math.PI) / 180;
  const along = (px: number, side = 0): Point => [
    x + Math.sin(turn) * px + Math.cos(turn) * side,
    y - Math.cos(turn) * px + Math.sin(turn) * side,
  ];
  return [
    { kind: 'line', role: 'dimension', points: [along(-10), along(10)] },
    { kind: 'line', role: 'dimension', points: [along(4, 4), along(10), along(4, -4)] },
    text('note', [x + 16, y + 4], 'N', 'start', true),
  ];
}

/** An arrow from the trunk to where the best face looks, over the ball. */
function faceMark(
  { plan, bestFaceDeg = null }: PitTopInput,
  turnDeg: number | null,
  at: (x: number, y: number) => Point,
): Shape[] {
  if (bestFaceDeg === null || turnDeg === null) return [];
  const turn = ((bestFaceDeg + turnDeg) * Math.PI) / 180;
  const far = plan.rootsWidthMm / 2;
  const along = (mm: number, side = 0): Point =>
    at(Math.sin(turn) * mm + Math.cos(turn) * side, Math.cos(turn) * mm - Math.sin(turn) * side);
  const barb = far * 0.22;
  return [
    { kind: 'line', role: 'face', points: [along(0), along(far)] },
    { kind: 'line', role: 'face', points: [along(far - barb, barb), along(far), along(far - barb, -barb)] },
  ];
}

/** An arrow for each wind, blowing inward. */
function windMarks(
  windsDeg: readonly number[],
  { at, reachMm, upMm }: { at: (x: number, y: number) => Point; reachMm: number; upMm: number },
): Shape[] {
  const far = Math.min(reachMm, upMm) * 0.98;
  return windsDeg.flatMap((deg): Shape[] => {
    const turn = (deg * Math.PI) / 180;
    const along = (mm: number, side = 0): Point =>
      at(Math.sin(turn) * mm + Math.cos(turn) * side, Math.cos(turn) * mm - Math.sin(turn) * side);
    return [
      { kind: 'line', role: 'dimension', points: [along(far), along(far * 0.72)] },
      { kind: 'line', role: 'dimension', points: [along(far * 0.79, 45), along(far * 0.72), along(far * 0.79, -45)] },
    ];
  });
}
