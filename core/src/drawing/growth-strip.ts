import {
  firstConflicts,
  shadedPavementM2,
  treeSizeAt,
  type Conflict,
  type CrownForm,
  type Pavement,
  type Species,
  type SpotRoom,
  type SunAt,
  type TreeSize,
} from '../match';
import { formatNumber, formatQuantity, type UnitSystem } from '../units';
import type { Drawing, Point, Shape } from './shapes';

export const stripYears = [0, 5, 10, 20, 30] as const;

export interface GrowthStripInput {
  readonly species: Species;
  readonly room: SpotRoom;
  /** Height of the wire itself, where one hangs. m */
  readonly wireHeightM: number | null;
  readonly pavement: Pavement | null;
  /** The sun at 15:00 on midsummer day. */
  readonly sun: SunAt;
  readonly heightAtPlantingM: number;
  readonly units: UnitSystem;
  readonly widthPx: number;
  readonly heightPx: number;
  /** Top of the scale, so that strips beside each other compare; what is drawn sets it otherwise. m */
  readonly tallestM?: number;
}

export interface StripYear extends TreeSize {
  readonly year: number;
  readonly shadeM2: number;
  readonly conflicts: readonly Conflict[];
}

/** Size, shade on the pavement and conflicts so far, at each year of the strip. */
export function stripOf(
  input: Pick<GrowthStripInput, 'species' | 'room' | 'pavement' | 'sun' | 'heightAtPlantingM'>,
): StripYear[] {
  const conflicts = firstConflicts(input.species, input.room, input.heightAtPlantingM);
  return stripYears.map((year) => {
    const size = treeSizeAt(input.species, { heightAtPlantingM: input.heightAtPlantingM, years: year });
    return {
      ...size,
      year,
      shadeM2: input.pavement ? shadedPavementM2(size, input.sun, input.pavement) : 0,
      conflicts: conflicts.filter((one) => one.year <= year),
    };
  });
}

const margin = { top: 10, bottom: 46, side: 6 };

/**
 * The tree's outline at planting and after 5, 10, 20 and 30 years, all at one scale, against the wire above, the
 * wall beside and the pavement at its foot.
 */
export function growthStrip(input: GrowthStripInput): Drawing {
  const years = stripOf(input);
  const { widthPx, heightPx, units } = input;
  const panelPx = (widthPx - 2 * margin.side) / years.length;
  const highM = input.tallestM ?? Math.max(...years.map(({ heightM }) => heightM), input.wireHeightM ?? 0) * 1.08;
  const wideM = Math.max(...years.map(({ crownM }) => crownM), 4) * 1.08;
  const scale = Math.min((heightPx - margin.top - margin.bottom) / highM, panelPx / wideM);
  const groundY = heightPx - margin.bottom;
  const panels = years.flatMap((size, i) => {
    const middleX = margin.side + panelPx * (i + 0.5);
    const at = (x: number, y: number): Point => [middleX + x * scale, groundY - y * scale];
    const half = panelPx / 2 / scale;
    return [
      ...surroundings({ input, at, half }),
      ...tree(input.species.form, size, at),
      ...words(size, middleX, groundY, units),
    ];
  });
  const ground: Shape = {
    kind: 'line',
    role: 'grade',
    points: [
      [0, groundY],
      [widthPx, groundY],
    ],
  };
  return { widthPx, heightPx, shapes: [...panels, ground], description: describe(input, years) };
}

function surroundings(draw: { input: GrowthStripInput; at: (x: number, y: number) => Point; half: number }): Shape[] {
  const { input, at, half } = draw;
  const { room, wireHeightM, pavement } = input;
  const shapes: Shape[] = [];
  if (pavement && pavement.distanceM < half) {
    const far = Math.min(half, pavement.distanceM + pavement.widthM);
    const strip = [at(pavement.distanceM, 0), at(far, 0), at(far, -0.35), at(pavement.distanceM, -0.35)];
    shapes.push({ kind: 'polygon', role: 'pavement', points: strip });
  }
  if (room.wallM !== null && room.wallM < half) {
    const wall = [at(-room.wallM, 0), at(-room.wallM, 6), at(-half, 6), at(-half, 0)];
    shapes.push({ kind: 'polygon', role: 'wall', points: wall });
  }
  if (wireHeightM !== null) {
    const from = room.wireM === null ? -half : Math.min(room.wireM - 0.6, half - 1);
    const to = room.wireM === null ? half : Math.min(room.wireM + 0.6, half);
    shapes.push({ kind: 'line', role: 'wire', points: [at(from, wireHeightM), at(to, wireHeightM)] });
  }
  return shapes;
}

function tree(form: CrownForm, size: StripYear, at: (x: number, y: number) => Point): Shape[] {
  const trunkM = Math.max(0.08, size.heightM * 0.015);
  const role = size.conflicts.length > 0 ? 'crown_conflict' : 'crown';
  const trunk = [at(-trunkM, 0), at(-trunkM, size.clearM + 0.3), at(trunkM, size.clearM + 0.3), at(trunkM, 0)];
  return [
    { kind: 'polygon', role: 'trunk', points: trunk },
    { kind: 'polygon', role, points: outline(form, size).map(([x, y]) => at(x, y)) },
  ];
}

/** Outline of a crown from its underside to the top, metres from the foot of the stem. */
function outline(form: CrownForm, { heightM, crownM, clearM }: TreeSize): Point[] {
  const radius = crownM / 2;
  const deep = heightM - clearM;
  const widthAt: Partial<Record<CrownForm, (up: number) => number>> = {
    conical: (up) => Math.min(1, up / 0.12) * (1 - up),
    vase: (up) =>
      Math.sqrt(Math.max(0, 1 - (1.25 * up - 1) ** 2 * (up < 0.8 ? 0.75 : 16))) * (0.35 + 0.65 * Math.min(1, up / 0.8)),
    weeping: (up) => Math.sqrt(Math.max(0, 1 - up ** 2.4)),
  };
  const ellipse = (up: number) => 2 * Math.sqrt(Math.max(0, up * (1 - up)));
  const width = widthAt[form] ?? ellipse;
  const steps = 16;
  const right = Array.from({ length: steps + 1 }, (_, i): Point => {
    const up = i / steps;
    return [radius * width(up), clearM + deep * up];
  });
  return [...right, ...right.map(([x, y]): Point => [-x, y]).reverse()];
}

function words(size: StripYear, middleX: number, groundY: number, units: UnitSystem): Shape[] {
  const text = (line: number, words: string, strong: boolean): Shape => ({
    kind: 'text',
    role: 'note',
    at: [middleX, groundY + 16 + 14 * line],
    text: words,
    align: 'middle',
    sizePx: 12,
    strong,
  });
  const tall = formatQuantity(size.heightM, 'heightM', units);
  return [text(0, size.year === 0 ? 'planted' : `${size.year} years`, true), text(1, `${tall} high`, false)];
}

function describe({ species, units }: GrowthStripInput, years: readonly StripYear[]): string {
  const last = years.at(-1);
  const first = last?.conflicts[0];
  const grown = last ? ` ${formatQuantity(last.heightM, 'heightM', units)} high after ${last.year} years;` : '';
  const met = first
    ? ` first meets the ${first.with === 'tree' ? 'next tree' : first.with} in year ${formatNumber(first.year, 0)}.`
    : ' meets nothing in that time.';
  return `${species.botanical}:${grown}${met}`;
}
