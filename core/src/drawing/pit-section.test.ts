import fc from 'fast-check';
import { soilClasses, unknownAssessment, unknownGround, type GroundFacts } from '../ground';
import { defaultWorkRules, plantingPlan, type PlantingPlan } from '../pit';
import { fieldDefault, presets, type Practice } from '../practice';
import type { Stock } from '../stock';
import { container } from '../../testing/checked-case';
import { pitSection } from './pit-section';
import { stackApart, textWidthPx, type Drawing, type Shape } from './shapes';

const stockArb: fc.Arbitrary<Stock> = fc.oneof(
  fc.record({
    kind: fc.constantFrom('container' as const, 'balled' as const),
    caliperMm: fc.integer({ min: 20, max: 120 }),
    heightM: fc.integer({ min: 10, max: 60 }).map((dm) => dm / 10),
    ballDiameterMm: fc.integer({ min: 300, max: 1200 }),
    ballHeightMm: fc.integer({ min: 300, max: 800 }),
    topRootsDepthMm: fc.integer({ min: 0, max: 290 }),
    firstBranchM: fc.constantFrom(undefined, 0.4, 1.2, 2.1),
    graftHeightMm: fc.constantFrom(undefined, 0, 120),
  }),
  fc.record({
    kind: fc.constant('bare_root' as const),
    caliperMm: fc.integer({ min: 10, max: 60 }),
    heightM: fc.integer({ min: 10, max: 40 }).map((dm) => dm / 10),
    rootSpreadMm: fc.integer({ min: 300, max: 1000 }),
    rootDepthMm: fc.integer({ min: 150, max: 400 }),
  }),
);
const layered = [
  { soil: 'sandy_loam' as const, toMm: 200, fill: true, rateMmPerH: null },
  { soil: 'clay' as const, toMm: 320, fill: false, rateMmPerH: null },
  { soil: 'sand' as const, toMm: 3000, fill: false, rateMmPerH: null },
];
const groundArb: fc.Arbitrary<GroundFacts> = fc.record({
  soil: fc.constantFrom(...soilClasses),
  stony: fc.boolean(),
  compacted: fc.boolean(),
  percolation: fc.constant([]),
  slopePct: fc.constantFrom(0, 3, 8, 15, 25),
  fallsTowardsDeg: fc.constantFrom(null, 112),
  stripWidthMm: fc.constantFrom('open' as const, 900, 1400),
  wireHeightM: fc.constant('none' as const),
  horizons: fc.constantFrom(undefined, layered),
});
const practiceArb: fc.Arbitrary<Practice> = fc
  .tuple(fc.constantFrom(...presets), fc.constantFrom('undisturbed' as const, 'dug_deeper' as const), fc.boolean())
  .map(([practice, base, always]) => ({
    ...practice,
    pitWidth: { ...practice.pitWidth, base },
    staking: always ? { ...practice.staking, rule: 'always' } : practice.staking,
  }));
const windy = { ...unknownAssessment('2026-11-01'), wind: 'exposed' as const, winterWindDeg: 250, summerWindDeg: 20 };

type TextShape = Extract<Shape, { kind: 'text' }>;
const texts = (drawing: Drawing) => drawing.shapes.filter((s): s is TextShape => s.kind === 'text');
const words = (drawing: Drawing) => texts(drawing).map(({ text }) => text);

function box(text: TextShape) {
  const width = textWidthPx(text.text, text.sizePx);
  const left = text.at[0] - (text.align === 'end' ? width : text.align === 'middle' ? width / 2 : 0);
  return { left, right: left + width, top: text.at[1] - text.sizePx * 0.8, bottom: text.at[1] + text.sizePx * 0.2 };
}

function planOf(practice: Practice, stock: Stock, ground: GroundFacts): PlantingPlan | null {
  const plan = plantingPlan({ work: defaultWorkRules, practice, stock, ground, assessment: windy });
  return plan.kind === 'plan' ? plan : null;
}

