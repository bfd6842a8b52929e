import type { PlantingStep, StepPicture } from '../pit';
import { bermPlaces, mulchProfiles, optionOf, rootCorrections, wrapRemovals } from '../practice';
import { compassPoint, formatQuantity, type UnitSystem } from '../units';
import { line, polygon, type Drawing, type Point, type Shape } from './shapes';

const widthPx = 168;
const heightPx = 104;
const textPx = 11;

const text = (at: Point, words: string, align: 'start' | 'middle' | 'end' = 'start'): Shape => ({
  kind: 'text',
  role: 'label',
  at,
  text: words,
  align,
  sizePx: textPx,
  strong: true,
});
const round = (cx: number, cy: number, r: number): Point[] =>
  Array.from({ length: 28 }, (_, i) => {
    const turn = (2 * Math.PI * i) / 28;
    return [cx + r * Math.cos(turn), cy + r * Math.sin(turn)];
  });
const arrow = (from: Point, to: Point): Shape[] => {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const length = Math.hypot(dx, dy) || 1;
  const [ux, uy] = [dx / length, dy / length];
  const barb = (side: number): Point => [to[0] - 7 * ux + side * 4 * uy, to[1] - 7 * uy - side * 4 * ux];
  return [line('dimension', [from, to]), line('dimension', [barb(1), to, barb(-1)])];
};

/** What a step's numbers say, in the reader's units. */
interface Facts {
  readonly number: (name: string) => number;
  readonly word: (name: string) => string;
  readonly mm: (name: string) => string;
}
type Draw = (facts: Facts) => { shapes: Shape[]; description: string };

const [cx, groundY] = [84, 44];
const trunk = (topY: number, flareY: number): Shape =>
  polygon('trunk', [
    [cx - 5, topY],
    [cx - 5, flareY - 10],
    [cx - 13, flareY],
    [cx + 13, flareY],
    [cx + 5, flareY - 10],
    [cx + 5, topY],
  ]);
const ground = (y = groundY): Shape =>
  polygon('ground', [
    [4, y],
    [widthPx - 4, y],
    [widthPx - 4, heightPx - 4],
    [4, heightPx - 4],
  ]);
const ballAt = (topY: number, bottomY: number): Shape =>
  polygon('ball', [
    [cx - 34, topY],
    [cx + 34, topY],
    [cx + 28, bottomY],
    [cx - 28, bottomY],
  ]);
const rootsAt = (y: number): Shape[] =>
  [-1, 1].map((side) =>
    line('root', [
      [cx, y],
      [cx + side * 16, y + 7],
      [cx + side * 31, y + 11],
    ]),
  );

const flare: Draw = ({ number, mm }) => {
  const [scraped, left] = [number('surplusMm') > 0, number('leftMm') > 0];
  const flareY = scraped || left ? 52 : 36;
  const surplus = polygon('surplus', [
    [cx - 34, 34],
    [cx + 34, 34],
    [cx + 34, flareY],
    [cx - 34, flareY],
  ]);
  return {
    shapes: [
      ballAt(flareY, 96),
      ...(scraped || left ? [surplus] : []),
      trunk(4, flareY),
      ...rootsAt(flareY),
      line('flare', [
        [cx - 50, flareY],
        [cx + 50, flareY],
      ]),
      ...(scraped
        ? [...arrow([cx + 62, 30], [cx + 36, 42]), text([widthPx - 4, 22], `− ${mm('surplusMm')}`, 'end')]
        : []),
      text([4, flareY + 4], 'flare'),
    ],
    description: scraped
      ? `Scrape ${mm('surplusMm')} off the ball until the flare and the first structural roots show.`
      : 'The flare, where the trunk widens into the first structural roots, at the top of the ball.',
  };
};

