import fc from 'fast-check';
import { InvalidInputError } from '../errors';
import { unknownGround, type GroundFacts } from '../ground';
import { fieldDefault, presets, withChoice, type Practice } from '../practice';
import type { BallStock, Stock } from '../stock';
import { container, fall, openLoam } from '../../testing/checked-case';
import { overDug, pitPlan, type PitPlan } from './pit-plan';

const steady = (fallMm: number) => [0, 60, 120, 180].map((minute, i) => ({ minute, levelMm: 1000 - i * fallMm }));
const ground: GroundFacts = {
  ...unknownGround,
  soil: 'loam',
  percolation: steady(40),
  slopePct: 0,
  stripWidthMm: 'open',
};
const ball = (
  kind: BallStock['kind'],
  ballDiameterMm: number,
  ballHeightMm: number,
  topRootsDepthMm: number,
): BallStock => ({
  kind,
  ballDiameterMm,
  ballHeightMm,
  topRootsDepthMm,
  caliperMm: 50,
  heightM: 3,
});
/** The field default with another base height and width, as a school would choose them. */
const practice = (baseMm: number, ballFactor: number): Practice => ({
  ...fieldDefault,
  flareAboveGrade: { ...fieldDefault.flareAboveGrade, baseMm },
  pitWidth: { ...fieldDefault.pitWidth, ballFactor },
});

function plan(input: {
  ground?: Partial<GroundFacts>;
  stock: Stock;
  practice?: Practice;
  fillUnderBallMm?: number;
  fillFirmed?: boolean;
}): PitPlan {
  const result = pitPlan({
    ...input,
    ground: { ...ground, ...input.ground },
    practice: input.practice ?? fieldDefault,
  });
  if (result.kind !== 'plan') throw new Error(`no plan: ${result.because.map((r) => r.code).join()}`);
  return result;
}

describe('drainage', () => {
  // 24 mm/h: slow by the shipped lines, which begin good ground at 25.
  const ground = { ...openLoam, percolation: fall(24) };
  const proud = (practice: Practice) => {
    const plan = pitPlan({ ground, stock: container, practice });
    if (plan.kind === 'no_plan') throw new Error('no plan');
    return plan.proudMm.value;
  };
  it('is judged by the lines the practice draws', () => {
    expect(proud(fieldDefault)).toBe(75);
    expect(proud(withChoice(fieldDefault, 'percolation.goodFromMmPerH', 20))).toBe(40);
  });
});

