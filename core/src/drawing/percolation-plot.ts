import { scaleLinear } from 'd3-scale';
import type { PercolationReading } from '../ground';
import { formatQuantity, type UnitSystem } from '../units';
import type { Drawing, Point, Shape } from './shapes';

const margin = { left: 58, right: 14, top: 12, bottom: 30 };

/** The fall of the water in a test hole against the clock. */
export function percolationPlot(input: {
  readings: readonly PercolationReading[];
  units: UnitSystem;
  widthPx: number;
  heightPx: number;
}): Drawing {
  const { readings, units, widthPx, heightPx } = input;
  const first = readings[0];
  const last = readings.at(-1);
  const description =
    first && last ? `Water level from ${say(first, units)} to ${say(last, units)}.` : 'No readings yet.';
  if (!first || !last || readings.length < 2) return { widthPx, heightPx, shapes: [], description };
  const topMm = Math.max(...readings.map((r) => r.levelMm)) || 1;
  const endMin = Math.max(...readings.map((r) => r.minute)) || 1;
  const x = scaleLinear([0, endMin], [margin.left, widthPx - margin.right]);
  const y = scaleLinear([0, topMm], [heightPx - margin.bottom, margin.top]);
  const at = (minute: number, levelMm: number): Point => [x(minute), y(levelMm)];
  const points = readings.map((r) => at(r.minute, r.levelMm));
  const dots = points.map(([x, y]): Shape => ({
    kind: 'polygon',
    role: 'level',
    points: [
      [x, y - 4],
      [x + 4, y],
      [x, y + 4],
      [x - 4, y],
    ],
  }));
  return {
    widthPx,
    heightPx,
    shapes: [...axes(at, topMm, endMin, units), { kind: 'line', role: 'level', points }, ...dots],
    description,
  };
}

function axes(
  at: (minute: number, levelMm: number) => Point,
  topMm: number,
  endMin: number,
  units: UnitSystem,
): Shape[] {
  const corner = at(0, 0);
  const text = (point: Point, words: string, align: 'start' | 'middle' | 'end'): Shape => ({
    kind: 'text',
    role: 'note',
    at: point,
    text: words,
    align,
    sizePx: 12,
    strong: false,
  });
  const [rightX] = at(endMin, 0);
  const [, topY] = at(0, topMm);
  return [
    { kind: 'line', role: 'dimension', points: [[corner[0], topY], corner, [rightX, corner[1]]] },
    text([corner[0] - 6, topY + 8], formatQuantity(topMm, 'lengthMm', units), 'end'),
    text([corner[0] - 6, corner[1]], '0', 'end'),
    text([corner[0], corner[1] + 18], '0 min', 'start'),
    text([rightX, corner[1] + 18], `${endMin} min`, 'end'),
  ];
}

const say = (reading: PercolationReading, units: UnitSystem): string =>
  `${formatQuantity(reading.levelMm, 'lengthMm', units)} at ${reading.minute} min`;
