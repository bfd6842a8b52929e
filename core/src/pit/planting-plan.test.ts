import fc from 'fast-check';
import { soilClasses, unknownAssessment, type Assessment, type GroundFacts, type SoilClass } from '../ground';
import { fieldDefault, nearestPreset, presets, withChoice, type Practice } from '../practice';
import type { Stock } from '../stock';
import { bareRoot, container, fall, openLoam as ground } from '../../testing/checked-case';
import { sayReason, sayStep } from '../wording';
import { shoppingList, sumAmounts } from './materials';
import { plantingPlan, type PlantingPlan } from './planting-plan';
import { defaultWorkRules } from './work-rules';

const stockArb: fc.Arbitrary<Stock> = fc.oneof(
  fc.record({
    kind: fc.constantFrom('container' as const, 'balled' as const),
    caliperMm: fc.integer({ min: 15, max: 140 }),
    heightM: fc.integer({ min: 8, max: 80 }).map((dm) => dm / 10),
    ballDiameterMm: fc.integer({ min: 200, max: 1200 }),
    ballHeightMm: fc.integer({ min: 200, max: 900 }),
    topRootsDepthMm: fc.integer({ min: 0, max: 190 }),
  }),
  fc.record({
    kind: fc.constant('bare_root' as const),
    caliperMm: fc.integer({ min: 10, max: 60 }),
    heightM: fc.integer({ min: 8, max: 40 }).map((dm) => dm / 10),
    rootSpreadMm: fc.integer({ min: 200, max: 1200 }),
    rootDepthMm: fc.integer({ min: 110, max: 500 }),
  }),
);
const groundArb: fc.Arbitrary<GroundFacts> = fc.record({
  soil: fc.constantFrom(...soilClasses),
  stony: fc.boolean(),
  compacted: fc.boolean(),
  percolation: fc.constantFrom([], fall(2), fall(12), fall(60), fall(180)),
  slopePct: fc.integer({ min: 0, max: 60 }),
  fallsTowardsDeg: fc.constant(null),
  stripWidthMm: fc.oneof(fc.constant('open' as const), fc.integer({ min: 400, max: 3000 })),
  wireHeightM: fc.constant('none' as const),
});
const presetArb = fc.constantFrom(...presets);

const numbersOf = ({ pit, labour, materials, routine }: PlantingPlan): number[] => [
  pit.depthMm.value,
  pit.meanDepthMm,
  pit.widthMm.value,
  pit.pitL.value,
  pit.backfillL.value,
  pit.amendments.inFillL,
  ...Object.values(pit.soil).map((litres) => litres + 1e-9),
  pit.spoilL.value,
  pit.mulchL.value,
  pit.firstWaterL.value,
  pit.massKg.value,
  labour.hours,
  ...Object.values(materials),
  routine.weeklyL ?? 0,
];

/** Ball below grade by its own formula, π/4·D²·He·τ·d̄/He, written out apart from the code it checks. */
function ballBelowGradeL(stock: Stock, pit: PlantingPlan['pit']): number {
  if (stock.kind === 'bare_root') return 0;
  const shape = stock.kind === 'container' ? 0.85 : 0.7;
  return ((Math.PI / 4) * stock.ballDiameterMm ** 2 * pit.meanDepthMm * shape) / 1e6;
}