describe('pit plan', () => {
  // Check values of an independent calculation; volumes to 0.01 L.
  it.each([
    {
      name: 'container, flat',
      stock: ball('container', 450, 400, 60),
      base: 40,
      factor: 2.5,
      site: {},
      he: 340,
      d: 300,
      mean: 300,
      downhill: 40,
      length: 1125,
      pitL: 209.85,
      fillL: 169.29,
      mound: 4.0,
      bank: 0,
      berm: 24.95,
      spoilL: 14.52,
    },
    {
      name: 'balled on a slope',
      stock: ball('balled', 700, 500, 90),
      base: 41,
      factor: 3,
      site: { slopePct: 12 },
      he: 410,
      d: 369,
      mean: 327,
      downhill: 125,
      length: 2100,
      pitL: 642.92,
      fillL: 554.83,
      mound: 6.03,
      bank: 14.84,
      berm: 34.85,
      spoilL: 40.46,
    },
    {
      name: 'container in a strip',
      stock: ball('container', 600, 500, 0),
      base: 25,
      factor: 2,
      site: { stripWidthMm: 900 },
      he: 500,
      d: 475,
      mean: 475,
      downhill: 25,
      length: 1449.78,
      pitL: 473.09,
      fillL: 358.93,
      mound: 3.2,
      bank: 0,
      berm: 30.89,
      spoilL: 100.08,
    },
    {
      name: 'balled in a strip',
      stock: ball('balled', 700, 500, 50),
      base: 40,
      factor: 2.5,
      site: { stripWidthMm: 900 },
      he: 450,
      d: 410,
      mean: 410,
      downhill: 40,
      length: 2865.68,
      pitL: 847.79,
      fillL: 737.34,
      mound: 5.86,
      bank: 0,
      berm: 34.85,
      spoilL: 87.18,
    },
  ])('matches the reference for a $name', (c) => {
    const p = plan({ stock: c.stock, practice: practice(c.base, c.factor), ground: c.site });
    expect(p.rootsHeightMm).toBe(c.he);
    expect(p.depthMm.value).toBeCloseTo(c.d, 6);
    expect(p.meanDepthMm).toBeCloseTo(c.mean, 6);
    expect(p.downhillProudMm.value).toBeCloseTo(c.downhill, 6);
    expect(p.shape.lengthMm).toBeCloseTo(c.length, 2);
    // Half a unit of the last printed digit, and the rounding of the printed inputs.
    expect(Math.abs(p.pitL.value - c.pitL)).toBeLessThan(0.011);
    expect(Math.abs(p.backfillL.value - c.fillL)).toBeLessThan(0.011);
    // By summing the drawn profile over a grid of 3,000 by 3,000: good to a few hundredths of a litre.
    expect(Math.abs(p.soil.moundL - c.mound)).toBeLessThan(0.03);
    expect(Math.abs(p.soil.bankL - c.bank)).toBeLessThan(0.03);
    expect(Math.abs(p.soil.bermL - c.berm)).toBeLessThan(0.011);
    expect(Math.abs(p.spoilL.value - c.spoilL)).toBeLessThan(0.05);
  });

  it('plans bare roots by their own geometry', () => {
    const bare: Stock = { kind: 'bare_root', rootSpreadMm: 500, rootDepthMm: 300, caliperMm: 25, heightM: 2 };
    const p = plan({ stock: bare, practice: practice(0, 2.5) });
    expect(p.depthMm.value).toBe(300);
    expect(p.widthMm.value).toBe(800);
    expect(p.pitL.value).toBeCloseTo(150.8, 2);
    expect(p.backfillL.value).toBeCloseTo(150.8, 2);
    expect(p.spoilL.value).toBe(0);
  });

  it('stands a tree higher in clay, and by the largest allowance alone', () => {
    const stock = ball('container', 450, 400, 60);
    expect(plan({ stock }).proudMm.value).toBe(40);
    expect(plan({ stock, ground: { soil: 'clay' } }).proudMm.value).toBe(60);
    expect(plan({ stock, ground: { soil: 'clay', percolation: steady(10) } }).proudMm.value).toBe(75);
    const summing: Practice = {
      ...fieldDefault,
      flareAboveGrade: { ...fieldDefault.flareAboveGrade, allowances: 'sum' },
    };
    expect(plan({ stock, practice: summing, ground: { soil: 'clay', percolation: steady(10) } }).proudMm.value).toBe(
      95,
    );
  });

  it('allows for settlement of soil under the ball, more where it is loose', () => {
    const stock = ball('container', 450, 400, 60);
    expect(plan({ stock, fillUnderBallMm: 80 }).proudMm.value).toBeCloseTo(48, 9);
    expect(plan({ stock, fillUnderBallMm: 80, fillFirmed: false }).proudMm.value).toBeCloseTo(60, 9);
    expect(overDug({ dugDepthMm: 380, plannedDepthMm: 300, practice: fieldDefault })).toEqual({
      putBackMm: 80,
      settlementMm: 8,
    });
    expect(overDug({ dugDepthMm: 290, plannedDepthMm: 300, practice: fieldDefault }).putBackMm).toBe(0);
  });

  it('says why there can be no plan', () => {
    const codes = (input: Parameters<typeof pitPlan>[0]) => {
      const result = pitPlan(input);
      return result.kind === 'no_plan' ? result.because.map((r) => r.code) : [];
    };
    const stock = ball('balled', 700, 500, 90);
    expect(codes({ ground: { ...ground, slopePct: 50 }, stock, practice: fieldDefault })).toEqual(['slope_too_steep']);
    expect(codes({ ground: { ...ground, stripWidthMm: 600 }, stock, practice: fieldDefault })).toEqual([
      'strip_under_ball',
      'strip_takes',
    ]);
    expect(codes({ ground: unknownGround, stock, practice: fieldDefault })).toEqual(['soil_missing']);
    const bareOnly: Practice = { ...fieldDefault, appliesTo: ['bare_root'] };
    expect(codes({ ground, stock, practice: bareOnly })).toEqual(['stock_kind_not_covered']);
  });

  describe('a ball wider than its strip', () => {
    const offer = (kind: BallStock['kind'] | 'bare_root', caliperMm: number, available = 3) => ({
      nursery: 'Viveiro Azul',
      species: 'Quercus ilex',
      kind,
      caliperMm,
      available,
    });
    const why = (offers?: Parameters<typeof pitPlan>[0]['offers']) => {
      const stock = ball('balled', 700, 500, 90);
      const result = pitPlan({ ground: { ...ground, stripWidthMm: 600 }, stock, practice: fieldDefault, offers });
      return result.kind === 'no_plan' ? result.because.slice(1) : [];
    };

    it('is told the largest that fits', () => {
      expect(why()).toEqual([{ code: 'strip_takes', facts: { stock: 'balled', largestMm: 600 } }]);
    });
    it('is told the largest on offer that fits, of its kind before another', () => {
      // A ball is bought ten times as wide as the stem: 60 mm of caliper are 600 mm of ball.
      const offers = [offer('balled', 50), offer('balled', 60), offer('balled', 61), offer('container', 60)];
      expect(why(offers)[1]).toEqual({
        code: 'strip_offer',
        facts: { nursery: 'Viveiro Azul', stock: 'balled', caliperMm: 60, ballMm: 600 },
      });
      expect(why([offer('balled', 70), offer('container', 40)])[1]?.facts).toMatchObject({ stock: 'container' });
    });
    it('is told that nothing on offer fits, sold out ones left aside', () => {
      expect(why([offer('balled', 70), offer('balled', 50, 0)])[1]?.code).toBe('strip_no_offer');
      expect(why([])[1]?.code).toBe('strip_no_offer');
    });
  });

  describe('the berm', () => {
    const stock = ball('container', 450, 400, 60);
    const berm = (path: Practice['berm'], fallMm = 40) => {
      const { berm: built, bermBecause } = plan({
        stock,
        practice: { ...fieldDefault, berm: path },
        ground: { percolation: steady(fallMm) },
      });
      return { built, why: bermBecause.map(({ code }) => code) };
    };
    const { berm: usual } = fieldDefault;

    it('holds the dose over the ball, or over the pit, as the practice says', () => {
      // π/4·0.45²·90 mm and π/4·1.125²·90 mm.
      expect(berm(usual).built?.storeL).toBeCloseTo(14.31, 2);
      expect(berm({ ...usual, where: 'pit_edge' }).built).toMatchObject({ where: 'pit_edge' });
      expect(berm({ ...usual, where: 'pit_edge' }).built?.storeL).toBeCloseTo(89.46, 2);
      expect(berm(usual).why).toEqual(['berm_placed']);
    });
    it.each([
      ['slow', 12],
      ['stands', 2],
    ])('is left out where water drains %s, unless the practice keeps it', (_name, fallMm) => {
      expect(berm(usual, fallMm)).toEqual({ built: null, why: ['berm_left_out'] });
      expect(berm({ ...usual, notInSlowSoil: false }, fallMm).why).toEqual(['berm_placed']);
    });
    it('is not built by a school that builds none, whatever the soil', () => {
      for (const fallMm of [2, 12, 40, 150]) {
        expect(berm({ ...usual, where: 'none' }, fallMm)).toEqual({ built: null, why: ['berm_by_practice'] });
      }
    });
    it('that is not there is not filled', () => {
      const manyHands = presets.find(({ id }) => id === 'many-hands') ?? fieldDefault;
      const soak = (fallMm: number) =>
        plan({ stock, practice: manyHands, ground: { percolation: steady(fallMm) } }).firstWaterL;
      expect(soak(40).value).toBeCloseTo(2 * 14.31, 1);
      // Twice what 45.96 L of container mix take from wilting to saturation.
      expect(soak(12).value).toBeCloseTo(2 * 45.96 * 0.55, 1);
      expect(soak(12).because[0]?.code).toBe('soak_no_berm');
    });
  });

  describe('in a strip', () => {
    const stock = ball('balled', 700, 500, 50);
    const strip = { stripWidthMm: 900 };

    it('buys nothing for a ring that lies in the pit', () => {
      const whole = withChoice(
        withChoice(practice(40, 2.5), 'backfill.material', 'coarse_compost'),
        'backfill.share',
        0.3,
      );
      const amended = withChoice(whole, 'backfill.place', 'whole_area');
      expect(plan({ stock, practice: amended, ground: strip }).amendments.each).toEqual([]);
      // On open ground the ring is the pit's own width: nothing outside it either; with 2.4 m there is.
      const wide = withChoice(amended, 'mulch.leastRingDiameterMm', 2400);
      const openL = plan({ stock, practice: wide }).amendments.each[0]?.litres;
      expect(openL).toBeCloseTo((Math.PI / 4) * (2.4 ** 2 - 1.75 ** 2) * 200 * 0.3, 6);
    });
    it('mulches to both ends of the pit, and counts rain over the ring alone', () => {
      const stretched = plan({ stock, practice: practice(40, 2.5), ground: strip });
      expect(stretched.mulchRingMm).toBe(1200);
      expect(stretched.mulchLengthMm).toBeCloseTo(2865.68, 1);
      // 967,781 mm² of the ring of 1,200 lie in the strip: 25 mm of rain on them are 24.2 L.
      expect(25 * stretched.ringM2).toBeCloseTo(24.19, 2);
    });
  });

  it('says where the gap around the trunk leaves no mulch, and buys none', () => {
    const stock = { ...ball('container', 450, 400, 60), caliperMm: 60 };
    const choose = (one: Practice, path: string, value: number) => withChoice(one, path, value);
    const gap = choose(choose(practice(40, 1), 'mulch.gapMm', 300), 'mulch.leastRingDiameterMm', 600);
    const { mulchL } = plan({ stock, practice: gap });
    expect([mulchL.value, mulchL.because[0]?.code]).toEqual([0, 'mulch_no_room']);
  });

  it('takes the heavy share of the ball in slow soil of any texture, and in heavy soil that drains', () => {
    const shares = withChoice(
      withChoice(fieldDefault, 'flareAboveGrade.ballShare', 0.05),
      'flareAboveGrade.ballShareHeavy',
      0.2,
    );
    const stock = ball('container', 450, 400, 0);
    const proud = (soil: GroundFacts['soil'], fallMm: number) =>
      plan({ stock, practice: shares, ground: { soil, percolation: steady(fallMm) } }).proudMm.value;
    // 40 mm, a twentieth or a fifth of 400 mm, and the larger allowance: 35 for slow, 20 for clay.
    expect([proud('sand', 40), proud('sand', 12), proud('sand', 2), proud('clay', 40)]).toEqual([60, 155, 155, 140]);
  });

  it('leaves what wicks out of soil where water is slow or stands', () => {
    const peat = withChoice(withChoice(fieldDefault, 'backfill.material', 'peat'), 'backfill.share', 0.3);
    const stock = ball('container', 450, 400, 60);
    const mixed = (fallMm: number) =>
      plan({ stock, practice: peat, ground: { percolation: steady(fallMm) } }).amendments;
    expect(mixed(40).each[0]?.material).toBe('peat');
    for (const fallMm of [2, 12]) {
      expect(mixed(fallMm)).toMatchObject({
        each: [],
        inFillL: 0,
        because: [{ code: 'amendment_refused' }],
      });
    }
  });

  it('refuses measures no tree has, naming field, value and limit', () => {
    const stock = ball('container', 450, 400, 400);
    expect(() => plan({ stock })).toThrow('topRootsDepthMm must be less than the ball height 400 mm, got 400');
    expect(() => plan({ stock: ball('container', Number.NaN, 400, 0) })).toThrow(InvalidInputError);
    expect(() => plan({ stock: ball('container', 450, 400, 60), ground: { slopePct: 80 } })).toThrow(
      'slopePct must be within 0–60 %, got 80',
    );
  });

  it('never gives an impossible number', () => {
    const anyGround = fc.record({
      soil: fc.constantFrom('sand', 'sandy_loam', 'loam', 'clay_loam', 'clay'),
      stony: fc.boolean(),
      compacted: fc.boolean(),
      slopePct: fc.integer({ min: 0, max: 60 }),
      stripWidthMm: fc.oneof(fc.constant('open' as const), fc.integer({ min: 300, max: 6000 })),
      fall: fc.integer({ min: 0, max: 150 }),
    });
    const anyBall = fc.record({
      kind: fc.constantFrom('container' as const, 'balled' as const),
      diameter: fc.integer({ min: 200, max: 1500 }),
      height: fc.integer({ min: 200, max: 1200 }),
      surplus: fc.integer({ min: 0, max: 199 }),
    });
    fc.assert(
      fc.property(anyGround, anyBall, ({ fall, ...site }, b) => {
        const result = pitPlan({
          ground: { ...ground, ...site, percolation: steady(fall) },
          stock: ball(b.kind, b.diameter, b.height, b.surplus),
          practice: fieldDefault,
        });
        if (result.kind === 'no_plan') return;
        expect(result.depthMm.value + result.proudMm.value).toBeCloseTo(result.rootsHeightMm, 9);
        expect(result.proudMm.value).toBeGreaterThan(0);
        expect(result.downhillProudMm.value).toBeGreaterThanOrEqual(result.proudMm.value);
        for (const volume of [result.pitL, result.backfillL, result.spoilL, result.mulchL, result.firstWaterL]) {
          expect(volume.value).toBeGreaterThanOrEqual(0);
          expect(volume.because.length).toBeGreaterThan(0);
        }
        const { dugL, cavedL, boughtL, backL, moundL, bankL, bermL, leftL } = result.soil;
        expect(dugL + cavedL + boughtL - (backL + moundL + bankL + bermL + leftL)).toBeCloseTo(0, 6);
        expect(result.spoilL.value).toBeCloseTo(leftL * 1.25, 9);
        for (const litres of Object.values(result.soil)) expect(litres).toBeGreaterThanOrEqual(-1e-9);
      }),
    );
  });

  it('never stands a tree lower in heavier soil', () => {
    const order = ['sand', 'sandy_loam', 'loam', 'clay_loam', 'clay'] as const;
    const proud = order.map((soil) => plan({ stock: ball('container', 450, 400, 60), ground: { soil } }).proudMm.value);
    expect([...proud].sort((a, b) => a - b)).toEqual(proud);
  });
});

