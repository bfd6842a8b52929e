import { addDaysTo } from '../calendar';
import { balance, type WaterDay, type WaterState, type WaterStore } from './balance';
import { leftAfter, stressCoefficient } from './stress';

const ball: WaterStore = {
  volumeL: 50,
  wiltingPoint: 0.15,
  fieldCapacity: 0.4,
  saturation: 0.7,
  areaM2: 0.16,
  drainsL: 1000,
};
const soil: WaterStore = {
  volumeL: 200,
  wiltingPoint: 0.13,
  fieldCapacity: 0.28,
  saturation: 0.45,
  areaM2: 0.5,
  drainsL: 1000,
};
const day = (i: number, change: Partial<WaterDay> = {}): WaterDay => ({
  day: addDaysTo('2026-06-01', i),
  demandL: 3,
  soilShare: 0.3,
  evaporationL: 0.2,
  rainMm: 0,
  dosesL: 0,
  soil,
  grownL: 0,
  ...change,
});
/** At field capacity: 12.5 L in the ball and 30 L in the soil. */
const full: WaterState = { ballL: 12.5, soilL: 30, variance: 1 };

/** Numbers by a seed, the same each time (mulberry32). */
function random(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}
const seeds = Array.from({ length: 60 }, (_, i) => i + 1);
function weather(seed: number, length = 40): WaterDay[] {
  const next = random(seed);
  return Array.from({ length }, (_, i) =>
    day(i, {
      demandL: next() * 12,
      soilShare: next() * 0.9,
      evaporationL: next(),
      rainMm: next() < 0.3 ? next() * 40 : 0,
      dosesL: next() < 0.15 ? next() * 60 : 0,
      soil: { ...soil, drainsL: next() < 0.5 ? 0.5 : 1000 },
      grownL: next() * 5,
      othersL: next() < 0.5 ? next() * 8 : 0,
    }),
  );
}

describe('stress', () => {
  it('follows the daily example of FAO-56, equations 82 to 84', () => {
    // 160 mm in all, p 0.40, 55 mm used up at the start, 5 mm a day asked for.
    let depletion = 55;
    const [depletions, ks]: [number[], number[]] = [[], []];
    for (let i = 0; i < 10; i++) {
      const k = stressCoefficient(depletion, 160, 0.4);
      depletion += 5 * k;
      ks.push(Math.round(k * 100) / 100);
      depletions.push(Math.round(depletion * 10) / 10);
    }
    expect(depletions).toEqual([60, 65, 69.9, 74.6, 79.1, 83.3, 87.3, 91.1, 94.7, 98.1]);
    expect(ks).toEqual([1, 1, 0.99, 0.94, 0.89, 0.84, 0.8, 0.76, 0.72, 0.68]);
  });

  it('within a day comes to the same however the day is cut', () => {
    for (const seed of seeds) {
      const next = random(seed);
      const [available, total, demand] = [next() * 40, 1 + next() * 40, next() * 60];
      const whole = leftAfter(available, total, demand);
      let cut = available;
      for (let i = 0; i < 7; i++) cut = leftAfter(cut, total, demand / 7);
      expect(cut).toBeCloseTo(whole, 9);
    }
  });

  it('is the daily equation where the step is small', () => {
    let depletion = 7;
    for (let i = 0; i < 20_000; i++) depletion += (9 / 20_000) * stressCoefficient(depletion, 12);
    expect(leftAfter(5, 12, 9)).toBeCloseTo(12 - depletion, 3);
  });
});

