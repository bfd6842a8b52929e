import {
  arcLengthDeg,
  isPressing,
  rimPieces,
  type Anchor,
  type CirclingRoot,
  type RootTouch,
  type StagedPlan,
} from '../inspect';
import { compassPoint, formatNumber, formatQuantity, type UnitSystem } from '../units';
import { rootTouchNames } from '../wording';
import type { Drawing, Point, Role, Shape } from './shapes';

export interface CollarDialInput {
  readonly roots: readonly CirclingRoot[];
  readonly anchors: readonly Anchor[];
  /** As an earlier look found them; drawn faintly under what is found now. */
  readonly before?: readonly CirclingRoot[] | undefined;
  /** What is cut in which season, drawn at both cut points. */
  readonly plan?: StagedPlan | undefined;
  /** Index of the root that is being looked at. */
  readonly chosen?: number | null | undefined;
  /** Which way the path runs past, from the tree; marked on the rim. Bearing */
  readonly pathDeg?: number | null | undefined;
  /** What is up on the drawing; north where nothing is said. Bearing */
  readonly upDeg?: number | undefined;
  readonly units: UnitSystem;
  readonly sidePx: number;
}

/** Of half the side: the trunk, the lane of roots that press, and how far anchors reach. */
const shares = { trunk: 0.34, lane: 0.1, reach: 0.94, label: 0.86 } as const;
const roleOf: Readonly<Record<RootTouch, Role>> = {
  clear: 'dial_clear',
  touching: 'dial_touching',
  pressing: 'dial_pressing',
  grown_in: 'dial_grown',
};
/** The bend by which a root leaves the rim: round the trunk, and out of half the side. */
const [tailDeg, tailOut] = [24, 0.17] as const;
/** How far from the rim a root is drawn, in lanes. */
const offOf: Readonly<Record<RootTouch, number>> = { clear: 1.6, touching: 0.55, pressing: 0, grown_in: -0.5 };

/** Where things are on the dial: bearings to points and back. */
export class DialFrame {
  readonly half: number;
  readonly trunkPx: number;
  private readonly lanePx: number;

  /** @param upDeg the bearing that is up */
  constructor(
    sidePx: number,
    private readonly upDeg = 0,
  ) {
    this.half = sidePx / 2;
    this.trunkPx = this.half * shares.trunk;
    this.lanePx = this.half * shares.lane;
  }

  at(bearingDeg: number, radiusPx: number): Point {
    const turn = ((bearingDeg - this.upDeg) * Math.PI) / 180;
    return [this.half + Math.sin(turn) * radiusPx, this.half - Math.cos(turn) * radiusPx];
  }

  /** The bearing of a point, whole degrees, and how far out it is of half the side. */
  of([x, y]: Point): { readonly bearingDeg: number; readonly out: number } {
    const [dx, dy] = [x - this.half, this.half - y];
    const deg = Math.round((Math.atan2(dx, dy) * 180) / Math.PI + this.upDeg);
    return { bearingDeg: (deg + 360) % 360, out: Math.hypot(dx, dy) / this.half };
  }

  /** How wide a root of a thickness is drawn. */
  widthPx(diameterMm: number): number {
    return Math.min(this.lanePx * 1.6, Math.max(4, 3 + diameterMm * 0.3));
  }

  /** The middle of the band a root is drawn as. */
  radiusPx({ touch = 'pressing', diameterMm }: CirclingRoot, lane: number): number {
    return this.trunkPx + this.widthPx(diameterMm) / 2 + (offOf[touch] + lane) * this.lanePx;
  }
}

/**
 * The collar from above, north up where nothing else is said: the trunk, its rim thick where roots press, each root as a band as wide as it is thick
 * and as near as it lies, what holds the tree running out, the earlier look faint below, and the plan of cuts.
 */
