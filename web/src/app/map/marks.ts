import { preparingStages, probeClasses, type Level, type ProbeClass } from '@sombra/core';
import type { Palette } from './palette';

export type MarkProbe = ProbeClass | 'unknown';
type PreparingStage = (typeof preparingStages)[number];

/** A planted tree, or a place in preparation. */
export type Mark =
  | { readonly planted: true; readonly level: Level; readonly probe: MarkProbe }
  | { readonly planted: false; readonly stage: PreparingStage };
type TreeMark = Extract<Mark, { planted: true }>;

export const markPx = 26;

/** How full the ring stands, by the ball's balance on the day, else by the last probe at ball depth. */
const fillOf: Readonly<Record<ProbeClass, number>> = {
  dry: 0.08,
  slightly_dry: 0.32,
  moist: 0.58,
  wet: 0.82,
  saturated: 1,
};

/** The name a mark's picture has on the map; the tile's properties spell the same. */
export const markName = (mark: Mark): string =>
  mark.planted ? `tree-${mark.level}-${mark.probe}` : `spot-${mark.stage}`;

/** Every mark there is. */
export function allMarks(): Mark[] {
  const probes: readonly MarkProbe[] = [...probeClasses, 'unknown'];
  const levels: readonly Level[] = ['good', 'watch', 'act', 'urgent'];
  const trees = levels.flatMap((level) => probes.map((probe) => ({ planted: true as const, level, probe })));
  const spots = preparingStages.map((stage) => ({ planted: false as const, stage }));
  return [...trees, ...spots];
}

/**
 * Draws a mark in the middle of a square of `markPx`. A planted tree is a ring filled like a glass by its
 * last probe; a spot in preparation is a square that fills as its preparation goes on. What needs an act
 * wears a wedge, what is urgent stands in a diamond: shapes, so that grey print tells them apart.
 */
export function drawMark(context: CanvasRenderingContext2D, mark: Mark, colours: Palette): void {
  context.save();
  context.translate(markPx / 2, markPx / 2);
  context.lineJoin = 'round';
  if (mark.planted) drawTree(context, mark, colours);
  else drawSpot(context, mark.stage, colours);
  context.restore();
}

function drawTree(context: CanvasRenderingContext2D, { level, probe }: TreeMark, colours: Palette): void {
  if (level === 'urgent') {
    polygon(
      context,
      [
        [0, -12.2],
        [12.2, 0],
        [0, 12.2],
        [-12.2, 0],
      ],
      colours.sheet,
      colours.urgent,
      2.4,
    );
  }
  const radius = level === 'urgent' ? 5.6 : 7;
  disc(context, radius, colours.sheet);
  if (probe !== 'unknown') fillGlass(context, radius, fillOf[probe], colours.water);
  context.beginPath();
  context.arc(0, 0, radius, 0, 2 * Math.PI);
  context.strokeStyle = colours.ink;
  context.lineWidth = 1.7;
  context.stroke();
  if (probe === 'unknown') disc(context, 1.6, colours.ink);
  if (level === 'act')
    polygon(
      context,
      [
        [2.5, -7],
        [12, -12],
        [11, -2],
      ],
      colours.act,
      colours.sheet,
      1,
    );
  if (level === 'watch') {
    context.translate(8.4, -7.6);
    disc(context, 3.2, colours.sheet);
    disc(context, 2.3, colours.watch);
  }
}

function fillGlass(context: CanvasRenderingContext2D, radius: number, share: number, colour: string): void {
  context.save();
  context.beginPath();
  context.arc(0, 0, radius, 0, 2 * Math.PI);
  context.clip();
  context.fillStyle = colour;
  context.fillRect(-radius, radius - 2 * radius * share, 2 * radius, 2 * radius * share);
  context.restore();
}

/** Ground: an empty square. Match: a seed in it. Stock: half full. Pit: crossed. Day: full, ready to plant. */
function drawSpot(context: CanvasRenderingContext2D, stage: PreparingStage, colours: Palette): void {
  const half = 5.6;
  context.fillStyle = colours.sheet;
  context.fillRect(-half, -half, 2 * half, 2 * half);
  context.fillStyle = colours.soil;
  if (stage === 'stock') context.fillRect(-half, 0, 2 * half, half);
  if (stage === 'day') context.fillRect(-half, -half, 2 * half, 2 * half);
  context.strokeStyle = colours.ink;
  context.lineWidth = 1.7;
  context.strokeRect(-half, -half, 2 * half, 2 * half);
  if (stage === 'match') {
    context.fillStyle = colours.leaf;
    context.beginPath();
    context.arc(0, 0, 2.6, 0, 2 * Math.PI);
    context.fill();
  }
  if (stage !== 'pit') return;
  context.beginPath();
  context.moveTo(-half, -half);
  context.lineTo(half, half);
  context.moveTo(half, -half);
  context.lineTo(-half, half);
  context.stroke();
}

function disc(context: CanvasRenderingContext2D, radius: number, colour: string): void {
  context.beginPath();
  context.arc(0, 0, radius, 0, 2 * Math.PI);
  context.fillStyle = colour;
  context.fill();
}

function polygon(
  context: CanvasRenderingContext2D,
  points: readonly (readonly [number, number])[],
  fill: string,
  stroke: string,
  width: number,
): void {
  context.beginPath();
  for (const [x, y] of points) context.lineTo(x, y);
  context.closePath();
  context.fillStyle = fill;
  context.fill();
  context.strokeStyle = stroke;
  context.lineWidth = width;
  context.stroke();
}

/** A mark's pixels at twice its size, for sharp screens. */
export function markPixels(mark: Mark, colours: Palette): ImageData | null {
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = 2 * markPx;
  const context = canvas.getContext('2d');
  if (!context) return null;
  context.scale(2, 2);
  drawMark(context, mark, colours);
  return context.getImageData(0, 0, canvas.width, canvas.height);
}

export function markPicture(mark: Mark, colours: Palette): string {
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = 2 * markPx;
  const context = canvas.getContext('2d');
  context?.scale(2, 2);
  if (context) drawMark(context, mark, colours);
  return canvas.toDataURL();
}
