import type { LookSign } from '../inspect';
import { lookSignNames } from '../wording';
import { line, polygon, type Drawing, type Point, type Role, type Shape } from './shapes';

const side = 96;
const ground = 84;
const degrees = Math.PI / 180;

/** A point so far from another, by a direction: 0 up, clockwise. */
const from = ([x, y]: Point, px: number, deg: number): Point => [
  x + px * Math.sin(deg * degrees),
  y - px * Math.cos(deg * degrees),
];

interface Leaf {
  /** Where the blade begins. */
  readonly foot: Point;
  /** Which way its tip points: 0 up, clockwise. */
  readonly deg: number;
  readonly px: number;
}

/** Half the width of a blade along its length, as shares of the length. */
const blade: readonly Point[] = [
  [0, 0],
  [0.12, 0.14],
  [0.3, 0.25],
  [0.5, 0.27],
  [0.7, 0.2],
  [0.86, 0.1],
  [1, 0],
];
const edge = ({ foot, deg, px }: Leaf, wide = 1): Point[] => {
  const at = (share: number, half: number): Point => from(from(foot, px * share, deg), px * half * wide, deg + 90);
  return [
    ...blade.map(([share, half]) => at(share, half)),
    ...blade.map(([share, half]) => at(share, -half)).reverse(),
  ];
};
const midrib = ({ foot, deg, px }: Leaf): Shape => line('vein', [foot, from(foot, px * 0.92, deg)]);
/** Side veins from the rib outwards and up. */
const veins = (leaf: Leaf): Shape[] =>
  [0.2, 0.38, 0.56, 0.72].flatMap((share) => {
    const on = from(leaf.foot, leaf.px * share, leaf.deg);
    const long = leaf.px * 0.24 * (1 - Math.abs(share - 0.45));
    return [-50, 50].map((turn) => line('vein', [on, from(on, long, leaf.deg + turn)]));
  });
const leafOf = (role: Role, leaf: Leaf): Shape[] => [polygon(role, edge(leaf)), midrib(leaf)];

const big: Leaf = { foot: [48, 82], deg: 0, px: 74 };
const stalk = line('twig', [
  [48, 93],
  [48, 80],
]);
const trunk = (top = 46): Shape =>
  polygon('trunk', [
    [45, top],
    [51, top],
    [53, ground - 6],
    [57, ground],
    [39, ground],
    [43, ground - 6],
  ]);
const soil = polygon('ground', [
  [4, ground],
  [92, ground],
  [92, 93],
  [4, 93],
]);
const round = (role: Role, [x, y]: Point, px: number, tall = 1): Shape =>
  polygon(
    role,
    Array.from({ length: 16 }, (_, i): Point => {
      const [dx, dy] = from([0, 0], px, i * 22.5);
      return [x + dx, y + dy * tall];
    }),
  );
const crown = round('leaf_green', [48, 32], 26);
const tree: readonly Shape[] = [soil, trunk(), crown];
const branches: readonly Shape[] = [
  line('twig', [
    [48, 52],
    [48, 10],
  ]),
  ...[
    [44, -45, 26],
    [44, 45, 26],
    [32, -38, 22],
    [32, 38, 22],
    [22, -32, 14],
    [22, 32, 14],
  ].map(([y = 0, deg = 0, px = 0]) => line('twig', [[48, y], from([48, y], px, deg)])),
];
/** Leaves here and there on bare branches. */
const fewLeaves = (at: readonly Point[], role: Role = 'leaf_green'): Shape[] =>
  at.map((foot, i) => polygon(role, edge({ foot, deg: i % 2 ? 40 : -40, px: 13 })));
const bent = (deg: number, foot: Point): Shape[] => [
  line('twig', [[48, 14], from(foot, 6, deg + 180), foot]),
  ...leafOf('leaf_green', { foot, deg, px: 40 }),
];
/** From a centre round about, jagged. */
const jagged = (leaf: Leaf): Point[] => {
  const [outer, inner] = [edge(leaf), edge(leaf, 0.62)];
  return outer.map((point, i) => (i % 2 || i === 0 ? (inner[i] ?? point) : point));
};