export function collarDial(input: CollarDialInput): Drawing {
  const { roots, anchors, before = [], plan, chosen = null, units, sidePx } = input;
  const frame = new DialFrame(sidePx, input.upDeg);
  const mm = (value: number) => formatQuantity(value, 'lengthMm', units);
  const share = rimPieces(roots.filter(isPressing).map(({ arc }) => arc));
  const sharePct = share.reduce((sum, [from, to]) => sum + to - from, 0) / 3.6;
  const lanes = lanesOf(roots);
  const shapes: Shape[] = [
    ...compass(frame, input.pathDeg ?? null),
    ...anchors.map(({ bearingDeg, diameterMm }): Shape => ({
      kind: 'polygon',
      role: 'dial_anchor',
      points: ray(frame, bearingDeg, frame.widthPx(diameterMm)),
      title: `Holds the tree at ${bearingDeg}°, ${mm(diameterMm)}`,
    })),
    { kind: 'polygon', role: 'trunk', points: arcPoints(frame, 0, 360, frame.trunkPx) },
    ...before.map((root): Shape => ({
      kind: 'line',
      role: 'dial_before',
      points: arcPoints(frame, root.arc.fromDeg, endOf(root), frame.radiusPx(root, 0)),
    })),
    ...roots.map((root, i): Shape => {
      const { arc, diameterMm, touch = 'pressing' } = root;
      return {
        kind: 'polygon',
        role: i === chosen ? 'dial_chosen' : roleOf[touch],
        points: band(frame, root, lanes[i] ?? 0),
        title: `Root ${i + 1}: ${arc.fromDeg}° to ${arc.toDeg}°, ${mm(diameterMm)}, ${rootTouchNames[touch]}`,
      };
    }),
    ...share.map(([from, to]): Shape => ({
      kind: 'line',
      role: 'dial_pressed',
      points: arcPoints(frame, from, to, frame.trunkPx - 4),
    })),
    ...(plan ? cuts(frame, input, lanes) : []),
    ...roots.map((root, i): Shape => numberOf(frame, root, { i, lane: lanes[i] ?? 0 })),
    {
      kind: 'text',
      role: 'dial_share',
      at: [frame.half, frame.half + 8],
      text: `${formatNumber(sharePct, 0)} %`,
      align: 'middle',
      sizePx: Math.max(18, sidePx * 0.07),
      strong: true,
    },
    {
      kind: 'text',
      role: 'dial_share',
      at: [frame.half, frame.half + 8 + Math.max(15, sidePx * 0.05)],
      text: 'pressed',
      align: 'middle',
      sizePx: Math.max(12, sidePx * 0.035),
      strong: false,
    },
  ];
  return { widthPx: sidePx, heightPx: sidePx, shapes, description: describe(input, sharePct) };
}

function describe({ roots, anchors, plan, before, upDeg = 0 }: CollarDialInput, sharePct: number): string {
  const up = upDeg === 0 ? 'north' : compassPoint(upDeg);
  const words = [
    `The collar from above, ${up} up: ${roots.length === 1 ? '1 root circles' : `${roots.length} roots circle`}`,
    `${formatNumber(sharePct, 1)} % of the trunk is pressed`,
    anchors.length > 0 ? `${anchors.length} hold the tree` : '',
    before && before.length > 0 ? `${before.length} of the look before below` : '',
    plan && plan.seasons.length > 0 ? `cuts over ${plan.seasons.length} seasons` : '',
  ];
  return words.filter(Boolean).join(', ');
}

const lengthOf = ({ arc }: CirclingRoot): number => arcLengthDeg(arc);
const endOf = (root: CirclingRoot): number => root.arc.fromDeg + lengthOf(root);

/** Roots that lie over one another are drawn side by side: each in the first lane that is free along its arc. */
function lanesOf(roots: readonly CirclingRoot[]): number[] {
  const lanes: number[] = [];
  roots.forEach((root, i) => {
    const taken = new Set(
      roots.slice(0, i).flatMap((other, k) => (overlap(root, other) && near(root, other) ? [lanes[k] ?? 0] : [])),
    );
    let lane = 0;
    while (taken.has(lane)) lane += 1;
    lanes.push(lane);
  });
  return lanes;
}
const near = (a: CirclingRoot, b: CirclingRoot): boolean => (a.touch ?? 'pressing') === (b.touch ?? 'pressing');
function overlap(a: CirclingRoot, b: CirclingRoot): boolean {
  const starts = (one: CirclingRoot, other: CirclingRoot) =>
    (((other.arc.fromDeg - one.arc.fromDeg) % 360) + 360) % 360 <= lengthOf(one);
  return starts(a, b) || starts(b, a);
}

function arcPoints(frame: DialFrame, fromDeg: number, toDeg: number, radiusPx: number): Point[] {
  const steps = Math.max(2, Math.ceil(Math.abs(toDeg - fromDeg) / 6));
  return Array.from({ length: steps + 1 }, (_, i) => frame.at(fromDeg + ((toDeg - fromDeg) * i) / steps, radiusPx));
}

/** A root along its arc, leaving outward where it ends: from there on it grows away. */
function band(frame: DialFrame, root: CirclingRoot, lane: number): Point[] {
  const half = frame.widthPx(root.diameterMm) / 2;
  const radius = frame.radiusPx(root, lane);
  const [from, to] = [root.arc.fromDeg, endOf(root)];
  const middle = [
    ...tail(frame, { fromDeg: from, radius, turn: -1 }).reverse(),
    ...arcPoints(frame, from, to, radius),
    ...tail(frame, { fromDeg: to, radius, turn: 1 }),
  ];
  return [...beside(middle, half), ...beside(middle, -half).reverse()];
}

