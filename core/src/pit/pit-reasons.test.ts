import { percolationRate, unknownGround, type GroundFacts } from '../ground';
import { fieldDefault, presets, withChoice, type Practice } from '../practice';
import type { PitReason } from './reasons';
import type { Stock } from '../stock';
import { bareRoot, container, fall, openLoam } from '../../testing/checked-case';
import { groundGaps, overDug, percolationConsequences, pitPlan, surplusLeft, type PitInput } from './pit-plan';

type Change = Partial<Omit<PitInput, 'ground'>> & { ground?: Partial<GroundFacts> };
/** The checked container on level loam by the field default, with what a case changes. */
const resultOf = ({ ground, ...rest }: Change) =>
  pitPlan({ stock: container, practice: fieldDefault, ...rest, ground: { ...openLoam, ...ground } });
function planned(change: Change = {}) {
  const result = resultOf(change);
  if (result.kind !== 'plan') throw new Error(result.because.map(({ code }) => code).join());
  return result;
}
function refused(change: Change): readonly PitReason[] | 'planned' {
  const result = resultOf(change);
  return result.kind === 'no_plan' ? result.because : 'planned';
}
const called = (id: string) => {
  const found = presets.find((one) => one.id === id);
  if (!found) throw new Error(id);
  return found;
};
const codes = (reasons: readonly PitReason[]) => reasons.map(({ code }) => code);
const about = (value: number, digits = 2) => expect.closeTo(value, digits) as number;
const balled = { kind: 'balled', caliperMm: 50, heightM: 3, ballDiameterMm: 700, ballHeightMm: 500 } as const;
/** Falls that grow smaller from reading to reading: the hole is stopping. */
const stopping = [300, 296, 293, 291, 289, 288, 288].map((levelMm, i) => ({ minute: 10 * i, levelMm }));

