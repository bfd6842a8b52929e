import { bermFromMm, bermWidthMm, type PitPlan } from '../pit';
import { bermPlaces, fillPlaces, mulchProfiles } from '../practice';
import type { Stock } from '../stock';
import type { SoilClass } from '../ground';
import { along, soilBelowMm, type Frame, type PitSectionInput } from './section-frame';
import { line, polygon, type Point, type Shape } from './shapes';

/** Ratio of base to top diameter of a ball, so that the drawn frustum has the volume the plan computes. */
const baseRatio = { container: 0.84, balled: 0.66 } as const;

/** Ground, pit, fill with what is mixed into it, and soil put back under the ball. */
export function earth(input: PitSectionInput, f: Frame): Shape[] {
  const { plan } = input;
  const left = f.at(-f.edgeMm, f.gradeAt(-f.edgeMm));
  const right = f.at(f.edgeMm, f.gradeAt(f.edgeMm));
  const floorY = f.heightPx - f.gutter.bottom + 6;
  const pit: Point[] = [
    f.at(-f.halfPitMm, f.gradeAt(-f.halfPitMm)),
    f.at(-f.halfBaseMm, f.baseMm),
    f.at(f.halfBaseMm, f.baseMm),
    f.at(f.halfPitMm, f.gradeAt(f.halfPitMm)),
  ];
  return [
    polygon('ground', [left, right, [right[0], floorY], [left[0], floorY]]),
    ...layers(input, f),
    ...putBack(plan, f),
    polygon('backfill', pit),
    ...[-1, 1].map((side) => apron(side, f)),
    ...speckles(input, f),
    line('pit', pit),
    line('grade', [left, right]),
  ];
}

/** Layers that begin above what is drawn of the ground under the pit. */
export function layersDrawn({
  ground,
  plan,
}: PitSectionInput): { readonly soil: SoilClass; readonly fromMm: number }[] {
  const layers = ground.horizons ?? [];
  const lowestMm = plan.depthMm.value + plan.fillUnderBallMm + soilBelowMm;
  return layers
    .map(({ soil }, i) => ({ soil, fromMm: layers[i - 1]?.toMm ?? 0 }))
    .filter(({ fromMm }) => fromMm > 0 && fromMm < lowestMm);
}

/** Where one layer of the ground ends and the next begins, following the grade. */
const layers = (input: PitSectionInput, f: Frame): Shape[] =>
  layersDrawn(input).map(({ fromMm }) =>
    line(
      'layer',
      [-f.edgeMm, f.edgeMm].map((x) => f.at(x, f.gradeAt(x) - fromMm)),
    ),
  );

function putBack({ fillUnderBallMm }: PitPlan, f: Frame): Shape[] {
  if (fillUnderBallMm <= 0) return [];
  const half = f.halfBaseMm;
  const lower = f.baseMm - fillUnderBallMm;
  return [polygon('put_back', [f.at(-half, f.baseMm), f.at(half, f.baseMm), f.at(half, lower), f.at(-half, lower)])];
}

/** Fill drawn up from grade to the ball's shoulder, begun under the ball so that its taper leaves no gap. */
function apron(side: number, f: Frame): Shape {
  const xs = along(f.halfBallMm * 0.6, f.halfPitMm, 16).map((x) => side * x);
  const top = xs.map((x) => f.at(x, f.surfaceAt(x)));
  const foot = [...xs].reverse().map((x) => f.at(x, Math.min(f.gradeAt(x), f.surfaceAt(x))));
  return polygon('backfill', [...top, ...foot]);
}

/** Flecks in the fill: as many of a hundred as its share of what is mixed in. */
function speckles({ plan }: PitSectionInput, f: Frame): Shape[] {
  const share = plan.backfillL.value > 0 ? plan.amendments.inFillL / plan.backfillL.value : 0;
  const most = Math.round(100 * share);
  const from = Math.min(1, ...plan.amendments.each.map(({ place }) => fillPlaces[place].fromShare ?? 1));
  // Low-discrepancy points (Roberts 2018): evenly strewn and the same each time.
  return Array.from({ length: most }, (_, i): Shape => {
    // Counted for each side by itself: every second point of such a row falls into bands.
    const at = Math.floor(i / 2) + 1 + (i % 2) * most;
    const down = from + (1 - from) * ((0.5 + at * 0.7548776662) % 1);
    const out = (0.5 + at * 0.5698402909) % 1;
    const side = i % 2 === 0 ? -1 : 1;
    const outerMm = f.halfPitMm + (f.halfBaseMm - f.halfPitMm) * down - 25;
    const innerMm = Math.min(outerMm, f.halfBallMm + 25);
    const xMm = side * (innerMm + (outerMm - innerMm) * out);
    const topMm = Math.min(f.gradeAt(xMm), 0) - 25;
    const [x, y] = f.at(xMm, topMm + (f.baseMm + 20 - topMm) * down);
    const r = 1.8;
    return polygon('amendment', [
      [x - r, y + r],
      [x + r, y + r],
      [x, y - r],
    ]);
  });
}