describe('every preset on every kind of stock and ground', () => {
  it('gives a plan without an impossible number, or says why there is none', () => {
    let planned = 0;
    fc.assert(
      fc.property(presetArb, stockArb, groundArb, (practice, stock, ground) => {
        const plan = plantingPlan({ work: defaultWorkRules, practice, stock, ground, assessment: null });
        if (plan.kind === 'no_plan') {
          expect(plan.because.map((reason) => sayReason(reason, 'metric')).join('')).not.toBe('');
          if (!practice.appliesTo.includes(stock.kind)) {
            expect(plan.because[0]?.code).toBe('stock_kind_not_covered');
            expect(nearestPreset(practice, stock.kind).appliesTo).toContain(stock.kind);
          }
          return;
        }
        planned += 1;
        for (const value of numbersOf(plan)) {
          expect(Number.isFinite(value)).toBe(true);
          expect(value).toBeGreaterThanOrEqual(0);
        }
        const { pit } = plan;
        // Never dug below the base of the roots, never planned under grade.
        expect(pit.depthMm.value).toBeLessThanOrEqual(pit.rootsHeightMm + 1e-9);
        expect(pit.proudMm.value).toBeGreaterThanOrEqual(0);
        // Soil moves once: what comes out or is bought goes back, is built up or is left over.
        const { dugL, cavedL, boughtL, backL, moundL, bankL, bermL, leftL } = pit.soil;
        expect(dugL + cavedL + boughtL).toBeCloseTo(backL + moundL + bankL + bermL + leftL, 6);
        expect(Math.min(leftL, boughtL)).toBe(0);
        expect(pit.spoilL.value).toBeCloseTo(leftL * practice.backfill.spoilBulking, 9);
        const deeperL = backL - (pit.backfillL.value - pit.amendments.inFillL);
        expect(dugL + cavedL - deeperL).toBeCloseTo(pit.pitL.value, 6);
        expect(pit.backfillL.value + ballBelowGradeL(stock, pit)).toBeCloseTo(pit.pitL.value, 6);
        // Bare roots have their own geometry: straight sides, spread and margin wide.
        if (stock.kind === 'bare_root' && pit.shape.widthMm === pit.shape.lengthMm) {
          expect(pit.shape.widthMm).toBeCloseTo(stock.rootSpreadMm + practice.pitWidth.bareRootMarginMm, 6);
          expect(pit.shape.bottomWidthMm).toBeCloseTo(pit.shape.widthMm, 6);
        }
        expect(plan.steps.map((step) => sayStep(step, 'us').act).every((words) => words.length > 5)).toBe(true);
      }),
      { numRuns: 600 },
    );
    expect(planned).toBeGreaterThan(150);
  });

  it('never stands a ball lower in heavier or slower soil', () => {
    fc.assert(
      fc.property(presetArb, stockArb, groundArb, (practice, stock, ground) => {
        const proud = (change: Partial<GroundFacts>) => {
          const plan = plantingPlan({
            work: defaultWorkRules,
            practice,
            stock,
            ground: { ...ground, ...change },
            assessment: null,
          });
          return plan.kind === 'plan' ? plan.pit.proudMm.value : Infinity;
        };
        const lightToHeavy = soilClasses.map((soil) => proud({ soil }));
        expect(lightToHeavy).toEqual([...lightToHeavy].sort((a, b) => a - b));
        const freeToTight = [180, 60, 12, 2].map((mm) => proud({ percolation: fall(mm) }));
        expect(freeToTight).toEqual([...freeToTight].sort((a, b) => a - b));
      }),
      { numRuns: 200 },
    );
  });
});

const planOf = (practice: Practice, stock: Stock = container, change: Partial<GroundFacts> = {}): PlantingPlan => {
  const plan = plantingPlan({
    work: defaultWorkRules,
    practice,
    stock,
    ground: { ...ground, ...change },
    assessment: null,
  });
  if (plan.kind === 'no_plan') throw new Error(plan.because.map((reason) => reason.code).join());
  return plan;
};
const preset = (id: string): Practice => presets.find((one) => one.id === id) ?? fieldDefault;

