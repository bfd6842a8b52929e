import { unknownAssessment, type GroundFacts } from '../ground';
import { defaultWorkRules, materialCodes, materials, plantingPlan, shoppingList, type PlantingPlan } from '../pit';
import { stepPicture } from '../drawing';
import { stockKinds, type Stock } from '../stock';
import { bareRoot, container, fall, openLoam as ground } from '../../testing/checked-case';
import { sayReason, sayStep } from '../wording';
import { choices, choiceTable, choiceValue, practiceDifferences, requirePractice, withChoice } from './choices';
import { practiceAt, type ChoiceValue } from './override';
import { fieldDefault, type Practice } from './practice';
import { presets } from './presets';

const stocks: readonly Stock[] = [
  container,
  { ...container, kind: 'balled', ballDiameterMm: 700, ballHeightMm: 500 },
  bareRoot,
];
const clay: GroundFacts = { ...ground, soil: 'clay', percolation: fall(2) };
/** Salty, windy, grazed: every choice comes to act on it. */
const hard = {
  ...unknownAssessment('2026-11-01'),
  saltDsM: 6,
  wind: 'exposed' as const,
  winterWindDeg: 250,
  summerWindDeg: 20,
  rubbedBy: ['deer' as const],
};
const planOf = (practice: Practice, stock: Stock = container, at: GroundFacts = ground): PlantingPlan => {
  const plan = plantingPlan({ work: defaultWorkRules, practice, stock, ground: at, assessment: hard });
  if (plan.kind === 'no_plan') throw new Error(plan.because.map(({ code }) => code).join());
  return plan;
};
const chosen = (...made: readonly (readonly [string, ChoiceValue])[]): Practice =>
  made.reduce((practice, [path, value]) => withChoice(practice, path, value), fieldDefault);
const stepsOf = (practice: Practice, stock?: Stock, at?: GroundFacts) =>
  planOf(practice, stock, at).steps.map((step) => ({ code: step.code, ...sayStep(step, 'metric') }));
const stepOf = (practice: Practice, code: string, stock?: Stock, at?: GroundFacts) =>
  stepsOf(practice, stock, at).find((step) => step.code === code);

