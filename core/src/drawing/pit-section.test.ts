import { unknownGround } from '../ground';
import { pitPlan } from '../pit';
import { fieldDefault } from '../practice';
import type { Stock } from '../stock';
import { pitSection } from './pit-section';
import { textWidthPx, type Drawing, type Shape } from './shapes';

const stocks: Stock[] = [
  { kind: 'container', caliperMm: 50, heightM: 3, ballDiameterMm: 450, ballHeightMm: 400, topRootsDepthMm: 60 },
  { kind: 'balled', caliperMm: 70, heightM: 4, ballDiameterMm: 800, ballHeightMm: 600, topRootsDepthMm: 90 },
  { kind: 'bare_root', caliperMm: 25, heightM: 2, rootSpreadMm: 500, rootDepthMm: 300 },
];
const cases = stocks.flatMap((stock) =>
  [0, 4, 14].flatMap((slopePct) =>
    [360, 505, 760].flatMap((widthPx) =>
      (['metric', 'us'] as const).map((units) => ({ stock, slopePct, widthPx, units })),
    ),
  ),
);

function draw({ stock, slopePct, widthPx, units }: (typeof cases)[number]): {
  drawing: Drawing;
  depthMm: number;
  widthMm: number;
} {
  const ground = { ...unknownGround, soil: 'clay' as const, slopePct, fallsTowardsDeg: 112 };
  const plan = pitPlan({ ground, stock, practice: fieldDefault });
  if (plan.kind !== 'plan') throw new Error('no plan');
  const drawing = pitSection({ plan, stock, ground, practice: fieldDefault, units, widthPx, heightPx: 420 });
  return { drawing, depthMm: plan.depthMm.value, widthMm: plan.widthMm.value };
}

type TextShape = Extract<Shape, { kind: 'text' }>;
const texts = (drawing: Drawing) => drawing.shapes.filter((s): s is TextShape => s.kind === 'text');

function box(text: TextShape) {
  const width = textWidthPx(text.text, text.sizePx);
  const left = text.at[0] - (text.align === 'end' ? width : text.align === 'middle' ? width / 2 : 0);
  return { left, right: left + width, top: text.at[1] - text.sizePx * 0.8, bottom: text.at[1] + text.sizePx * 0.2 };
}

describe('pit section', () => {
  it.each(cases)('keeps its labels apart and inside: $stock.kind, $slopePct %, $widthPx px, $units', (c) => {
    const { drawing } = draw(c);
    const boxes = texts(drawing).map((t) => ({ ...box(t), text: t.text }));
    for (const [i, a] of boxes.entries()) {
      expect({
        text: a.text,
        inside: a.left >= 0 && a.right <= drawing.widthPx && a.top >= -1 && a.bottom <= drawing.heightPx,
      }).toEqual({ text: a.text, inside: true });
      for (const b of boxes.slice(i + 1)) {
        const overlap = a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;
        expect({ a: a.text, b: b.text, overlap }).toEqual({ a: a.text, b: b.text, overlap: false });
      }
    }
  });

  it('draws depth and width to one scale', () => {
    const { drawing, depthMm, widthMm } = draw({
      stock: stocks[0] as Stock,
      slopePct: 0,
      widthPx: 760,
      units: 'metric',
    });
    const pit = drawing.shapes.find((s) => s.kind === 'line' && s.role === 'pit');
    if (pit?.kind !== 'line') throw new Error('no pit drawn');
    const xs = pit.points.map((p) => p[0]);
    const ys = pit.points.map((p) => p[1]);
    const scaleX = (Math.max(...xs) - Math.min(...xs)) / widthMm;
    const scaleY = (Math.max(...ys) - Math.min(...ys)) / depthMm;
    expect(scaleX).toBeCloseTo(scaleY, 9);
  });
});