describe('every number of a pit says where it comes from', () => {
  // Independent calculation of the checked container: He 340, d 300, pit 209.85 L, ball below grade 40.56 L.
  it('for a container on level, open ground', () => {
    const plan = planned();
    expect(plan.depthMm.because).toEqual([
      { code: 'ball_height_less_surplus', facts: { ballHeightMm: 400, surplusMm: 60, effectiveMm: 340 } },
      { code: 'depth_is_ball_less_proud', facts: { effectiveMm: 340, proudMm: 40, depthMm: 300 } },
    ]);
    expect(plan.widthMm).toEqual({
      value: 1125,
      because: [{ code: 'width_times_ball', facts: { factor: 2.5, ballMm: 450, compacted: false } }],
    });
    expect(plan.proudMm.because).toEqual([{ code: 'flare_base', facts: { baseMm: 40, practice: 'Field default' } }]);
    expect(plan.pitL.because).toEqual([
      { code: 'pit_volume', facts: { topMm: 1125, bottomMm: 750, meanDepthMm: 300 } },
    ]);
    expect(plan.downhillProudMm.because).toEqual([
      { code: 'downhill_exposure', facts: { slopePct: 0, ballMm: 450, exposureMm: 0 } },
    ]);
    expect(plan.backfillL.because).toEqual([
      { code: 'backfill_is_pit_less_ball', facts: { pitL: about(209.85), ballBelowGradeL: about(40.56) } },
    ]);
    expect(plan.spoilL.because).toEqual([
      { code: 'soil_moved', facts: { dugL: about(209.85), cavedL: 0, backL: about(169.29) } },
      { code: 'soil_built', facts: { moundL: about(3.996), bankL: 0, bermL: about(24.95) } },
      { code: 'spoil_bulks', facts: { leftL: about(11.61), bulking: 1.25 } },
    ]);
    expect(plan.mulchL.because).toEqual([
      {
        code: 'mulch_ring',
        facts: { ringMm: 1200, thicknessMm: 75, gapMm: 75, cutByStrip: false, lengthMm: 1200 },
      },
    ]);
    expect([plan.mulchRingMm, plan.mulchLengthMm]).toEqual([1200, 1200]);
    expect(plan.amendments).toEqual({
      each: [],
      inFillL: 0,
      because: [{ code: 'amendment_none', facts: {} }],
    });
    expect(plan.bermBecause).toEqual([
      { code: 'berm_placed', facts: { where: 'ball_edge', heightMm: 90, storeL: about(14.31) } },
    ]);
    expect([plan.cautions, plan.graftAboveGradeMm, plan.drainHole, plan.fillUnderBallMm]).toEqual([[], null, false, 0]);
  });

  it('for its weight, and who lifts it', () => {
    // 54.07 L of ball at 0.8 kg/L; a stem of 4 cm at breast height by Jenkins 2003, 1.9 times its dry mass.
    const heavy = planned();
    expect(heavy.massKg.because).toEqual([
      { code: 'mass_ball_and_top', facts: { ballKg: about(43.26), topKg: about(4.976) } },
    ]);
    expect(heavy.lifting).toEqual({
      team: { kind: 'equipment', limitKg: 34 },
      because: [{ code: 'lift_equipment', facts: { limitKg: 34 } }],
    });
    const light = planned({ stock: bareRoot });
    expect(light.massKg.because).toEqual([{ code: 'mass_ball_and_top', facts: { ballKg: 0, topKg: about(0.89, 3) } }]);
    expect(light.lifting).toEqual({
      team: { kind: 'people', people: 1, limitKg: 23 },
      because: [{ code: 'lift_people', facts: { people: 1, limitKg: 23 } }],
    });
  });

  it('for bare roots', () => {
    const plan = planned({ stock: bareRoot });
    expect(plan.depthMm).toEqual({
      value: 260,
      because: [{ code: 'depth_bare_root', facts: { rootDepthMm: 300, proudMm: 40, depthMm: 260 } }],
    });
    expect(plan.widthMm).toEqual({
      value: 800,
      because: [{ code: 'width_bare_root', facts: { spreadMm: 500, marginMm: 300 } }],
    });
    // 700 mm of strip cut 800 mm of hole, which is longer for it.
    const narrow = planned({ stock: bareRoot, ground: { stripWidthMm: 700 } });
    expect(codes(narrow.widthMm.because)).toEqual(['width_bare_root', 'width_stretched']);
    expect(surplusLeft(bareRoot, fieldDefault)).toBe(0);
  });

  it('for a ball in a strip, and for one the strip does not touch', () => {
    const stock = { ...balled, topRootsDepthMm: 50 };
    const cut = planned({ stock, ground: { stripWidthMm: 900 } });
    expect(cut.widthMm.because).toEqual([
      { code: 'width_times_ball', facts: { factor: 2.5, ballMm: 700, compacted: false } },
      { code: 'width_stretched', facts: { stripWidthMm: 900, fullWidthMm: 1750, lengthMm: about(2865.68) } },
    ]);
    expect(cut.mulchL.because[0]?.facts).toMatchObject({ cutByStrip: true, lengthMm: about(2865.68) });
    for (const stripWidthMm of [1750, 2600]) {
      const whole = planned({ stock, ground: { stripWidthMm } });
      expect(codes(whole.widthMm.because)).toEqual(['width_times_ball']);
      expect(whole.mulchL.because[0]?.facts).toMatchObject({ cutByStrip: false, ringMm: 1750, lengthMm: 1750 });
    }
    // The ball may fill its strip.
    expect(planned({ stock, ground: { stripWidthMm: 700 } }).widthMm.value).toBe(700);
  });

  it('for compacted ground and a slope', () => {
    expect(planned({ ground: { compacted: true } }).widthMm).toEqual({
      value: 1350,
      because: [{ code: 'width_times_ball', facts: { factor: 3, ballMm: 450, compacted: true } }],
    });
    const slope = planned({ stock: { ...balled, topRootsDepthMm: 90 }, ground: { slopePct: 12 } });
    expect(slope.downhillProudMm.because).toEqual([
      { code: 'downhill_exposure', facts: { slopePct: 12, ballMm: 700, exposureMm: 84 } },
    ]);
    expect(planned({ ground: { slopePct: null } }).downhillProudMm.because[0]?.facts).toMatchObject({ slopePct: 0 });
  });

  it('for what is mixed in', () => {
    const fill = (change: Partial<Practice['backfill']>): Practice => ({
      ...fieldDefault,
      backfill: { ...fieldDefault.backfill, ...change },
    });
    const shared = planned({ practice: fill({ material: 'coarse_compost', share: 0.25 }) });
    const quarter = { material: 'coarse_compost', place: 'in_fill', litres: about(169.29 / 4) };
    expect(shared.amendments).toEqual({
      each: [{ ...quarter, inFillL: about(169.29 / 4), turnedL: 0 }],
      inFillL: about(169.29 / 4),
      because: [{ code: 'amendment_share', facts: { ...quarter, sharePct: 25 } }],
    });
    // As much soil more is left over as was bought.
    expect(shared.soil.leftL).toBeCloseTo(11.62 + 169.29 / 4, 1);
    for (const nothing of [
      fill({ material: 'coarse_compost', share: 0 }),
      fill({ material: 'site_soil', share: 0.3 }),
    ]) {
      expect(planned({ practice: nothing }).amendments).toMatchObject({
        each: [],
        because: [{ code: 'amendment_none' }],
      });
    }
    const area = withChoice(
      fill({ material: 'coarse_compost', share: 0.3, place: 'whole_area' }),
      'mulch.leastRingDiameterMm',
      2400,
    );
    expect(planned({ practice: area }).amendments.because).toEqual([
      {
        code: 'amendment_area',
        facts: {
          material: 'coarse_compost',
          place: 'whole_area',
          // π/4 · (2.4² − 1.125²) m² · 200 mm · 0.3.
          litres: about((Math.PI / 4) * (2.4 ** 2 - 1.125 ** 2) * 60),
          sharePct: 30,
          ringMm: 2400,
          depthMm: 200,
        },
      },
    ]);
    const peat = planned({ practice: fill({ material: 'peat', share: 0.3 }), ground: { percolation: fall(12) } });
    expect(peat.amendments.because).toEqual([{ code: 'amendment_refused', facts: { material: 'peat' } }]);
  });

  it('for mulch that finds no room, and for a practice that lays none', () => {
    const mulch = (change: Partial<Practice['mulch']>): Practice => ({
      ...fieldDefault,
      pitWidth: { ...fieldDefault.pitWidth, ballFactor: 1 },
      mulch: { ...fieldDefault.mulch, leastRingDiameterMm: 600, ...change },
    });
    expect(planned({ practice: mulch({ gapMm: 300 }) }).mulchL).toEqual({
      value: 0,
      because: [{ code: 'mulch_no_room', facts: { ringMm: 600, gapMm: 300 } }],
    });
    expect(planned({ practice: mulch({ thicknessMm: 0 }) }).mulchL).toMatchObject({
      value: 0,
      because: [{ code: 'mulch_ring' }],
    });
  });

  it('for water on bare roots, which rest unless somebody knows better', () => {
    const ground = { percolation: fall(12) };
    expect(codes(planned({ stock: bareRoot, ground }).firstWaterL.because)).toEqual(['soak_dormant_wet']);
    expect(codes(planned({ stock: bareRoot, ground, dormant: false }).firstWaterL.because)).toEqual([
      'soak_by_pit_air',
    ]);
    expect(codes(planned({ ground, dormant: true }).firstWaterL.because)).toEqual(['soak_by_ball_store']);
  });
});