const roots: Draw = ({ word, number }) => {
  const { cuts: kinds } = optionOf(rootCorrections, word('correction'));
  const [ballX, ballY, r] = [cx, 52, 38];
  const ring = Array.from({ length: 3 }, (_, i) =>
    line('root', [...round(ballX, ballY, r - 4 - 7 * i), round(ballX, ballY, r - 4 - 7 * i)[0] ?? [0, 0]]),
  );
  const count = Math.max(2, number('cuts'));
  const cuts = Array.from({ length: count }, (_, i) => (360 / count) * i).map((deg): Shape => {
    const turn = ((deg + 45) * Math.PI) / 180;
    const at = (k: number): Point => [ballX + k * Math.cos(turn), ballY + k * Math.sin(turn)];
    return line('flare', [at(r - 16), at(r + 6)]);
  });
  const shaved = line('flare', [...round(ballX, ballY, r - 7), round(ballX, ballY, r - 7)[0] ?? [0, 0]]);
  const [shave, slit, base] = (['shave', 'slits', 'base'] as const).map((kind) =>
    (kinds as readonly string[]).includes(kind),
  );
  return {
    shapes: [
      polygon('ball', round(ballX, ballY, r)),
      ...ring,
      polygon('trunk', round(ballX, ballY, 6)),
      ...(shave ? [shaved] : []),
      ...(slit ? cuts : []),
      text([4, 14], base ? 'from above; base off' : 'from above'),
    ],
    description: `The ball from above: circling roots are cut where the dashed lines run${base ? ', and the base is sliced off' : ''}.`,
  };
};

const depth: Draw = ({ mm }) => ({
  shapes: [
    ground(),
    polygon('backfill', [
      [26, groundY],
      [142, groundY],
      [122, 92],
      [46, 92],
    ]),
    line('stake', [
      [14, groundY - 4],
      [154, groundY - 4],
    ]),
    ...arrow([cx, groundY - 2], [cx, 91]),
    text([cx + 8, 74], mm('depthMm')),
    text([cx, groundY - 12], 'straight edge', 'middle'),
  ],
  description: `A straight edge across the pit and a rule down to its base: ${mm('depthMm')}.`,
});

const cone: Draw = () => ({
  shapes: [
    ground(),
    polygon('backfill', [
      [34, groundY],
      [134, groundY],
      [134, 92],
      [34, 92],
    ]),
    polygon('berm', [
      [cx - 34, 92],
      [cx, 50],
      [cx + 34, 92],
    ]),
    trunk(6, 46),
    ...[-1, -0.5, 0.5, 1].map((side) =>
      line('root', [
        [cx, 47],
        [cx + side * 40, 86],
      ]),
    ),
  ],
  description: 'Bare roots spread over a cone of soil on the firm base, outward and down.',
});

const unwrap: Draw = ({ word }) => {
  const { offShare } = optionOf(wrapRemovals, word('wrap'));
  const keep = offShare === 0 ? 0 : 34 + 62 * offShare;
  return {
    shapes: [
      ballAt(34, 96),
      trunk(4, 34),
      ...[cx - 22, cx, cx + 22].map((x) =>
        line('tie', [
          [x, Math.max(34, keep)],
          [x, 95],
        ]),
      ),
      line('flare', [
        [cx - 46, keep],
        [cx + 46, keep],
      ]),
      text([4, 26], offShare === 1 ? 'all of it off' : offShare === 0 ? 'ties off' : 'off down to here'),
    ],
    description: 'Wrap, wire and strings come off down to the dashed line.',
  };
};

const stakes: Draw = ({ number, word, mm }) => {
  const bearings = word('bearings').split(' ').filter(Boolean).map(Number);
  const all =
    bearings.length > 0
      ? bearings
      : Array.from({ length: number('stakes') }, (_, i) => 90 + (360 / Math.max(1, number('stakes'))) * i);
  const [x0, y0, r] = [cx, 54, 26];
  const spots = all.map((deg): Point => {
    const turn = (deg * Math.PI) / 180;
    return [x0 + (r + 9) * Math.sin(turn), y0 - (r + 9) * Math.cos(turn)];
  });
  return {
    shapes: [
      polygon('backfill', round(x0, y0, 46)),
      polygon('ball', round(x0, y0, r)),
      ...spots.map((spot) => line('tie', [[x0, y0], spot])),
      polygon('trunk', round(x0, y0, 5)),
      ...spots.map(([x, y]) => polygon('stake', round(x, y, 4.5))),
      text([4, 14], bearings.length > 0 ? 'N up' : 'to windward'),
      text([widthPx - 4, 14], `tie ${mm('heightMm')}`, 'end'),
    ],
    description: `Stakes, ${number('stakes')} of them, outside the ball, tied at ${mm('heightMm')}.`,
  };
};