/** Roots and trunk; surplus that stays on the ball lies over the flare. */
export function tree({ plan, stock }: PitSectionInput, f: Frame): Shape[] {
  const proudMm = plan.proudMm.value;
  const trunkMm = stock.caliperMm / 2;
  const trunk: Point[] = [
    f.at(-trunkMm, f.topMm),
    f.at(-trunkMm, proudMm + 90),
    f.at(-trunkMm * 2.1, proudMm),
    f.at(trunkMm * 2.1, proudMm),
    f.at(trunkMm, proudMm + 90),
    f.at(trunkMm, f.topMm),
  ];
  return [...roots(stock, plan, f), polygon('trunk', trunk)];
}

function roots(stock: Stock, plan: PitPlan, f: Frame): Shape[] {
  const proudMm = plan.proudMm.value;
  if (stock.kind !== 'bare_root') return [...ballOf(stock.kind, plan, f), ...structuralRoots(proudMm, f)];
  const cone = polygon('berm', [
    f.at(-f.halfBallMm * 0.8, f.baseMm),
    f.at(0, proudMm - 60),
    f.at(f.halfBallMm * 0.8, f.baseMm),
  ]);
  const spread = [-1, -0.55, 0.55, 1].map((side) =>
    line('root', [f.at(0, proudMm), f.at(side * f.halfBallMm, f.baseMm + 25)]),
  );
  return [cone, ...spread];
}

function ballOf(kind: 'container' | 'balled', plan: PitPlan, f: Frame): Shape[] {
  const half = f.halfBallMm;
  const halfBase = half * baseRatio[kind];
  const proudMm = plan.proudMm.value;
  const topMm = proudMm + plan.surplusLeftMm;
  const ball = polygon('ball', [
    f.at(-half, proudMm),
    f.at(half, proudMm),
    f.at(halfBase, f.baseMm),
    f.at(-halfBase, f.baseMm),
  ]);
  if (plan.surplusLeftMm <= 0) return [ball];
  const surplus = [f.at(-half, topMm), f.at(half, topMm), f.at(half, proudMm), f.at(-half, proudMm)];
  return [ball, polygon('surplus', surplus)];
}

const structuralRoots = (proudMm: number, f: Frame): Shape[] =>
  [-1, 1].map((side) =>
    line('root', [
      f.at(0, proudMm),
      f.at(side * f.halfBallMm * 0.45, proudMm - 45),
      f.at(side * f.halfBallMm * 0.92, proudMm - 80),
    ]),
  );

export function flareLine({ plan }: PitSectionInput, f: Frame): Shape {
  const proudMm = plan.proudMm.value;
  return line('flare', [f.at(-f.halfBallMm - 70, proudMm), f.at(f.halfBallMm + 70, proudMm)]);
}

/** Berm and mulch. */
export function dressing({ plan, stock, practice }: PitSectionInput, f: Frame): Shape[] {
  const { gapMm, thicknessMm, profile, overBallMm } = practice.mulch;
  const half = plan.mulchLengthMm / 2;
  const inner = stock.caliperMm / 2 + gapMm;
  const thin = mulchProfiles[profile].tapers ? Math.min(1, overBallMm / Math.max(1, thicknessMm)) : 1;
  const taper = tapering(thin, f.halfBallMm);
  return [-1, 1].flatMap((side) => {
    const xs = along(inner, half, 28).map((x) => side * x);
    const groundAt = (x: number) => f.surfaceAt(x) + bermRiseMm(plan, x, f);
    const under = xs.map((x) => f.at(x, groundAt(x)));
    const over = xs.map((x) => f.at(x, groundAt(x) + thicknessMm * taper(Math.abs(x), inner, half)));
    const mulch = polygon('mulch', [...under, ...over.reverse()]);
    return plan.berm ? [bermMound(side, plan, f), mulch] : [mulch];
  });
}

export const ringFromMm = ({ berm }: PitPlan, f: Frame): number =>
  bermFromMm(berm ? (bermPlaces[berm.where].at ?? 'ball') : 'ball', {
    ballMm: 2 * f.halfBallMm,
    pitMm: 2 * f.halfPitMm,
  });

/** Height of the ring over the soil's surface, this far from the trunk. */
function bermRiseMm(plan: PitPlan, xMm: number, f: Frame): number {
  const share = (Math.abs(xMm) - ringFromMm(plan, f)) / bermWidthMm;
  return share > 0 && share < 1 ? Math.sin(Math.PI * share) * (plan.berm?.heightMm ?? 0) : 0;
}

function bermMound(side: number, plan: PitPlan, f: Frame): Shape {
  const from = ringFromMm(plan, f);
  const xs = along(from, from + bermWidthMm, 10).map((x) => side * x);
  const crest = xs.map((x) => f.at(x, f.surfaceAt(x) + bermRiseMm(plan, x, f)));
  const foot = [...xs].reverse().map((x) => f.at(x, f.surfaceAt(x)));
  return polygon('berm', [...crest, ...foot]);
}

/** Thin over the ball where it tapers, full beyond it, feathered at the ring's edge. */
const tapering =
  (thinShare: number, ballEdgeMm: number) =>
  (xMm: number, innerMm: number, outerMm: number): number => {
    const out = (xMm - innerMm) / Math.max(1, ballEdgeMm - innerMm);
    const overBall = xMm < ballEdgeMm ? thinShare + (1 - thinShare) * out : 1;
    const toEdge = Math.min(1, (outerMm - xMm) / 80 + 0.1);
    return Math.min(overBall, toEdge);
  };