describe('the height of the flare says each part', () => {
  const why = (change: Change) => planned(change).proudMm.because.slice(1);
  const flare = (change: Partial<Practice['flareAboveGrade']>): Practice => ({
    ...fieldDefault,
    flareAboveGrade: { ...fieldDefault.flareAboveGrade, ...change },
  });

  it('soil, stones and water, and that the largest rules', () => {
    const ground = { soil: 'clay', stony: true, percolation: fall(2) } as const;
    const parts = [
      { code: 'flare_heavy_soil', facts: { extraMm: 20, soil: 'clay' } },
      { code: 'flare_stony', facts: { extraMm: 20 } },
      { code: 'flare_slow', facts: { extraMm: 35, percolation: 'stands' } },
    ];
    expect(why({ ground })).toEqual([...parts, { code: 'flare_larger_allowance_rules', facts: { extraMm: 35 } }]);
    expect(why({ ground, practice: flare({ allowances: 'sum' }) })).toEqual(parts);
    expect(codes(why({ ground: { stony: true } }))).toEqual(['flare_stony']);
  });
  it('no rule among allowances of which only one counts', () => {
    const ground = { soil: 'clay', percolation: fall(12) } as const;
    expect(codes(why({ ground, practice: flare({ heavySoilExtraMm: 0 }) }))).toEqual([
      'flare_heavy_soil',
      'flare_slow',
    ]);
  });
  it('that nobody tested the drainage', () => {
    expect(why({ ground: { percolation: [] } })).toEqual([{ code: 'flare_percolation_unknown', facts: {} }]);
  });
  it('a share of the ball', () => {
    expect(why({ practice: flare({ ballShare: 0.1 }) })).toEqual([
      { code: 'flare_ball_share', facts: { sharePct: 10, ballHeightMm: 340, extraMm: 34 } },
    ]);
  });
  it('what settles, whether the practice dug deeper or a hand slipped', () => {
    const settles = (fillUnderBallMm: number) => ({
      code: 'flare_settlement',
      facts: { fillUnderBallMm, sharePct: 10, settlementMm: fillUnderBallMm / 10, firmed: true },
    });
    expect(why({ fillUnderBallMm: 80 })).toEqual([settles(80)]);
    const deeper = withChoice(fieldDefault, 'pitWidth.base', 'dug_deeper');
    const { fillUnderBallMm } = planned({ practice: deeper });
    expect(fillUnderBallMm).toBeGreaterThan(0);
    expect(why({ practice: deeper })).toEqual([
      { code: 'base_put_back', facts: { fillMm: fillUnderBallMm } },
      settles(fillUnderBallMm),
    ]);
    expect(why({ practice: deeper, fillUnderBallMm: 60 })).toEqual([settles(60)]);
  });
  it('surplus that stays, and a graft', () => {
    expect(why({ stock: { ...balled, topRootsDepthMm: 200 } })).toEqual([
      { code: 'flare_for_later', facts: { leftMm: 50, extraMm: 25, months: 12 } },
    ]);
    expect(why({ stock: { ...container, graftHeightMm: 0 } })).toEqual([
      { code: 'flare_for_graft', facts: { graftMm: 0, leastMm: 50, extraMm: 10 } },
    ]);
    expect(why({ stock: { ...container, graftHeightMm: 10 } })).toEqual([]);
  });
});

