import { unknownGround, type GroundFacts } from '../ground';
import { pitPlan, type PitPlan, type StakePlan } from '../pit';
import { fieldDefault } from '../practice';
import type { Stock } from '../stock';
import { pitTop } from './pit-top';
import { textWidthPx, type Shape } from './shapes';

const stock: Stock = {
  kind: 'balled',
  caliperMm: 65,
  heightM: 4,
  ballDiameterMm: 700,
  ballHeightMm: 500,
  topRootsDepthMm: 50,
};
const ground: GroundFacts = { ...unknownGround, soil: 'loam', slopePct: 0, stripWidthMm: 900 };
const planOf = (where: GroundFacts): PitPlan => {
  const plan = pitPlan({ ground: where, stock, practice: fieldDefault });
  if (plan.kind === 'no_plan') throw new Error('no plan');
  return plan;
};
const stakes: StakePlan = {
  stakes: 2,
  bearingsDeg: [0, 180],
  alongStrip: false,
  fromTrunkMm: 400,
  heightMm: 1000,
  lengthMm: 1600,
  offAfterMonths: 12,
  before: false,
  because: [],
};
const spanOf = (shape: Shape | undefined) => {
  const points = shape && shape.kind !== 'text' ? shape.points : [];
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return { wide: Math.max(...xs) - Math.min(...xs), high: Math.max(...ys) - Math.min(...ys) };
};

