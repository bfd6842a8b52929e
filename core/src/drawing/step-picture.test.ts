import { unknownAssessment, unknownGround } from '../ground';
import { defaultWorkRules, plantingPlan, type PlantingStep } from '../pit';
import { presets } from '../practice';
import type { Stock } from '../stock';
import { stepPicture } from './step-picture';
import { textWidthPx } from './shapes';

const stocks: Stock[] = [
  { kind: 'container', caliperMm: 50, heightM: 3, ballDiameterMm: 450, ballHeightMm: 400, topRootsDepthMm: 60 },
  { kind: 'balled', caliperMm: 70, heightM: 4, ballDiameterMm: 800, ballHeightMm: 600, topRootsDepthMm: 190 },
  { kind: 'bare_root', caliperMm: 25, heightM: 2, rootSpreadMm: 500, rootDepthMm: 300 },
];
const seen = { ...unknownAssessment('2026-11-01'), pavementDeg: 210 };
const steps: PlantingStep[] = stocks.flatMap((stock) =>
  presets.flatMap((practice) => {
    const ground = { ...unknownGround, soil: 'loam' as const, slopePct: 0 };
    const plan = plantingPlan({ work: defaultWorkRules, practice, stock, ground, assessment: seen });
    return plan.kind === 'plan' ? plan.steps : [];
  }),
);

describe('pictures of steps', () => {
  it('are drawn for the steps that name one, inside their frame, in either unit', () => {
    const named = steps.filter(({ picture }) => picture !== null);
    expect(new Set(named.map(({ picture }) => picture)).size).toBe(10);
    for (const step of named) {
      for (const units of ['metric', 'us'] as const) {
        const drawing = stepPicture(step, units);
        if (!drawing) throw new Error(step.code);
        expect(drawing.description).toMatch(/^[A-Z].*\.$/);
        for (const shape of drawing.shapes) {
          const points = shape.kind === 'text' ? [shape.at] : shape.points;
          for (const [x, y] of points) {
            expect([step.code, x >= 0 && x <= drawing.widthPx, y >= 0 && y <= drawing.heightPx]).toEqual([
              step.code,
              true,
              true,
            ]);
          }
          if (shape.kind !== 'text') continue;
          const width = textWidthPx(shape.text, shape.sizePx);
          const left = shape.at[0] - (shape.align === 'end' ? width : shape.align === 'middle' ? width / 2 : 0);
          expect([step.code, shape.text, left >= 0 && left + width <= drawing.widthPx]).toEqual([
            step.code,
            shape.text,
            true,
          ]);
        }
      }
    }
  });

  it('carry the numbers of the step', () => {
    const step = steps.find(({ code }) => code === 'check_depth');
    const words = step && stepPicture(step, 'metric')?.shapes.flatMap((one) => (one.kind === 'text' ? [one.text] : []));
    expect(words).toContain(`${String(Math.round(Number(step?.facts['depthMm'])))} mm`);
  });

  it('are left out where words say it', () => {
    const bare = steps.filter(({ picture }) => picture === null);
    expect(bare.map(({ code }) => code)).toContain('label');
    expect(bare.every((step) => stepPicture(step, 'metric') === null)).toBe(true);
  });
});