describe('there is no plan, and the numbers say why', () => {
  it('on a slope too steep, or for a ball too shallow for any ground', () => {
    const stock = { ...balled, topRootsDepthMm: 90 };
    // 370 mm uphill less half of 700 mm.
    expect(refused({ stock, ground: { slopePct: 50 } })).toEqual([
      { code: 'slope_too_steep', facts: { downhillDepthMm: 20, leastMm: 100, slopePct: 50 } },
    ]);
    const shallow = (topRootsDepthMm: number): Stock => ({ ...container, ballHeightMm: 200, topRootsDepthMm });
    const tooShallow = [{ code: 'ball_too_shallow', facts: { depthMm: 95, leastMm: 100 } }];
    expect(refused({ stock: shallow(65) })).toEqual(tooShallow);
    expect(refused({ stock: shallow(65), ground: { slopePct: 10 } })).toEqual(tooShallow);
    expect(refused({ stock: shallow(60) })).toBe('planned');
    expect(codes(refused({ stock: shallow(60), ground: { slopePct: 10 } }) as readonly PitReason[])).toEqual([
      'slope_too_steep',
    ]);
  });
  it('in a strip under the ball, or for a kind of stock the practice does not plant', () => {
    const stock = { ...balled, topRootsDepthMm: 90 };
    expect(refused({ stock, ground: { stripWidthMm: 600 }, offers: [] })).toEqual([
      { code: 'strip_under_ball', facts: { stripWidthMm: 600, ballMm: 700 } },
      { code: 'strip_takes', facts: { stock: 'balled', largestMm: 600 } },
      { code: 'strip_no_offer', facts: { stock: 'balled' } },
    ]);
    expect(refused({ stock: bareRoot, practice: called('native-soil') })).toEqual([
      { code: 'stock_kind_not_covered', facts: { stock: 'bare_root', practice: 'Native soil, hands off' } },
    ]);
  });
});