const berm: Draw = ({ mm, word }) => {
  const at = optionOf(bermPlaces, word('where')).at ?? 'ball';
  const out = at === 'pit' ? 62 : 40;
  return {
    shapes: [
      ground(60),
      ballAt(52, 98),
      trunk(8, 52),
      ...[-1, 1].map((side) =>
        polygon('berm', [
          [cx + side * (out - 12), 60],
          [cx + side * out, 38],
          [cx + side * (out + 14), 60],
        ]),
      ),
      text([cx + out - 4, 32], mm('heightMm')),
    ],
    description: `A ring of soil ${mm('heightMm')} high at the edge of the ${at}.`,
  };
};

const mulch: Draw = ({ mm, word }) => {
  const { tapers } = optionOf(mulchProfiles, word('profile'));
  const inner: readonly (readonly [number, number])[] = tapers
    ? [
        [26, 65],
        [44, 54],
      ]
    : [[21, 54]];
  return {
    shapes: [
      ground(70),
      trunk(6, 66),
      ...[-1, 1].map((side) =>
        polygon('mulch', [
          [cx + side * 20, 70],
          ...inner.map(([x, y]): Point => [cx + side * x, y]),
          [cx + side * 68, 54],
          [cx + side * 76, 70],
        ]),
      ),
      ...arrow([cx + 40, 40], [cx + 16, 62]),
      text([cx + 34, 36], mm('gapMm')),
      text([8, 48], mm('thicknessMm')),
    ],
    description: `Mulch ${mm('thicknessMm')} thick, ${tapers ? 'thin over the ball' : 'even'}, ${mm('gapMm')} clear of the trunk.`,
  };
};

const mound: Draw = ({ mm, number }) => ({
  shapes: [
    ground(78),
    polygon('backfill', [
      [4, 78],
      [cx - 34, 50],
      [cx + 34, 50],
      [164, 78],
    ]),
    ballAt(46, 100),
    trunk(6, 46),
    ...arrow([cx + 44, 78], [cx + 44, 50]),
    text([widthPx - 4, 44], mm('heightMm'), 'end'),
    text([4, 66], `1 in ${number('perHeight')}`),
  ],
  description: `Soil drawn up to the side of the ball, ${mm('heightMm')} high there, falling one in ${number('perHeight')}.`,
});

const face: Draw = ({ number }) => {
  const turn = (number('bestFaceDeg') * Math.PI) / 180;
  const [x0, y0, r] = [cx, 56, 26];
  const at = (k: number): Point => [x0 + k * Math.sin(turn), y0 - k * Math.cos(turn)];
  return {
    shapes: [
      polygon('backfill', round(x0, y0, 42)),
      polygon('ball', round(x0, y0, r)),
      polygon('trunk', round(x0, y0, 5)),
      ...arrow(at(8), at(40)).map((one) => ({ ...one, role: 'face' as const })),
      text([4, 14], 'N up'),
      text([widthPx - 4, 14], `face ${compassPoint(number('bestFaceDeg'))}`, 'end'),
    ],
    description: `The tree from above, its best face to the ${compassPoint(number('bestFaceDeg'))}.`,
  };
};

const draws: Readonly<Record<StepPicture, Draw>> = {
  flare,
  roots,
  depth,
  cone,
  unwrap,
  stakes,
  berm,
  mulch,
  mound,
  face,
};

/** The small picture of a step, where one says it better than words; not to scale but for its numbers. */
export function stepPicture({ picture, facts }: PlantingStep, units: UnitSystem): Drawing | null {
  if (picture === null) return null;
  const number = (name: string) => Number(facts[name] ?? 0);
  const drawn = draws[picture]({
    number,
    word: (name) => String(facts[name] ?? ''),
    mm: (name) => formatQuantity(number(name), 'lengthMm', units),
  });
  return { widthPx, heightPx, ...drawn };
}
