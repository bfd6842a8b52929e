import { unknownGround, type GroundFacts } from '../ground';
import { pitPlan, type NoPitPlan } from '../pit';
import { fieldDefault } from '../practice';
import type { Stock } from '../stock';
import { pitConflict } from './pit-conflict';
import type { Drawing, Point, Role } from './shapes';

const stock: Stock = {
  kind: 'balled',
  ballDiameterMm: 700,
  ballHeightMm: 500,
  topRootsDepthMm: 90,
  caliperMm: 50,
  heightM: 3,
};
const level: GroundFacts = { ...unknownGround, soil: 'loam', slopePct: 0, stripWidthMm: 'open' };

function draw(ground: Partial<GroundFacts>, of: Stock = stock): Drawing | null {
  const facts = { ...level, ...ground };
  const none = pitPlan({ ground: facts, stock: of, practice: fieldDefault });
  if (none.kind !== 'no_plan') throw new Error('there is a plan');
  return pitConflict({ none, stock: of, ground: facts, units: 'metric', widthPx: 480, heightPx: 440 });
}

const polygons = (drawing: Drawing | null, role: Role): (readonly Point[])[] =>
  (drawing?.shapes ?? []).flatMap((shape) => (shape.kind === 'polygon' && shape.role === role ? [shape.points] : []));
const spanOf = (points: readonly Point[] = []): number =>
  Math.max(...points.map(([x]) => x)) - Math.min(...points.map(([x]) => x));
const words = (drawing: Drawing | null): string[] =>
  (drawing?.shapes ?? []).flatMap((shape) => (shape.kind === 'text' ? [shape.text] : []));

describe('a pit that cannot be, drawn', () => {
  it('shows by how much a ball stands over its strip on either side', () => {
    const drawing = draw({ stripWidthMm: 600 });
    const [ball] = polygons(drawing, 'ball');
    const over = polygons(drawing, 'crown_conflict');
    expect(over).toHaveLength(2);
    // 50 of 700 mm on each side, to the scale of the ball.
    for (const side of over) expect(spanOf(side) / spanOf(ball)).toBeCloseTo(50 / 700, 9);
    expect(polygons(drawing, 'pavement')).toHaveLength(2);
    expect(words(drawing)).toEqual(['ball 700 mm', 'strip 600 mm']);
    expect(drawing?.description).toContain('100 mm too wide');
  });

  it('shows the ball out of the ground at the downhill edge of a slope', () => {
    const drawing = draw({ slopePct: 50 });
    const [wedge = []] = polygons(drawing, 'crown_conflict');
    // Half as high as wide: a slope of 50 %.
    const height = Math.max(...wedge.map(([, y]) => y)) - Math.min(...wedge.map(([, y]) => y));
    expect(height / spanOf(wedge)).toBeCloseTo(0.5, 9);
    expect(words(drawing).join(' ')).toMatch(/in the ground at the downhill edge, least 100 mm/);
  });

  it('shows a ball with too little of it in the ground', () => {
    const flat: Stock = { ...stock, ballHeightMm: 200, topRootsDepthMm: 80 };
    const drawing = draw({}, flat);
    expect(polygons(drawing, 'crown_conflict')).toEqual([]);
    // 200 mm less 80 of surplus less 40 above grade.
    expect(drawing?.description).toMatch(/^No pit plan. The ball would be 8\d mm in the ground, least 100 mm.$/);
  });

  it('draws nothing where no measure is in the way', () => {
    const none: NoPitPlan = { kind: 'no_plan', because: [{ code: 'soil_missing', facts: {} }] };
    const given = { none, stock, ground: level, units: 'metric', widthPx: 480, heightPx: 440 } as const;
    expect(pitConflict(given)).toBeNull();
  });

  it('keeps all of it within its frame, in any width and either units', () => {
    for (const widthPx of [340, 480, 900]) {
      for (const ground of [{ stripWidthMm: 300 }, { slopePct: 45 }] as const) {
        const facts = { ...level, ...ground };
        const none = pitPlan({ ground: facts, stock, practice: fieldDefault }) as NoPitPlan;
        const drawing = pitConflict({ none, stock, ground: facts, units: 'us', widthPx, heightPx: 440 });
        const points = (drawing?.shapes ?? []).flatMap((shape) => (shape.kind === 'text' ? [shape.at] : shape.points));
        for (const [x, y] of points) {
          expect(x).toBeGreaterThanOrEqual(-0.01);
          expect(x).toBeLessThanOrEqual(widthPx + 0.01);
          expect(y).toBeGreaterThanOrEqual(0);
          expect(y).toBeLessThanOrEqual(drawing?.heightPx ?? 0);
        }
      }
    }
  });
});
