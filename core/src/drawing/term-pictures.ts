import { glossary, type TermCode } from '../wording';
import type { Drawing, Point, Role, Shape } from './shapes';

const width = 150;
const height = 120;
/** Where the surface lies. */
const ground: number = 70;
const middle = width / 2;

const polygon = (role: Role, ...points: Point[]): Shape => ({ kind: 'polygon', role, points });
const line = (role: Role, ...points: Point[]): Shape => ({ kind: 'line', role, points });
const word = (text: string, at: Point, align: 'start' | 'middle' | 'end' = 'start'): Shape => ({
  ...{ kind: 'text', role: 'label', sizePx: 11, strong: true },
  ...{ text, at, align },
});

const earth = polygon('ground', [6, ground], [144, ground], [144, 114], [6, 114]);
/** A trunk that widens into its flare at `foot`. */
const trunk = (foot = ground): Shape =>
  polygon(
    'trunk',
    [middle - 5, 8],
    [middle + 5, 8],
    [middle + 6, foot - 10],
    [middle + 14, foot],
    [middle - 14, foot],
    [middle - 6, foot - 10],
  );
const ball = (top: number): Shape =>
  polygon('ball', [middle - 30, top], [middle + 30, top], [middle + 24, top + 34], [middle - 24, top + 34]);
const roots = (top: number): Shape[] =>
  [-1, 1].flatMap((side) => [
    line('root', [middle + 12 * side, top + 2], [middle + 27 * side, top + 10]),
    line('root', [middle + 8 * side, top + 4], [middle + 18 * side, top + 24]),
  ]);
/** A measure between two heights, its word beside it. */
const measured = (x: number, from: number, to: number): Shape[] => [
  line('dimension', [x, from], [x, to]),
  line('dimension', [x - 4, from], [x + 4, from]),
  line('dimension', [x - 4, to], [x + 4, to]),
];
const ring = (role: Role, radius: number, fromDeg = 0, toDeg = 360): Shape =>
  line(
    role,
    ...Array.from({ length: 25 }, (_, i): Point => {
      const turn = ((fromDeg + ((toDeg - fromDeg) * i) / 24 - 90) * Math.PI) / 180;
      return [middle + radius * Math.cos(turn), 60 + radius * Math.sin(turn)];
    }),
  );
const disc = (role: Role, radius: number): Shape => {
  const { points } = ring(role, radius) as { points: readonly Point[] };
  return polygon(role, ...points);
};

