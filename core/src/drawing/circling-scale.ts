import type { Drawing, Point, Shape } from './shapes';

/** Shares of the ball's face that circling roots cover, as the scale shows them. % */
export const circlingSteps = [0, 10, 30, 50, 75] as const;

/** The face of a ball with so much of it circled: a picture to hold beside the real one. */
export function circlingFace(pct: number, sizePx = 64): Drawing {
  const half = sizePx / 2;
  const [w, h] = [sizePx * 0.42, sizePx * 0.4];
  const at = (x: number, y: number): Point => [half + x * w, half + y * h];
  const outline: Point[] = [at(-0.95, -1), at(0.95, -1), at(0.8, 1), at(-0.8, 1)];
  const shapes: Shape[] = [{ kind: 'polygon', role: 'ball', points: outline }];
  // Each root covers about as much of the face, from the base up: that is where they circle first.
  const roots = Math.round(pct / 7);
  for (let i = 0; i < roots; i++) {
    const y = 0.92 - (i * 1.84) / 14;
    const width = 0.8 + 0.075 * (1 - y);
    const points = Array.from({ length: 9 }, (_, k): Point => {
      const x = -width + (2 * width * k) / 8;
      return at(x, y + 0.07 * Math.sin(k * 1.4 + i));
    });
    shapes.push({ kind: 'line', role: 'root', points });
  }
  // Radial roots end where they meet the wall: dots on what is left.
  for (const [x, y] of [
    [-0.5, -0.75],
    [0.1, -0.55],
    [0.55, -0.8],
  ] as const) {
    const [cx, cy] = at(x, y);
    if (pct < 70) shapes.push({ kind: 'polygon', role: 'trunk', points: dot(cx, cy, sizePx * 0.03) });
  }
  return { widthPx: sizePx, heightPx: sizePx, shapes, description: `Circling roots over ${pct} % of the face` };
}

const dot = (cx: number, cy: number, r: number): Point[] =>
  Array.from({ length: 10 }, (_, i): Point => {
    const turn = (2 * Math.PI * i) / 10;
    return [cx + r * Math.cos(turn), cy + r * Math.sin(turn)];
  });