describe('schools on the same tree', () => {
  it('field default is the checked case', () => {
    // Container 450 × 400, surplus 60, 2.5 ×, 40 proud: 209.85 L of pit, 169.29 L of fill.
    const { pit } = planOf(fieldDefault);
    expect(pit.pitL.value).toBeCloseTo(209.85, 2);
    expect(pit.backfillL.value).toBeCloseTo(169.29, 2);
    expect(pit.amendments.each).toEqual([]);
  });

  it('garden enriched stands level, takes a third of compost and a stake', () => {
    const { pit, stakes, materials } = planOf(preset('garden-enriched'));
    expect([pit.proudMm.value, pit.widthMm.value]).toEqual([0, 900]);
    expect(pit.amendments.each).toMatchObject([{ material: 'coarse_compost', place: 'in_fill' }]);
    expect(pit.amendments.inFillL).toBeCloseTo(pit.backfillL.value / 3, 9);
    expect(materials).toMatchObject({ stake: 1, pellets: 0.1 });
    expect(stakes?.bearingsDeg).toEqual([]);
  });

  it('leaves what wicks out of slow soil, and says so', () => {
    const fine = withChoice(preset('garden-enriched'), 'backfill.material', 'fine_compost');
    expect(planOf(fine).pit.amendments.each[0]?.material).toBe('fine_compost');
    const slow = planOf(fine, container, { percolation: fall(12) }).pit.amendments;
    expect(slow).toMatchObject({ each: [], because: [{ code: 'amendment_refused' }] });
  });

  it('bare-root has its own geometry: spread 500, 300 deep, level, 150.80 L', () => {
    const { pit, steps, stakes } = planOf(preset('dormant-bare-root'), bareRoot);
    expect(pit.pitL.value).toBeCloseTo(150.8, 2);
    expect(pit.firstWaterL.value).toBe(0);
    expect(stakes?.before).toBe(true);
    const order = steps.map(({ code }) => code);
    expect(order.indexOf('stake_before')).toBeLessThan(order.indexOf('place'));
    expect(order).not.toContain('unwrap');
  });

  it('a ball too shallow for a mound has no plan', () => {
    const flatBall: Stock = { ...container, ballHeightMm: 220, topRootsDepthMm: 60 };
    const plan = plantingPlan({
      work: defaultWorkRules,
      practice: preset('heavy-clay'),
      stock: flatBall,
      ground,
      assessment: null,
    });
    expect(plan).toMatchObject({ kind: 'no_plan', because: [{ code: 'ball_too_shallow' }] });
  });

  it('fills the berm twice where many hands plant: 14.3 L a time over a ball of 450', () => {
    expect(planOf(preset('many-hands')).pit.firstWaterL.value).toBeCloseTo(2 * (Math.PI / 4) * 4.5 ** 2 * 0.9, 6);
  });
});

describe('stakes', () => {
  const tall: Stock = {
    kind: 'container',
    caliperMm: 40,
    heightM: 5,
    ballDiameterMm: 350,
    ballHeightMm: 320,
    topRootsDepthMm: 0,
  };
  const seen = { ...unknownAssessment('2026-11-01'), wind: 'exposed' as const, winterWindDeg: 250, summerWindDeg: 20 };
  it('hold a tall tree with a small ball against the wind, and come off', () => {
    const plan = plantingPlan({
      work: defaultWorkRules,
      practice: fieldDefault,
      stock: { ...tall, firstBranchM: 1.2 },
      ground,
      assessment: seen,
    });
    if (plan.kind === 'no_plan') throw new Error('no plan');
    expect(plan.stakes).toMatchObject({ stakes: 2, bearingsDeg: [160, 340], heightMm: 1100, offAfterMonths: 12 });
    expect(plan.materials).toMatchObject({ stake: 2, tie: 2.4 });
  });
  it('leave a tree alone that the wind does not reach', () => {
    const plan = (wind: 'sheltered' | 'exposed') =>
      plantingPlan({
        work: defaultWorkRules,
        practice: fieldDefault,
        stock: container,
        ground,
        assessment: { ...seen, wind },
      });
    expect(plan('sheltered')).toMatchObject({ stakes: null });
    expect(plan('exposed')).toMatchObject({ stakes: { stakes: 1, bearingsDeg: [250] } });
  });
  it('leave a heavy ball alone', () => {
    const heavy: Stock = {
      kind: 'balled',
      caliperMm: 60,
      heightM: 3,
      ballDiameterMm: 900,
      ballHeightMm: 600,
      topRootsDepthMm: 0,
    };
    const plan = plantingPlan({
      work: defaultWorkRules,
      practice: fieldDefault,
      stock: heavy,
      ground,
      assessment: seen,
    });
    expect(plan).toMatchObject({ kind: 'plan', stakes: null, stakeBecause: [{ code: 'stake_firm' }] });
  });
});