/** Where a root leaves the rim: a bend outward. */
function tail(
  frame: DialFrame,
  { fromDeg, radius, turn }: { readonly fromDeg: number; readonly radius: number; readonly turn: 1 | -1 },
): Point[] {
  return [0.25, 0.5, 0.75, 1].map((t) => frame.at(fromDeg + turn * tailDeg * t, radius + frame.half * tailOut * t * t));
}

/** A line moved to its side by so many pixels. */
function beside(line: readonly Point[], px: number): Point[] {
  return line.map(([x, y], i): Point => {
    const [before, after] = [line[i - 1] ?? [x, y], line[i + 1] ?? [x, y]];
    const [dx, dy] = [after[0] - before[0], after[1] - before[1]];
    const length = Math.hypot(dx, dy) || 1;
    return [x + (dy / length) * px, y - (dx / length) * px];
  });
}

function ray(frame: DialFrame, bearingDeg: number, widthPx: number): Point[] {
  const wide = (Math.asin(Math.min(1, widthPx / 2 / frame.trunkPx)) * 180) / Math.PI;
  const reach = frame.half * shares.reach;
  return [
    frame.at(bearingDeg - wide * 1.4, frame.trunkPx * 0.98),
    frame.at(bearingDeg - wide * 0.3, reach),
    frame.at(bearingDeg + wide * 0.3, reach),
    frame.at(bearingDeg + wide * 1.4, frame.trunkPx * 0.98),
  ];
}

function compass(frame: DialFrame, pathDeg: number | null): Shape[] {
  const ring = arcPoints(frame, 0, 360, frame.half * shares.reach);
  const names = ['N', 'E', 'S', 'W'];
  const path = pathDeg === null ? [] : pathMark(frame, pathDeg);
  return [
    { kind: 'polygon', role: 'dial_ground', points: ring },
    ...path,
    ...Array.from({ length: 12 }, (_, i): Shape => ({
      kind: 'line',
      role: 'dial_tick',
      points: [frame.at(i * 30, frame.half * 0.9), frame.at(i * 30, frame.half * shares.reach)],
    })),
    ...names.map((text, i): Shape => {
      const [x, y] = frame.at(i * 90, frame.half * 0.83);
      return { kind: 'text', role: 'note', at: [x, y + 5], text, align: 'middle', sizePx: 14, strong: i === 0 };
    }),
  ];
}

/** The path beside the tree, across its bearing, with its name on it. */
function pathMark(frame: DialFrame, pathDeg: number): Shape[] {
  const reach = frame.half * shares.reach;
  const [wide, deep] = [22, frame.half * 0.09];
  const [x, y] = frame.at(pathDeg, reach - deep / 2);
  return [
    {
      kind: 'polygon',
      role: 'pavement',
      points: [
        ...arcPoints(frame, pathDeg - wide, pathDeg + wide, reach),
        ...arcPoints(frame, pathDeg + wide, pathDeg - wide, reach - deep),
      ],
    },
    { kind: 'text', role: 'note', at: [x, y + 4], text: 'path', align: 'middle', sizePx: 12, strong: true },
  ];
}

function numberOf(frame: DialFrame, root: CirclingRoot, { i, lane }: { i: number; lane: number }): Shape {
  const middle = root.arc.fromDeg + lengthOf(root) / 2;
  const [x, y] = frame.at(middle, frame.radiusPx(root, lane) + frame.widthPx(root.diameterMm) / 2 + 11);
  return {
    kind: 'text',
    role: 'dial_number',
    at: [x, y + 4],
    text: String(i + 1),
    align: 'middle',
    sizePx: 13,
    strong: true,
  };
}

/** Both cut points of each root that goes, and in which season; the piece beyond may stay. */
function cuts(frame: DialFrame, { roots, plan }: CollarDialInput, lanes: readonly number[]): Shape[] {
  return (plan?.seasons ?? []).flatMap(({ cuts: all }, season) =>
    all.flatMap(({ root: i }): Shape[] => {
      const root = roots[i];
      if (!root) return [];
      const radius = frame.radiusPx(root, lanes[i] ?? 0);
      const half = frame.widthPx(root.diameterMm) / 2 + 4;
      const across = (deg: number): Shape => ({
        kind: 'line',
        role: 'dial_cut',
        points: [frame.at(deg, radius - half), frame.at(deg, radius + half)],
      });
      const [x, y] = frame.at(root.arc.fromDeg, radius + half + 10);
      const text = `S${season + 1}`;
      return [
        across(root.arc.fromDeg),
        across(endOf(root)),
        { kind: 'text', role: 'dial_season', at: [x, y + 4], text, align: 'middle', sizePx: 12, strong: true },
      ];
    }),
  );
}