describe('pit section', () => {
  it('keeps its labels apart and inside, whatever school, tree, ground, units and width', () => {
    let drawn = 0;
    fc.assert(
      fc.property(
        practiceArb,
        stockArb,
        groundArb,
        fc.constantFrom(340, 390, 419, 505, 620, 900),
        fc.constantFrom('metric' as const, 'us' as const),
        (practice, stock, ground, widthPx, units) => {
          const plan = planOf(practice, stock, ground);
          if (!plan) return;
          drawn += 1;
          const { pit, stakes } = plan;
          const drawing = pitSection({
            plan: pit,
            stock,
            ground,
            practice,
            stakes,
            windsDeg: [250, 20],
            units,
            widthPx,
            heightPx: 420,
          });
          expect(drawing.heightPx).toBeLessThanOrEqual(421);
          const boxes = texts(drawing).map((t) => ({ ...box(t), text: t.text }));
          for (const [i, a] of boxes.entries()) {
            const inside = a.left >= 0 && a.right <= widthPx && a.top >= -1 && a.bottom <= drawing.heightPx;
            expect({ text: a.text, inside }).toEqual({ text: a.text, inside: true });
            for (const b of boxes.slice(i + 1)) {
              const overlap = a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;
              expect({ a: a.text, b: b.text, overlap }).toEqual({ a: a.text, b: b.text, overlap: false });
            }
          }
          for (const shape of drawing.shapes) {
            const points = shape.kind === 'text' ? [shape.at] : shape.points;
            expect(points.every(([x, y]) => Number.isFinite(x) && Number.isFinite(y))).toBe(true);
          }
        },
      ),
      { numRuns: 500 },
    );
    expect(drawn).toBeGreaterThan(150);
  });

  const ground: GroundFacts = { ...unknownGround, soil: 'clay', slopePct: 0, stripWidthMm: 'open' };
  const draw = (practice: Practice, stock: Stock = container, change: Partial<GroundFacts> = {}) => {
    const there = { ...ground, ...change };
    const plan = planOf(practice, stock, there);
    if (!plan) throw new Error('no plan');
    const drawing = pitSection({
      plan: plan.pit,
      stock,
      ground: there,
      practice,
      stakes: plan.stakes,
      windsDeg: [250],
      units: 'metric',
      widthPx: 760,
      heightPx: 420,
    });
    return { drawing, plan };
  };
  const preset = (id: string): Practice => presets.find((one) => one.id === id) ?? fieldDefault;

  it('draws depth and width to one scale', () => {
    const { drawing, plan } = draw(preset('native-soil'));
    const pit = drawing.shapes.find((s) => s.kind === 'line' && s.role === 'pit');
    if (pit?.kind !== 'line') throw new Error('no pit drawn');
    const xs = pit.points.map((p) => p[0]);
    const ys = pit.points.map((p) => p[1]);
    const scaleX = (Math.max(...xs) - Math.min(...xs)) / plan.pit.widthMm.value;
    const scaleY = (Math.max(...ys) - Math.min(...ys)) / plan.pit.depthMm.value;
    expect(scaleX).toBeCloseTo(scaleY, 9);
  });

  it('shows stakes with the tie under the first branch and the wind, where the tree is staked', () => {
    const staked = draw(preset('heavy-clay'), { ...container, heightM: 5, firstBranchM: 1.2 });
    expect(words(staked.drawing)).toEqual(
      expect.arrayContaining(['tie at 1100 mm', 'wind from WSW', 'first branch', '1.2 m']),
    );
    const stakes = (drawing: Drawing) => drawing.shapes.filter(({ role }) => role === 'stake');
    // Two stakes, each broken once.
    expect(stakes(staked.drawing)).toHaveLength(4);
    expect(stakes(draw(preset('native-soil')).drawing)).toEqual([]);
  });

  it('shows the berm, what lies over it, and how far the ring reaches', () => {
    const { drawing } = draw(fieldDefault);
    expect(words(drawing)).toEqual(expect.arrayContaining(['berm 90 mm', 'at the ball', 'ring 1200 mm']));
    const topOf = (role: string) =>
      Math.min(
        ...drawing.shapes
          .filter((s) => s.role === role && s.kind !== 'text')
          .flatMap((s) => (s.kind === 'text' ? [] : s.points.map((p) => p[1]))),
      );
    expect(topOf('mulch')).toBeLessThan(topOf('berm'));
    const atPit = { ...fieldDefault, berm: { ...fieldDefault.berm, where: 'pit_edge' as const } };
    expect(words(draw(atPit).drawing)).toContain('at the pit');
    expect(words(draw(preset('heavy-clay')).drawing).some((text) => text.startsWith('berm'))).toBe(false);
  });

  it('strews what is mixed in by its share, and says it', () => {
    const enriched = draw(preset('garden-enriched')).drawing;
    expect(enriched.shapes.filter(({ role }) => role === 'amendment')).toHaveLength(33);
    expect(words(enriched)).toEqual(expect.arrayContaining(['fill: 33 %', 'coarse compost']));
    const plain = draw(fieldDefault).drawing;
    expect(plain.shapes.some(({ role }) => role === 'amendment')).toBe(false);
    expect(words(plain)).toContain('fill: site soil');
  });

  it('shows surplus that stays on the ball, and soil put back under it', () => {
    const deep: Stock = { ...container, kind: 'balled', ballHeightMm: 500, topRootsDepthMm: 190 };
    expect(words(draw(fieldDefault, deep).drawing)).toContain('40 mm of surplus');
    const dug = { ...fieldDefault, pitWidth: { ...fieldDefault.pitWidth, base: 'dug_deeper' as const } };
    expect(words(draw(dug).drawing)).toContain('75 mm put back, firmed');
  });
});