describe('materials', () => {
  it('are summed before they are rounded to what is sold, less what lies in store', () => {
    const each = Array.from({ length: 3 }, () => ({ coarse_compost: 30, mulch: 120, bucket: 3, water: 40 }));
    const lines = shoppingList(sumAmounts(each), { coarse_compost: 15 }, { ...defaultWorkRules.packs, mulch: 250 });
    expect(lines).toEqual([
      // 90 L needed, 15 there: 75 L are two bags of 40.
      { code: 'coarse_compost', needed: 90, inStore: 15, packs: 2, packSize: 40, bought: 80 },
      // The programme buys mulch by the quarter cubic metre.
      { code: 'mulch', needed: 360, inStore: 0, packs: 2, packSize: 250, bought: 500 },
      { code: 'bucket', needed: 3, inStore: 0, packs: 3, packSize: 1, bought: 3 },
      { code: 'water', needed: 120, inStore: 0, packs: 0, packSize: 1, bought: 0 },
    ]);
  });
  const tested = (soil: SoilClass, change: Partial<Assessment>, made: Practice = fieldDefault) => {
    const plan = plantingPlan({
      work: defaultWorkRules,
      practice: made,
      stock: container,
      ground: { ...ground, soil },
      assessment: { ...unknownAssessment('2026-11-01'), ...change },
    });
    if (plan.kind === 'no_plan') throw new Error('no plan');
    return { kg: plan.materials.gypsum ?? 0, why: (plan.materialsBecause.gypsum ?? []).map(({ code }) => code) };
  };
  // Half a kilogram for each square metre of a pit 1.125 m across.
  const dose = (Math.PI / 4) * 1.125 ** 2 * 0.5;
  it.each([
    ['sodic clay', 'clay', { sodiumSar: 13, saltDsM: 1 }, dose, 'need_gypsum_sodium'],
    ['clay loam counts as clay', 'clay_loam', { sodiumSar: 20 }, dose, 'need_gypsum_sodium'],
    [
      'salty clay without sodium: gypsum would exchange nothing',
      'clay',
      { sodiumSar: 12.9, saltDsM: 9 },
      0,
      'need_gypsum_sodium',
    ],
    ['salty clay whose sodium nobody tested', 'clay', { saltDsM: 4 }, dose, 'need_gypsum_salt'],
    ['clay with little salt', 'clay', { saltDsM: 3.9 }, 0, 'need_gypsum_salt'],
    ['clay nobody tested', 'clay', {}, 0, 'need_gypsum_untested'],
  ] as const)('gypsum: %s', (_name, soil, change, kg, code) => {
    const { kg: got, why } = tested(soil, change);
    expect(got).toBeCloseTo(kg, 6);
    expect(why).toEqual([code]);
  });
  it('gypsum: nothing to say in loam, or by a practice that uses none', () => {
    expect(tested('loam', { sodiumSar: 20 })).toEqual({ kg: 0, why: [] });
    expect(tested('clay', { sodiumSar: 20 }, preset('native-soil'))).toEqual({ kg: 0, why: [] });
  });
  it('take longer in clay and in stones', () => {
    const hours = (change: Partial<GroundFacts>) => planOf(preset('native-soil'), container, change).labour.hours;
    expect(hours({ soil: 'clay' })).toBeGreaterThan(hours({ soil: 'loam' }));
    expect(hours({ stony: true })).toBeGreaterThan(hours({}));
  });
});