describe('the balance', () => {
  it.each(seeds)('keeps every drop, and its stores within what they hold (weather %i)', (seed) => {
    const days = weather(seed);
    const readings = days
      .filter((_, i) => i % 9 === 4)
      .map((one, i) => ({ day: one.day, share: (i % 5) / 3, errorShare: 0.15 }));
    let before = full;
    for (const one of balance(ball, full, days, readings)) {
      const into = one.rainL + one.dosesL + one.reachedL + one.correctionL;
      const out = one.usedL + one.othersL + one.evaporatedL + one.drainedL;
      const change = one.ballL + one.soilL - before.ballL - before.soilL;
      expect(Math.abs(into - out - change)).toBeLessThan(1e-9);
      expect(one.ballL).toBeGreaterThanOrEqual(0);
      expect(one.ballL).toBeLessThanOrEqual(50 * 0.55 + 1e-9);
      expect(one.soilL).toBeGreaterThanOrEqual(0);
      expect(one.soilL).toBeLessThanOrEqual(200 * 0.32 + 1e-9);
      expect(one.supply).toBeGreaterThanOrEqual(0);
      expect(one.supply).toBeLessThanOrEqual(1);
      before = one;
    }
  });

  it('a neighbour’s roots take their share, and a greater one of what is left the longer no rain falls', () => {
    const days = Array.from({ length: 30 }, (_, i) => day(i, { othersL: 1.5 }));
    const shared = balance(ball, full, days);
    const alone = balance(
      ball,
      full,
      days.map((one) => ({ ...one, othersL: 0 })),
    );
    shared.forEach(({ supply }, i) => expect(supply).toBeLessThan(alone[i]?.supply ?? 0));
    const shareOf = ({ othersL, usedL }: (typeof shared)[number]) => othersL / (othersL + usedL);
    const [early, late] = [shared[0], shared[8]];
    expect(early && late && shareOf(late) > shareOf(early)).toBe(true);
    // Nothing is taken that is not there.
    expect(shared.at(-1)?.soilL).toBeGreaterThanOrEqual(0);
    expect(shared.reduce((sum, { othersL }) => sum + othersL, 0)).toBeLessThanOrEqual(30);
  });

  it.each(seeds)('is never wetter for more demand, and never drier for more rain (weather %i)', (seed) => {
    const days = weather(seed);
    const usual = balance(ball, full, days);
    const hotter = balance(
      ball,
      full,
      days.map((one) => ({ ...one, demandL: one.demandL * 1.3 })),
    );
    const rainier = balance(
      ball,
      full,
      days.map((one) => ({ ...one, rainMm: one.rainMm + 3 })),
    );
    usual.forEach((one, i) => {
      expect(hotter[i]?.ballL ?? 0).toBeLessThanOrEqual(one.ballL + 1e-9);
      expect(rainier[i]?.ballL ?? 0).toBeGreaterThanOrEqual(one.ballL - 1e-9);
    });
  });

  it('changes nothing but by draining where nothing is asked and nothing falls', () => {
    const still = balance(ball, full, [day(0, { demandL: 0, evaporationL: 0 })])[0];
    expect([still?.ballL, still?.soilL, still?.drainedL]).toEqual([12.5, 30, 0]);
    const soaked: WaterState = { ...full, ballL: 20 };
    const after = balance(ball, soaked, [day(0, { demandL: 0, evaporationL: 0, soil: { ...soil, drainsL: 4 } })])[0];
    // 7.5 L run out of the ball into the soil, of which 4 go down.
    expect([after?.ballL, after?.soilL, after?.drainedL]).toEqual([12.5, 33.5, 4]);
  });

  it('is waterlogged where it cannot drain, and not where it can', () => {
    const flood = (drainsL: number) =>
      balance({ ...ball, drainsL }, full, [day(0, { dosesL: 60, demandL: 0, evaporationL: 0 })])[0]?.waterlogged;
    // The ball's air is 15 L: over 20 L in it more than half of that is filled.
    expect([flood(0.5), flood(1000)]).toEqual([true, false]);
  });

  it('is under stress once less than half is left, and not before', () => {
    const stressed = (ballL: number) =>
      balance(ball, { ...full, ballL }, [day(0, { demandL: 1, soilShare: 0, evaporationL: 0 })])[0]?.stressed;
    expect([stressed(12), stressed(8), stressed(3)]).toEqual([false, false, true]);
  });

  it('is moved by a reading by the weight of its error, and is surer after it', () => {
    const days = [day(0, { demandL: 0, evaporationL: 0 })];
    const read = (errorShare: number) =>
      balance(ball, full, days, [{ day: days[0]?.day ?? '', share: 0.4, errorShare }])[0];
    const [sure, unsure, none] = [read(0.001), read(2), balance(ball, full, days)[0]];
    expect(sure?.share).toBeCloseTo(0.4, 2);
    expect(unsure?.share).toBeGreaterThan(0.95);
    expect(sure?.correctionL).toBeCloseTo((sure?.ballL ?? 0) - 12.5, 9);
    expect(sure?.errorShare).toBeLessThan(none?.errorShare ?? 0);
  });

  it('grows unsure day by day until somebody looks', () => {
    const errors = balance(
      ball,
      full,
      Array.from({ length: 10 }, (_, i) => day(i)),
    ).map(({ errorShare }) => errorShare);
    expect(errors).toEqual([...errors].sort((a, b) => a - b));
  });

  it('knows a ball that overflowed to be full, whatever it held', () => {
    const lost: WaterState = { ...full, variance: 100 };
    const error = (dosesL: number) => balance(ball, lost, [day(0, { dosesL })])[0]?.errorShare ?? 1;
    expect(error(5)).toBeGreaterThan(0.3);
    expect(error(60)).toBeLessThanOrEqual(0.1);
  });

  it('refuses what no day is', () => {
    expect(() => balance(ball, full, [day(0, { rainMm: -1 })])).toThrow('rainMm must be within 0');
    expect(() => balance(ball, full, [day(0)], [{ day: '2020-01-01', share: 1, errorShare: 0.1 }])).toThrow(
      'readings must be of the days of the balance',
    );
  });
});