describe('layers of the ground in the section', () => {
  it('are drawn where they begin, and named; those under what is drawn are not', () => {
    const layeredGround = { ...unknownGround, soil: 'loam' as const, slopePct: 0, horizons: layered };
    const plan = plantingPlan({
      work: defaultWorkRules,
      practice: fieldDefault,
      stock: container,
      ground: layeredGround,
      assessment: null,
    });
    if (plan.kind === 'no_plan') throw new Error('no plan');
    const drawing = pitSection({
      plan: plan.pit,
      stock: container,
      ground: layeredGround,
      practice: fieldDefault,
      units: 'metric',
      widthPx: 640,
      heightPx: 400,
    });
    // 300 mm of pit and 130 below it: layers from 200 and from 320 mm show.
    expect(drawing.shapes.filter(({ role }) => role === 'layer')).toHaveLength(2);
    expect(words(drawing)).toEqual(expect.arrayContaining(['clay from', '200 mm', 'sand from', '320 mm']));
    const shallow = { ...layeredGround, horizons: [layered[0], { ...layered[1], toMm: 900 }] as typeof layered };
    const deep = { ...shallow, horizons: [{ ...layered[0], toMm: 500 }, ...layered.slice(2)] as typeof layered };
    const drawn = (ground: GroundFacts) =>
      pitSection({
        plan: plan.pit,
        stock: container,
        ground,
        practice: fieldDefault,
        units: 'metric',
        widthPx: 640,
        heightPx: 400,
      });
    expect(drawn(shallow).shapes.filter(({ role }) => role === 'layer')).toHaveLength(1);
    expect(drawn(deep).shapes.filter(({ role }) => role === 'layer')).toHaveLength(0);
  });
});

describe('blocks of words one above another', () => {
  it('stand where they wish, pushed no further than they must be, and never over each other', () => {
    expect(
      stackApart(
        [
          { wish: 20, height: 18 },
          { wish: 90, height: 18 },
        ],
        { from: 14, to: 200 },
      ),
    ).toEqual([20, 90]);
    expect(
      stackApart(
        [
          { wish: 50, height: 33 },
          { wish: 50, height: 18 },
        ],
        { from: 14, to: 200 },
      ),
    ).toEqual([50, 83]);
    fc.assert(
      fc.property(
        fc.array(fc.record({ wish: fc.integer({ min: -50, max: 500 }), height: fc.constantFrom(18, 33, 48) }), {
          maxLength: 6,
        }),
        (blocks) => {
          const ys = stackApart(blocks, { from: 14, to: 376 });
          ys.forEach((y, i) => {
            expect(y).toBeGreaterThanOrEqual(14);
            if (i > 0) expect(y - (ys[i - 1] ?? 0)).toBeGreaterThanOrEqual(blocks[i - 1]?.height ?? 0);
            // Six blocks of three lines fit into the room: none is pushed out below.
            expect(y + (blocks[i]?.height ?? 0)).toBeLessThanOrEqual(376 + 18);
          });
        },
      ),
    );
  });
});