describe('rock in the way', () => {
  // Ball 400 less 60 of surplus, 40 mm proud: the pit is 300 mm deep.
  it.each([
    [299, ['rock_in_pit']],
    [300, []],
    [null, []],
  ] as const)('at %s mm is named where the pit goes deeper', (rockAtMm, codes) => {
    const assessment = { ...unknownAssessment('2026-11-01'), rockAtMm };
    const plan = plantingPlan({ practice: fieldDefault, stock: container, ground, assessment, work: defaultWorkRules });
    if (plan.kind === 'no_plan') throw new Error('no plan');
    expect(plan.obstacles.map(({ code }) => code)).toEqual(codes);
  });
  it('counts soil dug out below the ball', () => {
    const practice = withChoice(fieldDefault, 'pitWidth.base', 'dug_deeper');
    const assessment = { ...unknownAssessment('2026-11-01'), rockAtMm: 310 };
    const plan = plantingPlan({ practice, stock: container, ground, assessment, work: defaultWorkRules });
    expect(plan).toMatchObject({ kind: 'plan', obstacles: [{ code: 'rock_in_pit', facts: { rockAtMm: 310 } }] });
  });
});

describe('the way from the kerb', () => {
  const heavy: Stock = { ...container, kind: 'balled', ballDiameterMm: 600, ballHeightMm: 400 };
  const carry = (change: Partial<Parameters<typeof plantingPlan>[0]>) => {
    const plan = plantingPlan({
      work: defaultWorkRules,
      practice: fieldDefault,
      stock: heavy,
      ground,
      assessment: null,
      ...change,
    });
    if (plan.kind === 'no_plan') throw new Error('no plan');
    return plan.carry;
  };
  it('is the measured distance and slope, else named as assumed', () => {
    const seen = unknownAssessment('2026-11-01');
    const measured = { ...seen, clearances: [{ thing: 'kerb' as const, distanceM: 12, by: 'tape' as const }] };
    expect(carry({}).because.map(({ code }) => code)).toContain('lift_route_assumed');
    expect(carry({ assessment: measured }).because.map(({ code }) => code)).toEqual(['unload_machine', 'lift_trolley']);
  });
  it('goes by machine where it is too steep for a trolley', () => {
    expect(carry({ route: { distanceM: 10, slopePct: 5 } }).means).toBe('trolley');
    expect(carry({ route: { distanceM: 10, slopePct: 25 } }).means).toBe('machine');
  });
});

describe('a guard', () => {
  it('is put on where deer or mowers are recorded', () => {
    const guards = (rubbedBy?: readonly 'deer'[]) => {
      const assessment = { ...unknownAssessment('2026-11-01'), rubbedBy };
      const plan = plantingPlan({
        work: defaultWorkRules,
        practice: fieldDefault,
        stock: container,
        ground,
        assessment,
      });
      return plan.kind === 'plan' ? plan.materials.guard : null;
    };
    expect([guards(), guards([]), guards(['deer'])]).toEqual([undefined, undefined, 1]);
  });
});

describe('what is sold', () => {
  it.each([0, -1, NaN])('in packs of %d is refused, not bought for ever', (mulch) => {
    const packs = { ...defaultWorkRules.packs, mulch };
    expect(() => shoppingList({ mulch: 100 }, {}, packs)).toThrow('packs.mulch must be within');
  });

  it('in buckets is four at most, however much a tree is given', () => {
    const buckets = (doses: number) => {
      const practice = withChoice(fieldDefault, 'firstSoak.doses', doses);
      const plan = plantingPlan({ practice, stock: container, ground, assessment: null, work: defaultWorkRules });
      return plan.kind === 'plan' ? plan.materials.bucket : NaN;
    };
    // 25.3 L a dose in buckets of 15 L.
    expect([buckets(0), buckets(1), buckets(2), buckets(10)]).toEqual([undefined, 2, 4, 4]);
  });
});