describe('surplus that cannot come off at planting', () => {
  const deep = ball('balled', 700, 500, 200);
  it('stays on the ball beyond what the practice clears at once, and stands the flare higher', () => {
    // 200 mm of surplus, 150 cleared: 50 stay; 25 mm more than the 40 of the practice.
    const { surplusLeftMm, proudMm, depthMm } = plan({ stock: deep });
    expect([surplusLeftMm, proudMm.value, depthMm.value]).toEqual([50, 65, 300 - 65]);
    expect(proudMm.because.map(({ code }) => code)).toContain('flare_for_later');
  });
  it('is what somebody found cannot come off, if that is more', () => {
    expect(plan({ stock: { ...deep, surplusLeftMm: 120 } }).surplusLeftMm).toBe(120);
    expect(plan({ stock: { ...deep, surplusLeftMm: 10 } }).surplusLeftMm).toBe(50);
  });
  it('moves no more soil than the flare asks for: the base of the ball stands where it would', () => {
    const clearAll = { ...fieldDefault, roots: { ...fieldDefault.roots, clearMostMm: 600 } };
    const later = { ...clearAll, flareAboveGrade: { ...clearAll.flareAboveGrade, laterExtraMm: 0 } };
    const left = plan({ stock: { ...deep, surplusLeftMm: 80 }, practice: later });
    const cleared = plan({ stock: deep, practice: later });
    expect([left.depthMm.value, left.pitL.value]).toEqual([cleared.depthMm.value, cleared.pitL.value]);
  });
  it('cannot be more than there is', () => {
    expect(() => plan({ stock: { ...deep, surplusLeftMm: 201 } })).toThrow('surplusLeftMm must be within 0–200');
  });
});