describe('every option of every choice', () => {
  const all = choices.flatMap((choice) =>
    choice.kind === 'option' ? Object.keys(choice.options).map((key): [string, string] => [choice.path, key]) : [],
  );
  it.each(all)('%s = %s is computed, said, drawn and bought', (path, key) => {
    for (const stock of stocks) {
      for (const at of [ground, clay]) {
        // With something to mix in, so that where it goes matters.
        const plan = planOf(
          chosen(['backfill.material', 'coarse_compost'], ['backfill.share', 0.3], [path, key]),
          stock,
          at,
        );
        for (const step of plan.steps) {
          const words = Object.values(sayStep(step, 'us')).join(' ');
          expect(words).not.toMatch(/undefined|NaN|\[object/);
          expect(stepPicture(step, 'us')?.description ?? 'none').not.toMatch(/undefined|NaN/);
        }
        for (const reason of [
          ...plan.routine.because,
          ...plan.stakeBecause,
          ...plan.pit.amendments.because,
          ...plan.pit.spoilL.because,
          ...plan.facing.because,
          ...plan.labour.because,
          ...Object.values(plan.materialsBecause).flat(),
        ]) {
          expect(sayReason(reason, 'us')).toMatch(/^[A-Z0-9].*\.$/);
        }
        expect(Number.isFinite(plan.labour.hours) && plan.labour.hours > 0).toBe(true);
        for (const line of shoppingList(plan.materials, {}, defaultWorkRules.packs)) {
          expect(line.bought).toBeGreaterThanOrEqual(line.code === 'water' ? 0 : line.needed - 1e-9);
        }
      }
    }
  });
});

describe('the table of choices', () => {
  it('says of each who holds it and what research tends to say', () => {
    for (const choice of choices) {
      expect([choice.path, /\.$/.test(choice.research)]).toEqual([choice.path, true]);
      const held = choice.kind === 'option' ? Object.values(choice.options).map((one) => one.held) : [choice.held];
      for (const words of held) expect([choice.path, /^[A-Z0-9].{8,}\.$/.test(words)]).toEqual([choice.path, true]);
    }
  });
  it('names no choice twice', () => {
    expect(new Set(choices.map(({ path }) => path)).size).toBe(choices.length);
    expect(new Set(choiceTable.map(({ name }) => name)).size).toBe(choiceTable.length);
  });
  it('reaches every number, word and yes or no a practice decides', () => {
    const decided = new Set(choices.map(({ path }) => path));
    const named = new Set(['id', 'version', 'name']);
    // Days of calls and looks are lists of their own, soils that count as heavy are facts of the trade.
    const lists =
      /^(appliesTo|inspection\.(looksAfterMonths|remedyDays|remedyDaysOf|followUpDays)|flareAboveGrade\.heavySoils)/;
    const leaves = (value: unknown, path: string): string[] =>
      typeof value === 'object' && value !== null
        ? Object.entries(value).flatMap(([key, part]) => leaves(part, path ? `${path}.${key}` : key))
        : [path];
    const missing = leaves(fieldDefault, '').filter(
      (path) => !decided.has(path) && !named.has(path) && !lists.test(path),
    );
    expect(missing).toEqual([]);
  });
  it('holds a value in every preset that the choice may have, and no two that contradict each other', () => {
    for (const practice of presets) expect(() => requirePractice(practice)).not.toThrow();
    expect(new Set(presets.flatMap(({ appliesTo }) => appliesTo))).toEqual(new Set(stockKinds));
  });
});

describe('a choice made otherwise', () => {
  it('is told as a difference, and leaves the practice it was made from alone', () => {
    const { practice: at } = practiceAt(fieldDefault, [{ path: 'berm.where', value: 'none', reason: 'ponds here' }]);
    expect(practiceDifferences(fieldDefault, at).map(({ choice, a, b }) => [choice.path, a, b])).toEqual([
      ['berm.where', 'ball_edge', 'none'],
    ]);
    expect(fieldDefault.berm.where).toBe('ball_edge');
    expect(planOf(at).pit.berm).toBeNull();
  });
  it('of two for the same choice, the later counts', () => {
    const made = (value: number) => ({ path: 'mulch.thicknessMm', value, reason: 'as told' });
    expect(choiceValue(practiceAt(fieldDefault, [made(50), made(60)]).practice, 'mulch.thicknessMm')).toBe(60);
  });
  it('is set aside where it contradicts the practice, and the others still count', () => {
    const made = (path: string, value: number) => ({ path, value, reason: 'as told' });
    const slow = made('percolation.slowFromMmPerH', 50);
    const mulch = made('mulch.thicknessMm', 60);
    const { practice, setAside } = practiceAt(fieldDefault, [slow, mulch]);
    expect(setAside).toEqual([slow]);
    expect(practice.percolation).toEqual(fieldDefault.percolation);
    expect(practice.mulch.thicknessMm).toBe(60);
    // With the line above it moved too, both stand.
    const both = practiceAt(fieldDefault, [slow, made('percolation.goodFromMmPerH', 60)]);
    expect(both.setAside).toEqual([]);
    expect(both.practice.percolation).toMatchObject({ slowFromMmPerH: 50, goodFromMmPerH: 60 });
  });
  it('of a choice that is not known any more, it is passed over', () => {
    const { practice } = practiceAt(fieldDefault, [{ path: 'berm.moat', value: 1, reason: 'an older word' }]);
    expect(practice).toBe(fieldDefault);
  });
  it.each([
    ['berm.where', 'moat', /Berm must be ball_edge/],
    ['pitWidth.ballFactor', 9, /within 1–6/],
    ['pitWidth.ballFactor', NaN, /within 1–6/],
    ['berm.notInSlowSoil', 'yes', /must be yes or no/],
    ['no.such', 1, /no choice/],
  ] as const)('refuses %s = %s', (path, value, words) => {
    expect(() => withChoice(fieldDefault, path, value)).toThrow(words);
  });
  it.each([
    ['lifting.onePersonKg', 40, /One person lifts up to.*at most two lift up to.*30, got 40/],
    ['mulch.acceptedDepthMm.min', 120, /at most too thick over.*100, got 120/],
    ['inspection.flare.examineFromMm', 200, /at most counts as too deep over.*150, got 200/],
  ] as const)('is refused where it contradicts another: %s = %s', (path, value, words) => {
    expect(() => requirePractice(chosen([path, value]))).toThrow(words);
  });
});

describe('what a choice does', () => {
  it('flare: a share of the ball by soil, a twentieth in loam and a fifth in clay', () => {
    const practice = chosen(
      ['flareAboveGrade.ballShare', 0.05],
      ['flareAboveGrade.ballShareHeavy', 0.2],
      ['flareAboveGrade.heavySoilExtraMm', 0],
    );
    // Ball 400 less 60: 340 high. 40 + 17, and 40 + 68.
    expect(planOf(practice).pit.proudMm.value).toBeCloseTo(57, 9);
    expect(planOf(practice, container, { ...ground, soil: 'clay' }).pit.proudMm.value).toBeCloseTo(108, 9);
  });
  it('flare: allowances of clay and slow drainage add up where the practice says so', () => {
    expect(planOf(fieldDefault, container, clay).pit.proudMm.value).toBe(75);
    expect(planOf(chosen(['flareAboveGrade.allowances', 'sum']), container, clay).pit.proudMm.value).toBe(95);
  });
  it('base: a drain only where water stands, within the ticket', () => {
    const practice = chosen(['pitWidth.base', 'drain_if_stands']);
    expect(planOf(practice).pit.drainHole).toBe(false);
    expect(stepOf(practice, 'drain', container, clay)?.caution).toContain('ticket');
    expect(stepOf(practice, 'drain', container, { ...clay, percolation: fall(12) })).toBeUndefined();
    // Twenty minutes to bore it, and a quarter of the time volunteers look on.
    const hours = (one: Practice) => planOf(one, container, clay).labour.hours;
    expect(hours(practice) - hours(fieldDefault)).toBeCloseTo(20 / 60 / 0.75, 9);
  });
  it('fill: over the ring instead of the hole, a third of the top 200 mm outside the pit', () => {
    const practice = chosen(
      ['backfill.material', 'coarse_compost'],
      ['backfill.share', 0.3],
      ['backfill.place', 'whole_area'],
      ['mulch.leastRingDiameterMm', 2000],
    );
    const { pit, materials: amounts } = planOf(practice);
    // Ring 2,000 across less the pit of 1,125: π/4·(4 − 1.265625) m² × 200 mm × 0.3 = 128.85 L.
    expect(amounts.coarse_compost).toBeCloseTo(128.85, 1);
    expect(pit.amendments.inFillL).toBe(0);
    expect(pit.spoilL.value).toBeCloseTo(planOf(fieldDefault).pit.spoilL.value, 9);
    expect(stepOf(practice, 'amend')?.act).toContain('outside the pit');
  });
  it('fertiliser: is bought, measured out and cautioned', () => {
    const practice = chosen(['backfill.feeds.base', 'phosphate']);
    expect(planOf(practice).materials.bone_meal).toBe(0.15);
    expect(stepOf(practice, 'feed_base')).toMatchObject({
      act: expect.stringContaining('0.15 kg') as string,
      caution: expect.stringContaining('Soil test first; label and licence') as string,
    });
    expect(stepsOf(fieldDefault).map(({ code }) => code)).not.toContain('feed_base');
    expect(materialCodes.every((code) => materials[code].pack.size > 0)).toBe(true);
  });
  it('gypsum: is worked in only where the soil test asks for it', () => {
    expect(stepOf(fieldDefault, 'gypsum', container, clay)?.check).toContain('soil test');
    expect(stepOf(fieldDefault, 'gypsum')).toBeUndefined();
    expect(stepOf(chosen(['backfill.gypsum', 'no']), 'gypsum', container, clay)).toBeUndefined();
  });
  it('herbicide: is a step of its own, by label and licence', () => {
    expect(stepOf(chosen(['herbicide', 'yes']), 'herbicide')?.caution).toContain('licence');
    expect(stepOf(fieldDefault, 'herbicide')).toBeUndefined();
  });
  it('ring: out to the drip line, about a third of the height across', () => {
    const tall: Stock = { ...container, heightM: 5 };
    expect(planOf(fieldDefault, tall).pit.mulchRingMm).toBe(1200);
    expect(planOf(chosen(['mulch.ring', 'drip_line']), tall).pit.mulchRingMm).toBeCloseTo(1750, 6);
  });
  it('ring: sod lifted for it is kept and laid back upside down', () => {
    const practice = chosen(['mulch.ring', 'sod_back']);
    expect(stepOf(practice, 'lift_turf')?.act).toContain('upside down under the mulch');
    expect(stepOf(practice, 'mulch')?.act).toMatch(/^Sod upside down first\./);
  });
  it('mulch: thin over the ball or even', () => {
    expect(stepOf(fieldDefault, 'mulch')?.act).toContain('25 mm over the ball');
    expect(stepOf(chosen(['mulch.profile', 'even']), 'mulch')?.act).toContain('even');
    expect(stepOf(chosen(['mulch.material', 'needles']), 'mulch')?.caution).toContain('burn');
  });
  it('stake: before the tree where the practice sets out its stakes first', () => {
    const practice = chosen(['staking.rule', 'always'], ['staking.order', 'first']);
    const order = stepsOf(practice).map(({ code }) => code);
    expect(order.indexOf('stake_before')).toBeLessThan(order.indexOf('place'));
    expect(order).not.toContain('stake_after');
  });
});