describe('cautions of a pit', () => {
  it('name the graft, the wire and the water that stands, and nothing else', () => {
    const stock = { ...container, graftHeightMm: 120 };
    // 2 mm/h stand by the shipped lines: 35 mm more than the 40.
    expect(planned({ stock, ground: { wireHeightM: 7, percolation: fall(2) } }).cautions).toEqual([
      { code: 'graft_above_grade', facts: { aboveMm: 195 } },
      { code: 'wires_over_spot', facts: { wireHeightM: 7 } },
      { code: 'percolation_stands', facts: { rateMmPerH: about(2, 6) } },
    ]);
    expect(planned({ ground: { wireHeightM: null, percolation: fall(12) } }).cautions).toEqual([]);
  });
});

describe('what a class of percolation changes', () => {
  const slow = (percolation: 'slow' | 'stands') => ({ code: 'flare_slow', facts: { extraMm: 35, percolation } });
  it('by the field default', () => {
    expect(percolationConsequences('good', fieldDefault)).toEqual([{ code: 'percolation_usual', facts: {} }]);
    expect(percolationConsequences('fast', fieldDefault)).toEqual([{ code: 'water_fast_soil', facts: {} }]);
    for (const name of ['slow', 'stands'] as const) {
      expect(percolationConsequences(name, fieldDefault)).toEqual([
        slow(name),
        { code: 'berm_left_out', facts: {} },
        { code: 'water_slow_soil', facts: {} },
      ]);
    }
  });
  it('by practices that build no berm anyway, keep it, or stand every tree alike', () => {
    const kept: Practice = { ...fieldDefault, berm: { ...fieldDefault.berm, notInSlowSoil: false } };
    expect(codes(percolationConsequences('slow', kept))).toEqual(['flare_slow', 'water_slow_soil']);
    for (const id of ['heavy-clay', 'garden-enriched']) {
      expect(codes(percolationConsequences('slow', called(id)))).toEqual(['water_slow_soil']);
    }
    expect(codes(percolationConsequences('slow', called('native-soil')))).toEqual(['berm_left_out', 'water_slow_soil']);
  });
});

describe('what is missing at a spot', () => {
  const gaps = (change: Partial<GroundFacts>) => groundGaps({ ...openLoam, ...change }, fieldDefault.percolation);
  it('is each fact nobody gathered', () => {
    expect(codes(groundGaps(unknownGround, fieldDefault.percolation))).toEqual([
      'soil_missing',
      'percolation_missing',
      'slope_missing',
    ]);
    expect(gaps({})).toEqual([]);
  });
  it('is a test that is questioned, or has not settled', () => {
    expect(gaps({ percolation: fall(60).slice(0, 2) })).toEqual([
      { code: 'percolation_questioned', facts: { question: 'too_few_readings' } },
    ]);
    const result = percolationRate(stopping, fieldDefault.percolation);
    if (result.kind !== 'rate') throw new Error(result.question);
    const { rateMmPerH, lowMmPerH, highMmPerH } = result;
    expect(gaps({ percolation: stopping })).toEqual([
      { code: 'percolation_unsettled', facts: { rateMmPerH, lowMmPerH, highMmPerH } },
    ]);
  });
});

it('refuses a hole no crew digs', () => {
  const dug = (dugDepthMm: number) => () => overDug({ dugDepthMm, plannedDepthMm: 300, practice: fieldDefault });
  expect(dug(3001)).toThrow('dugDepthMm must be within 0–3000 mm, got 3001');
  expect(dug(-1)).toThrow('dugDepthMm must be within 0–3000 mm, got -1');
});
