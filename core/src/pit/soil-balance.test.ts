import fc from 'fast-check';
import { withChoice, fieldDefault, type ChoiceValue } from '../practice';
import { bareRoot, container, openLoam as ground } from '../../testing/checked-case';
import { bermSoilL, shoulderSoilL } from './pit-geometry';
import { pitPlan } from './pit-plan';

const apron = { runPerHeight: 2, leastRunMm: 120 };
const mound = { runPerHeight: 4, leastRunMm: 300 };
const level = { ballMm: 450, heightMm: 40, slopePct: 0, stripMm: 'open', rule: apron } as const;

describe('soil drawn up to a ball', () => {
  it('is h·a·π·(R + a/3) on level ground', () => {
    // π · 40 · 120 · (225 + 40) mm³, and π · 75 · 300 · (225 + 100) for a mound of one in four.
    expect(shoulderSoilL(level).moundL).toBeCloseTo(3.9961, 4);
    expect(shoulderSoilL({ ...level, heightMm: 75, rule: mound }).moundL).toBeCloseTo(22.9729, 4);
    expect(shoulderSoilL(level).bankL).toBe(0);
  });
  it('is none for a ball level with the ground, or where nothing is drawn up', () => {
    expect(shoulderSoilL({ ...level, heightMm: 0 }).moundL).toBe(0);
    expect(shoulderSoilL({ ...level, rule: { runPerHeight: 0, leastRunMm: 0 } })).toEqual({ moundL: 0, bankL: 0 });
  });
  it('grows downhill: a ball of 700 on 12 %, by summing the drawn profile over a fine grid', () => {
    const { moundL, bankL } = shoulderSoilL({ ...level, ballMm: 700, heightMm: 41, slopePct: 12 });
    // The grid's steps leave some hundredths of a litre.
    expect(Math.abs(moundL - 6.03)).toBeLessThan(0.03);
    expect(Math.abs(bankL - 14.84)).toBeLessThan(0.03);
  });
  it('ends where a strip ends', () => {
    // A ball of 700 in a strip of 900 has 100 mm on either side; its run of 120 is cut off there.
    const inStrip = shoulderSoilL({ ...level, ballMm: 700, stripMm: 900 }).moundL;
    expect(Math.abs(inStrip - 5.86)).toBeLessThan(0.03);
    expect(shoulderSoilL({ ...level, ballMm: 700, stripMm: 700 }).moundL).toBeLessThan(inStrip);
  });
});

describe('soil of a ring', () => {
  it('is its section led round, 2/π · 220 · 90 over 2π · 315 mm', () => {
    expect(bermSoilL({ fromMm: 205, heightMm: 90, straightMm: 0 })).toBeCloseTo(24.95, 2);
  });
  it('goes along the straight sides of a stretched pit too', () => {
    // From 390 mm, with straight sides of a metre: by integrating the wave over its width.
    expect(bermSoilL({ fromMm: 390, heightMm: 90, straightMm: 1000 })).toBeCloseTo(64.81, 2);
  });
});

const planned = (
  made: readonly (readonly [string, ChoiceValue])[],
  stock: Parameters<typeof pitPlan>[0]['stock'] = container,
) => {
  const practice = made.reduce((one, [path, value]) => withChoice(one, path, value), fieldDefault);
  const plan = pitPlan({ ground, stock, practice });
  if (plan.kind === 'no_plan') throw new Error('no plan');
  return plan;
};

describe('where the soil of a pit goes', () => {
  it('a ring of 450 mm takes about half of what its own ball displaces', () => {
    // Container 450 by 400, all of it below grade: 54.07 L.
    const { soil } = planned([['flareAboveGrade.baseMm', 0]], { ...container, topRootsDepthMm: 0 });
    expect(soil.bermL / (soil.dugL - soil.backL)).toBeCloseTo(24.95 / 54.07, 3);
    expect(soil.leftL).toBeCloseTo(54.07 - 24.95, 1);
  });
  it('a ring of turf takes none, nor does a practice without one', () => {
    for (const where of ['turf', 'none']) expect(planned([['berm.where', where]]).soil.bermL).toBe(0);
  });
  it('buys topsoil where spoil does not do: bare roots leave none over, and a ring asks for some', () => {
    const { soil, spoilL } = planned([['flareAboveGrade.baseMm', 0]], bareRoot);
    // From 230 mm, half of 500 less 20: 2/π · 220 · 90 over 2π · 340 mm.
    expect(soil.boughtL).toBeCloseTo(26.93, 2);
    expect([soil.leftL, spoilL.value]).toEqual([0, 0]);
    expect(spoilL.because.map(({ code }) => code)).toContain('soil_bought');
  });
  it('covers bare roots that stand proud: a disc of 500 by 40, and its shoulder', () => {
    expect(planned([], bareRoot).soil.moundL).toBeCloseTo(7.854 + 4.373, 2);
  });
  it('counts what is mixed in as soil left over, and what caves in as never lifted', () => {
    const mixed = planned([
      ['backfill.material', 'coarse_compost'],
      ['backfill.share', 0.25],
    ]);
    expect(mixed.soil.leftL - planned([]).soil.leftL).toBeCloseTo(mixed.backfillL.value / 4, 9);
    const caved = planned([['pitWidth.sides', 'broken_down']]);
    expect(caved.soil.dugL).toBeCloseTo(132.54, 2);
    expect(caved.soil.cavedL).toBeCloseTo(209.85 - 132.54, 2);
    expect(caved.soil.leftL).toBeCloseTo(planned([]).soil.leftL, 9);
  });
  it('balances whatever is chosen', () => {
    const options = {
      'berm.where': ['ball_edge', 'pit_edge', 'turf', 'none'],
      'flareAboveGrade.shoulder': ['apron', 'mound', 'none'],
      'pitWidth.sides': ['sloped', 'straight', 'broken_down'],
      'pitWidth.base': ['undisturbed', 'dug_deeper'],
      'backfill.place': ['in_fill', 'on_base', 'area_then_hole', 'on_top', 'whole_area'],
    };
    const choice = fc.record(
      Object.fromEntries(Object.entries(options).map(([path, values]) => [path, fc.constantFrom(...values)])),
    );
    fc.assert(
      fc.property(choice, fc.constantFrom(container, bareRoot), (made, stock) => {
        const { soil } = planned(
          [...Object.entries(made), ['backfill.material', 'bark_fines'], ['backfill.share', 0.5]],
          stock,
        );
        const { dugL, cavedL, boughtL, backL, moundL, bankL, bermL, leftL } = soil;
        expect(dugL + cavedL + boughtL).toBeCloseTo(backL + moundL + bankL + bermL + leftL, 6);
      }),
    );
  });
});