/** What is drawn of a term; nothing where a drawing says no more than its words. */
const pictures: Partial<Readonly<Record<TermCode, () => readonly Shape[]>>> = {
  caliper: () => [
    earth,
    trunk(),
    ...measured(30, 32, ground),
    word('150', [26, 55], 'end'),
    line('flare', [middle - 24, 32], [middle + 24, 32]),
    line('dimension', [middle - 6, 26], [middle - 6, 38]),
    line('dimension', [middle + 6, 26], [middle + 6, 38]),
  ],
  flare: () => [
    polygon('ground', [6, ground], [66, ground], [66, 114], [6, 114]),
    polygon('trunk', [32, 8], [40, 8], [41, 60], [49, ground], [23, ground], [31, 60]),
    line('flare', [14, ground], [58, ground]),
    polygon('ground', [84, ground - 16], [144, ground - 16], [144, 114], [84, 114]),
    polygon('trunk', [110, 8], [118, 8], [118, ground - 16], [110, ground - 16]),
    word('in sight', [36, 108], 'middle'),
    word('buried', [114, 108], 'middle'),
  ],
  grade: () => [earth, trunk(), line('flare', [6, ground], [144, ground])],
  proud: () => [
    earth,
    ball(ground - 10),
    trunk(ground - 10),
    line('flare', [middle - 40, ground - 10], [middle + 40, ground - 10]),
    ...measured(28, ground - 10, ground),
  ],
  ball: () => [
    earth,
    ball(ground),
    ...roots(ground),
    trunk(),
    ...measured(30, ground, ground + 34),
    line('dimension', [middle - 30, 110], [middle + 30, 110]),
  ],
  berm: () => [
    earth,
    ball(ground),
    ...[-1, 1].map((side) =>
      polygon(
        'berm',
        [middle + 30 * side, ground],
        [middle + 38 * side, ground - 14],
        [middle + 44 * side, ground - 14],
        [middle + 54 * side, ground],
      ),
    ),
    polygon(
      'moisture_dose',
      [middle - 33, ground - 7],
      [middle - 8, ground - 7],
      [middle - 14, ground],
      [middle - 31, ground],
    ),
    polygon(
      'moisture_dose',
      [middle + 8, ground - 7],
      [middle + 33, ground - 7],
      [middle + 31, ground],
      [middle + 14, ground],
    ),
    trunk(),
  ],
  mulch_ring: () => [
    earth,
    ...[-1, 1].map((side) =>
      polygon(
        'mulch',
        [middle + 20 * side, ground],
        [middle + 26 * side, ground - 9],
        [middle + 56 * side, ground - 9],
        [middle + 62 * side, ground],
      ),
    ),
    trunk(),
    line('dimension', [middle + 12, ground - 14], [middle + 22, ground - 14]),
  ],
  percolation: () => [
    earth,
    polygon('pit', [50, ground], [100, ground], [100, 108], [50, 108]),
    polygon('moisture_dose', [51, 88], [99, 88], [99, 107], [51, 107]),
    line('tie', [51, 78], [99, 78]),
    line('dimension', [106, 78], [106, 88]),
    word('mm/h', [110, 87]),
  ],
  probe: () => [
    earth,
    ball(ground),
    trunk(),
    line('dimension', [96, 20], [84, ground + 32]),
    line('tie', [87, ground + 12], [84, ground + 32]),
    line('dimension', [90, 20], [102, 20]),
  ],
  circling: () => [disc('ball', 44), disc('trunk', 8), ring('root', 40, 20, 300), ring('root', 37, 60, 210)],
  girdling: () => [
    disc('dial_ground', 52),
    disc('trunk', 24),
    ...[20, 100, 190, 280].map((deg) => {
      const turn = (deg * Math.PI) / 180;
      const at = (r: number): Point => [middle + r * Math.cos(turn), 60 + r * Math.sin(turn)];
      return line('root', at(22), at(50));
    }),
    line('dial_pressing', [middle - 46, 96], [middle - 18, 76], [middle + 22, 74], [middle + 48, 88]),
    ring('dial_pressed', 24, 130, 230),
  ],
  staged: () => [
    disc('dial_ground', 52),
    disc('trunk', 20),
    line('root', [middle - 46, 92], [middle - 14, 78], [middle + 30, 80]),
    line('root', [middle - 44, 26], [middle - 10, 42], [middle + 34, 34]),
    line('flare', [middle - 22, 74], [middle - 16, 88]),
    line('flare', [middle - 22, 28], [middle - 16, 44]),
    word('1', [middle - 34, 78], 'middle'),
    word('2', [middle - 34, 44], 'middle'),
  ],
  collar: () => [
    polygon(
      'ground',
      [6, ground],
      [40, ground],
      [54, 88],
      [96, 88],
      [110, ground],
      [144, ground],
      [144, 114],
      [6, 114],
    ),
    line('root', [middle - 12, 86], [middle - 34, 104]),
    line('root', [middle + 12, 86], [middle + 34, 104]),
    polygon(
      'trunk',
      [middle - 6, 8],
      [middle + 6, 8],
      [middle + 7, 76],
      [middle + 18, 88],
      [middle - 18, 88],
      [middle - 7, 76],
    ),
  ],
};

/** A small drawing of a term; `null` where words say it all. */
export function termPicture(code: TermCode): Drawing | null {
  const shapes = pictures[code]?.();
  return shapes ? { widthPx: width, heightPx: height, shapes, description: glossary[code].name } : null;
}