const shapesOf: Readonly<Record<LookSign, readonly Shape[]>> = {
  wilting: [
    line('twig', [
      [6, 14],
      [90, 14],
    ]),
    ...bent(172, [30, 30]),
    ...bent(188, [66, 30]),
  ],
  pale_leaves: [stalk, ...leafOf('leaf_pale', big)],
  yellow_between_veins: [stalk, ...leafOf('leaf_pale', big), ...veins(big)],
  scorched_edges: [stalk, polygon('leaf_brown', edge(big)), polygon('leaf_green', jagged(big)), midrib(big)],
  small_leaves: [
    polygon('leaf_usual', edge({ foot: [30, 82], deg: 0, px: 70 })),
    ...leafOf('leaf_green', { foot: [70, 82], deg: 0, px: 32 }),
  ],
  thin_crown: [
    soil,
    trunk(),
    ...branches,
    ...fewLeaves([
      [30, 26],
      [64, 20],
      [40, 14],
      [60, 36],
    ]),
  ],
  leafless: [soil, trunk(), ...branches],
  shedding: [
    soil,
    trunk(),
    round('leaf_green', [48, 26], 20),
    ...fewLeaves(
      [
        [20, 54],
        [74, 60],
        [30, 74],
        [70, 80],
        [14, 82],
      ],
      'leaf_turned',
    ),
  ],
  early_colour: [
    soil,
    trunk(),
    crown,
    polygon('leaf_turned', [
      [48, 6],
      [62, 10],
      [72, 22],
      [74, 34],
      [58, 30],
      [50, 20],
    ]),
    ...fewLeaves(
      [
        [34, 40],
        [44, 30],
        [56, 48],
      ],
      'leaf_turned',
    ),
  ],
  sprouts_at_base: [
    ...tree,
    ...[-38, -22, 24, 40].flatMap((deg) => {
      const tip = from([48, ground], 20, deg);
      return [line('twig', [[48, ground], tip]), polygon('leaf_green', edge({ foot: tip, deg, px: 12 }))];
    }),
  ],
  leader_lost: [
    soil,
    trunk(40),
    line('twig', [
      [48, 42],
      [30, 12],
    ]),
    line('twig', [
      [48, 42],
      [66, 12],
    ]),
    line('twig', [
      [44, 36],
      [48, 28],
      [52, 36],
    ]),
    round('leaf_green', [26, 22], 14),
    round('leaf_green', [70, 22], 14),
  ],
  leans: [
    soil,
    polygon('trunk', [
      [66, 42],
      [72, 44],
      [55, ground],
      [41, ground],
    ]),
    round('leaf_green', [70, 28], 22),
    line('plumb', [
      [48, ground],
      [48, 8],
    ]),
  ],
  trunk_wound: [
    soil,
    polygon('trunk', [
      [34, 4],
      [62, 4],
      [64, ground],
      [32, ground],
    ]),
    polygon('leaf_pale', [
      [44, 30],
      [54, 36],
      [56, 54],
      [50, 64],
      [42, 52],
    ]),
  ],
  broken_branches: [
    soil,
    trunk(20),
    line('twig', [
      [48, 40],
      [24, 22],
    ]),
    line('twig', [
      [48, 46],
      [64, 36],
    ]),
    line('twig', [
      [64, 36],
      [80, 66],
    ]),
    round('leaf_green', [22, 18], 12),
    round('leaf_green', [80, 72], 11),
  ],
  pests: [
    stalk,
    ...leafOf('leaf_green', big),
    round('hole', [38, 52], 4),
    round('hole', [56, 40], 5),
    round('hole', [44, 30], 3),
    round('bug', [57, 62], 5, 0.7),
    line('bug', [
      [52, 58],
      [62, 66],
    ]),
    line('bug', [
      [62, 58],
      [52, 66],
    ]),
  ],
  traffic_on_roots: [
    ...tree,
    ...[20, 76].flatMap((x) => [round('bug', [x, 88], 4, 0.7), round('bug', [x + 8, 90], 3, 0.7)]),
    round('bug', [74, 74], 10),
    round('ground', [74, 74], 4),
  ],
  works_nearby: [
    ...tree,
    ...[66, 78, 90].map((x) =>
      polygon('stake', [
        [x - 2, 60],
        [x + 2, 60],
        [x + 2, ground],
        [x - 2, ground],
      ]),
    ),
    polygon('leaf_turned', [
      [64, 64],
      [92, 64],
      [92, 70],
      [64, 70],
    ]),
  ],
};

/** What may be seen on a tree, as a picture to choose by: leaves as they hang, pale or brown, crowns, trunk, ground. */
export function signPicture(sign: LookSign): Drawing {
  const known = drawn.get(sign);
  if (known) return known;
  const drawing = { widthPx: side, heightPx: side, shapes: shapesOf[sign], description: lookSignNames[sign] };
  drawn.set(sign, drawing);
  return drawing;
}

/** Always the same one: whoever asks again with each tap paints nothing anew. */
const drawn = new Map<LookSign, Drawing>();