describe('the pit from above', () => {
  const top = (where: GroundFacts, pavementDeg: number | null = null) =>
    pitTop({ plan: planOf(where), stakes, ground: where, windsDeg: [270], pavementDeg, units: 'metric', widthPx: 420 });

  it('is stretched along a strip to one scale: 900 by 2865.68 mm', () => {
    const { shapes, description } = top(ground);
    const pit = spanOf(shapes.find(({ role }) => role === 'pit'));
    const ball = spanOf(shapes.find(({ role }) => role === 'ball'));
    // Corners of a polygon of 36 lie a little inside the round it stands for.
    expect(pit.wide / pit.high).toBeCloseTo(2865.68 / 900, 1);
    expect(pit.high / ball.high).toBeCloseTo(900 / 700, 1);
    expect(description).toContain('900 mm by 2866 mm');
  });

  it('points to where the best face looks, from the trunk to the edge of the ball', () => {
    const open = { ...ground, stripWidthMm: 'open' as const };
    const face = (bestFaceDeg: number | null, where: GroundFacts = open, pavementDeg: number | null = null) => {
      const drawing = pitTop({
        plan: planOf(where),
        stakes,
        ground: where,
        windsDeg: [],
        pavementDeg,
        bestFaceDeg,
        units: 'metric',
        widthPx: 420,
      });
      const shaft = drawing.shapes.find(({ role }) => role === 'face');
      const points = shaft && shaft.kind !== 'text' ? shaft.points : [];
      const [[x0, y0] = [0, 0], [x1, y1] = [0, 0]] = points;
      return { drawing, deg: points.length === 0 ? null : Math.round((Math.atan2(x1 - x0, y0 - y1) * 180) / Math.PI) };
    };
    expect([face(90).deg, face(225).deg, face(null).deg]).toEqual([90, -135, null]);
    expect(face(90).drawing.description).toContain('best face to E');
    // In a strip the pavement is up: a face to the pavement points up.
    expect(face(120, ground, 120).deg).toBe(0);
    expect(face(120, ground, null).deg).toBeNull();
  });

  it('holds everything it draws inside its frame, stakes at their bearings', () => {
    const open = { ...ground, stripWidthMm: 'open' as const };
    for (const [where, pavementDeg] of [
      [ground, null],
      [ground, 45],
      [ground, 200],
      [open, null],
      [open, 45],
    ] as const) {
      const { shapes, widthPx, heightPx } = top(where, pavementDeg);
      for (const shape of shapes) {
        const points = shape.kind === 'text' ? [shape.at] : shape.points;
        for (const [x, y] of points) {
          expect(x).toBeGreaterThanOrEqual(0);
          expect(x).toBeLessThanOrEqual(widthPx);
          expect(y).toBeGreaterThanOrEqual(0);
          expect(y).toBeLessThanOrEqual(heightPx);
        }
      }
      expect(shapes.filter(({ role }) => role === 'stake')).toHaveLength(2);
    }
  });

  it.each([240, 290, 420])('keeps its words within %d px, on as many lines as they need', (widthPx) => {
    const { shapes, heightPx } = pitTop({
      plan: planOf(ground),
      stakes,
      ground,
      windsDeg: [250, 40],
      pavementDeg: 120,
      units: 'metric',
      widthPx,
    });
    const lines = shapes.flatMap((shape) => (shape.kind === 'text' && shape.align === 'middle' ? [shape] : []));
    expect(lines.map(({ text }) => text).join(', ')).toContain('2 stakes to N and S, wind from WSW and NE');
    for (const { text, sizePx } of lines) expect(textWidthPx(text, sizePx)).toBeLessThanOrEqual(widthPx);
    const heights = lines.map(({ at: [, y] }) => y);
    for (const [i, y] of heights.entries()) expect(y - (heights[i - 1] ?? 0)).toBeGreaterThan(12);
    expect(Math.max(...heights)).toBeLessThan(heightPx);
  });

  it('claims no bearing for a stake whose winds nobody recorded', () => {
    const open = { ...ground, stripWidthMm: 'open' as const };
    const notes = (of: StakePlan | null) =>
      pitTop({
        plan: planOf(open),
        stakes: of,
        ground: open,
        windsDeg: [],
        pavementDeg: null,
        units: 'metric',
        widthPx: 420,
      })
        .shapes.filter((shape) => shape.kind === 'text')
        .map(({ text }) => text);
    expect(notes(stakes)).toContain('from above, north up');
    expect(notes(null)).toContain('from above, north up');
    expect(notes({ ...stakes, stakes: 1, bearingsDeg: [] })).toContain(
      'from above; the site shows where the stake stands',
    );
  });

  it('sets stakes by the compass where north is up, and says their bearings where the strip lies across', () => {
    const middles = (where: GroundFacts, pavementDeg: number | null = null) =>
      top(where, pavementDeg)
        .shapes.filter((shape) => shape.role === 'stake')
        .map((shape) => (shape.kind === 'text' ? [] : shape.points))
        .map((points) => points.reduce(([x, y], [px, py]) => [x + px / points.length, y + py / points.length], [0, 0]));
    const [north, south] = middles({ ...ground, stripWidthMm: 'open' });
    expect(north?.[0]).toBeCloseTo(south?.[0] ?? 0, 6);
    expect(north?.[1]).toBeLessThan(south?.[1] ?? 0);
    const [one, other] = middles(ground);
    expect(one?.[1]).toBeCloseTo(other?.[1] ?? 0, 6);
    expect(top(ground).description).toContain('2 stakes to N and S');
    // Pavement to the east stands at the top: north lies to the left, south to the right.
    const [left, right] = middles(ground, 90);
    expect(left?.[1]).toBeCloseTo(right?.[1] ?? 0, 6);
    expect(left?.[0]).toBeLessThan(right?.[0] ?? 0);
    const notes = top(ground, 90).shapes.flatMap((shape) => (shape.kind === 'text' ? [shape.text] : []));
    expect(notes).toEqual(expect.arrayContaining(['N', 'from above, the pavement at the top']));
  });

  it('leaves kerbs out that are far from the pit', () => {
    const edges = (stripWidthMm: number) =>
      top({ ...ground, stripWidthMm }).shapes.filter(({ role }) => role === 'grade').length;
    expect([edges(900), edges(9000)]).toEqual([2, 0]);
  });
});