describe('a graft', () => {
  const stock = ball('container', 450, 400, 60);
  const grafted = (graftHeightMm: number, leastMm = 50) =>
    plan({
      stock: { ...stock, graftHeightMm },
      practice: { ...fieldDefault, flareAboveGrade: { ...fieldDefault.flareAboveGrade, graftLeastMm: leastMm } },
    });
  it('low on the stem lifts the ball until it stands clear of grade', () => {
    const { proudMm, graftAboveGradeMm } = grafted(0);
    expect([proudMm.value, graftAboveGradeMm]).toEqual([50, 50]);
    expect(proudMm.because.at(-1)?.code).toBe('flare_for_graft');
  });
  it('high on the stem changes nothing', () => {
    const { proudMm, graftAboveGradeMm } = grafted(120);
    expect([proudMm.value, graftAboveGradeMm]).toEqual([40, 160]);
  });
  it('never ends lower than the practice asks', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 300 }), fc.integer({ min: 0, max: 200 }), (heightMm, leastMm) => {
        expect(grafted(heightMm, leastMm).graftAboveGradeMm).toBeGreaterThanOrEqual(leastMm);
      }),
    );
  });

  describe('planted to the container’s surface', () => {
    const surface = (made: Readonly<Record<string, number>> = {}) =>
      Object.entries({ 'flareAboveGrade.measuredFrom': 'surface', ...made }).reduce(
        (one, [path, value]) => withChoice(one, path, value),
        practice(40, 2.5),
      );
    it('buries the flare as deep as it was potted, says so, and digs for the whole ball', () => {
      const p = plan({ stock: ball('container', 450, 400, 20), practice: surface() });
      expect([p.proudMm.value, p.surplusLeftMm, p.depthMm.value]).toEqual([20, 20, 360]);
      expect(p.proudMm.because.at(-1)).toEqual({ code: 'surface_kept', facts: { underMm: 20 } });
    });
    it('is refused where the flare lies deeper than is borne, or would come under grade', () => {
      const deep = plan({ stock: ball('container', 450, 400, 60), practice: surface() });
      expect(deep.proudMm.because.at(-1)).toEqual({ code: 'surface_refused', facts: { underMm: 60, mostMm: 25 } });
      expect([deep.proudMm.value, deep.surplusLeftMm, deep.depthMm.value]).toEqual([40, 0, 300]);
      const level = plan({
        stock: ball('container', 450, 400, 20),
        practice: surface({ 'flareAboveGrade.baseMm': 10 }),
      });
      expect(level.proudMm.because.at(-1)?.facts).toEqual({ underMm: 20, mostMm: 10 });
    });
    it('says nothing of balls from a field', () => {
      expect(plan({ stock: ball('balled', 450, 400, 20), practice: surface() }).surplusLeftMm).toBe(0);
    });
  });

  it('takes the heavy share of the ball among rocks too', () => {
    const shares = withChoice(
      withChoice(withChoice(fieldDefault, 'flareAboveGrade.ballShareHeavy', 0.2), 'flareAboveGrade.stonyExtraMm', 0),
      'flareAboveGrade.ballShare',
      0.05,
    );
    const stock = ball('container', 450, 400, 0);
    expect(plan({ stock, practice: shares, ground: { stony: true } }).proudMm.value).toBe(120);
    expect(plan({ stock, practice: shares }).proudMm.value).toBe(60);
  });
});
